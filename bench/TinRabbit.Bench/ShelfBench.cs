using System.Diagnostics;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using TinRabbit.Browser.Tests;

namespace TinRabbit.Bench;

/// <summary>A million terms: imported beside the sqlite3 command line, searched, dug into, scrolled.</summary>
internal static class ShelfBench
{
    private const int Rows = 1_000_000;
    private const int WarmUp = 200;
    private const string Market = "hedgerow-fair-us";

    // What the command line does to bring the same file into the same tables: it reads it into a table of its own, then moves it.
    private const string CommandLine = """
        PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA cache_size=-65536; PRAGMA temp_store=FILE;
        CREATE TEMP TABLE Aside(Text TEXT, Volume INTEGER, Competition INTEGER, Titles INTEGER, Cost TEXT);
        .mode csv
        .import --skip 1 "@FILE" Aside
        BEGIN;
        INSERT OR IGNORE INTO Terms(Id, MarketId, Text, Key, ReadingId) SELECT @BASE + rowid, '@MARKET', Text, lower(Text), @READING + rowid FROM Aside ORDER BY rowid;
        INSERT INTO Readings(Id, TermId, Volume, Competition, TitlesHolding, ClickCost, Source, TakenAt) SELECT @READING + a.rowid, @BASE + a.rowid, a.Volume, a.Competition, a.Titles, a.Cost, 'bench', '2026-11-25 00:00:00' FROM Aside a JOIN Terms t ON t.Id = @BASE + a.rowid ORDER BY a.rowid;
        COMMIT;
        """;

    internal static void Report()
    {
        var folder = Directory.CreateTempSubdirectory("tin-rabbit-bench-").FullName;
        var file = Path.Combine(folder, "terms.csv");
        Write(file);
        Console.WriteLine(
            $"shelf: a CSV of {Rows:N0} rows, {new FileInfo(file).Length / 1e6:F1} MB: term, searches, listings, titles, click cost"
        );
        using var shop = new RunningShop(demo: true);
        var database = Path.Combine(shop.Folder, "tinrabbit.db");

        // Both start from the same database, as the demo made it.
        var copy = Path.Combine(folder, "copy.db");
        using (var db = new SqliteConnection($"Data Source={database};Pooling=False"))
        {
            db.Open();
            using var vacuum = db.CreateCommand();
            vacuum.CommandText = $"VACUUM INTO '{copy}'";
            vacuum.ExecuteNonQuery();
        }

        // The machine is not equally quick all the time: the command line goes before and after.
        var second = Path.Combine(folder, "second.db");
        File.Copy(copy, second);
        var theirs = CommandLineSeconds(copy, file);
        var before = Memory(shop.ProcessId);
        var (inTables, ours, peak, taken) = ImportSeconds(shop, file);
        theirs = (theirs + CommandLineSeconds(second, file)) / 2;
        Console.WriteLine(
            $"  import: in the tables and indexes after {inTables:F1} s, upload and guessing included; the sqlite3 command line {theirs:F1} s; ratio {inTables / theirs:F2}; {taken:N0} new terms"
        );
        Console.WriteLine($"  ready to be searched, norm taken, after {ours:F1} s; ratio {ours / theirs:F2}");
        Console.WriteLine(
            $"  memory of the server: before {before:F0} MB, at most {peak:F0} MB while importing, {Memory(shop.ProcessId):F0} MB after, with the shelf in columns"
        );
        var (_, again, _, none) = ImportSeconds(shop, file);
        Console.WriteLine($"  the same file again: {again:F1} s, {none:N0} new terms");
        Search(shop);
        Read(shop);
        Dig(shop);
        Scroll(shop);
        Directory.Delete(folder, true);
    }

    private static void Write(string file)
    {
        var random = new Random(7);
        string[] first =
        [
            "cedar",
            "wooden",
            "small",
            "large",
            "blue",
            "rustic",
            "modern",
            "copper",
            "window",
            "garden",
            "hanging",
            "solar",
            "vintage",
            "white",
            "oak",
            "handmade",
            "personalized",
            "outdoor",
            "metal",
            "cute",
        ];
        string[] heads =
        [
            "bird house",
            "nest box",
            "bird feeder",
            "bat box",
            "bird bath",
            "owl box",
            "wall chart",
            "heron shirt",
            "gift",
            "birdhouse",
            "feeder",
            "planter",
            "lantern",
            "bench",
            "doormat",
            "wind chime",
            "candle",
            "mug",
            "print",
            "clock",
        ];
        string[] last =
        [
            "for kids",
            "for mom",
            "kit",
            "plans",
            "with camera",
            "for garden",
            "set of 3",
            "near me",
            "ideas",
            "for outside",
            "pdf",
            "diy",
            "on sale",
            "small",
            "uk",
            "to paint",
            "hole size",
            "with pole",
            "cheap",
            "2026",
        ];
        using var text = new StreamWriter(file, false, new UTF8Encoding(false));
        text.WriteLine("term,searches a month,listings,titles,click cost");
        var seen = new HashSet<string>();
        while (seen.Count < Rows)
        {
            var term = $"{first[random.Next(20)]} {heads[random.Next(20)]} {last[random.Next(20)]} {Word(random)}";
            if (!seen.Add(term))
                continue;
            var volume = (long)Math.Exp(random.NextDouble() * 9);
            text.WriteLine(
                $"{term},{volume},{(long)(volume * Math.Exp(random.NextDouble() * 4 - 2))},{random.Next(400)},{random.Next(5, 300) / 100.0:F2}"
            );
        }
    }

