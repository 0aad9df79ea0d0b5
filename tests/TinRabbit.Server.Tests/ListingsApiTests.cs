using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>The shop at a glance: every listing with its scores, and one change to many of them.</summary>
public sealed class ListingsApiTests : IDisposable
{
    private readonly TestShop shop = new(demo: true);

    public void Dispose() => shop.Dispose();

    private static double? Number(JsonNode? node, string name) => node?[name]?.GetValue<double>();

    private async Task<List<JsonNode>> Listings() =>
        [.. (await shop.Get("/api/listings?country=us"))["listings"]!.AsArray().Select(l => l!)];

    private Task<List<JsonNode>> Weigh() => shop.Lines("/api/listings/scores", new { country = "us" });

    private static object Edit(IEnumerable<int> ids, string find, string replacement, string kind = "replace", params string[] roles) =>
        new
        {
            ids,
            kind,
            find,
            replacement,
            matchesCase = false,
            wholeWords = true,
            roles,
            country = "us",
        };

    [Fact]
    public async Task An_idea_is_a_list_of_picks_until_it_becomes_a_product_and_undo_makes_it_one_again()
    {
        var made = await shop.Post(
            "/api/products",
            new
            {
                name = "Idea 1",
                platforms = new[] { "hedgerow-fair" },
                picks = new[] { "owl box camera", "owl box" },
                isIdea = true,
            }
        );
        var id = made["id"]!.GetValue<int>();
        Assert.DoesNotContain(await Listings(), l => l["productId"]!.GetValue<int>() == id);
        var picks = (await shop.Get($"/api/products/{id}/picks?marketId=hedgerow-fair-us"))["picks"]!.AsArray();
        Assert.Equal(["owl box camera", "owl box"], picks.Select(p => p!["text"]!.GetValue<string>()));

        await shop.Post($"/api/products/{id}/become", new { name = "Owl box with a camera" });
        var listing = (await Listings()).Single(l => l["productId"]!.GetValue<int>() == id);
        Assert.Equal("Owl box with a camera", listing["product"]!.GetValue<string>());
        var open = await shop.Get($"/api/listings/{listing["id"]}");
        Assert.Equal("owl box camera", open["leadKey"]!.GetValue<string>());

        await shop.Post($"/api/changes/undo?sure=true&product={id}", new { });
        Assert.DoesNotContain(await Listings(), l => l["productId"]!.GetValue<int>() == id);
        Assert.Equal("Idea 1", (await shop.Product(id))["name"]!.GetValue<string>());
    }

    [Fact]
    public async Task Pages_are_in_the_list_and_never_archived()
    {
        var all = await Listings();
        var page = all.First(l => l["isPage"]!.GetValue<bool>());
        await shop.Post("/api/listings/archive", new { ids = new[] { page["id"]!.GetValue<int>() }, isArchived = true });
        Assert.Null((await Listings()).Single(l => l["id"]!.GetValue<int>() == page["id"]!.GetValue<int>())["archivedAt"]);
    }

    [Fact]
    public async Task The_list_says_what_the_last_four_weeks_brought_and_when_a_listing_was_checked()
    {
        var id = await shop.ListingOf(3, "longbarrow");
        var before = (await Listings()).Single(l => l["id"]!.GetValue<int>() == id);
        Assert.Null(before["recent"]);
        Assert.Null(before["checkedOn"]);
        var today = DateOnly.FromDateTime(DateTime.UtcNow);
        string Row(int ago, string numbers) => $"{today.AddDays(-ago):yyyy-MM-dd},{numbers}\n";
        await shop.Drop("longbarrow-us", id, "f.csv", "date,views,sales\n" + Row(40, "1000,50") + Row(9, "5,1") + Row(2, "7,"));
        await shop.Drop("longbarrow-us", id, "found.csv", "term,rank\nbat box,3\n");
        var after = (await Listings()).Single(l => l["id"]!.GetValue<int>() == id);
        Assert.Equal((12, 1, 28), (Number(after["recent"], "views"), Number(after["recent"], "sales"), Number(after["recent"], "days")));
        Assert.Equal(2, Number(after["recent"], "known"));
        Assert.Equal($"{today:yyyy-MM-dd}", after["checkedOn"]!.GetValue<string>());
    }

