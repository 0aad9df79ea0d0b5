using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Browser.Tests;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Bench;

/// <summary>How long a found check takes, how fast two years of daily data open, and how smoothly their chart is panned.</summary>
internal static class WatchBench
{
    private const string Us = "hedgerow-fair-us";
    private const int Days = 730;
    private const int Terms = 200;
    private const int Checked = 500;
    private const int Pans = 120;
    private const int Watched = 2000;
    private const int WatchedDays = 180;

    internal static async Task Report()
    {
        using var shop = new RunningShop(demo: true);
        shop.Kill();
        var (product, listing) = await Fill(Path.Combine(shop.Folder, "tinrabbit.db"));
        shop.StartAgain();
        using var client = new HttpClient { BaseAddress = new(shop.Address), Timeout = TimeSpan.FromMinutes(5) };

        var opens = new List<double>();
        var bytes = 0L;
        for (var i = 0; i < 6; i++)
        {
            var clock = Stopwatch.StartNew();
            bytes = (await client.GetByteArrayAsync($"/api/listings/{listing}/history?marketId={Us}")).LongLength;
            opens.Add(clock.Elapsed.TotalMilliseconds);
        }

        Console.WriteLine(
            $"watch: {Days} days × {Terms} terms over HTTP: first {opens[0]:F0} ms, then {Median(opens.Skip(1)):F0} ms (median of 5), {bytes / 1024:#,0} KB"
        );

        using var browser = new TinRabbit.Browser.Tests.Browser(shop);
        browser.Go($"/{product}/{Us}/watch");
        browser.Find("[role=row][data-id]");
        var opening = Stopwatch.StartNew();
        browser.Chord(OpenQA.Selenium.Keys.Shift, "2");
        browser.Find(".days-chart canvas");
        Console.WriteLine($"  the view by day, from key to chart: {opening.Elapsed.TotalMilliseconds:F0} ms");
        browser.Press("+", "+");
        var idle = Frames(browser, "");
        var panned = Frames(
            browser,
            "document.body.dispatchEvent(new KeyboardEvent('keydown', { key: left % 20 < 10 ? 'ArrowLeft' : 'ArrowRight', code: left % 20 < 10 ? 'ArrowLeft' : 'ArrowRight', shiftKey: true, bubbles: true }))"
        );
        Console.WriteLine(
            $"  panning by key, one step each frame: {panned.Median:F1} ms a frame (median; 95 of 100 within {panned.Most:F1} ms); doing nothing: {idle.Median:F1} ms"
        );

        var checks = new List<double>();
        for (var i = 0; i < 3; i++)
        {
            var clock = Stopwatch.StartNew();
            using var begun = await client.PostAsJsonAsync(
                $"/api/listings/{listing}/checks",
                new { marketId = Us, terms = Enumerable.Range(0, Checked).Select(t => $"bird house {i} {t}") }
            );
            var id = (await begun.Content.ReadFromJsonAsync<JsonNode>())!["id"]!.GetValue<int>();
            while (
                (await client.GetFromJsonAsync<JsonNode>($"/api/listings/{listing}/checks/{id}"))!["state"]!.GetValue<string>() == "running"
            )
                await Task.Delay(5);
            checks.Add(clock.Elapsed.TotalMilliseconds);
        }

        Console.WriteLine($"  a found check of {Checked} new terms: {Median(checks):F0} ms (median of 3)");

        await WatchMany(Path.Combine(shop.Folder, "tinrabbit.db"), listing);
        foreach (
            var (name, path) in ((string, string)[])
                [
                    ("largest movers", "/api/movers?days=14"),
                    ("the newest 200 notes with their verdicts", "/api/notes"),
                    ("what has worked", "/api/notes?effects=false&pooled=true"),
                ]
        )
        {
            var clock = Stopwatch.StartNew();
            await client.GetByteArrayAsync(path);
            Console.WriteLine($"  {Watched:#,0} watched listings × {WatchedDays} days: {name} {clock.Elapsed.TotalMilliseconds:F0} ms");
        }
    }

    // The time between two frames, in ms: the median, and what 95 of 100 stay within.
    private static (double Median, double Most) Frames(TinRabbit.Browser.Tests.Browser browser, string step)
    {
        var times =
            (IReadOnlyCollection<object>)
                browser.RunAsync(
                    $$"""
                    const done = arguments[arguments.length - 1]
                    const times = []
                    let left = arguments[0]
                    const frame = now => {
                      times.push(now)
                      if (left-- === 0) {
                        const gaps = times.slice(1).map((t, i) => t - times[i]).sort((a, b) => a - b)
                        return done([gaps[Math.floor(gaps.length / 2)], gaps[Math.floor(gaps.length * 0.95)]])
                      }
                      {{step}}
                      requestAnimationFrame(frame)
                    }
                    requestAnimationFrame(frame)
                    """,
                    Pans
                )!;
        double[] both = [.. times.Select(t => Convert.ToDouble(t, System.Globalization.CultureInfo.InvariantCulture))];
        return (both[0], both[1]);
    }

