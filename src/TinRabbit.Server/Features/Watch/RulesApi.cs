using Microsoft.AspNetCore.Http.HttpResults;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Compares what was found with what the platform's profile predicts, and offers changes of the profile.</summary>
internal static class RulesApi
{
    public static void MapRules(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/rules").WithTags("Watch");
        api.MapGet("/", GetRules).WithName("GetRules");
        // Asks the market for the results of many searches, so it may take a while; leaving stops it.
        api.MapGet("/weights", GetWeights).WithName("GetWeights").DisableRequestTimeout();
    }

    private static async Task<Results<Ok<RulesView>, NotFound>> GetRules(
        int id,
        string marketId,
        TinContext db,
        ProfileAdvice advice,
        CancellationToken stop
    ) =>
        await db.FindListing(id, stop) is { } listing
            ? TypedResults.Ok(await advice.Rules(listing, marketId, stop))
            : TypedResults.NotFound();

    private static async Task<Results<Ok<WeightsView>, NotFound>> GetWeights(
        int id,
        string marketId,
        TinContext db,
        ProfileAdvice advice,
        CancellationToken stop
    ) =>
        await db.FindListing(id, stop) is { } listing
            ? TypedResults.Ok(await advice.Weights(listing, marketId, stop))
            : TypedResults.NotFound();
}