    [Fact]
    public async Task Scores_are_worked_out_once_and_again_only_for_what_changed()
    {
        await shop.NumbersSettled();
        var before = await Listings();
        Assert.All(before, l => Assert.Null(l["score"]));
        var lines = await Weigh();
        Assert.Equal((before.Count, before.Count + 1), (Number(lines[0], "all"), lines.Count));
        Assert.Equal(Enumerable.Range(0, lines.Count).Select(i => (double?)i), lines.Select(l => Number(l, "done")));
        var known = await Listings();
        Assert.All(known, l => Assert.True(l["isFresh"]!.GetValue<bool>()));
        Assert.Single(await Weigh());

        // The figures are those of the listing's own screens.
        var box = known.Single(l => l["product"]!.GetValue<string>() == "Bat box" && l["platformId"]!.GetValue<string>() == "longbarrow");
        var weighed = await shop.Post($"/api/listings/{box["id"]}/weigh", new { marketId = "longbarrow-us" });
        Assert.Equal(Number(weighed, "grip"), Number(box["score"], "grip"));
        Assert.Equal(Number(weighed, "totalVolume") - Number(weighed, "volume"), Number(box["score"], "lost"));
        var findings = (await shop.Post($"/api/listings/{box["id"]}/check", new { marketId = "longbarrow-us" }))["findings"]!.AsArray();
        Assert.Equal(findings.Count(f => f!["level"]!.GetValue<string>() == "must"), Number(box["score"], "required"));
        Assert.Equal(findings.Count(f => f!["level"]!.GetValue<string>() == "should"), Number(box["score"], "recommended"));

        // A text that changed makes its own score old, and no other's.
        await shop.Put($"/api/listings/{box["id"]}/copy", new { fields = new { title = "Bat box" }, revision = 0 });
        Assert.Equal(
            [box["id"]!.GetValue<int>()],
            (await Listings()).Where(l => !l["isFresh"]!.GetValue<bool>()).Select(l => l["id"]!.GetValue<int>())
        );
        Assert.Equal(2, (await Weigh()).Count);
        var after = (await Listings()).Single(l => l["id"]!.GetValue<int>() == box["id"]!.GetValue<int>());
        Assert.True(Number(after["score"], "grip") > Number(box["score"], "grip"));

        // So does a finding that is dismissed; a page that moves makes those of pages old.
        var should = (await shop.Post($"/api/listings/{box["id"]}/check", new { marketId = "longbarrow-us" }))["findings"]!
            .AsArray()
            .First(f => f!["level"]!.GetValue<string>() == "should")!;
        using (
            var answer = await shop.Client.PutAsJsonAsync($"/api/listings/{box["id"]}/asides", new { key = should["key"], aside = true })
        )
            Assert.True(answer.IsSuccessStatusCode);
        Assert.Equal(
            [box["id"]!.GetValue<int>()],
            (await Listings()).Where(l => !l["isFresh"]!.GetValue<bool>()).Select(l => l["id"]!.GetValue<int>())
        );
        await Weigh();
        var dismissed = (await Listings()).Single(l => l["id"]!.GetValue<int>() == box["id"]!.GetValue<int>());
        Assert.True(Number(dismissed["score"], "recommended") < Number(after["score"], "recommended"));
        var page = (await shop.Get("/api/pages"))["pages"]!.AsArray().First(p => p!["kind"]!.GetValue<string>() == "content")!;
        await shop.Put($"/api/pages/{page["id"]}", new { inMenu = !page["inMenu"]!.GetValue<bool>() });
        Assert.Equal(
            ["web-shop"],
            (await Listings()).Where(l => !l["isFresh"]!.GetValue<bool>()).Select(l => l["platformId"]!.GetValue<string>()).Distinct()
        );
    }

    [Fact]
    public async Task A_listing_says_when_it_was_sent_and_whether_it_changed_since()
    {
        var id = await shop.ListingOf(6, "chalk-shelf");
        async Task<JsonNode> Line() => (await Listings()).Single(l => l["id"]!.GetValue<int>() == id);
        Assert.Null((await Line())["sentAt"]);
        await shop.Post($"/api/listings/{id}/send", new { marketId = "chalk-shelf-us" });
        Assert.NotNull((await Line())["sentAt"]);
        Assert.False((await Line())["changed"]!.GetValue<bool>());
        await shop.Put(
            $"/api/listings/{id}/copy",
            new { fields = new { title = "Bird count sheets", description = "Printable." }, revision = 0 }
        );
        Assert.True((await Line())["changed"]!.GetValue<bool>());
    }

    [Fact]
    public async Task An_archived_listing_is_not_weighed_and_one_undo_brings_all_of_them_back()
    {
        var ids = (await Listings()).Take(3).Select(l => l["id"]!.GetValue<int>()).ToArray();
        Assert.Equal(
            "Archived 3 listings",
            (await shop.Post("/api/listings/archive", new { ids, isArchived = true }))["what"]!.GetValue<string>()
        );
        Assert.Equal(ids, (await Listings()).Where(l => l["archivedAt"] is not null).Select(l => l["id"]!.GetValue<int>()));
        Assert.Equal((await Listings()).Count - 3, Number((await Weigh())[0], "all"));
        // Once more changes nothing.
        Assert.Null((await shop.Post("/api/listings/archive", new { ids, isArchived = true }))["what"]);
        await shop.Post("/api/changes/undo?sure=true", new { });
        Assert.All(await Listings(), l => Assert.Null(l["archivedAt"]));
    }

