using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Dig;

/// <summary>
/// Measures in the background what has no numbers yet: the picks of each product in every market of its platforms, and the terms on each
/// shelf, such as pasted and imported ones. It works in batches, keeps to the budget of the source, and can be stopped.
/// </summary>
internal sealed class MeasuringService(
    IServiceScopeFactory scopes,
    IMarket market,
    Shelves shelves,
    DataVersion changes,
    LookupBudget budget,
    ILogger<MeasuringService> log
) : BackgroundService
{
    private const int Batch = 100;

    // Most terms that wait at once; the rest is found when these are done.
    private const int MostWaiting = 20_000;

    private static readonly TimeSpan Settle = TimeSpan.FromMilliseconds(500);
    private static readonly TimeSpan AfterProblem = TimeSpan.FromMinutes(5);

    private (long Changes, DateOnly Day) _seen = (-1, default);
    private CancellationTokenSource _run = new();
    private volatile MeasuringState _state = new(0, 0, null);

    /// <summary>How far it is.</summary>
    public MeasuringState State => _state;

    /// <summary>How many terms were measured since the program started.</summary>
    public int Measured { get; private set; }

    /// <summary>Whether there were changes that it has not looked at yet.</summary>
    public bool IsBehind => !IsStopped && _seen != Now;

    // What is left to do changes with the data, and with the budget of another day.
    private (long Changes, DateOnly Day) Now => (changes.Count, DateOnly.FromDateTime(DateTime.UtcNow));

    /// <summary>Whether the seller stopped it.</summary>
    public bool IsStopped { get; private set; }

    /// <summary>Stops; what was measured stays.</summary>
    public void Stop()
    {
        IsStopped = true;
        _run.Cancel();
    }

    /// <summary>Goes on with what is left.</summary>
    public void Resume()
    {
        if (!IsStopped)
            return;
        _run = new();
        _seen = (-1, default);
        IsStopped = false;
    }

    /// <summary>Measures everything that has no numbers and that its market may know.</summary>
    public async Task Run(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        var waiting = await Waiting(db, stop);
        var (done, all) = (0, waiting.Sum(w => w.Texts.Count));
        _state = new(done, all, null);
        foreach (var (marketId, texts) in waiting)
        foreach (var batch in texts.Chunk(Batch))
        {
            var asked = await shelves.MeasureInBackground(db, marketId, batch, stop);
            db.ChangeTracker.Clear();
            Measured += asked;
            _state = new(done += asked, all, null);
            if (asked < batch.Length)
                return;
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
            try
            {
                await Task.Delay(Settle, stop);
                if (!IsBehind)
                    continue;
                // What this measures is a change too, and is looked at once more: then nothing is left.
                var seen = Now;
                using var either = CancellationTokenSource.CreateLinkedTokenSource(stop, _run.Token);
                await Run(either.Token);
                _seen = seen;
            }
            catch (OperationCanceledException)
            {
                // Stopped, by the seller or by the end of the program.
            }
            catch (Exception e)
            {
                if (e is not MarketException)
                    log.LogError(e, "Measuring in the background failed; it is tried again.");
                _state = _state with { Problem = e is MarketException ? e.Message : "Measuring failed; it is tried again." };
                await Task.Delay(AfterProblem, stop).ContinueWith(_ => { }, TaskScheduler.Default);
            }
    }

    private async Task<List<(string MarketId, List<string> Texts)>> Waiting(TinContext db, CancellationToken stop)
    {
        var left = MostWaiting;
        var waiting = new List<(string, List<string>)>();
        foreach (var place in market.PlacesWith(await db.Site(stop)))
        {
            var picks = await db
                .Picks.Where(p =>
                    p.Home != Home.Avoid
                    && db.Listings.Any(l => l.ProductId == p.ProductId && l.PlatformId == place.PlatformId && l.ArchivedAt == null)
                    && !db.Terms.Any(t => t.MarketId == place.Id && t.Key == p.Key && t.ReadingId != null)
                )
                .Select(p => p.Text)
                .ToListAsync(stop);
            var terms = await db
                .Terms.Where(t => t.MarketId == place.Id && t.ReadingId == null)
                .OrderBy(t => t.Id)
                .Select(t => t.Text)
                .Take(MostWaiting)
                .ToListAsync(stop);
            if (picks.Count + terms.Count == 0)
                continue;
            var unknown = await shelves.UnknownTerms(db, place.Id, stop);
            var texts = picks.Concat(terms).DistinctBy(Tokens.Key).Where(t => !unknown.Contains(Tokens.Key(t))).Take(left).ToList();
            if (texts.Count > 0)
                waiting.Add((place.Id, texts));
            left -= texts.Count;
        }

        // The budget of the day may be used up before: then nothing waits that could be asked today.
        return await budget.Left(db, stop) is 0 ? [] : waiting;
    }
}

/// <summary>How far measuring in the background is.</summary>
/// <param name="Done">Terms that were asked for.</param>
/// <param name="All">Terms that had no numbers when it began.</param>
/// <param name="Problem">Why it does not go on; null where nothing is wrong.</param>
internal sealed record MeasuringState(int Done, int All, string? Problem);
