using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Dig;

/// <summary>What the seller judged of a term's results.</summary>
/// <param name="Judged">Whether each result is like the product, by the market's own name for it, or by its title.</param>
/// <param name="Like">How many are.</param>
public sealed record LikenessView(string Key, IReadOnlyDictionary<string, bool> Judged, int Like);

/// <summary>A result that is judged.</summary>
/// <param name="Result">The market's own name for it, or its title.</param>
/// <param name="IsLike">Whether it is the same kind of thing; null to judge it no longer.</param>
public sealed record JudgeRequest(
    string MarketId,
    [Term] string Term,
    [Required, MaxLength(Bounds.ResultName)] string Result,
    bool? IsLike
);

/// <summary>Whether the results of a term are the same kind of thing as a product.</summary>
internal static class LikenessApi
{
    public static void MapLikeness(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/products/{id:int}/likeness");
        api.MapGet("/", GetLikeness);
        api.MapPut("/", Judge).RetriesRaces();
    }

    private static async Task<List<LikenessView>> GetLikeness(int id, string marketId, TinContext db, CancellationToken stop) =>
        (await db.Likenesses.AsNoTracking().Where(l => l.ProductId == id && l.MarketId == marketId).ToListAsync(stop))
            .Where(l => l.Judged.Count > 0)
            .Select(l => new LikenessView(l.Key, l.Judged, l.Judged.Values.Count(like => like)))
            .ToList();

    private static async Task<Changed> Judge(
        int id,
        JudgeRequest request,
        TinContext db,
        IMarket market,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        if (!await db.Products.AnyAsync(p => p.Id == id, stop) || market.Places.All(p => p.Id != request.MarketId))
            throw new NotThereException();
        var key = Tokens.Key(request.Term);
        var row =
            await db.Likenesses.FirstOrDefaultAsync(l => l.ProductId == id && l.MarketId == request.MarketId && l.Key == key, stop)
            ?? db.Likenesses.Add(
                new()
                {
                    ProductId = id,
                    MarketId = request.MarketId,
                    Key = key,
                }
            ).Entity;
        var before = row.Id == 0 ? null : row.Judged;
        var judged = new Dictionary<string, bool>(row.Judged);
        if (request.IsLike is { } isLike)
            judged[request.Result] = isLike;
        else
            judged.Remove(request.Result);
        if (judged.Count > Bounds.JudgedResults)
            throw new InvalidInputException([new("result", $"At most {Bounds.JudgedResults} results of a term are judged.")]);
        row.Judged = judged;
        return await changes.Save(
            DigMessages.Judged(request.Term, request.IsLike),
            new(Screen.Dig, id),
            [new LikenessBefore(id, request.MarketId, key, before)],
            stop
        );
    }
}
