using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>Change notes, the journal, and whether changes helped.</summary>
public sealed class NotesApiTests : IDisposable
{
    private const string Us = "hedgerow-fair-us";
    private readonly TestShop shop = new(demo: true);

    public void Dispose() => shop.Dispose();

    private async Task<List<JsonNode>> Notes(string query = "") =>
        [.. (await shop.Get($"/api/notes?{query}"))["notes"]!.AsArray().Select(n => n!)];

    private static JsonNode Effect(JsonNode note, string measure = "views") =>
        note["effects"]!.AsArray().Single(e => e!["measure"]!.GetValue<string>() == measure)!;

    private static string Text(JsonNode node, string name) => node[name]!.GetValue<string>();

    [Fact]
    public async Task The_demo_has_a_change_that_helped_one_that_did_nothing_one_that_hurt_and_one_that_cannot_be_judged_yet()
    {
        var notes = await Notes();
        var bat = notes.Single(n => Text(n, "text").Contains("title") && Text(n, "product") == "Bat box");
        Assert.Equal("up", Text(Effect(bat), "verdict"));
        Assert.StartsWith("Views rose by ", Text(Effect(bat), "says"));
        var price = notes.Single(n => Text(n, "text").Contains("price"));
        Assert.NotNull(Effect(price)["demand"]);
        // Two changes did nothing. Chance calls one of them up or down on some days of the year, but not both.
        var chart = notes.Single(n => Text(n, "product") == "Garden birds wall chart" && n["kinds"]!.AsArray().Count > 0);
        Assert.Contains("unclear", new[] { Text(Effect(price), "verdict"), Text(Effect(chart), "verdict") });
        var fell = notes.Single(n => n["platform"] is { } p && p.GetValue<string>() == "Longbarrow" && n["kinds"]!.AsArray().Count > 0);
        Assert.Equal("down", Text(Effect(fell), "verdict"));
        var photos = notes.Single(n => Text(n, "text").Contains("photos"));
        Assert.Matches("Can’t tell yet: about [1-7] more days?", Text(Effect(photos), "says"));
        // What it did to ranks: the one that hurt lost terms; a price moves no words.
        Task<JsonNode> Ranks(JsonNode note) => shop.Get($"/api/notes/{note["id"]}/ranks");
        Assert.Contains("bird house", (await Ranks(fell))["effect"]!["lost"]!.AsArray().Select(t => t!.GetValue<string>()));
        Assert.Contains("bat house", (await Ranks(bat))["effect"]!["gained"]!.AsArray().Select(t => t!.GetValue<string>()));
        var moved = (await Ranks(price))["effect"]!;
        Assert.Equal((28, 28), (moved["daysBefore"]!.GetValue<int>(), moved["daysAfter"]!.GetValue<int>()));
        Assert.True(moved["terms"]!.GetValue<int>() >= 6 && moved["p"] is not null);
        Assert.StartsWith(
            "Can’t tell yet: checks of ",
            Text(await Ranks(notes.First(n => Text(n, "text") == "Changed title, tags")), "says")
        );
        var first = notes.First(n => Text(n, "text") == "First sent");
        Assert.Empty(first["effects"]!.AsArray());
        Assert.All(await Notes("effects=false"), n => Assert.Empty(n["effects"]!.AsArray()));
        Assert.Equal(
            notes.OrderByDescending(n => Text(n, "at")).Select(n => n["id"]!.GetValue<int>()),
            notes.Select(n => n["id"]!.GetValue<int>())
        );
        Assert.Equal(
            120,
            (await shop.Get($"/api/listings/{await shop.ListingOf(1, "hedgerow-fair")}/history?marketId={Us}"))["views"]!
                .AsArray()
                .Count(v => v is not null)
        );
    }

