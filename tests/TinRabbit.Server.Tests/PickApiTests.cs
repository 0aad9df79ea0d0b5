using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>Picks in full: who says so, facts, what the shop avoids, ideas, another language.</summary>
public sealed class PickApiTests : IDisposable
{
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    private const string Market = "hedgerow-fair-us";

    [Fact]
    public async Task A_pick_says_who_says_so_and_which_family_it_is_of()
    {
        var product = await shop.AddProduct();
        await shop.Post(
            $"/api/products/{product}/picks",
            new
            {
                texts = new[] { "bird house", "birdhouses" },
                source = "bird house",
                saidBy = new[] { "shoppers type it (place 1)", "41 of the top 100 sellers use it" },
                fit = (string?)null,
                home = (string?)null,
                note = (string?)null,
            }
        );
        var picks = await Picks(product);
        Assert.Equal(
            ["shoppers type it (place 1)", "41 of the top 100 sellers use it"],
            picks.Select(p => p!["saidBy"]!.GetValue<string>())
        );
        Assert.Single(picks.Select(p => p!["family"]!.GetValue<string>()).Distinct());
        // Each keeps its own, whatever was given twice.
        var twice = await shop.AddProduct();
        await shop.Post(
            $"/api/products/{twice}/picks",
            new
            {
                texts = new[] { "owl box", "Owl-Box", "bat box" },
                source = "",
                saidBy = new[] { "one", "again", "two" },
                fit = (string?)null,
                home = (string?)null,
                note = (string?)null,
            }
        );
        Assert.Equal(["owl box one", "bat box two"], (await Picks(twice)).Select(p => $"{p!["text"]} {p["saidBy"]}"));
        // One change to many is one step of undo.
        await shop.Pick(product, ["bird house", "birdhouses"], home: "tags", fit: "good");
        Assert.All(await Picks(product), p => Assert.Equal("tags good", $"{p!["home"]} {p["fit"]}"));
        await Undo(product);
        Assert.All(await Picks(product), p => Assert.Equal("anywhere core", $"{p!["home"]} {p["fit"]}"));
        Assert.Equal("shoppers type it (place 1)", (await Picks(product))[0]!["saidBy"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_pick_that_claims_what_the_facts_lack_says_so_until_the_facts_have_it()
    {
        var product = await shop.AddProduct();
        await shop.Pick(product, ["white cedar nest box"]);
        // Without any fact nothing is known, and nothing is called out.
        Assert.Empty(Claims(await Picks(product)));
        await shop.SaveFacts(product, new { what = "nest box", sizes = new[] { "small" } });
        Assert.Equal(["colour white", "material cedar"], Claims(await Picks(product)));
        var facts = new
        {
            what = "nest box",
            materials = new[] { "western red cedar" },
            colours = Array.Empty<string>(),
            sizes = Array.Empty<string>(),
            audiences = Array.Empty<string>(),
            occasions = Array.Empty<string>(),
        };
        Assert.Equal("Changed the facts", (await shop.SaveFacts(product, facts))["what"]!.GetValue<string>());
        Assert.Null((await shop.SaveFacts(product, facts))["what"]);
        Assert.Equal(["colour white"], Claims(await Picks(product)));
        await Undo(product);
        Assert.Equal(["colour white", "material cedar"], Claims(await Picks(product)));
        await shop.Put("/api/products/999/facts", new { facts, revision = 0 }, 404);

        static IEnumerable<string> Claims(JsonArray picks) =>
            picks[0]!["claims"]!.AsArray().Select(c => $"{c!["facet"]} {c["word"]}").Order();
    }

    [Fact]
    public async Task What_is_avoided_for_one_product_guards_the_copy_of_all()
    {
        using var own = new TestShop();
        var (one, other) = (await own.AddProduct("Nest box"), await own.AddProduct("Feeder"));
        await own.Pick(one, ["bluebird house"], home: "avoid", note: "the hole is too small");
        await own.Pick(other, ["bluebird house", "bird feeder"]);
        var picks = (await own.Get($"/api/products/{other}/picks?marketId={Market}"))["picks"]!.AsArray();
        Assert.Equal("Nest box: the hole is too small", picks[0]!["avoidedFor"]!.GetValue<string>());
        Assert.Null(picks[1]!["avoidedFor"]);

        // In every field, searched or not, and in another form.
        var listing = await own.ListingOf(other, "longbarrow");
        var weighed = await own.Post(
            $"/api/listings/{listing}/weigh",
            new
            {
                marketId = "longbarrow-us",
                fields = new
                {
                    title = "A feeder",
                    bullets = new[] { "near your Bluebird houses" },
                    description = "no bluebird  house",
                },
            }
        );
        var avoided = Assert.Single(weighed["avoided"]!.AsArray())!;
        Assert.Equal(
            ("bluebird house", "the hole is too small", "Nest box"),
            (avoided["text"]!.GetValue<string>(), avoided["reason"]!.GetValue<string>(), avoided["product"]!.GetValue<string>())
        );
        Assert.Equal(
            ["bullets 10 15", "description 3 15"],
            avoided["spans"]!.AsArray().Select(s => $"{s!["field"]} {s["start"]} {s["length"]}").Order()
        );
        Assert.Empty(
            (
                await own.Post(
                    $"/api/listings/{listing}/weigh",
                    new { marketId = "longbarrow-us", fields = new { title = "A house for a bluebird" } }
                )
            )["avoided"]!.AsArray()
        );
    }

    [Fact]
    public async Task Ideas_are_what_no_listing_serves_with_the_reason()
    {
        using var own = new TestShop();
        var product = await own.AddProduct("Feeder");
        const string Here = "overprint-lane-us";
        var lines = string.Join('\n', Enumerable.Range(1, 30).Select(i => $"thing {i}; 100; 100"));
        await own.Post(
            $"/api/markets/{Here}/paste",
            new { text = $"{lines}\ncopper mug; 900; 20\nhanging mug; 700; 20\nred mug; 800; 20\nplain mug; 10; 900", source = "list" }
        );
        await own.Pick(product, ["copper mug", "hanging mug", "plain mug"], home: "later");
        await own.Pick(product, ["red mug"]);
        var listing = await own.ListingOf(product, "overprint-lane");
        Assert.Equal(404, (int)(await own.Client.GetAsync("/api/ideas/moon")).StatusCode);
        var ideas = (await own.Get($"/api/ideas/{Here}")).AsArray();
        Assert.Equal(["copper mug", "red mug", "hanging mug"], ideas[0]!["terms"]!.AsArray().Select(t => t!["text"]!.GetValue<string>()));
        Assert.Contains("3 picks that can be true of one product, 2,400 searches/mo", ideas[0]!["why"]!.GetValue<string>());
        await own.Put($"/api/listings/{listing}/copy", new { fields = new { title = "Red mug" }, revision = 0 });
        Assert.Equal(
            ["copper mug", "hanging mug"],
            (await own.Get($"/api/ideas/{Here}"))[0]!["terms"]!.AsArray().Select(t => t!["text"]!.GetValue<string>())
        );
    }

    [Fact]
    public async Task Picks_in_a_second_language_are_measured_and_kept_in_a_group_of_their_own()
    {
        var turned = (
            await shop.Post(
                "/api/language",
                new
                {
                    marketId = Market,
                    language = "es",
                    texts = new[] { "bird house", "gothic bird house", "wren nest box" },
                    column = (string?)null,
                }
            )
        ).AsArray();
        Assert.Equal("casa para pájaros", turned[0]!["to"]!.GetValue<string>());
        Assert.True(turned[0]!["numbers"]!["volume"]!.GetValue<long>() > 0);
        Assert.Equal("""["gothic"]""", turned[1]!["unknown"]!.ToJsonString());
        Assert.False(turned[2]!["typed"]!.GetValue<bool>());
        Assert.Null(turned[2]!["numbers"]!["volume"]); // nobody types it: unknown, not zero

        var pasted = (
            await shop.Post(
                "/api/language",
                new
                {
                    marketId = Market,
                    language = "fr",
                    texts = new[] { "bird house", "nest box" },
                    column = "maison d'oiseau\n",
                }
            )
        ).AsArray();
        Assert.Equal(["maison d'oiseau", null], pasted.Select(t => t!["to"]?.GetValue<string>()));
        await shop.Post(
            "/api/language",
            new
            {
                marketId = Market,
                language = "es",
                texts = new[] { "bird house" },
                column = "a\nb\nc",
            },
            400
        );
        await shop.Post(
            "/api/language",
            new
            {
                marketId = Market,
                language = "fr",
                texts = new[] { "bird house" },
                column = (string?)null,
            },
            400
        );

        var product = await shop.AddProduct();
        await shop.Post(
            $"/api/products/{product}/picks",
            new
            {
                texts = new[] { "casa para pájaros" },
                source = "",
                saidBy = new[] { "“bird house” in Spanish" },
                language = "es",
                home = "backend",
                fit = "stretch",
                note = (string?)null,
            }
        );
        var pick = (await Picks(product))[0]!;
        Assert.Equal(("es", "backend"), (pick["language"]!.GetValue<string>(), pick["home"]!.GetValue<string>()));
    }

    [Fact]
    public async Task A_product_is_put_on_another_platform_when_it_is_wanted_there()
    {
        var product = await shop.AddProduct();
        var listings = (await shop.Post($"/api/products/{product}/listings/marsh-and-moor", new { }))["listings"]!.AsObject();
        Assert.Equal(
            listings["marsh-and-moor"]!.GetValue<int>(),
            (await shop.Post($"/api/products/{product}/listings/marsh-and-moor", new { }))["listings"]!["marsh-and-moor"]!.GetValue<int>()
        );
        await shop.Post($"/api/products/{product}/listings/nowhere", new { }, 404);
    }

    private async Task<JsonArray> Picks(int product) =>
        (await shop.Get($"/api/products/{product}/picks?marketId={Market}"))["picks"]!.AsArray();

    private Task<JsonNode> Undo(int product) => shop.Post($"/api/changes/undo?sure=true&product={product}", new { });
}
