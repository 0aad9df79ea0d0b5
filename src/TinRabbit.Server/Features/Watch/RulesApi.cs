using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Compares what was found with what the platform's profile predicts, and offers changes of the profile.</summary>
internal static class RulesApi
{
    public static void MapRules(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/rules");
        api.MapGet("/", GetRules);
        // Asks the market for the results of many searches, so it may take a while; leaving stops it.
        api.MapGet("/weights", GetWeights).DisableRequestTimeout();
    }

    private static async Task<RulesView> GetRules(int id, string marketId, TinContext db, ProfileAdvice advice, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await advice.Rules(listing, marketId, stop);
    }

    private static async Task<WeightsView> GetWeights(int id, string marketId, TinContext db, ProfileAdvice advice, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await advice.Weights(listing, marketId, stop);
    }
}
