using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>Everything that a seller makes can be deleted, renamed or duplicated, and every change is undone as if it had never been.</summary>
public sealed class ChangesTests : IDisposable
{
    private const string Market = "hedgerow-fair-us";
    private readonly TestShop _shop = new(demo: true);

    public void Dispose() => _shop.Dispose();

    private async Task<string> Shop() => (await _shop.Get("/api/shop")).ToJsonString();

    private async Task<string?> Undo(int? change = null, int? product = null)
    {
        var query = string.Join(
            '&',
            new[] { change is { } c ? $"change={c}" : "", product is { } p ? $"product={p}" : "" }.Where(q => q.Length > 0)
        );
        return (await _shop.Post($"/api/changes/undo?sure=true&{query}", new { }))["what"]?.GetValue<string>();
    }

    private async Task<JsonNode> Delete(string path)
    {
        using var response = await _shop.Client.DeleteAsync(path);
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(response.IsSuccessStatusCode, text);
        return JsonNode.Parse(text)!;
    }

    private static int Id(JsonNode changed) => changed["id"]!.GetValue<int>();

    [Fact]
    public async Task A_deleted_product_takes_everything_with_it_and_brings_it_back()
    {
        var before = await Shop();
        var picks = (await _shop.Get($"/api/products/1/picks?marketId={Market}")).ToJsonString();
        var deleted = await Delete("/api/products/1");
        Assert.Equal("Deleted product “Wren nest box, cedar”", deleted["what"]!.GetValue<string>());
        Assert.DoesNotContain((await _shop.Get("/api/shop"))["products"]!.AsArray(), p => p!["id"]!.GetValue<int>() == 1);
        Assert.Empty((await _shop.Get($"/api/products/1/picks?marketId={Market}"))["picks"]!.AsArray());
        Assert.NotNull(await Undo(Id(deleted)));
        Assert.Equal(before, await Shop());
        Assert.Equal(picks, (await _shop.Get($"/api/products/1/picks?marketId={Market}")).ToJsonString());
    }

    [Fact]
    public async Task A_duplicate_has_the_facts_the_texts_and_the_picks()
    {
        var before = await Shop();
        var copy = await _shop.Post("/api/products/1/duplicate", new { name = "Wren nest box, larch" });
        Assert.Equal("western red cedar", copy["facts"]!["materials"]![0]!.GetValue<string>());
        var listing = copy["listings"]!["hedgerow-fair"]!.GetValue<int>();
        Assert.StartsWith("Cedar wren nest box", (await _shop.Get($"/api/listings/{listing}"))["copy"]!["title"]!.GetValue<string>());
        Assert.Equal(24, (await _shop.Get($"/api/products/{copy["id"]}/picks?marketId={Market}"))["picks"]!.AsArray().Count);
        Assert.Equal("Duplicated product “Wren nest box, cedar”", await Undo());
        Assert.Equal(before, await Shop());
    }

