using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace TinRabbit.Server.Tests;

/// <summary>Dig, pick, write, weigh and copy out, over the API and a real database.</summary>
public sealed class SliceTests : IDisposable
{
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    private const string Market = "hedgerow-fair-us";

    [Fact]
    public async Task A_dig_gives_what_shoppers_type_and_leaves_a_trail()
    {
        var product = await shop.AddProduct();
        var first = await shop.Dig(product, Market, "nest box");
        var rows = first["rows"]!.AsArray();
        Assert.Equal("nest box", rows[0]!["text"]!.GetValue<string>());
        Assert.True(rows.Count > 50);
        Assert.All(rows.Where(r => r!["typed"] is not null), r => Assert.Contains("nest box", r!["text"]!.GetValue<string>()));
        Assert.Equal(30, rows[0]!["numbers"]!["months"]!.AsArray().Count);
        Assert.NotNull(rows[0]!["numbers"]!["headroom"]);
        Assert.Equal(rows.Count(r => r!["numbers"]!["takenAt"] is not null), first["norm"]!["readings"]!.GetValue<int>());

        var second = await shop.Dig(product, Market, "cedar nest box", first["stepId"]!.GetValue<int>());
        await shop.Pick(product, ["wren nest box"]);
        var trail = (await shop.Get($"/api/products/{product}/trail/{Market}")).AsArray();
        Assert.Equal(["nest box", "cedar nest box"], trail.Select(t => t!["text"]!.GetValue<string>()));
        Assert.Equal(first["stepId"]!.GetValue<int>(), trail[1]!["parentId"]!.GetValue<int>());
        Assert.NotEqual(first["stepId"]!.GetValue<int>(), second["stepId"]!.GetValue<int>());

        // Digging again measures nothing anew and makes no second step.
        var again = await shop.Dig(product, Market, "Nest-Box");
        Assert.Equal(first["stepId"]!.GetValue<int>(), again["stepId"]!.GetValue<int>());
        Assert.Equal(rows[3]!["numbers"]!["takenAt"]!.GetValue<string>(), again["rows"]![3]!["numbers"]!["takenAt"]!.GetValue<string>());

        await shop.Post(
            $"/api/products/{product}/dig",
            new
            {
                marketId = Market,
                text = " … ",
                parentId = (int?)null,
            },
            400
        );
        await shop.Post(
            $"/api/products/{product}/dig",
            new
            {
                marketId = "moon",
                text = "nest box",
                parentId = (int?)null,
            },
            400
        );
    }

    [Fact]
    public async Task A_term_that_nobody_types_is_unknown_and_not_zero()
    {
        var product = await shop.AddProduct();
        var dug = await shop.Dig(product, Market, "zebra saddle");
        var row = Assert.Single(dug["rows"]!.AsArray())!;
        Assert.Null(row["typed"]);
        Assert.Null(row["numbers"]!["volume"]);
        Assert.Null(row["numbers"]!["headroom"]);
    }

    [Fact]
    public async Task A_pasted_column_joins_the_shelf_and_bad_lines_are_named()
    {
        var market = "longbarrow-gb";
        var pasted = await shop.Post(
            $"/api/markets/{market}/paste",
            new { text = "larch bat box\t1,300\t210\n…\t5\nbat shelf; lots\nLarch  Bat Box\nbat roost", source = "notebook" }
        );
        Assert.Equal((2, 2), (pasted["taken"]!.GetValue<int>(), pasted["new"]!.GetValue<int>()));
        Assert.Equal([2, 3], pasted["bad"]!.AsArray().Select(b => b!["line"]!.GetValue<int>()));
        var shelf = await shop.Shelf(market, new { has = "bat" });
        Assert.Equal(["larch bat box", "bat roost"], shelf["rows"]!.AsArray().Select(r => r!["text"]!.GetValue<string>()));
        Assert.Equal(
            (1300, "notebook"),
            (shelf["rows"]![0]!["numbers"]!["volume"]!.GetValue<int>(), shelf["rows"]![0]!["numbers"]!["source"]!.GetValue<string>())
        );

        // The same again changes nothing.
        var again = await shop.Post($"/api/markets/{market}/paste", new { text = "larch bat box\t1,300\t210", source = "notebook" });
        Assert.Equal((1, 0), (again["taken"]!.GetValue<int>(), again["new"]!.GetValue<int>()));
        Assert.Equal(1, shelf["norm"]!["readings"]!.GetValue<int>());
    }

