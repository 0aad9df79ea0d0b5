using TinRabbit.Core.Progress;
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

internal static class NextApi
{
    public static void MapNext(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/next");
        api.MapPost("/", FindNext);
        api.MapPost("/putoff", PutOff).RetriesRaces();
    }

    private static async Task<NextView> FindNext(
        int id,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        NextFinder finder,
        CancellationToken stop
    ) => await finder.Of(await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere(), draft.MarketId, stop);

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
