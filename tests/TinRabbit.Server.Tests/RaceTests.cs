using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>Two requests at once, and two windows one after the other: one wins, the others get the state that it left, and nothing is lost.</summary>
public sealed class RaceTests : IDisposable
{
    private const string Market = "longbarrow-us";
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    [Fact]
    public async Task The_same_pick_three_times_at_once_is_one_pick()
    {
        var product = await shop.AddProduct();
        for (var round = 0; round < 5; round++)
        {
            var term = $"bird house {round}";
            await AtOnce(
                3,
                _ =>
                    shop.Client.PostAsJsonAsync(
                        $"/api/products/{product}/picks",
                        new
                        {
                            texts = new[] { term },
                            source = "",
                            fit = (string?)null,
                            home = (string?)null,
                            note = (string?)null,
                        }
                    )
            );
            Assert.Equal(round + 1, await Count());
        }

        async Task<int> Count() => (await shop.Get($"/api/products/{product}/picks?marketId={Market}"))["picks"]!.AsArray().Count;
    }

    [Fact]
    public async Task The_same_undo_twice_at_once_takes_one_change_back()
    {
        var product = await shop.AddProduct();
        for (var i = 0; i < 6; i++)
            await shop.Pick(product, [$"bird house {i}"]);
        for (var left = 5; left >= 3; left--)
        {
            var change = (await shop.Get($"/api/changes?product={product}"))[0]!["id"]!.GetValue<int>();
            var answers = await AtOnce(
                2,
                _ => shop.Client.PostAsync($"/api/changes/undo?sure=true&product={product}&change={change}", null)
            );
            Assert.Single(answers, a => a["what"] is not null);
            Assert.Equal(left, (await shop.Get($"/api/products/{product}/picks?marketId={Market}"))["picks"]!.AsArray().Count);
        }
    }

    [Fact]
    public async Task Alt_texts_saved_from_the_same_revision_are_never_mixed()
    {
        var product = await shop.AddProduct();
        var answers = await AtOnce(
            4,
            i =>
                shop.Client.PutAsJsonAsync(
                    $"/api/products/{product}/pictures",
                    new { pictures = new[] { $"Picture {i}", $"Another {i}" }, revision = 0 }
                ),
            HttpStatusCode.OK,
            HttpStatusCode.Conflict
        );
        var now = await shop.Product(product);
        Assert.Equal(1, now["picturesRevision"]!.GetValue<int>());
        var texts = now["pictures"]!.AsArray().Select(p => p!.GetValue<string>()).ToArray();
        Assert.Equal(texts[0].Replace("Picture", "Another"), texts[1]);
        // Everybody is told what is there now.
        Assert.All(answers, a => Assert.Equal(texts, a["pictures"]!.AsArray().Select(p => p!.GetValue<string>())));
    }

    [Fact]
    public async Task A_finding_dismissed_and_a_filter_saved_several_times_at_once_are_there_once()
    {
        var product = await shop.AddProduct();
        var listing = await shop.ListingOf(product, "longbarrow");
        await AtOnce(
            3,
            _ => shop.Client.PutAsJsonAsync($"/api/listings/{listing}/asides", new { key = "title-short title x", aside = true }),
            HttpStatusCode.NoContent
        );
        await AtOnce(
            3,
            _ => shop.Client.PutAsJsonAsync($"/api/listings/{listing}/asides", new { key = "title-short title x", aside = false }),
            HttpStatusCode.NoContent
        );
        var ids = (await AtOnce(3, i => shop.Client.PostAsJsonAsync("/api/filters", new { name = "Worth it", filters = $"volume={i}" })))
            .Select(a => a["id"]!.GetValue<int>())
            .Distinct();
        Assert.Single(ids);
        Assert.Single((await shop.Get("/api/filters")).AsArray());
        var platform = (await shop.Get("/api/platforms"))["platforms"]!.AsArray().First(p => p!["id"]!.GetValue<string>() == "longbarrow")![
            "profile"
        ]!.DeepClone();
        platform["id"] = "mine";
        await AtOnce(
            3,
            _ => shop.Client.PostAsJsonAsync("/api/platforms", new { profile = platform, like = "longbarrow" }),
            HttpStatusCode.OK,
            HttpStatusCode.BadRequest
        );
        await AtOnce(3, _ => shop.Client.PostAsync($"/api/products/{product}/listings/mine", null));
    }