    private static string Word(Random random) =>
        string.Concat(
            Enumerable.Range(0, 2 + random.Next(3)).Select(_ => "bcdfghklmnprstvw"[random.Next(16)].ToString() + "aeiou"[random.Next(5)])
        );

    private static double CommandLineSeconds(string database, string file)
    {
        var (terms, readings) = (0L, 0L);
        using (var db = new SqliteConnection($"Data Source={database};Pooling=False"))
        {
            db.Open();
            using var ask = db.CreateCommand();
            ask.CommandText = "SELECT (SELECT MAX(Id) FROM Terms), (SELECT MAX(Id) FROM Readings)";
            using var row = ask.ExecuteReader();
            row.Read();
            (terms, readings) = (row.GetInt64(0), row.GetInt64(1));
        }

        var script = CommandLine
            .Replace("@FILE", file)
            .Replace("@BASE", terms.ToString())
            .Replace("@READING", readings.ToString())
            .Replace("@MARKET", Market);
        var clock = Stopwatch.StartNew();
        using var process = Process.Start(
            new ProcessStartInfo("sqlite3", ["-batch", database]) { RedirectStandardInput = true, RedirectStandardOutput = true }
        )!;
        process.StandardInput.Write(script);
        process.StandardInput.Close();
        process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        if (process.ExitCode != 0)
            throw new InvalidOperationException("sqlite3 did not take the file.");
        return clock.Elapsed.TotalSeconds;
    }

    private static (double InTables, double Seconds, double PeakMemory, long Taken) ImportSeconds(RunningShop shop, string file)
    {
        using var http = new HttpClient { BaseAddress = new(shop.Address), Timeout = TimeSpan.FromMinutes(10) };
        var peak = 0.0;
        using var watch = new Timer(_ => peak = Math.Max(peak, Memory(shop.ProcessId)), null, 0, 50);
        var clock = Stopwatch.StartNew();
        using var content = new StreamContent(File.OpenRead(file));
        content.Headers.ContentType = new("application/octet-stream");
        var view = JsonNode.Parse(
            http.PostAsync($"/api/markets/{Market}/imports?name=terms.csv", content).Result.Content.ReadAsStringAsync().Result
        )!;
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/markets/{Market}/imports/{view["id"]}/run")
        {
            Content = JsonContent.Create(new { look = view["look"], source = "bench" }),
        };
        using var response = http.Send(request, HttpCompletionOption.ResponseHeadersRead);
        using var lines = new StreamReader(response.Content.ReadAsStream());
        var inTables = 0.0;
        JsonNode last = new JsonObject();
        while (lines.ReadLine() is { } line)
        {
            last = JsonNode.Parse(line)!;
            if (inTables == 0 && last["share"]!.GetValue<double>() >= 0.9)
                inTables = clock.Elapsed.TotalSeconds;
        }

        return (inTables, clock.Elapsed.TotalSeconds, peak, last["count"]!["new"]!.GetValue<long>());
    }

