using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>
/// Measures in the background what has no numbers yet: the picks of each product in every market of its platforms, and the terms on each
/// shelf, such as pasted and imported ones. It works in batches, keeps to the budget of the source, and can be stopped. A simulated source is
/// asked in the demo only: no made-up number gets into a seller's own shop by itself.
/// </summary>
internal sealed class MeasuringService(
    IServiceScopeFactory scopes,
    IMarket market,
    Shelves shelves,
    UnknownTerms unknownTerms,
    DataVersion changes,
    TimeProvider clock,
    StartOptions options,
    ILogger<MeasuringService> log
) : BackgroundService
{
    private const int Batch = 100;

    // Most terms that wait at once; the rest is found when these are done.
    private const int MostWaiting = 20_000;

    private static readonly TimeSpan Settle = TimeSpan.FromMilliseconds(500);
    private static readonly TimeSpan AfterProblem = TimeSpan.FromMinutes(5);

    private volatile MeasuringState _state = new(0, 0, (-1, default));
    private volatile bool _isStopped;

    /// <summary>How far it is.</summary>
    public MeasuringState State => _state;

    /// <summary>How many terms were measured since the program started.</summary>
    public int Measured { get; private set; }

    /// <summary>Whether the seller stopped it.</summary>
    public bool IsStopped => _isStopped;

    /// <summary>Whether it is at work, or about to look at what has changed.</summary>
    public bool IsRunning => IsBehind && _state.Problem is null;

    private bool IsBehind =>
        !_isStopped && market.Can.HasFlag(MarketAbilities.Measure) && (options.Demo || !market.IsSimulated) && _state.Seen != Now;

    // What is left to do changes with the data, and with the budget of another day.
    private (long Changes, DateOnly Day) Now => (changes.Count, DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime));

    /// <summary>Stops after the batch that is under way; what was measured stays.</summary>
    public void Stop() => _isStopped = true;

    /// <summary>Goes on with what is left.</summary>
    public void Resume() => _isStopped = false;

    /// <summary>Measures everything that has no numbers and that its market may know, until it is stopped or the day's budget ends.</summary>
    public async Task Run(CancellationToken stop)
    {
        // What this measures is a change too, and is looked at once more: then nothing is left.
        var (seen, before) = (Now, _state.Seen);
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        var waiting = await Waiting(db, stop);
        var (done, all) = (0, waiting.Sum(w => w.Texts.Count));
        _state = new(done, all, before);
        foreach (var (marketId, batch) in waiting.SelectMany(w => w.Texts.Chunk(Batch).Select(b => (w.MarketId, b))))
        {
            if (_isStopped)
                return;
            var late = await shelves.MeasureInBackground(db, marketId, batch, stop);
            db.ChangeTracker.Clear();
            Measured += batch.Length - late;
            _state = new(done += batch.Length - late, all, before);
            if (late > 0)
                break;
        }

        _state = new(done, all, seen);
    }

    protected override async Task ExecuteAsync(CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
            try
            {
                await Task.Delay(_state.Problem is null ? Settle : AfterProblem, stop);
                if (IsBehind)
                    await Run(stop);
            }
            catch (OperationCanceledException) when (stop.IsCancellationRequested)
            {
                // The program ends.
            }
            catch (Exception e)
            {
                if (e is not MarketException)
                    log.LogError(e, "Measuring in the background failed; it is tried again.");
                _state = _state with { Problem = e is MarketException ? e.Message : DigMessages.MeasuringFailed };
            }
    }

    // Looked at after every change: two queries, and one for each market in which something is listed.
    private async Task<List<(string MarketId, List<string> Texts)>> Waiting(TinContext db, CancellationToken stop)
    {
        var places = market.PlacesWith(await db.Site(stop)).ToList();
        var ids = places.ConvertAll(p => p.Id);
        var terms = (
            await db
                .Terms.AsNoTracking()
                // Terms of an import that was taken back are on no market's shelf.
                .Where(t => t.ReadingId == null && ids.Contains(t.MarketId))
                .OrderBy(t => t.Id)
                .Select(t => new
                {
                    t.MarketId,
                    t.Key,
                    t.Text,
                })
                .Take(MostWaiting)
                .ToListAsync(stop)
        ).ToLookup(t => t.MarketId, t => (t.Key, t.Text));
        var picks = (
            await db
                .Listings.AsNoTracking()
                .Where(l => l.ArchivedAt == null)
                .SelectMany(
                    l => db.Set<PickRow>().Where(p => p.ProductId == l.ProductId && p.Home != Home.Avoid),
                    (l, p) =>
                        new
                        {
                            l.PlatformId,
                            p.Key,
                            p.Text,
                        }
                )
                .Distinct()
                .ToListAsync(stop)
        ).ToLookup(p => p.PlatformId, p => (p.Key, p.Text));
        var left = MostWaiting;
        var waiting = new List<(string, List<string>)>();
        foreach (var place in places)
        {
            var wanted = picks[place.PlatformId].DistinctBy(p => p.Key).ToList();
            var measured = await Measured(wanted.ConvertAll(w => w.Key));
            var isUnknown = await unknownTerms.Of(db, place.Id, stop);
            var texts = wanted
                .Where(w => !measured.Contains(w.Key))
                .Concat(terms[place.Id])
                .DistinctBy(w => w.Key)
                .Where(w => !isUnknown(w.Key))
                .Select(w => w.Text)
                .Take(left)
                .ToList();
            if (texts.Count > 0)
                waiting.Add((place.Id, texts));
            left -= texts.Count;

            async Task<HashSet<string>> Measured(List<string> keys) =>
                keys.Count == 0
                    ? []
                    :
                    [
                        .. await db
                            .Terms.Where(t => t.MarketId == place.Id && t.ReadingId != null && keys.Contains(t.Key))
                            .Select(t => t.Key)
                            .ToListAsync(stop),
                    ];
        }

        return waiting;
    }
}