    [Fact]
    public async Task Every_change_to_picks_can_be_undone()
    {
        var product = await shop.AddProduct();
        await shop.Pick(product, ["bird house", "Bird-House", "wren house"]);
        await shop.Pick(product, ["bird house"], home: "title", fit: "good", note: "at the front");
        await shop.Pick(product, ["bluebird house"], home: "avoid", note: "the hole is too small");
        await shop.Put($"/api/products/{product}/picks/order", new { keys = new[] { "wren house", "bird house" } });
        await shop.Post($"/api/products/{product}/picks/drop", new { texts = new[] { "wren house" } });
        Assert.Equal(["bird house title good at the front", "bluebird house avoid core the hole is too small"], await Picks());
        Assert.Equal("Removed “wren house” from the picks", await Undo());
        Assert.Equal("Changed the order of the picks", await Undo());
        Assert.Equal(
            ["bird house title good at the front", "wren house anywhere core ", "bluebird house avoid core the hole is too small"],
            await Picks()
        );
        Assert.Equal("Marked “bluebird house” as avoid", await Undo());
        Assert.StartsWith("Moved “bird house” to title", await Undo());
        Assert.Equal(["bird house anywhere core ", "wren house anywhere core "], await Picks());
        Assert.Equal("Picked 2 terms", await Undo());
        Assert.Empty(await Picks());
        // What is left is the product itself.
        Assert.StartsWith("Added the product", await Undo());

        async Task<string?> Undo() =>
            (await shop.Post($"/api/changes/undo?sure=true&product={product}", new { }))["what"]!.GetValue<string>();
        async Task<string[]> Picks() =>
            [
                .. (await shop.Get($"/api/products/{product}/picks?marketId={Market}"))["picks"]!
                    .AsArray()
                    .Select(p => $"{p!["text"]} {p["home"]} {p["fit"]} {p["note"]}"),
            ];
    }

    [Fact]
    public async Task A_pick_that_changes_nothing_leaves_nothing_to_undo()
    {
        var product = await shop.AddProduct();
        await shop.Pick(product, ["bird house"]);
        Assert.Null((await shop.Pick(product, ["bird house"]))["what"]);
        await shop.Post(
            $"/api/products/{product}/picks",
            new
            {
                texts = new[] { "owl", "?!" },
                source = "",
                fit = (string?)null,
                home = (string?)null,
                note = (string?)null,
            },
            400
        );
        Assert.Single((await shop.Get($"/api/products/{product}/picks?marketId={Market}"))["picks"]!.AsArray());
    }

    [Fact]
    public async Task A_listing_is_weighed_for_the_picks_that_count()
    {
        var product = await shop.AddProduct();
        var listing = await shop.ListingOf(product, "hedgerow-fair");
        await shop.Dig(product, Market, "bird house");
        await shop.Pick(product, ["bird house", "bird house kit"]);
        await shop.Pick(product, ["bird house plans"], home: "later");
        await shop.Pick(product, ["birdhouse"], home: "avoid");
        var weighed = await shop.Post(
            $"/api/listings/{listing}/weigh",
            new { marketId = Market, fields = new { title = "Cedar bird house", tags = new[] { new string('x', 30) } } }
        );
        Assert.Equal((2, 1), (weighed["picks"]!.GetValue<int>(), weighed["eligible"]!.GetValue<int>()));
        Assert.Equal(["kit"], weighed["terms"]![1]!["missing"]!.AsArray().Select(m => m!.GetValue<string>()));
        Assert.Equal(6, weighed["rooms"]!["tags"]!["over"]!.GetValue<int>());
        var picks = (await shop.Get($"/api/products/{product}/picks?marketId={Market}"))["picks"]!
            .AsArray()
            .Take(2)
            .Select(p => p!["demand"]!.GetValue<double>())
            .ToArray();
        Assert.Equal(picks[0] / picks.Sum() * 100, weighed["reach"]!.GetValue<double>(), 9);
    }