    [Fact]
    public async Task A_lead_chosen_while_the_text_is_saved_is_kept_and_so_is_the_text()
    {
        var product = await shop.AddProduct();
        var listing = await shop.ListingOf(product, "longbarrow");
        await shop.Pick(product, ["bird house", "nest box"]);
        for (var round = 0; round < 6; round++)
        {
            var lead = round % 2 == 0 ? "bird house" : "nest box";
            var revision = round;
            await AtOnce(
                2,
                i =>
                    i == 0
                        ? shop.Client.PutAsJsonAsync(
                            $"/api/listings/{listing}/copy",
                            new { fields = new { title = $"Title {revision}" }, revision }
                        )
                        : shop.Client.PutAsJsonAsync($"/api/listings/{listing}/lead", new { key = lead }),
                HttpStatusCode.OK,
                HttpStatusCode.NoContent
            );
            var now = await shop.Get($"/api/listings/{listing}");
            Assert.Equal((lead, $"Title {round}"), (now["leadKey"]!.GetValue<string>(), now["copy"]!["title"]!.GetValue<string>()));
        }
    }

    [Fact]
    public async Task The_same_text_is_saved_already_whoever_saved_it_and_another_is_a_conflict()
    {
        var listing = await shop.ListingOf(await shop.AddProduct(), "longbarrow");
        var mine = new { title = "Cedar nest box", bullets = new[] { "Warm" } };
        await shop.Put($"/api/listings/{listing}/copy", new { fields = mine, revision = 0 });
        // The answer was lost, so it is asked for again from the old revision.
        Assert.Equal(
            1,
            (await shop.Put($"/api/listings/{listing}/copy", new { fields = mine, revision = 0 }))["revision"]!.GetValue<int>()
        );
        Assert.Equal(
            "Cedar nest box",
            (await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Other" }, revision = 0 }, 409))["copy"]![
                "title"
            ]!.GetValue<string>()
        );
    }

    [Fact]
    public async Task Facts_notes_names_and_platforms_are_not_written_over_by_another_window()
    {
        var product = await shop.AddProduct();
        await shop.Put($"/api/products/{product}/facts", new { facts = new { what = "nest box" }, revision = 0 });
        var conflict = await shop.Put($"/api/products/{product}/facts", new { facts = new { what = "bird house" }, revision = 0 }, 409);
        Assert.Equal(("nest box", 1), (conflict["facts"]!["what"]!.GetValue<string>(), conflict["revision"]!.GetValue<int>()));
        await shop.Put($"/api/products/{product}/facts", new { facts = new { what = "nest box" }, revision = 0 });
        await shop.Put($"/api/products/{product}/facts", new { facts = new { what = "bird house" }, revision = 1 });

        await shop.Put($"/api/products/{product}/name", new { name = "Cedar box", revision = 2 });
        Assert.Equal(
            "Cedar box",
            (await shop.Put($"/api/products/{product}/name", new { name = "Pine box", revision = 2 }, 409))["name"]!.GetValue<string>()
        );
        await shop.Put($"/api/products/{product}/name", new { name = " ", revision = 3 }, 400);

        await shop.Pick(product, ["bird house"]);
        await Note("first", 0);
        var note = await Note("second", 0, 409);
        Assert.Equal(("first", 1), (note["note"]!.GetValue<string>(), note["noteRevision"]!.GetValue<int>()));
        await Note("second", 1);
        await shop.Post($"/api/changes/undo?sure=true&product={product}", new { });
        Assert.Equal("first", (await Note("third", 2, 409))["note"]!.GetValue<string>());

        var platform = (await shop.Get("/api/platforms"))["platforms"]!.AsArray().First(p => p!["id"]!.GetValue<string>() == "longbarrow")!;
        var profile = platform["profile"]!.DeepClone();
        profile["about"] = "Mine";
        Assert.Equal(1, (await shop.Put("/api/platforms/longbarrow", new { profile, revision = 0 }))["revision"]!.GetValue<int>());
        profile["about"] = "Theirs";
        Assert.Equal(
            "Mine",
            (await shop.Put("/api/platforms/longbarrow", new { profile, revision = 0 }, 409))["about"]!.GetValue<string>()
        );
        Assert.Contains("revision", (await shop.Put("/api/platforms/longbarrow", new { profile }, 400)).ToJsonString());

        Task<JsonNode> Note(string text, int revision, int status = 200) =>
            shop.Post(
                $"/api/products/{product}/picks",
                new
                {
                    texts = new[] { "bird house" },
                    source = "",
                    fit = (string?)null,
                    home = (string?)null,
                    note = text,
                    noteRevision = revision,
                },
                status
            );
    }

