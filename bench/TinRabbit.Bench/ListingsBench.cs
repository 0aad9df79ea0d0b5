using System.Diagnostics;
using System.Net.Http.Json;
using TinRabbit.Browser.Tests;
using TinRabbit.Core.Measures;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;

namespace TinRabbit.Bench;

/// <summary>How long a shop of thousands of listings takes to open its list, to weigh all of them, and to preview one change to all.</summary>
internal static class ListingsBench
{
    private const int PicksOfEach = 20;

    internal static async Task Report()
    {
        Console.WriteLine($"listings: a shop of products with {PicksOfEach} picks each, over HTTP; the list is the median of 5");
        Console.WriteLine("  listings   list ms   first 100 weighed ms   all weighed s   a listing ms   preview of one edit s");
        foreach (var count in new[] { 500, 5_000 })
            await Measure(count);
    }

    private static async Task Measure(int count)
    {
        using var server = new RunningShop(demo: true);
        server.Kill();
        await Fill(Path.Combine(server.Folder, "tinrabbit.db"), count);
        server.StartAgain();
        using var client = new HttpClient { BaseAddress = new(server.Address), Timeout = TimeSpan.FromMinutes(10) };
        var lists = new List<double>();
        var ids = new List<int>();
        for (var i = 0; i < 5; i++)
        {
            var clock = Stopwatch.StartNew();
            var list = await client.GetFromJsonAsync<System.Text.Json.Nodes.JsonNode>("/api/listings?country=us");
            lists.Add(clock.Elapsed.TotalMilliseconds);
            ids = [.. list!["listings"]!.AsArray().Select(l => l!["id"]!.GetValue<int>())];
        }

        var weighing = Stopwatch.StartNew();
        var first = 0.0;
        using (
            var answer = await client.SendAsync(
                new(HttpMethod.Post, "/api/listings/scores") { Content = JsonContent.Create(new { country = "us" }) },
                HttpCompletionOption.ResponseHeadersRead
            )
        )
        using (var lines = new StreamReader(await answer.Content.ReadAsStreamAsync()))
            for (var done = 0; await lines.ReadLineAsync() is not null; done++)
                if (done == 100)
                    first = weighing.Elapsed.TotalMilliseconds;
        var all = weighing.Elapsed.TotalSeconds;
        var edit = Stopwatch.StartNew();
        using (
            var plan = await client.PostAsJsonAsync(
                "/api/listings/edit/preview",
                new
                {
                    ids,
                    kind = "replace",
                    find = "bird",
                    replacement = "owl",
                    matchesCase = false,
                    wholeWords = true,
                    roles = Array.Empty<string>(),
                    country = "us",
                }
            )
        )
            await plan.Content.ReadAsStringAsync();
        Console.WriteLine(
            $"  {ids.Count, 8} {lists.Order().ElementAt(2), 9:F0} {first, 22:F0} {all, 15:F1} {all * 1000 / ids.Count, 14:F2} {edit.Elapsed.TotalSeconds, 23:F1}"
        );
    }

    private static async Task Fill(string database, int count)
    {
        await using var db = TinContext.Open(database);
        var shop = db.Shops.OrderBy(s => s.Id).Select(s => s.Id).First();
        var terms = db
            .Terms.Where(t => t.MarketId == "hedgerow-fair-us")
            .OrderBy(t => t.Id)
            .Take(400)
            .Select(t => new { t.Text, t.Key })
            .ToList();
        for (var i = 0; i < count / 2; i++)
        {
            var picks = Enumerable.Range(0, PicksOfEach).Select(k => terms[(i * 7 + k * 13) % terms.Count]).DistinctBy(t => t.Key).ToList();
            var product = new ProductRow { Name = $"Product {i}", ShopId = shop };
            var title = string.Join(", ", picks.Take(4).Select(p => p.Text));
            foreach (var platform in new[] { "hedgerow-fair", "longbarrow" })
                ListingEditor.Add(
                    product,
                    platform,
                    DateTime.UtcNow,
                    ListingText.Of(
                        System.Text.Json.JsonSerializer.Serialize(
                            new { title, description = $"Made by hand: {title}. For any garden, and a gift for those who watch birds." }
                        )
                    )
                );
            db.Picks.AddRange(
                picks.Select(
                    (p, k) =>
                        new PickRow
                        {
                            Product = product,
                            Text = p.Text,
                            Key = p.Key,
                            Fit = Fit.Good,
                            Order = k,
                        }
                )
            );
            db.Products.Add(product);
        }

        await db.SaveChangesAsync();
    }
}
