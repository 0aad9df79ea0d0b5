using TinRabbit.Market.Http;
using TinRabbit.Market.StandIn;

namespace TinRabbit.Server.Hosting;

/// <summary>Serves the sample data as a market source, so that a source of one's own can be compared with it (docs/market.openapi.json).</summary>
internal static class MarketServer
{
    private const int MostAsked = 5000;

    /// <summary>An application that speaks the market contract, to be started.</summary>
    public static WebApplication Build(StandInMarket market, System.Net.IPAddress listen, int port)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            kestrel.Limits.MaxRequestBodySize = Bounds.RequestBytes;
            kestrel.Listen(listen, port);
        });
        builder.Services.ConfigureHttpJsonOptions(o =>
        {
            o.SerializerOptions.NumberHandling = MarketContract.Json.NumberHandling;
            o.SerializerOptions.RespectNullableAnnotations = true;
            o.SerializerOptions.RespectRequiredConstructorParameters = true;
        });
        var app = builder.Build();
        Map(app, market);
        return app;
    }

    private static void Map(WebApplication app, StandInMarket market)
    {
        var api = app.MapGroup("/").AddEndpointFilter(Explain);
        api.MapGet(MarketContract.DescribePath, () => Describe(market));
        api.MapPost(
            MarketContract.SuggestPath,
            (MarketContract.SuggestQuestion q) =>
                new MarketContract.Suggestions(market.Suggest(q.MarketId, q.Typed, Math.Clamp(q.Most, 0, MostAsked)))
        );
        api.MapPost(MarketContract.MeasurePath, (MarketContract.MeasureQuestion q, CancellationToken stop) => Measure(market, q, stop));
        api.MapPost(
            MarketContract.SearchPath,
            (MarketContract.SearchQuestion q) => market.Search(q.MarketId, q.Term, Math.Clamp(q.Most, 0, MostAsked))
        );
        api.MapPost(MarketContract.ListingsPath, (MarketContract.ListingsQuestion q) => Listings(market, q));
        api.MapPost(MarketContract.ReviewsPath, (MarketContract.ReviewsQuestion q) => Reviews(market, q));
        api.MapPost(MarketContract.FindPath, (MarketContract.FindQuestion q) => Find(market, q));
        api.MapPost(MarketContract.FiguresPath, (MarketContract.FiguresQuestion q) => Figures(market, q));
        api.MapPost(MarketContract.SendPath, (MarketContract.SendQuestion q) => Send(market, q));
        api.MapPost(MarketContract.OpenPath, (MarketContract.OpenQuestion q) => Open(market, q));
    }

    private static MarketContract.Description Describe(StandInMarket market) =>
        new(market.Name, market.IsSimulated, market.Remembers, market.Places);

    private static async Task<Results<Ok<MarketContract.Measurements>, BadRequest<string>>> Measure(
        StandInMarket market,
        MarketContract.MeasureQuestion q,
        CancellationToken stop
    ) =>
        q.Terms.Count <= MarketContract.MostTerms
            ? TypedResults.Ok(new MarketContract.Measurements(await ((IMarket)market).Measure(q.MarketId, q.Terms, stop)))
            : TypedResults.BadRequest($"At most {MarketContract.MostTerms} terms at once.");

    private static Results<Ok<MarketContract.FoundListings>, BadRequest<string>> Listings(
        StandInMarket market,
        MarketContract.ListingsQuestion q
    ) =>
        q.Ids.Count <= MarketContract.MostListings
            ? TypedResults.Ok(new MarketContract.FoundListings(market.ListingsOf(q.MarketId, q.Ids)))
            : TypedResults.BadRequest($"At most {MarketContract.MostListings} listings at once.");

    private static Results<Ok<MarketContract.FoundReviews>, BadRequest<string>> Reviews(
        StandInMarket market,
        MarketContract.ReviewsQuestion q
    ) =>
        q.Ids.Count <= MarketContract.MostListings
            ? TypedResults.Ok(new MarketContract.FoundReviews(market.ReviewsOf(q.MarketId, q.Ids, Math.Clamp(q.Most, 0, MostAsked))))
            : TypedResults.BadRequest($"At most {MarketContract.MostListings} listings at once.");

    private static Results<Ok<MarketContract.FoundTerms>, BadRequest<string>> Find(StandInMarket market, MarketContract.FindQuestion q) =>
        q.Terms.Count <= MarketContract.MostTerms
            ? TypedResults.Ok(new MarketContract.FoundTerms(market.Find(q.MarketId, q.Id, q.Terms)))
            : TypedResults.BadRequest($"At most {MarketContract.MostTerms} terms at once.");

    private static Results<Ok<MarketContract.FoundFigures>, BadRequest<string>> Figures(
        StandInMarket market,
        MarketContract.FiguresQuestion q
    ) =>
        q.To.DayNumber - q.From.DayNumber < MarketContract.MostDays
            ? TypedResults.Ok(new MarketContract.FoundFigures(market.Figures(q.MarketId, q.Id, q.From, q.To)))
            : TypedResults.BadRequest($"At most {MarketContract.MostDays} days at once.");

    private static MarketContract.Noticed Send(StandInMarket market, MarketContract.SendQuestion q)
    {
        var platform = market.PlatformOf(q.MarketId) ?? throw new KeyNotFoundException($"There is no market \"{q.MarketId}\" to send to.");
        var copy = CopyJson.ReadStored(JsonSerializer.SerializeToElement(q.Fields), platform);
        return new(market.Send(q.MarketId, new(q.ListingId, q.Shop, copy), q.At.ToUniversalTime()));
    }

    private static MarketContract.Description Open(StandInMarket market, MarketContract.OpenQuestion q)
    {
        market.Open(PlatformJson.Read(JsonSerializer.SerializeToElement(q.Platform)), q.Kind);
        return Describe(market);
    }

    private static async ValueTask<object?> Explain(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        try
        {
            return await next(context);
        }
        catch (KeyNotFoundException e)
        {
            return TypedResults.NotFound(e.Message);
        }
        catch (InvalidInputException e)
        {
            return TypedResults.BadRequest(e.Message);
        }
    }
}