    [Fact]
    public async Task Saves_get_in_between_the_portions_of_an_import_that_stays_all_or_nothing()
    {
        var listing = await shop.ListingOf(await shop.AddProduct(), "longbarrow");
        var file = new StringBuilder("term,volume\n");
        for (var i = 0; i < 200_000; i++)
            file.Append("sheet ").Append(i).Append(',').Append(i % 97).Append('\n');
        using var begun = await shop.Client.PostAsync(
            $"/api/markets/{Market}/imports?name=terms.csv",
            new StringContent(file.ToString(), Encoding.UTF8, "text/csv")
        );
        var view = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
        var running = shop.Lines($"/api/markets/{Market}/imports/{view["id"]}/run", new { look = view["look"], source = "x" });
        var saves = 0;
        for (; !running.IsCompleted; saves++)
        {
            await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = $"Title {saves}" }, revision = saves });
            // Whoever looks meanwhile sees none of it.
            if (!running.IsCompleted && saves % 10 == 0)
                Assert.Contains((await shop.Shelf(Market, new { has = "sheet" }))["all"]!.GetValue<int>(), (int[])[0, 200_000]);
        }

        Assert.True(saves > 10, $"only {saves} saves got in");
        Assert.Equal(200_000, (await running)[^1]["count"]!["new"]!.GetValue<int>());
        Assert.Equal(200_000, (await shop.Shelf(Market, new { has = "sheet" }))["passing"]!.GetValue<int>());
    }

    [Fact]
    public async Task An_import_that_is_stopped_leaves_the_shelf_as_it_was_old_numbers_included()
    {
        await shop.Post($"/api/markets/{Market}/paste", new { text = "sheet 5\t7\nowl box\t9", source = "notebook" });
        var file = new StringBuilder("term,volume\n");
        for (var i = 0; i < 300_000; i++)
            file.Append("sheet ").Append(i).Append(',').Append(i % 97 + 100).Append('\n');
        using var begun = await shop.Client.PostAsync(
            $"/api/markets/{Market}/imports?name=terms.csv",
            new StringContent(file.ToString(), Encoding.UTF8, "text/csv")
        );
        var view = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
        using var leave = new CancellationTokenSource();
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/markets/{Market}/imports/{view["id"]}/run")
        {
            Content = JsonContent.Create(new { look = view["look"], source = "x" }),
        };
        using (var response = await shop.Client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead))
        {
            using var lines = new StreamReader(await response.Content.ReadAsStreamAsync());
            while (await lines.ReadLineAsync() is { } line && !line.Contains("Adding terms", StringComparison.Ordinal)) { }
        }

        // The next one waits its turn; when it is through, nothing of the first is left.
        JsonNode shelf;
        var patience = DateTime.UtcNow.AddSeconds(20);
        do shelf = await shop.Shelf(Market, new { });
        while (shelf["all"]!.GetValue<int>() != 2 && DateTime.UtcNow < patience);
        Assert.Equal(["9 owl box", "7 sheet 5"], shelf["rows"]!.AsArray().Select(r => $"{r!["numbers"]!["volume"]} {r["text"]}"));
        var readings = (await shop.Get($"/api/markets/{Market}/term?text=sheet%205"))["readings"]!.AsArray();
        Assert.Equal("notebook", Assert.Single(readings)!["source"]!.GetValue<string>());
    }

    private static async Task<List<JsonNode>> AtOnce(int count, Func<int, Task<HttpResponseMessage>> ask, params HttpStatusCode[] allowed)
    {
        var answers = await Task.WhenAll(Enumerable.Range(0, count).Select(i => Task.Run(() => ask(i))));
        var bodies = new List<JsonNode>();
        foreach (var answer in answers)
        {
            var text = await answer.Content.ReadAsStringAsync();
            Assert.True(
                allowed.Length == 0 ? answer.IsSuccessStatusCode : allowed.Contains(answer.StatusCode),
                $"{answer.StatusCode}: {text}"
            );
            bodies.Add(text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!);
        }

        return bodies;
    }
}
