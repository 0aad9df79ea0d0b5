using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Words around a term: related ones, and combinations with what describes the product.</summary>
internal static class WordsApi
{
    public static void MapWords(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api");
        api.MapGet("/markets/{marketId}/alike", GetAlike);
        api.MapGet("/products/{id:int}/grid/{marketId}", GetGrid);
    }

    private static async Task<List<AlikeView>> GetAlike(
        string marketId,
        string text,
        int? product,
        RelatedTerms related,
        CancellationToken stop
    ) => Tokens.Of(text).Count > 0 ? await related.Load(marketId, text, product, stop) : throw new NotThereException();

    private static async Task<GridView> GetGrid(
        int id,
        string marketId,
        string head,
        TinContext db,
        TermGrid grid,
        CancellationToken stop
    ) =>
        await db.Products.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, stop) is { } product
        && Tokens.Key(head) is { Length: > 0 } key
            ? await grid.Load(product, marketId, key, stop)
            : throw new NotThereException();
}