    [Fact]
    public async Task Every_send_that_changes_something_is_noted_word_by_word()
    {
        var listing = await shop.ListingOf(3, "hedgerow-fair");
        var before = await shop.Get($"/api/listings/{listing}");
        var fields = before["copy"]!.DeepClone();
        fields["title"] = "Bat box, larch bat house for outside, tall bat roost";
        await shop.Put($"/api/listings/{listing}/copy", new { fields, revision = before["revision"]!.GetValue<int>() });
        await shop.Post($"/api/listings/{listing}/send", new { marketId = Us });
        await shop.Post($"/api/listings/{listing}/send", new { marketId = Us });
        var notes = await Notes($"listingId={listing}&marketId={Us}");
        Assert.Equal(["Changed title", "Changed title, tags, description", "First sent"], notes.Select(n => Text(n, "text")));
        Assert.Equal(["title"], notes[0]["kinds"]!.AsArray().Select(k => k!.GetValue<string>()));
        var changes = (await shop.Get($"/api/notes/{notes[0]["id"]}/changes")).AsArray();
        var words = Assert.Single(changes)!["words"]!.AsArray();
        Assert.Equal(["large"], words.Where(w => Text(w!, "are") == "removed").Select(w => Text(w!, "text").Trim()));
        Assert.Equal(["tall"], words.Where(w => Text(w!, "are") == "added").Select(w => Text(w!, "text").Trim()));
        Assert.True(DateTime.Parse(Text(notes[0], "countsFrom")) > DateTime.Parse(Text(notes[0], "at")));
    }

    [Fact]
    public async Task A_note_is_written_edited_searched_deleted_and_each_is_undone()
    {
        var listing = await shop.ListingOf(3, "hedgerow-fair");
        var day = DateTime.UtcNow.AddDays(-3).ToString("yyyy-MM-dd");
        var added = await shop.Post(
            "/api/notes",
            new
            {
                text = "Free postage for the weekend",
                kinds = new[] { "promotion" },
                day,
                listingId = listing,
                marketId = Us,
                term = "bat box",
            }
        );
        Assert.Equal("Added the note “Free postage for the weekend”", Text(added, "what"));
        var note = Assert.Single(await Notes("has=postage&kind=promotion"));
        Assert.Equal(("bat box", "Bat box"), (Text(note, "term"), Text(note, "product")));
        Assert.Empty(await Notes("has=postage&kind=price"));
        Assert.Empty(await Notes("has=postage&productId=2"));

        var edit = new
        {
            text = "Free postage for a week",
            kinds = new[] { "promotion", "price" },
            day,
            revision = note["revision"]!.GetValue<int>(),
        };
        await shop.Put($"/api/notes/{note["id"]}", edit);
        // The same again is saved already; something else that was written from the note before is not.
        Assert.Null((await shop.Put($"/api/notes/{note["id"]}", edit))["what"]);
        await shop.Put(
            $"/api/notes/{note["id"]}",
            new
            {
                text = "No",
                edit.kinds,
                edit.day,
                edit.revision,
            },
            409
        );
        Assert.Equal("Free postage for a week", Text(Assert.Single(await Notes("has=postage")), "text"));
        await shop.Post("/api/changes/undo?sure=true&product=3", new { });
        Assert.Equal("Free postage for the weekend", Text(Assert.Single(await Notes("has=postage")), "text"));

        using var deleted = await shop.Client.DeleteAsync($"/api/notes/{note["id"]}");
        Assert.True(deleted.IsSuccessStatusCode);
        Assert.Empty(await Notes("has=postage"));
        await shop.Post("/api/changes/undo?sure=true&product=3", new { });
        Assert.Single(await Notes("has=postage"));
        Assert.Contains("Free postage", await shop.Client.GetStringAsync("/api/notes/export.csv?has=postage"));

        await shop.Post(
            "/api/notes",
            new
            {
                text = " ",
                kinds = Array.Empty<string>(),
                day,
            },
            400
        );
        foreach (var impossible in (string[])["2100-01-01", "0001-01-01"])
            await shop.Post(
                "/api/notes",
                new
                {
                    text = "Not now",
                    kinds = Array.Empty<string>(),
                    day = impossible,
                },
                400
            );
        await shop.Post(
            "/api/notes",
            new
            {
                text = "Nowhere",
                kinds = Array.Empty<string>(),
                day,
                listingId = 999999,
            },
            400
        );
    }

