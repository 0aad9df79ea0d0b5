using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Words around a term: related ones, and combinations with what describes the product.</summary>
internal static class WordsApi
{
    public static void MapWords(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api").WithTags("Words");

        api.MapGet("/markets/{marketId}/alike", GetAlike).WithName("GetAlike");

        api.MapGet("/products/{id:int}/grid/{marketId}", GetGrid).WithName("GetGrid");
    }

    private static async Task<Results<Ok<List<AlikeView>>, NotFound>> GetAlike(
        string marketId,
        string text,
        int? product,
        IMarket market,
        RelatedTerms related,
        CancellationToken stop
    ) =>
        market.Places.Any(p => p.Id == marketId) && Tokens.Of(text).Count > 0
            ? TypedResults.Ok(await related.Load(marketId, text, product, stop))
            : TypedResults.NotFound();

    private static async Task<Results<Ok<GridView>, NotFound>> GetGrid(
        int id,
        string marketId,
        string head,
        TinContext db,
        IMarket market,
        TermGrid grid,
        CancellationToken stop
    ) =>
        await db.Products.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, stop) is { } product
        && market.Places.Any(p => p.Id == marketId)
        && Tokens.Key(head) is { Length: > 0 } key
            ? TypedResults.Ok(await grid.Load(product, marketId, key, stop))
            : TypedResults.NotFound();
}
