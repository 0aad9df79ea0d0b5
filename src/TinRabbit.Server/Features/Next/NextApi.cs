using TinRabbit.Core.Progress;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Next;

/// <summary>What to do next for a listing.</summary>
/// <param name="Steps">What comes first being first; what was put off is left out.</param>
/// <param name="PutOff">How many were put off.</param>
public sealed record NextView(IReadOnlyList<NextStep> Steps, int PutOff);

/// <summary>One useful thing to do.</summary>
/// <param name="Text">What, as a sentence without its full stop.</param>
/// <param name="Why">Why it comes before the others.</param>
/// <param name="Move">The edit, for a move.</param>
/// <param name="Lead">The key of the pick, where it is to become the lead.</param>
/// <param name="At">When it can be done; null where that is now.</param>
public sealed record NextStep(StepKind Kind, string Text, string Why, MoveView? Move, string? Lead, DateTime? At);

/// <summary>A step to put off for some days.</summary>
public sealed record PutOffRequest(StepKind Kind);

/// <summary>Listings whose next step is wanted.</summary>
/// <param name="Country">The country whose markets they are in.</param>
public sealed record NextLinesRequest([MaxLength(NextApi.MostLines)] IReadOnlyList<int> Ids, [MaxLength(8)] string Country);

/// <summary>The next step of a listing in a list.</summary>
/// <param name="Step">The step; null where there is nothing to do.</param>
public sealed record NextLine(int Id, NextStep? Step);

internal static class NextApi
{
    /// <summary>Most listings in one question.</summary>
    public const int MostLines = 100;

    public static void MapNext(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/next");
        api.MapPost("/", FindNext).WithRequestTimeout(ProblemAnswers.Computes);
        api.MapPost("/putoff", PutOff).RetriesRaces();
        app.MapPost("/api/listings/next", FindLines).DisableRequestTimeout();
    }

    private static async Task<NextView> FindNext(
        int id,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        NextFinder finder,
        CancellationToken stop
    ) => await finder.Of(await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere(), draft.MarketId, stop);

    // Those in sight, one after the other: a search for moves takes a while.
    private static async Task<NdJson<NextLine>> FindLines(
        NextLinesRequest request,
        TinContext db,
        IMarket market,
        PreparedPicksCache ready,
        NextFinder finder,
        CancellationToken stop
    )
    {
        var markets = market.MarketsIn(await db.Site(stop), request.Country);
        var platforms = await db
            .Listings.AsNoTracking()
            .Where(l => request.Ids.Contains(l.Id))
            .ToDictionaryAsync(l => l.Id, l => l.PlatformId, stop);
        return new(Lines());

        async IAsyncEnumerable<NextLine> Lines()
        {
            foreach (var id in request.Ids)
                if (
                    platforms.TryGetValue(id, out var platform)
                    && markets.TryGetValue(platform, out var marketId)
                    && await OpenDraft.Open(db, ready, id, new(marketId, null), stop) is { } open
                )
                    yield return new(id, await finder.Of(open, marketId, stop) is { Steps: [var first, ..] } ? first : null);
        }
    }

    private static async Task<Changed> PutOff(int id, PutOffRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var key = NextFinder.KeyOf(request.Kind);
        if (await db.Asides.FirstOrDefaultAsync(a => a.ListingId == id && a.Key == key, stop) is { } old)
            old.At = db.Now;
        else
            db.Asides.Add(AsideRow.Of(id, key, db.Now));
        return await changes.Save(
            NextMessages.PutOff(NextFinder.DaysOff),
            new(Screen.Write, listing.ProductId, id),
            [new DismissedBefore(id, key, IsDismissed: false)],
            stop
        );
    }
}
