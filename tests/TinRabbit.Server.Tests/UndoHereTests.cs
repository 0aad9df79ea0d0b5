using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>The undo key takes back what was changed where one is, and asks before anything large.</summary>
public sealed class UndoHereTests : IDisposable
{
    private const string Market = "hedgerow-fair-us";
    private readonly TestShop _shop = new(demo: true);

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task In_a_listing_it_takes_back_that_listings_changes_and_no_picks_or_imports()
    {
        await _shop.Put("/api/listings/1/asides", new { key = "tag-repeat", aside = true }, 204);
        await _shop.Pick(1, ["owl box"]);
        await _shop.Post($"/api/markets/{Market}/terms/delete", new { texts = new[] { "bird house" } });
        var undone = await Turn("undo", "screen=write&product=1&listing=1");
        Assert.NotNull(Told(undone));
        Assert.Null(Told(await Turn("undo", "screen=write&product=1&listing=1")));

        // The pick is of the Pick screen, the deleted term of Dig.
        Assert.Equal("Picked “owl box”", Told(await Turn("undo", "screen=pick&product=1")));
        Assert.StartsWith("Deleted “bird house”", Told(await Turn("undo", "screen=dig&product=1")));
        Assert.Null(Told(await Turn("undo", "screen=pick&product=2")));

        // What was undone is made again where it was made.
        Assert.Equal("Picked “owl box”", Told(await Turn("redo", "screen=pick&product=1")));
        Assert.Null(Told(await Turn("redo", "screen=pick&product=1")));
        Assert.Equal(Told(undone), Told(await Turn("redo", "screen=write&product=1&listing=1")));
        await Turn("undo", "screen=attic", 400);
    }

    [Fact]
    public async Task Picks_made_since_the_screen_was_opened_are_made_there()
    {
        await _shop.Pick(1, ["owl box"]);
        var opened = DateTime.UtcNow.ToString("O");
        Assert.Null(Told(await Turn("undo", $"screen=write&product=1&listing=1&opened={opened}")));
        await _shop.Pick(1, ["owl house"]);
        Assert.Equal("Picked “owl house”", Told(await Turn("undo", $"screen=write&product=1&listing=1&opened={opened}")));
        // Only what was changed after a step of the text comes before that step.
        await _shop.Pick(1, ["owl house"]);
        var after = DateTime.UtcNow.ToString("O");
        Assert.Null(Told(await Turn("undo", $"screen=write&product=1&listing=1&opened={opened}&since={after}")));
    }

    [Fact]
    public async Task An_import_is_asked_first_and_history_tells_that_it_is_large()
    {
        using var body = new StringContent("term,volume\nowl box,900\nowl perch,40\n");
        using var response = await _shop.Client.PostAsync($"/api/markets/{Market}/imports?name=owls.csv", body);
        var view = JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
        await _shop.Lines($"/api/markets/{Market}/imports/{view["id"]}/run", new { look = view["look"], source = "owls" });
        var asked = await Turn("undo", "screen=dig&product=1");
        Assert.Null(Told(asked));
        Assert.Equal("Imported 2 terms from “owls”", asked["asks"]!.GetValue<string>());
        var listed = (await _shop.Get("/api/changes?product=1&undone=true"))[0]!;
        Assert.True(listed["isLarge"]!.GetValue<bool>());
        Assert.Null(listed["undoneAt"]);
        Assert.Equal("Imported 2 terms from “owls”", Told(await Turn("undo", $"change={asked["id"]}")));
        Assert.NotNull((await _shop.Get("/api/changes?product=1&undone=true"))[0]!["undoneAt"]);
        Assert.Equal("Imported 2 terms from “owls”", Told(await Turn("redo", $"change={asked["id"]}")));
    }

    private Task<JsonNode> Turn(string way, string query, int status = 200) => _shop.Post($"/api/changes/{way}?{query}", new { }, status);

    private static string? Told(JsonNode turned) => turned["what"]?.GetValue<string>();
}
