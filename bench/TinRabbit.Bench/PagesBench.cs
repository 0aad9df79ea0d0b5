using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Browser.Tests;
using TinRabbit.Core;
using TinRabbit.Core.Pages;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Bench;

/// <summary>How long a web shop with as many pages as it may have takes to show its tree, and to change one page.</summary>
internal static class PagesBench
{
    private const int InEach = 20;
    private const int Repeats = 5;

    internal static async Task Report()
    {
        ReadingBench.Report();
        Console.WriteLine("pages: a web shop of pages with 3,000 characters each, over HTTP; medians of 5");
        Console.WriteLine("   pages   first list s   list ms   answer MB   menu flag ms   move ms   publish ms");
        foreach (var count in new[] { 1_000, Bounds.Pages })
            await Measure(count);
    }

    private static async Task Measure(int count)
    {
        using var server = new RunningShop(demo: true);
        server.Kill();
        var pages = await Fill(Path.Combine(server.Folder, "tinrabbit.db"), count);
        server.StartAgain();
        using var client = new HttpClient { BaseAddress = new(server.Address), Timeout = TimeSpan.FromMinutes(10) };
        var clock = Stopwatch.StartNew();
        var bytes = (await client.GetByteArrayAsync("/api/pages")).Length;
        var first = clock.Elapsed.TotalSeconds;
        var list = await Median(_ => client.GetByteArrayAsync("/api/pages"));
        var flag = await Median(i => Put($"/api/pages/{pages[i + 30]}", Change(inMenu: false)));
        var move = await Median(i => Put($"/api/pages/{pages[i + 60]}/place", new { parentId = (int?)pages[0], order = 0 }));
        var publish = await Median(i => Put($"/api/pages/{pages[i + 90]}", Change(isPublished: true)));
        Console.WriteLine(
            $"{count, 8:#,0}   {first, 12:0.00}   {list, 7:0}   {bytes / 1e6, 9:0.0}   {flag, 12:0}   {move, 7:0}   {publish, 10:0}"
        );

        async Task<object> Put(string path, object body)
        {
            using var answer = await client.PutAsJsonAsync(path, body);
            return answer.EnsureSuccessStatusCode();
        }
    }

    private static object Change(bool? inMenu = null, bool? isPublished = null) =>
        new
        {
            kind = (string?)null,
            inMenu,
            isPublished,
            hasSuffix = (bool?)null,
            isHome = (bool?)null,
        };

    private static async Task<double> Median<T>(Func<int, Task<T>> ask)
    {
        var times = new List<double>();
        for (var i = 0; i < Repeats; i++)
        {
            var clock = Stopwatch.StartNew();
            await ask(i);
            times.Add(clock.Elapsed.TotalMilliseconds);
        }

        return times.Order().ElementAt(Repeats / 2);
    }

    private static async Task<List<int>> Fill(string file, int count)
    {
        await using var db = TinContext.Open(file);
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync();
        var body = string.Concat(
            Enumerable.Repeat("<p>A cedar nest box for wrens, with a roof that opens and a floor that dries.</p>", 36)
        );
        var ids = new List<int>();
        foreach (var some in Enumerable.Range(0, count).Chunk(1_000))
        {
            var pages = some.Select(i =>
                {
                    var product = new ProductRow
                    {
                        Name = $"Page {i}",
                        IsPage = true,
                        ShopId = shop.Id,
                    };
                    db.Products.Add(product);
                    var fields = new JsonObject
                    {
                        ["heading"] = $"Nest boxes, part {i}",
                        ["slug"] = $"nest-boxes-{i}",
                        ["body"] = ids.Count > 0 ? $"<p><a href=\"page:{ids[i % ids.Count]}\">More</a></p>{body}" : body,
                    };
                    return new PageRow
                    {
                        Listing = ListingEditor.Add(product, "web-shop", db.Now, ListingText.Of(fields)),
                        Kind = PageKind.Category,
                        ParentId = ids.Count > 0 ? ids[i / InEach % ids.Count] : null,
                        Order = i % InEach,
                        Slug = $"nest-boxes-{i}",
                        CreatedAt = db.Now,
                    };
                })
                .ToList();
            db.Pages.AddRange(pages);
            await db.SaveChangesAsync();
            ids.AddRange(pages.Select(p => p.Id));
            db.ChangeTracker.Clear();
        }

        return ids;
    }
}
