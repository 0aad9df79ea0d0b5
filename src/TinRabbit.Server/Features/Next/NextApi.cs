using TinRabbit.Core.Filling;
using TinRabbit.Core.Moves;
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
/// <param name="Text">What; of a move its kind and text say more.</param>
/// <param name="Why">Why it comes before the others.</param>
/// <param name="Gain">The grip that it gains; null where that is not what it is about.</param>
/// <param name="Move">The edit, for a move.</param>
/// <param name="Lead">The key of the pick, where it is to become the lead.</param>
/// <param name="At">When it can be done; null where that is now.</param>
public sealed record NextStep(StepKind Kind, string Text, string Why, double? Gain, NextMove? Move, string? Lead, DateTime? At);

/// <summary>The edit that gains most.</summary>
/// <param name="Value">The field's new value.</param>
public sealed record NextMove(MoveKind Kind, string Field, string? Pick, string Text, string Before, string After, JsonNode? Value);

/// <summary>A step to put off for some days.</summary>
public sealed record PutOffRequest(StepKind Kind);

internal static class NextApi
{
    /// <summary>How long a step that is put off stays away.</summary>
    private const int DaysOff = 7;

    // The best of so many slots is looked at.
    private const int LookedAt = 12;

    public static void MapNext(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/next");
        api.MapPost("/", FindNext).WithRequestTimeout(ProblemAnswers.Computes);
        api.MapPost("/putoff", PutOff).RetriesRaces();
    }

    private static async Task<NextView> FindNext(
        int id,
        DraftOf draft,
        TinContext db,
        PreparedPicksCache ready,
        ListingChecker checker,
        IMarket market,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, draft, stop).OrNotThere();
        var moves = MoveSearch.Of(
            new(open.Platform, open.Copy, open.Picks.Wanted, open.Avoid)
            {
                Lead = open.Lead,
                Facts = open.Facts,
                LeftAlone = open.Platform.Fields.Where(f => f.IsMaterials).Select(f => f.Key).ToHashSet(),
                Most = LookedAt,
            },
            stop
        );
        // An edit that takes a pick out, or puts something else than the lead before it, is for the seller to weigh.
        var best = moves.Moves.FirstOrDefault(m =>
            m is { Gain: > 0, Loses.Count: 0 } && (m.Kind != MoveKind.Front || open.Lead is null || m.Pick == open.Lead)
        );
        var state = await ListingStates.Of(db, open, draft.MarketId, market, stop) with
        {
            WaitingForFacts = moves.LeftOut.Count(l => l.Reason == LeftOutReason.Untrue),
            BestGain = best?.Gain ?? 0,
            Required = await Required(db, checker, open, draft.MarketId, stop),
        };
        var since = db.Now.AddDays(-DaysOff);
        var off = await db
            .Asides.Where(a => a.ListingId == id && a.Key.StartsWith(Prefix) && a.At > since)
            .Select(a => a.Key)
            .ToListAsync(stop);
        var all = NextSteps.Of(state);
        var steps = all.Where(k => !off.Contains(Prefix + k)).Select(View).ToList();
        return new(steps, all.Count - steps.Count);

        NextStep View(StepKind kind)
        {
            var isMove = kind is StepKind.Move or StepKind.SmallMove;
            return new(
                kind,
                NextSteps.Text(kind, state, open.Platform.Name),
                NextSteps.Why(kind, state),
                isMove ? best!.Gain : null,
                isMove ? ViewOf(best!, open) : null,
                kind == StepKind.ChooseLead && state.Strongest is { } strongest ? Tokens.Key(strongest) : null,
                kind == StepKind.Wait ? state.ShownAt : null
            );
        }
    }

    private const string Prefix = "next:";

    private static async Task<int> Required(TinContext db, ListingChecker checker, OpenDraft open, string marketId, CancellationToken stop)
    {
        var aside = await db.Asides.Where(a => a.ListingId == open.Listing.Id).Select(a => a.Key).ToHashSetAsync(stop);
        var check = await checker.Check(db, open, marketId, stop);
        return check.Findings.Where(f => f.Level == Core.Findings.Level.Must && !aside.Contains(f.Key)).DistinctBy(f => f.Key).Count();
    }

    private static NextMove ViewOf(Move move, OpenDraft open)
    {
        var field = open.Platform.Find(move.Field)!;
        return new(
            move.Kind,
            move.Field,
            move.Pick,
            move.Text,
            TextOf(open.Copy.GetValueOrDefault(move.Field)),
            TextOf(move.Value),
            CopyJson.WriteValue(move.Value)
        );

        string TextOf(FieldValue? value) => value is null or FieldValue.Choices ? "" : string.Join(", ", value.Units(field.Shape));
    }

    private static async Task<Changed> PutOff(int id, PutOffRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var key = Prefix + request.Kind;
        if (await db.Asides.FirstOrDefaultAsync(a => a.ListingId == id && a.Key == key, stop) is { } old)
            db.Asides.Remove(old);
        await db.SaveChangesAsync(stop);
        db.Asides.Add(AsideRow.Of(id, key, db.Now));
        return await changes.Save(
            NextMessages.PutOff(DaysOff),
            new(Screen.Write, listing.ProductId, id),
            [new DismissedBefore(id, key, IsDismissed: false)],
            stop
        );
    }
}