    [Fact]
    public async Task The_next_weighing_says_only_what_changed()
    {
        using var own = new TestShop();
        var product = await own.AddProduct();
        var listing = await own.ListingOf(product, "hedgerow-fair");
        await own.Pick(product, ["bird house", "bird house kit", "cedar nest box", "owl box"]);
        await own.NumbersSettled();
        var titles = new[]
        {
            "Cedar bird house",
            "Cedar bird house kit",
            "Kit of a cedar nest box",
            "A Cedar nest box",
            "",
            "owl box, bird house",
            "owl box, bird houses",
        };
        var known = new Dictionary<string, string>();
        string? since = null;
        foreach (var title in titles)
        {
            var next = await Weigh(title, since);
            Assert.Equal(since, next["since"]?.GetValue<string>());
            foreach (var term in next["terms"]!.AsArray())
            {
                // What is said has changed, and what is put together from both is what a whole answer says.
                Assert.True(since is null || known[Key(term)] != term!.ToJsonString(), $"{title}: {term}");
                known[Key(term)] = term!.ToJsonString();
            }

            var whole = (await Weigh(title, null))["terms"]!.AsArray();
            Assert.Equal(4, whole.Count);
            Assert.All(whole, t => Assert.Equal(t!.ToJsonString(), known[Key(t)]));
            since = next["id"]!.GetValue<string>();
        }

        Assert.Empty((await Weigh(titles[^1], since))["terms"]!.AsArray());
        // Other picks, or a weighing that nobody remembers: everything is said.
        Assert.Equal(4, (await Weigh("Cedar", "no such weighing"))["terms"]!.AsArray().Count);
        await own.Pick(product, ["bat box"]);
        var after = await Weigh(titles[^1], since);
        Assert.Equal((null, 5), (after["since"], after["terms"]!.AsArray().Count));

        Task<JsonNode> Weigh(string title, string? since) =>
            own.Post(
                $"/api/listings/{listing}/weigh",
                new
                {
                    marketId = Market,
                    fields = new { title },
                    since,
                }
            );

        static string Key(JsonNode? term) => term!["key"]!.GetValue<string>();
    }

    [Fact]
    public async Task What_is_saved_is_there_after_a_restart_and_two_windows_are_told()
    {
        using var own = new TestShop();
        var product = await own.AddProduct();
        var listing = await own.ListingOf(product, "longbarrow");
        var saved = await own.Put(
            $"/api/listings/{listing}/copy",
            new { fields = new { title = "Cedar nest box 🐦", bullets = new[] { "A", "B" } }, revision = 0 }
        );
        Assert.Equal(1, saved["revision"]!.GetValue<int>());
        var conflict = await own.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Another window" }, revision = 0 }, 409);
        Assert.Equal("Cedar nest box 🐦", conflict["copy"]!["title"]!.GetValue<string>());
        await own.Put($"/api/listings/{listing}/copy", new { fields = new { titel = "x" }, revision = 1 }, 400);
        await own.Pick(product, ["nest box"]);
        await own.Put($"/api/listings/{listing}/lead", new { key = "nest box" }, 204);
        await own.Put($"/api/listings/{listing}/lead", new { key = "owl box" }, 400);
        own.Restart();
        var view = await own.Get($"/api/listings/{listing}");
        Assert.Equal("Cedar nest box 🐦", view["copy"]!["title"]!.GetValue<string>());
        Assert.Equal("""["A","B"]""", view["copy"]!["bullets"]!.ToJsonString());
        Assert.Equal(("nest box", 1), (view["leadKey"]!.GetValue<string>(), view["revision"]!.GetValue<int>()));
        Assert.Equal(404, (int)(await own.Client.GetAsync("/api/listings/999")).StatusCode);
    }

