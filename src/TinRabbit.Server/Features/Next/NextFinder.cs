using TinRabbit.Core.Filling;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Moves;
using TinRabbit.Core.Progress;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Next;

/// <summary>Finds what to do next for a listing.</summary>
internal sealed class NextFinder(TinContext db, ListingChecker checker, TopListings top, IMarket market)
{
    /// <summary>How long a step that is put off stays away.</summary>
    public const int DaysOff = 7;

    // The best of so many slots is looked at.
    private const int LookedAt = 12;

    // A list asks for many listings: as many are searched at once as there are processors, so that each has its time.
    private static readonly SemaphoreSlim Searches = new(Environment.ProcessorCount);

    private const string Prefix = "next:";

    /// <summary>The name under which a step that is put off is kept among what the seller dismissed.</summary>
    public static string KeyOf(StepKind kind) => Prefix + kind;

    /// <summary>What is useful now, what comes first being first.</summary>
    public async Task<NextView> Of(OpenDraft open, string marketId, CancellationToken stop)
    {
        var moves = await MovesOf(open, stop);
        // An edit that takes a pick out, or puts something else than the lead before it, is for the seller to weigh.
        var best = moves.Moves.FirstOrDefault(m =>
            m is { Gain: > 0, Loses.Count: 0 } && (m.Kind != MoveKind.Front || open.Lead is null || m.Pick == open.Lead)
        );
        var asides = await db.Asides.AsNoTracking().Where(a => a.ListingId == open.Listing.Id).ToListAsync(stop);
        var dismissed = asides.Select(a => a.Key).ToHashSet();
        var findings = (await checker.Check(db, open, marketId, stop)).Findings;
        var state = await ListingStates.Of(db, open, marketId, market, stop) with
        {
            WaitingForFacts = moves.LeftOut.Count(l => l.Reason == LeftOutReason.Untrue),
            BestGain = best?.Gain ?? 0,
            Usual = await DraftRivals.Usual(top, marketId, open, stop),
            Required = findings.Where(f => f.Level == Level.Must && !dismissed.Contains(f.Key)).DistinctBy(f => f.Key).Count(),
        };
        var since = db.Now.AddDays(-DaysOff);
        var off = asides.Where(a => a.At > since).Select(a => a.Key).ToHashSet();
        var all = NextSteps.Of(state);
        var steps = all.Where(k => !off.Contains(KeyOf(k))).Select(View).ToList();
        return new(steps, all.Count - steps.Count);

        NextStep View(StepKind kind)
        {
            var move = kind is StepKind.Move or StepKind.SmallMove ? MoveView.Of(best!, open.Platform, open.Copy) : null;
            return new(
                kind,
                move?.Sentence ?? NextSteps.Text(kind, state, open.Platform.Name),
                NextSteps.Why(kind, state),
                move,
                kind == StepKind.ChooseLead && state.Strongest is { } strongest ? Tokens.Key(strongest) : null,
                kind == StepKind.Wait ? state.ShownAt : null
            );
        }
    }

    // Only the computing is bound as other computing is: a market may take longer to answer, as one whose clock was moved on does.
    private static async Task<MoveList> MovesOf(OpenDraft open, CancellationToken stop)
    {
        await Searches.WaitAsync(stop);
        using var computing = CancellationTokenSource.CreateLinkedTokenSource(stop);
        computing.CancelAfter(TimeSpan.FromSeconds(Bounds.ComputeSeconds));
        try
        {
            return MoveSearch.Of(open.ForMoves with { Most = LookedAt }, computing.Token);
        }
        catch (OperationCanceledException e) when (!stop.IsCancellationRequested)
        {
            throw new TimeoutException("The search for moves took too long.", e);
        }
        finally
        {
            Searches.Release();
        }
    }
}
