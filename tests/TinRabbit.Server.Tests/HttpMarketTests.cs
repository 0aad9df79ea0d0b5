using System.Net;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using TinRabbit.Market;
using TinRabbit.Market.Http;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

/// <summary>A market source that is away, slow or wrong: the seller is told, and nothing is lost.</summary>
public class HttpMarketTests
{
    private const string Description =
        """{"name":"My numbers","isSimulated":false,"remembers":true,"places":[{"id":"hedgerow-fair-us","platformId":"hedgerow-fair","country":"us","countryName":"United States","language":"en","currency":"USD"}]}""";

    private static async Task<WebApplication> Source(Func<string, string> answer, int status = 200)
    {
        var builder = WebApplication.CreateSlimBuilder();
        Microsoft.AspNetCore.Hosting.WebHostBuilderKestrelExtensions.ConfigureKestrel(
            builder.WebHost,
            k => k.Listen(IPAddress.Loopback, 0)
        );
        var app = builder.Build();
        app.Run(async context =>
        {
            var path = context.Request.Path.Value!.TrimStart('/');
            if (path == MarketContract.DescribePath)
            {
                await context.Response.WriteAsync(Description);
                return;
            }

            context.Response.StatusCode = status;
            context.Response.ContentType = "application/json";
            var text = answer(path);
            if (text == "slow")
                await Task.Delay(TimeSpan.FromMinutes(2), context.RequestAborted);
            await context.Response.WriteAsync(text);
        });
        await app.StartAsync();
        return app;
    }

    private static Task<HttpMarket> Connect(WebApplication source, int seconds = 60) =>
        HttpMarket.Connect(new(source.Urls.First()), TimeSpan.FromSeconds(seconds), default);

    [Theory]
    [InlineData("slow", "did not answer within 5 seconds")]
    [InlineData("no JSON", "can’t be read")]
    [InlineData("null", "can’t be read")]
    [InlineData("{}", "can’t be read")]
    [InlineData("""{"terms":[]}""", "0 measurements for 2 terms")]
    [InlineData(
        """{"terms":[null,{"volume":-5,"competition":1,"titlesHolding":0,"clickCost":null,"months":[],"from":"2026-01-01"}]}""",
        "negative"
    )]
    [InlineData(
        """{"terms":[null,{"volume":"many","competition":1,"titlesHolding":0,"clickCost":null,"months":[],"from":"2026-01-01"}]}""",
        "can’t be read"
    )]
    public async Task What_is_wrong_with_an_answer_is_said(string answer, string said)
    {
        await using var source = await Source(_ => answer);
        using var market = await Connect(source, answer == "slow" ? 5 : 60);
        var wrong = await Assert.ThrowsAsync<MarketException>(() =>
            market.Measure("hedgerow-fair-us", ["bird house", "nest box"], default)
        );
        Assert.Contains(said, wrong.Message);
        Assert.Equal(answer == "slow", wrong.IsSlow);
    }

    [Theory]
    [InlineData("""{"terms":[]}""", "0 searches for 1 terms")]
    [InlineData("""{"terms":[{"found":false,"rank":3,"results":9}]}""", "a rank that cannot be")]
    [InlineData("""{"terms":[{"found":true,"rank":0,"results":9}]}""", "a rank that cannot be")]
    public async Task A_place_that_cannot_be_is_refused(string answer, string said)
    {
        await using var source = await Source(_ => answer);
        using var market = await Connect(source);
        var wrong = await Assert.ThrowsAsync<MarketException>(() => market.Find("hedgerow-fair-us", "own:1", ["bird house"], default));
        Assert.Contains(said, wrong.Message);
        Assert.False(wrong.IsNotOffered);
    }

    [Theory]
    [InlineData("""{"days":[{"day":"2026-01-09","views":1,"clicks":0,"sales":0}]}""", "a day that was not asked for")]
    [InlineData("""{"days":[{"day":"2026-01-02","views":-1,"clicks":0,"sales":0}]}""", "a negative number of views")]
    public async Task Figures_that_cannot_be_are_refused(string answer, string said)
    {
        await using var source = await Source(_ => answer);
        using var market = await Connect(source);
        var wrong = await Assert.ThrowsAsync<MarketException>(() =>
            market.Figures("hedgerow-fair-us", "own:1", new(2026, 1, 1), new(2026, 1, 5), default)
        );
        Assert.Contains(said, wrong.Message);
    }