    [Fact]
    public async Task A_listing_goes_out_as_csv_and_json()
    {
        var product = await shop.AddProduct("=Heron \"tee\"");
        var listing = await shop.ListingOf(product, "hedgerow-fair");
        await shop.Put(
            $"/api/listings/{listing}/copy",
            new
            {
                fields = new
                {
                    title = "Heron, wading",
                    tags = new[] { "heron shirt", "", "bird tee" },
                    attributes = new Dictionary<string, string[]> { ["Size"] = ["S", "M"] },
                },
                revision = 0,
            }
        );
        var csv = await shop.Client.GetStringAsync($"/api/listings/{listing}/export.csv");
        Assert.Equal(
            "product,platform,title,tags,materials,category,attributes,description\r\n\"'=Heron \"\"tee\"\"\",hedgerow-fair,\"Heron, wading\",\"heron shirt, bird tee\",,,Size: S / M,\r\n",
            csv
        );
        Assert.Equal([0xEF, 0xBB, 0xBF], (await shop.Client.GetByteArrayAsync($"/api/listings/{listing}/export.csv"))[..3]); // spreadsheets know UTF-8 by it
        var json = JsonNode.Parse(await shop.Client.GetStringAsync($"/api/listings/{listing}/export.json"))!;
        Assert.Equal("""["heron shirt","","bird tee"]""", json["fields"]!["tags"]!.ToJsonString());
    }

    [Fact]
    public async Task The_database_writes_ahead_and_waits_for_the_disk()
    {
        await using var db = new SqliteConnection($"Data Source={Path.Combine(shop.Folder, "tinrabbit.db")}");
        await db.OpenAsync();
        Assert.Equal("wal", await Ask("PRAGMA journal_mode"));
        Assert.Equal("2", await Ask("PRAGMA synchronous")); // FULL: a commit is on disk before it is acknowledged

        async Task<string> Ask(string pragma)
        {
            await using var command = db.CreateCommand();
            command.CommandText = pragma;
            return (await command.ExecuteScalarAsync())!.ToString()!;
        }
    }

    [Fact]
    public async Task The_demo_has_work_to_do()
    {
        using var demo = new TestShop(demo: true);
        var view = await demo.Get("/api/shop");
        Assert.Equal("Plover & Pine", view["name"]!.GetValue<string>());
        Assert.Equal(16, view["markets"]!.AsArray().Count);
        var weighed = await demo.Post("/api/listings/1/weigh", new { marketId = Market, fields = (object?)null });
        Assert.InRange(weighed["reach"]!.GetValue<double>(), 50, 95);
        Assert.Contains(weighed["terms"]!.AsArray(), t => t!["near"] is JsonArray { Count: > 0 });
        Assert.Equal(0, weighed["unknownVolume"]!.GetValue<int>());

        // On each of the six platforms at least one listing is there to be put right.
        var platforms = view["markets"]!
            .AsArray()
            .Where(m => m!["country"]!.GetValue<string>() == "us")
            .ToDictionary(m => m!["platformId"]!.GetValue<string>(), m => m!["id"]!.GetValue<string>());
        Assert.Equal(6, platforms.Count);
        foreach (var (platform, market) in platforms)
        {
            var listings = view["products"]!
                .AsArray()
                .Select(p => p!["listings"]![platform])
                .OfType<JsonNode>()
                .Select(l => l.GetValue<int>());
            var found = new List<string>();
            foreach (var listing in listings)
                found.AddRange(
                    (await demo.Post($"/api/listings/{listing}/check", new { marketId = market, fields = (object?)null }))["findings"]!
                        .AsArray()
                        .Select(f => f!["id"]!.GetValue<string>())
                );
            Assert.True(found.Count >= 2, platform);
        }
    }
}
