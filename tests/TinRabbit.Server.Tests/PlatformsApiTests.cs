using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>Profiles made, copied, changed and checked, and what that does to listings.</summary>
public sealed class PlatformsApiTests : IDisposable
{
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    private async Task<JsonObject> Profile(string id) =>
        (await shop.Get("/api/platforms"))["platforms"]!.AsArray().Single(p => p!["id"]!.GetValue<string>() == id)!["profile"]!
            .DeepClone()
            .AsObject();

    private async Task<JsonObject> Copy(string id, string from = "hedgerow-fair")
    {
        var profile = await Profile(from);
        (profile["id"], profile["name"]) = (id, $"My {id}");
        await shop.Post("/api/platforms", new { profile, like = from });
        return profile;
    }

    [Fact]
    public async Task Six_platforms_ship_and_every_threshold_is_told()
    {
        var all = await shop.Get("/api/platforms");
        Assert.Equal(
            ["chalk-shelf", "hedgerow-fair", "longbarrow", "marsh-and-moor", "overprint-lane", "web-shop"],
            all["platforms"]!.AsArray().Where(p => p!["shipped"]!.GetValue<bool>()).Select(p => p!["id"]!.GetValue<string>())
        );
        Assert.Equal(0.25, all["thresholds"]!["unusedShare"]!.GetValue<double>());
    }

    [Fact]
    public async Task A_copy_has_markets_of_its_kind_and_can_be_written_for()
    {
        await Copy("my-fair");
        var view = await shop.Get("/api/shop");
        Assert.Equal(3, view["markets"]!.AsArray().Count(m => m!["platformId"]!.GetValue<string>() == "my-fair"));
        var product = await shop.AddProduct();
        var listing = await shop.ListingOf(product, "my-fair");
        Assert.True((await shop.Dig(product, "my-fair-gb", "nest box"))["rows"]!.AsArray().Count > 20);
        await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = "A nest box" }, revision = 0 });
        shop.Restart();
        Assert.True((await shop.Dig(product, "my-fair-gb", "bat box"))["rows"]!.AsArray().Count > 20);
    }

    [Fact]
    public async Task A_change_of_limits_says_at_once_which_listings_no_longer_fit()
    {
        var profile = await Copy("tight");
        var product = await shop.AddProduct("Bat box");
        var listing = await shop.ListingOf(product, "tight");
        await shop.Put(
            $"/api/listings/{listing}/copy",
            new
            {
                fields = new
                {
                    title = "Bat box made of larch for the garden",
                    category = new[] { "Garden" },
                    description = "Bats.",
                },
                revision = 0,
            }
        );
        profile["fields"]![0]!["limit"]!["max"] = 30;
        var check = await shop.Post("/api/platforms/check", new { profile });
        var unfit = Assert.Single(check["unfit"]!.AsArray())!;
        Assert.Equal(("Bat box", true), (unfit["product"]!.GetValue<string>(), unfit["before"]!.GetValue<bool>()));
        Assert.Equal("""["Title is 6 characters too long"]""", unfit["why"]!.ToJsonString());
        Assert.Equal(120, (await Profile("tight"))["fields"]![0]!["limit"]!["max"]!.GetValue<int>());
        Assert.Single((await shop.SavePlatform("tight", profile))["unfit"]!.AsArray());
        Assert.Equal(30, (await shop.Get($"/api/listings/{listing}"))["fields"]![0]!["max"]!.GetValue<int>());
    }

    [Fact]
    public async Task What_a_profile_has_no_field_for_any_more_is_not_lost()
    {
        var profile = await Copy("bare");
        var product = await shop.AddProduct("Feeder");
        var listing = await shop.ListingOf(product, "bare");
        await shop.Put(
            $"/api/listings/{listing}/copy",
            new { fields = new { title = "Feeder", tags = new[] { "bird feeder" } }, revision = 0 }
        );
        var tags = profile["fields"]![1]!;
        Assert.Equal("tags", tags["key"]!.GetValue<string>());
        profile["fields"]!.AsArray().RemoveAt(1);
        await shop.SavePlatform("bare", profile);
        Assert.Null((await shop.Get($"/api/listings/{listing}"))["copy"]!["tags"]);
        await shop.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Window feeder" }, revision = 1 });
        tags["shape"] = "line";
        profile["fields"]!.AsArray().Add(tags);
        await shop.SavePlatform("bare", profile);
        var copy = (await shop.Get($"/api/listings/{listing}"))["copy"]!;
        Assert.Equal(("Window feeder", "bird feeder"), (copy["title"]!.GetValue<string>(), copy["tags"]!.GetValue<string>()));
    }

    [Theory]
    [InlineData("fields[0].limit.max", 0, "profile.fields[0].limit.max")]
    [InlineData("fields[1].shape", "tagz", "profile.fields[1].shape")]
    [InlineData("search.folds[0]", "colours", "profile.search.folds[0]")]
    [InlineData("name", " ", "profile.name")]
    [InlineData("id", "My Fair", "profile.id")]
    [InlineData("fields[3].tree[0].name", "", "profile.fields[3].tree[0].name")]
    [InlineData("fields[4].attributes[0].options", 5, "profile.fields[4].attributes[0].options")]
    [InlineData("checks.unusedShare", "much", "profile.checks.unusedShare")]
    public async Task Errors_point_at_the_key(string path, object value, string said)
    {
        var profile = await Profile("hedgerow-fair");
        JsonNode at = profile;
        var steps = path.Replace("[", ".[").Split('.');
        foreach (var step in steps[..^1])
            at = step[0] == '[' ? at[int.Parse(step.Trim('[', ']'))]! : at[step]!;
        var set = JsonValue.Create(value);
        if (steps[^1][0] == '[')
            at[int.Parse(steps[^1].Trim('[', ']'))] = set;
        else
            at[steps[^1]] = set;
        var problem = await shop.Post("/api/platforms/check", new { profile }, 400);
        Assert.Contains(said, problem["errors"]!.AsObject().Select(e => e.Key));
    }

    [Fact]
    public async Task An_id_is_taken_once_and_stays()
    {
        var profile = await Copy("once");
        Assert.Contains("already", (await shop.Post("/api/platforms", new { profile, like = "longbarrow" }, 400)).ToJsonString());
        profile["id"] = "twice";
        await shop.SavePlatform("once", profile, 400);
        await shop.SavePlatform("never", profile, 404);
        var taken = JsonNode.Parse(await shop.Client.GetStringAsync("/api/platforms/once/profile.json"))!;
        Assert.Equal("My once", taken["name"]!.GetValue<string>());
    }
}