    [Fact]
    public async Task What_each_kind_of_change_did_is_pooled_from_three_on()
    {
        var pooled = (await shop.Get("/api/notes?pooled=true"))["pooled"]!.AsArray().ToDictionary(p => Text(p!, "kind"), p => p!);
        Assert.Equal(3, pooled["title"]["count"]!.GetValue<int>());
        Assert.InRange(
            pooled["title"]["difference"]!.GetValue<double>(),
            pooled["title"]["low"]!.GetValue<double>(),
            pooled["title"]["high"]!.GetValue<double>()
        );
        Assert.Null(pooled["price"]["difference"]);
        Assert.Equal("Not enough data: 1 of at least 3 changes that can be compared", Text(pooled["price"], "says"));
        Assert.Equal(3, pooled["title"]["together"]!.GetValue<int>());
        var clicks = (await shop.Get("/api/notes?pooled=true&measure=clicks&effects=false"))["pooled"]!.AsArray();
        Assert.Contains(clicks, p => Text(p!, "says").Contains("Clicks") || Text(p!, "says").Contains("Not enough data"));
        using var unknown = await shop.Client.GetAsync("/api/notes?pooled=true&measure=hearts");
        Assert.Contains("is not one of: views, clicks, sales", await unknown.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_rise_from_nothing_is_told_in_counts_and_has_no_percentage()
    {
        var listing = await shop.ListingOf(3, "longbarrow");
        var today = DateTime.UtcNow.Date;
        var rows = Enumerable.Range(1, 60).Select(d => $"{today.AddDays(-d):yyyy-MM-dd},{(d > 30 ? 0 : 11 + d % 3)},{d % 2}");
        await shop.Drop("longbarrow-us", listing, "f.csv", string.Join('\n', rows.Prepend("date,views,clicks")));
        await shop.Post(
            "/api/notes",
            new
            {
                text = "On the home page",
                kinds = new[] { "promotion" },
                day = today.AddDays(-31).ToString("yyyy-MM-dd"),
                listingId = listing,
                marketId = "longbarrow-us",
            }
        );
        var note = Assert.Single(await Notes("has=home"));
        Assert.Equal(("up", "Views rose from 0 to 12 a day"), (Text(Effect(note), "verdict"), Text(Effect(note), "says")));
        Assert.Null(Effect(note)["difference"]);
        Assert.Null(Effect(note)["high"]);
        Assert.StartsWith("Too few to tell: less than one a day", Text(Effect(note, "clicks"), "says"));
        var pooled = (await shop.Get("/api/notes?pooled=true"))["pooled"]!.AsArray();
        Assert.Equal(0, pooled.Single(p => Text(p!, "kind") == "promotion")!["count"]!.GetValue<int>());
    }

    [Fact]
    public async Task Another_change_ends_the_days_that_are_compared()
    {
        var listing = await shop.ListingOf(3, "hedgerow-fair");
        object Note(int daysAgo, string text) =>
            new
            {
                text,
                kinds = new[] { "price" },
                day = DateTime.UtcNow.AddDays(-daysAgo).ToString("yyyy-MM-dd"),
                listingId = listing,
                marketId = Us,
            };
        await shop.Post("/api/notes", Note(30, "Price to 30"));
        await shop.Post("/api/notes", Note(20, "Price to 31"));
        await shop.Post("/api/notes", Note(17, "Price to 32"));
        var notes = await Notes("has=price to");
        Assert.Equal(
            "Can’t tell: the next change came too soon",
            Text(Effect(notes.Single(n => Text(n, "text") == "Price to 31")), "says")
        );
        Assert.Equal(
            "Can’t tell: the change before it was less than a week earlier",
            Text(Effect(notes.Single(n => Text(n, "text") == "Price to 32")), "says")
        );
        Assert.Equal(7, Effect(notes.Single(n => Text(n, "text") == "Price to 30"))["days"]!.GetValue<int>());
    }
}