    [Fact]
    public async Task A_replacement_shows_what_it_does_to_grip_and_limits_and_one_undo_takes_all_of_it_back()
    {
        var ids = (await Listings()).Select(l => l["id"]!.GetValue<int>()).ToArray();
        var edit = Edit(ids, "bird house", "birdhouse", "replace", "title", "tags");
        var plan = (await shop.Post("/api/listings/edit/preview", edit))["changes"]!.AsArray();
        Assert.Equal(["Title", "Tags"], plan.Select(c => c!["field"]!.GetValue<string>()));
        var id = plan[0]!["listingId"]!.GetValue<int>();
        var before = (await shop.Get($"/api/listings/{id}"))["copy"]!.ToJsonString();
        var grip = Number(await shop.Post($"/api/listings/{id}/weigh", new { marketId = "hedgerow-fair-us" }), "grip");

        // Only the title is chosen.
        var done = await shop.Post(
            "/api/listings/edit",
            new
            {
                edit,
                keys = new[] { plan[0]!["key"]!.GetValue<string>() },
                revisions = new Dictionary<string, int> { [$"{id}"] = 0 },
            }
        );
        Assert.Equal(("Changed 1 listing", 0), (done["what"]!.GetValue<string>(), Number(done, "skipped")));
        var weighed = await shop.Post($"/api/listings/{id}/weigh", new { marketId = "hedgerow-fair-us" });
        Assert.Equal(grip!.Value + Number(plan[0], "grip")!.Value, Number(weighed, "grip")!.Value, 1e-9);
        var copy = (await shop.Get($"/api/listings/{id}"))["copy"]!;
        Assert.Contains("small birdhouse", copy["title"]!.GetValue<string>());
        Assert.Contains("wooden bird house", copy["tags"]!.AsArray().Select(t => t!.GetValue<string>()));

        // The text before is a version, and the change is undone as one.
        var versions = (await shop.Get($"/api/listings/{id}/versions")).AsArray();
        Assert.Equal("before a change to several listings", versions[0]!["why"]!.GetValue<string>());
        await shop.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(before, (await shop.Get($"/api/listings/{id}"))["copy"]!.ToJsonString());
    }

    [Fact]
    public async Task What_was_changed_in_another_window_meanwhile_is_left_alone()
    {
        var id = await shop.ListingOf(3, "hedgerow-fair");
        var edit = Edit([id], "bat box", "bat roost");
        var plan = (await shop.Post("/api/listings/edit/preview", edit))["changes"]!.AsArray();
        await shop.Put($"/api/listings/{id}/copy", new { fields = new { title = "Bat box of larch" }, revision = 0 });
        var done = await shop.Post(
            "/api/listings/edit",
            new
            {
                edit,
                keys = plan.Select(c => c!["key"]!.GetValue<string>()),
                revisions = new Dictionary<string, int> { [$"{id}"] = 0 },
            }
        );
        Assert.Equal((null, 1), (done["what"], Number(done, "skipped")));
        Assert.Equal("Bat box of larch", (await shop.Get($"/api/listings/{id}"))["copy"]!["title"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_tag_that_makes_too_many_or_is_too_long_is_said_to_be_and_an_empty_edit_is_refused()
    {
        var id = await shop.ListingOf(3, "hedgerow-fair");
        async Task<JsonNode?> Plan(string kind, string tag) =>
            (await shop.Post("/api/listings/edit/preview", Edit([id], tag, "", kind)))["changes"]!.AsArray().SingleOrDefault();
        Assert.Null((await Plan("addTag", "bat gift"))!["over"]);
        Assert.Contains("too long", (await Plan("addTag", "a very long tag about bat boxes"))!["over"]!.GetValue<string>());
        Assert.Null(await Plan("addTag", "Bat Box"));
        Assert.DoesNotContain("bat box", (await Plan("removeTag", "BAT BOX"))!["after"]!.GetValue<string>().Split('\n'));
        Assert.Contains(
            "Enter the text to find",
            (await shop.Post("/api/listings/edit/preview", Edit([id], " ", "x"), 400)).ToJsonString()
        );
        Assert.Contains(
            "at least one letter",
            (await shop.Post("/api/listings/edit/preview", Edit([id], "–", "", "addTag"), 400)).ToJsonString()
        );
    }
}