    private static double Median(IEnumerable<double> all) => all.Order().ElementAt(all.Count() / 2);

    private static async Task<(int Product, int Listing)> Fill(string file)
    {
        await using var db = TinContext.Open(file);
        var listing = await db
            .Listings.Include(l => l.Product)
            .FirstAsync(l => l.Product.Name == "Bat box" && l.PlatformId == "hedgerow-fair");
        var first = DateOnly.FromDateTime(DateTime.UtcNow).AddDays(-Days);
        await db.Finds.Where(f => db.Set<CheckRow>().Any(c => c.Id == f.CheckId && c.ListingId == listing.Id)).ExecuteDeleteAsync();
        await db.Checks.Where(c => c.ListingId == listing.Id).ExecuteDeleteAsync();
        await db.FollowedTerms.Where(t => t.ListingId == listing.Id).ExecuteDeleteAsync();
        db.FollowedTerms.AddRange(
            Enumerable
                .Range(0, Terms)
                .Select(t => new FollowedTermRow
                {
                    ListingId = listing.Id,
                    MarketId = Us,
                    Key = $"bat box {t}",
                    Text = $"bat box {t}",
                })
        );
        db.Checks.AddRange(
            Enumerable
                .Range(0, Days)
                .Select(d => new CheckRow
                {
                    ListingId = listing.Id,
                    MarketId = Us,
                    Day = first.AddDays(d),
                    At = first.AddDays(d).ToDateTime(new(6, 0), DateTimeKind.Utc),
                    Source = "Sample data",
                    IsDaily = true,
                    State = CheckState.Finished,
                })
        );
        db.Figures.AddRange(
            Enumerable
                .Range(0, Days)
                .Select(d => new FigureRow
                {
                    ListingId = listing.Id,
                    MarketId = Us,
                    Day = first.AddDays(d),
                    Views = 200 + d % 50,
                    Clicks = 20 + d % 7,
                    Sales = d % 3,
                    Source = "Sample data",
                })
        );
        await db.SaveChangesAsync();
        // A row for each term and day, made where it is stored.
        await db.Database.ExecuteSqlAsync(
            $"INSERT INTO Finds (CheckId, TermId, IsDone, Found, Rank, Results) SELECT c.Id, t.Id, 1, 1, 1 + (c.Id * 7 + t.Id * 13) % 300, 5000 FROM Checks c, FollowedTerms t WHERE c.ListingId = {listing.Id} AND t.ListingId = {listing.Id} AND c.MarketId = {Us} AND t.MarketId = {Us}"
        );
        return (listing.ProductId, listing.Id);
    }

    // Copies of a listing, each with a change note and the figures of many days, made where they are stored.
    private static async Task WatchMany(string file, int listing)
    {
        await using var db = TinContext.Open(file);
        var (platform, first) = ("hedgerow-fair", DateTime.UtcNow.AddDays(-WatchedDays));
        var shop = await db.Shops.Select(s => s.Id).FirstAsync();
        var products = Enumerable.Range(0, Watched).Select(i => new ProductRow { ShopId = shop, Name = $"Bat box {i}" }).ToList();
        foreach (var product in products)
            product.Listings.Add(new() { PlatformId = platform });
        db.Products.AddRange(products);
        await db.SaveChangesAsync();
        foreach (var (i, product) in products.Index())
        {
            var own = product.Listings.Single().Id;
            db.Watches.Add(new() { ListingId = own, MarketId = Us });
            db.Notes.Add(
                new()
                {
                    ProductId = product.Id,
                    ListingId = own,
                    MarketId = Us,
                    At = first.AddDays(40 + i % 100),
                    CountsFrom = first.AddDays(41 + i % 100),
                    Kinds = [NoteKind.Title],
                    Text = "Changed the title",
                }
            );
        }

        await db.SaveChangesAsync();
        await db.Database.ExecuteSqlAsync(
            $"""
            WITH RECURSIVE day(n) AS (SELECT 0 UNION ALL SELECT n + 1 FROM day WHERE n + 1 < {WatchedDays})
            INSERT INTO Figures (ListingId, MarketId, Day, Views, Clicks, Sales, Source)
            SELECT w.ListingId, w.MarketId, date('now', (n - {WatchedDays}) || ' days'), 40 + (w.ListingId * 7 + n * 13) % 30, 4, 1, 'Sample data'
            FROM Watches w, day WHERE w.ListingId <> {listing}
            """
        );
    }
}