    [Fact]
    public async Task A_listing_is_deleted_restored_and_taken_to_another_platform()
    {
        var before = await Shop();
        var listing = JsonNode.Parse(before)!["products"]![0]!["listings"]!["hedgerow-fair"]!.GetValue<int>();
        var deleted = await Delete($"/api/listings/{listing}");
        using (var gone = await _shop.Client.GetAsync($"/api/listings/{listing}"))
            Assert.Equal(404, (int)gone.StatusCode);
        // A new listing there stands in the way of the old one.
        await _shop.Post("/api/products/1/listings/hedgerow-fair", new { });
        Assert.Contains(
            "new listing",
            (await _shop.Post($"/api/changes/undo?sure=true&product=1&change={Id(deleted)}", new { }, 400)).ToJsonString()
        );
        Assert.Equal("Added “Wren nest box, cedar” to Hedgerow Fair", await Undo(product: 1));
        Assert.NotNull(await Undo(Id(deleted), 1));
        Assert.Equal(before, await Shop());
        // Its texts go where fields have the same key or role.
        var product = await _shop.Post($"/api/products/1/listings/overprint-lane?from={listing}", new { });
        var copy = (await _shop.Get($"/api/listings/{product["listings"]!["overprint-lane"]}"))["copy"]!;
        Assert.StartsWith("Cedar wren nest box", copy["title"]!.GetValue<string>());
        Assert.StartsWith("A snug house", copy["description"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_platform_of_ones_own_is_deleted_with_its_listings_and_a_built_in_one_is_not()
    {
        using var refused = await _shop.Client.DeleteAsync("/api/platforms/hedgerow-fair");
        Assert.Equal(400, (int)refused.StatusCode);
        var profile = JsonNode.Parse(await _shop.Client.GetStringAsync("/api/platforms/hedgerow-fair/profile.json"))!;
        (profile["id"], profile["name"]) = ("paper-lane", "Paper Lane");
        await _shop.Post("/api/platforms", new { profile, like = "hedgerow-fair" });
        await _shop.Post("/api/products/1/listings/paper-lane", new { });
        var before = await Shop();
        Assert.Contains("\"own\":true", before);
        var deleted = await Delete("/api/platforms/paper-lane");
        Assert.DoesNotContain("paper-lane", await Shop());
        await _shop.Post("/api/platforms", new { profile, like = "hedgerow-fair" }, 400);
        await Undo(Id(deleted));
        Assert.Equal(before, await Shop());
    }

    [Fact]
    public async Task A_listing_on_ones_own_platform_is_marked_as_published()
    {
        var profile = JsonNode.Parse(await _shop.Client.GetStringAsync("/api/platforms/hedgerow-fair/profile.json"))!;
        (profile["id"], profile["name"]) = ("paper-lane", "Paper Lane");
        await _shop.Post("/api/platforms", new { profile, like = "hedgerow-fair" });
        var product = await _shop.Post($"/api/products/1/listings/paper-lane?from=1", new { });
        var sent = await _shop.Post($"/api/listings/{product["listings"]!["paper-lane"]}/send", new { marketId = "paper-lane-us" });
        Assert.True(sent["byHand"]!.GetValue<bool>());
    }

    [Fact]
    public async Task Terms_come_back_with_all_their_readings()
    {
        // A deleted term that is a pick would be measured anew meanwhile.
        await _shop.Client.PostAsync("/api/measuring/stop", null);
        await _shop.Post(
            $"/api/markets/{Market}/correct",
            new
            {
                text = "bird house",
                volume = 50,
                competition = 7,
                titlesHolding = (int?)null,
                clickCost = (double?)null,
            }
        );
        var before = (await _shop.Get($"/api/markets/{Market}/term?text=bird+house"))["readings"]!
            .AsArray()
            .Select(r => $"{r!["volume"]} {r["source"]} {r["counts"]}")
            .ToArray();
        // Its first reading, what a report said, and the correction.
        Assert.Equal(3, before.Length);
        var all = await _shop.Shelf(Market, new { take = 1 });
        var deleted = await _shop.Post($"/api/markets/{Market}/terms/delete", new { texts = new[] { "bird house", "no such term" } });
        Assert.Equal(all["all"]!.GetValue<int>() - 1, (await _shop.Shelf(Market, new { take = 1 }))["all"]!.GetValue<int>());
        await Undo(Id(deleted));
        Assert.Equal(
            before,
            (await _shop.Get($"/api/markets/{Market}/term?text=bird+house"))["readings"]!
                .AsArray()
                .Select(r => $"{r!["volume"]} {r["source"]} {r["counts"]}")
        );
    }

    [Fact]
    public async Task A_term_keeps_its_numbers_under_another_spelling()
    {
        await _shop.Post($"/api/markets/{Market}/paste", new { text = "wren hous\t70", source = "notes" });
        await _shop.Post($"/api/markets/{Market}/terms/rename", new { text = "wren hous", name = "bird house" }, 400);
        await _shop.Post($"/api/markets/{Market}/terms/rename", new { text = "wren hous", name = "wren hutch" });
        var rows = (await _shop.Shelf(Market, new { has = "wren hutch" }))["rows"]!.AsArray();
        Assert.Equal(70, Assert.Single(rows)!["numbers"]!["volume"]!.GetValue<int>());
        Assert.Equal("Renamed term “wren hous” to “wren hutch”", await Undo());
        Assert.Single((await _shop.Shelf(Market, new { has = "wren hous -house" }))["rows"]!.AsArray());
    }

    [Fact]
    public async Task An_import_is_counted_renamed_and_undone()
    {
        await _shop.Post($"/api/markets/{Market}/paste", new { text = "owl box\t70", source = "notes" });
        await _shop.NumbersSettled();
        var all = (await _shop.Shelf(Market, new { take = 1 }))["all"]!.GetValue<int>();
        using var body = new StringContent("term,volume\nowl box,900\nowl perch,40\n");
        using var response = await _shop.Client.PostAsync($"/api/markets/{Market}/imports?name=owls.csv", body);
        var view = JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
        Assert.Equal(
            3,
            (await _shop.Post($"/api/markets/{Market}/imports/{view["id"]}/rows", new { look = view["look"] }))["rows"]!.GetValue<int>()
        );
        await _shop.Lines($"/api/markets/{Market}/imports/{view["id"]}/run", new { look = view["look"], source = "owls" });
        async Task<int> Volume() => (await _shop.Get($"/api/markets/{Market}/term?text=owl+box"))["numbers"]!["volume"]!.GetValue<int>();
        Assert.Equal(900, await Volume());
        async Task<JsonNode[]> Imports() =>
            [.. (await _shop.Get($"/api/markets/{Market}/imports")).AsArray().Where(i => (string?)i!["source"] == "owls").Select(i => i!)];
        var import = Assert.Single(await Imports());
        await _shop.Put($"/api/markets/{Market}/imports/{import["id"]}/source", new { name = "Owls of spring" });
        Assert.Equal("Renamed import “owls” to “Owls of spring”", await Undo());
        Assert.Equal("Imported 2 terms from “owls”", await Undo());
        Assert.Equal(70, await Volume());
        Assert.Equal(all, (await _shop.Shelf(Market, new { take = 1 }))["all"]!.GetValue<int>());
        Assert.Empty(await Imports());
    }

    [Fact]
    public async Task Filters_takes_versions_and_searches_are_renamed_duplicated_and_deleted()
    {
        var filter = await _shop.Post("/api/filters", new { name = "Roomy", filters = "headroom=60" });
        await _shop.Put($"/api/filters/{filter["id"]}/name", new { name = "Plenty of room" });
        await _shop.Post($"/api/filters/{filter["id"]}/duplicate", new { name = "Plenty of room" }, 400);
        await _shop.Post($"/api/filters/{filter["id"]}/duplicate", new { name = "Another" });
        await Delete($"/api/filters/{filter["id"]}");
        Assert.Equal(["Another"], (await _shop.Get("/api/filters")).AsArray().Select(f => f!["name"]!.GetValue<string>()));
        for (var i = 0; i < 3; i++)
            await Undo();
        Assert.Equal(["Roomy"], (await _shop.Get("/api/filters")).AsArray().Select(f => f!["name"]!.GetValue<string>()));

        await _shop.Post("/api/listings/1/takes", new { text = "Cedar house for a wren" }, 204);
        async Task<JsonNode?> Take() =>
            (await _shop.Post("/api/listings/1/takes/weighed", new { marketId = Market, fields = (object?)null }))
                .AsArray()
                .FirstOrDefault(t => t!["text"]!.GetValue<string>() == "Cedar house for a wren");
        var take = (await Take())!["id"]!.GetValue<int>();
        await _shop.Put($"/api/listings/1/takes/{take}/name", new { name = "Short" });
        Assert.Equal("Short", (await Take())!["name"]!.GetValue<string>());
        await Delete($"/api/listings/1/takes/{take}");
        Assert.Null(await Take());
        Assert.Equal("Deleted take “Short”", await Undo(product: 1));
        Assert.NotNull(await Take());

        await _shop.Lines(
            "/api/products/1/dig",
            new
            {
                marketId = Market,
                text = "owl box",
                parentId = (int?)null,
            }
        );
        var trail = (await _shop.Get($"/api/products/1/trail/{Market}")).AsArray();
        var step = trail.First(s => s!["text"]!.GetValue<string>() == "owl box")!["id"]!.GetValue<int>();
        await Delete($"/api/products/1/trail/{step}");
        Assert.Equal(trail.Count - 1, (await _shop.Get($"/api/products/1/trail/{Market}")).AsArray().Count);
        await Undo(product: 1);
        Assert.Equal(trail.ToJsonString(), (await _shop.Get($"/api/products/1/trail/{Market}")).ToJsonString());
    }

    [Fact]
    public async Task The_shop_has_a_name_and_a_currency()
    {
        await _shop.Put("/api/shop", new { name = "Quire & Thread", currency = "EUR" });
        Assert.Equal(
            ("Quire & Thread", "EUR"),
            ((await _shop.Get("/api/shop"))["name"]!.GetValue<string>(), (await _shop.Get("/api/shop"))["currency"]!.GetValue<string>())
        );
        await _shop.Put("/api/shop", new { name = "Quire", currency = "euro" }, 400);
        await Undo();
        Assert.Equal(
            ("Plover & Pine", "USD"),
            ((await _shop.Get("/api/shop"))["name"]!.GetValue<string>(), (await _shop.Get("/api/shop"))["currency"]!.GetValue<string>())
        );
    }

    [Fact]
    public async Task The_history_lists_changes_and_says_which_can_be_undone_now()
    {
        await _shop.Pick(1, ["owl box"]);
        await _shop.Pick(1, ["owl box", "owl perch"], note: "For the barn");
        await _shop.Put("/api/products/1/name", new { name = "Wren box", revision = 0 });
        var history = (await _shop.Get("/api/changes?product=1"))
            .AsArray()
            .Take(3)
            .Select(c => (c!["what"]!.GetValue<string>(), c["canUndo"]!.GetValue<bool>()))
            .ToList();
        Assert.Equal(
            [("Renamed product “Wren nest box, cedar” to “Wren box”", true), ("Picked 2 terms", true), ("Picked “owl box”", false)],
            history
        );
        var first = (await _shop.Get("/api/changes?product=1")).AsArray()[2]!["id"]!.GetValue<int>();
        Assert.Null(await Undo(first, 1));
        Assert.Equal("Renamed product “Wren nest box, cedar” to “Wren box”", await Undo(product: 1));
        Assert.Equal("Picked 2 terms", await Undo(product: 1));
    }

    [Fact]
    public async Task A_fill_of_materials_comes_from_the_facts_and_a_roomy_fill_offers_terms_of_the_shelf()
    {
        var fill = await _shop.Post(
            "/api/listings/1/fill/materials",
            new { marketId = Market, fields = new { materials = new[] { "brass screws" } } }
        );
        Assert.Equal(["western red cedar"], fill["pieces"]!.AsArray().Select(p => p!.GetValue<string>()));
        // Nothing is picked for the bat box: the shelf has terms for it.
        await _shop.Pick(3, ["bat box"]);
        var bat = (await _shop.Get("/api/shop"))["products"]![2]!["listings"]!["hedgerow-fair"]!.GetValue<int>();
        var title = await _shop.Post($"/api/listings/{bat}/fill/title", new { marketId = Market, fields = new { } });
        Assert.Contains("on your shelf would fit", title["note"]!.GetValue<string>());
        Assert.All(title["offers"]!.AsArray(), o => Assert.Contains("b", o!["text"]!.GetValue<string>()));
        Assert.NotEmpty(title["offers"]!.AsArray());
    }

    [Fact]
    public async Task A_term_is_explained_with_the_factors_that_the_engine_used()
    {
        var longbarrow = (await _shop.Get("/api/shop"))["products"]![0]!["listings"]!["longbarrow"]!.GetValue<int>();
        var why = await _shop.Post(
            $"/api/listings/{longbarrow}/weigh/explain",
            new
            {
                marketId = "longbarrow-us",
                key = "bird house",
                fields = new { title = $"Bird houses {string.Join(' ', Enumerable.Repeat("of cedar", 15))}, a large bird house" },
            }
        );
        var field = Assert.Single(why["fields"]!.AsArray())!;
        Assert.Equal(
            ("title", "inflected", 0.85, 1.0, 0),
            (
                field["field"]!.GetValue<string>(),
                field["grade"]!.GetValue<string>(),
                field["factor"]!.GetValue<double>(),
                field["front"]!.GetValue<double>(),
                field["token"]!.GetValue<int>()
            )
        );
        Assert.Equal(field["weight"]!.GetValue<double>() * 0.85, field["strength"]!.GetValue<double>(), 9);
        Assert.Equal(field["strength"]!.GetValue<double>() * 100, why["grip"]!.GetValue<double>(), 9);
    }

    [Fact]
    public async Task A_new_pick_gets_the_fit_that_its_words_deserve()
    {
        await _shop.Pick(1, ["cedar nest box for robins", "robin house", "purple nest box"]);
        var picks = (await _shop.Get($"/api/products/1/picks?marketId={Market}"))["picks"]!
            .AsArray()
            .TakeLast(3)
            .Select(p => p!["fit"]!.GetValue<string>());
        Assert.Equal(["core", "good", "stretch"], picks);
    }

    [Fact]
    public async Task Words_of_the_meaning_that_fits_the_product_come_first()
    {
        async Task<string> First(string query) =>
            (await _shop.Get($"/api/markets/{Market}/alike?text=bat{query}"))[0]!["alike"]![0]!["word"]!.GetValue<string>();
        var product = await _shop.Post("/api/products", new { name = "For the court", facts = new { what = "squash racket" } });
        Assert.Contains("racket", await First($"&product={product["id"]}"));
        Assert.DoesNotContain("racket", await First("&product=3"));
    }
}