    [Fact]
    public async Task What_a_source_does_not_offer_is_told_from_what_it_fails_at()
    {
        await using var source = await Source(_ => "", status: 501);
        using var market = await Connect(source);
        var find = await Assert.ThrowsAsync<MarketException>(() => market.Find("hedgerow-fair-us", "own:1", ["bird house"], default));
        Assert.True(find.IsNotOffered);
        Assert.False(market.CanMoveClock);
        Assert.Throws<NotSupportedException>(() => market.MoveClock(TimeSpan.FromDays(1)));
    }

    [Theory]
    [InlineData("""{"listings":[]}""", "0 listings for 1 IDs", "the reviews of 0 listings for 1 IDs")]
    [InlineData("""{"listings":[null]}""", null, null)]
    [InlineData("""{"listings":[[{"text":"Good","stars":7,"at":null}]]}""", "can’t be read", "stars that are not 1 to 5")]
    [InlineData("""{"listings":[[{"text":"","stars":5,"at":null}]]}""", "can’t be read", "an empty or very long one")]
    [InlineData("""{"listings":[[{"text":"Good","stars":null,"at":"2026-03-31"}]]}""", "can’t be read", null)]
    public async Task What_is_wrong_with_listings_and_reviews_is_said(string answer, string? ofListings, string? ofReviews)
    {
        await using var source = await Source(_ => answer);
        using var market = await Connect(source);
        await Says(ofListings, () => market.Listings("hedgerow-fair-us", ["r1"], default));
        await Says(ofReviews, () => market.Reviews("hedgerow-fair-us", ["r1"], 2, default));

        static async Task Says(string? said, Func<Task> ask)
        {
            if (said is null)
                await ask();
            else
                Assert.Contains(said, (await Assert.ThrowsAsync<MarketException>(ask)).Message);
        }
    }

    [Fact]
    public async Task A_source_that_refuses_or_is_away_is_named()
    {
        HttpMarket market;
        await using (var source = await Source(_ => "{}", 500))
        {
            market = await Connect(source);
            Assert.Contains(
                "status 500",
                (await Assert.ThrowsAsync<MarketException>(() => market.Search("hedgerow-fair-us", "bird", 5, default))).Message
            );
        }

        Assert.Contains(
            "can’t be reached",
            (await Assert.ThrowsAsync<MarketException>(() => market.Suggest("hedgerow-fair-us", "bird", 5, default))).Message
        );
        market.Dispose();
    }

    [Fact]
    public async Task A_source_that_remembers_is_still_told_of_a_changed_platform()
    {
        var asked = new List<string>();
        await using var source = await Source(path =>
        {
            asked.Add(path);
            return Description;
        });
        using var market = await Connect(source);
        using var folder = DataFolder.Open(Directory.CreateTempSubdirectory("tin-rabbit-test-").FullName);
        var setup = new MarketSetup(market, folder, Microsoft.Extensions.Logging.Abstractions.NullLogger<MarketSetup>.Instance);
        Assert.True(await setup.TryOpen(ShippedPlatforms.All.First(p => p.Id == "hedgerow-fair"), "hedgerow-fair", default));
        Assert.Equal([MarketContract.OpenPath], asked);
    }

    [Fact]
    public async Task A_source_without_a_market_is_refused_when_it_is_connected()
    {
        var builder = WebApplication.CreateSlimBuilder();
        Microsoft.AspNetCore.Hosting.WebHostBuilderKestrelExtensions.ConfigureKestrel(
            builder.WebHost,
            k => k.Listen(IPAddress.Loopback, 0)
        );
        await using var source = builder.Build();
        source.MapGet("/market", () => new MarketContract.Description("Empty", false, true, []));
        await source.StartAsync();
        Assert.Contains("no market", (await Assert.ThrowsAsync<MarketException>(() => Connect(source))).Message);
    }