    private static void Search(RunningShop shop)
    {
        using var http = new HttpClient { BaseAddress = new(shop.Address) };
        var random = new Random(3);
        string[] words =
        [
            "bird",
            "house",
            "cedar wind",
            "bo",
            "feeder kit",
            "solar",
            "camera",
            "gift for mom",
            "wood",
            "zzq",
            "nest -kit",
            "ka",
            "copper bath",
            "print",
            "vintage clock",
        ];

        // Half of them for a word typed before, half for letters nobody asked for yet.
        string Letters() => string.Concat(Enumerable.Range(0, 2 + random.Next(2)).Select(_ => (char)('a' + random.Next(26))));
        string[] orders = ["volume", "competition", "headroom", "titlesHolding", "clickCost"];
        // Each order is made once when it is first asked for.
        var clock = new Stopwatch();
        foreach (var by in orders)
        {
            clock.Restart();
            Ask(
                new
                {
                    by,
                    down = true,
                    take = 50,
                }
            );
            Console.WriteLine($"  first time in the order of {by}: {clock.Elapsed.TotalMilliseconds:F0} ms");
        }

        // The first two hundred warm the server up, as a morning's work does.
        var times = new List<double>();
        for (var i = -WarmUp; i < 300; i++)
        {
            var query = new
            {
                has = random.Next(2) == 0 ? words[random.Next(words.Length)] : Letters(),
                volumeFrom = random.Next(3) == 0 ? (double?)random.Next(2000) : null,
                competitionTo = random.Next(3) == 0 ? (double?)random.Next(200, 5000) : null,
                headroomFrom = random.Next(3) == 0 ? (double?)random.Next(80) : null,
                by = orders[random.Next(orders.Length)],
                down = random.Next(2) == 0,
                skip = random.Next(4) == 0 ? random.Next(100_000) : 0,
                take = 50,
            };
            clock.Restart();
            Ask(query);
            if (i >= 0)
                times.Add(clock.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        Console.WriteLine(
            $"  300 searches with filters and an order, fifty rows each, after {WarmUp} to warm up, question to answer over loopback: median {times[150]:F1} ms, 95th percentile {times[285]:F1} ms, highest {times[^1]:F1} ms"
        );

        void Ask(object query) =>
            http.PostAsJsonAsync($"/api/markets/{Market}/shelf", query)
                .Result.EnsureSuccessStatusCode()
                .Content.ReadAsByteArrayAsync()
                .Wait();
    }

    private static void Read(RunningShop shop)
    {
        using var http = new HttpClient { BaseAddress = new(shop.Address) };
        string[] titles =
        [
            "Cedar wren nest box, small bird house for garden, 28mm hole, bird lover gift",
            "Window bird feeder, clear acrylic, gift for mom, bird watching",
            "Large bat box kit for outside, wooden bat house with camera",
            "Hanging bird house, rustic garden gift, personalized nest box set",
        ];
        var (first, times) = (0.0, new List<double>());
        for (var i = 0; i < 100; i++)
        {
            var clock = Stopwatch.StartNew();
            http.PostAsJsonAsync(
                    "/api/engine/read",
                    new
                    {
                        platform = "longbarrow",
                        text = titles[i % titles.Length],
                        marketId = Market,
                    }
                )
                .Result.EnsureSuccessStatusCode()
                .Content.ReadAsByteArrayAsync()
                .Wait();
            if (i == 0)
                first = clock.Elapsed.TotalMilliseconds;
            else
                times.Add(clock.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        Console.WriteLine(
            $"  reading a title against it, over loopback: the first time {first:F0} ms, then median {times[49]:F1} ms, 95th percentile {times[94]:F1} ms"
        );
    }

    private static void Dig(RunningShop shop)
    {
        using var http = new HttpClient { BaseAddress = new(shop.Address) };
        var (firsts, wholes) = (new List<double>(), new List<double>());
        foreach (
            var head in new[]
            {
                "owl box",
                "bird bath",
                "bird print",
                "heron shirt",
                "suet feeder",
                "bat house",
                "bird guide",
                "bird seed",
                "hummingbird feeder",
                "bird table",
            }
        )
        {
            var clock = Stopwatch.StartNew();
            using var request = new HttpRequestMessage(HttpMethod.Post, "/api/products/1/dig")
            {
                Content = JsonContent.Create(
                    new
                    {
                        marketId = Market,
                        text = head,
                        parentId = (int?)null,
                    }
                ),
            };
            using var response = http.Send(request, HttpCompletionOption.ResponseHeadersRead);
            using var lines = new StreamReader(response.Content.ReadAsStream());
            lines.ReadLine();
            firsts.Add(clock.Elapsed.TotalMilliseconds);
            while (lines.ReadLine() is not null) { }

            wholes.Add(clock.Elapsed.TotalMilliseconds);
        }

        Console.WriteLine(
            $"  ten digs with the million rows: first rows after {firsts.Order().ElementAt(5):F0} ms at the middle, {firsts.Max():F0} ms at most; all of it, alphabet and sellers, {wholes.Order().ElementAt(5):F0} ms"
        );
    }

    // A long way down, a screen at a time: how long the browser takes between frames.
    private static void Scroll(RunningShop shop)
    {
        using var browser = new TinRabbit.Browser.Tests.Browser(shop);
        browser.Go($"/1/{Market}/dig");
        browser.Find("[data-testid=rows] [role=row][data-id]");
        Thread.Sleep(1500);
        browser.Run(
            """
            window.frames_ = [];
            const box = document.querySelector('[data-testid=rows]');
            let last = performance.now(), n = 0;
            const step = (t) => { window.frames_.push(t - last); last = t; box.scrollTop += 150; if (++n < 600) requestAnimationFrame(step); else window.done_ = true; };
            requestAnimationFrame((t) => { last = t; requestAnimationFrame(step); });
            """
        );
        while (browser.Run("return window.done_ === true") is not true)
            Thread.Sleep(200);
        var frames = ((IReadOnlyCollection<object>)browser.Run("return window.frames_.slice(5)")!)
            .Select(Convert.ToDouble)
            .Order()
            .ToArray();
        Console.WriteLine(
            $"  scrolling the million-row table, 150 pixels a frame, {frames.Length} frames: a frame every {frames[frames.Length / 2]:F1} ms, 95th percentile {frames[(int)(frames.Length * 0.95)]:F1} ms, longest {frames[^1]:F0} ms; {browser.All("[data-testid=rows] [role=row]").Count} rows exist at a time"
        );
    }

    private static double Memory(int process)
    {
        foreach (var line in File.ReadLines($"/proc/{process}/status"))
            if (line.StartsWith("VmRSS:", StringComparison.Ordinal))
                return double.Parse(line.Split(' ', StringSplitOptions.RemoveEmptyEntries)[1]) / 1024;
        return 0;
    }
}