    [Fact]
    public async Task A_shop_gets_its_numbers_from_the_source_and_goes_on_without_it()
    {
        var folder = Directory.CreateTempSubdirectory("tin-rabbit-source-").FullName;
        try
        {
            string address;
            await using (var source = MarketServer.Build(MarketSource.StandIn(TimeProvider.System), IPAddress.Loopback, 0))
            {
                await source.StartAsync();
                address = source.Urls.First();
                using var server = await RunningServer.Start(folder, demo: false, "--market", address);
                var product = await Json(server, "/api/products", """{"name":"Wren nest box","facts":null,"pictures":null}""");
                var dug = await Text(
                    server,
                    $"/api/products/{product["id"]}/dig",
                    """{"marketId":"hedgerow-fair-us","text":"nest box","parentId":null}"""
                );
                Assert.Contains("\"volume\":", dug);
                Assert.Contains("Sample data", dug);
                await source.StopAsync();

                // What was measured stays; what is not known yet says why.
                var away = await Text(
                    server,
                    $"/api/products/{product["id"]}/dig",
                    """{"marketId":"hedgerow-fair-us","text":"owl box","parentId":null}""",
                    502
                );
                Assert.Contains("can’t be reached", JsonNode.Parse(away)!["detail"]!.GetValue<string>());
                var shelf = await Json(server, "/api/markets/hedgerow-fair-us/shelf", """{"take":5}""");
                Assert.Equal(5, shelf["rows"]!.AsArray().Count);
            }

            // At the next start the source is still away: the shop starts with the markets that it knows.
            using (var again = await RunningServer.Start(folder, demo: false, "--market", address))
            {
                var shop = JsonNode.Parse(await again.Client.GetStringAsync("/api/shop"))!;
                Assert.Contains(shop["markets"]!.AsArray(), m => m!["id"]!.GetValue<string>() == "hedgerow-fair-us");
                Assert.Single(shop["products"]!.AsArray());
            }
        }
        finally
        {
            Directory.Delete(folder, true);
        }
    }

    private static async Task<JsonNode> Json(RunningServer server, string path, string body) =>
        JsonNode.Parse(await Text(server, path, body))!;

    private static async Task<string> Text(RunningServer server, string path, string body, int status = 200)
    {
        using var content = new StringContent(body, System.Text.Encoding.UTF8, "application/json");
        using var answer = await server.Client.PostAsync(path, content);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True((int)answer.StatusCode == status, $"{answer.StatusCode}: {text}");
        return text;
    }
}

/// <summary>The document that ships says what the program speaks.</summary>
public class MarketDocumentTests
{
    private static readonly JsonNode Document = JsonNode.Parse(
        File.ReadAllText(Path.Combine(Repository.Root, "docs", "market.openapi.json"))
    )!;

    [Fact]
    public void It_names_every_path() =>
        Assert.Equal(
            new[]
            {
                MarketContract.DescribePath,
                MarketContract.SuggestPath,
                MarketContract.MeasurePath,
                MarketContract.SearchPath,
                MarketContract.ListingsPath,
                MarketContract.ReviewsPath,
                MarketContract.FindPath,
                MarketContract.FiguresPath,
                MarketContract.SendPath,
                MarketContract.OpenPath,
            }
                .Select(p => "/" + p)
                .Order(),
            Document["paths"]!.AsObject().Select(p => p.Key).Order()
        );

    [Fact]
    public void It_names_every_member_of_every_question_and_answer()
    {
        foreach (
            var type in typeof(MarketContract)
                .GetNestedTypes()
                .Concat([
                    typeof(MarketPlace),
                    typeof(Measurement),
                    typeof(Result),
                    typeof(SearchPage),
                    typeof(WebResult),
                    typeof(MarketReview),
                ])
        )
            Assert.Equal(
                type.GetProperties().Select(p => System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(p.Name)).Order(),
                Document["components"]!["schemas"]![type.Name]!["properties"]!.AsObject().Select(p => p.Key).Order()
            );
    }
}
