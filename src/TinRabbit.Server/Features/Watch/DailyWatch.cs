using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What is done once a day for every listing that is watched: its figures are fetched, and its terms checked.</summary>
internal sealed class DailyWatch(IServiceScopeFactory scopes, IMarket market, CheckService checks, ILogger<DailyWatch> log)
    : BackgroundService
{
    private static readonly TimeSpan AfterStart = TimeSpan.FromSeconds(15);
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(10);

    private readonly SemaphoreSlim _one = new(1, 1);

    /// <summary>Does what is due on this day of the market.</summary>
    /// <returns>What went wrong, as sentences; it is tried again the next time.</returns>
    public async Task<IReadOnlyList<string>> Run(CancellationToken stop)
    {
        if ((market.Can & (MarketAbilities.Send | MarketAbilities.Days)) == MarketAbilities.None)
            return [];
        await _one.WaitAsync(stop);
        try
        {
            var problems = new List<string>();
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<TinContext>();
            foreach (var id in await Watched(db).Select(w => w.Id).ToListAsync(stop))
            // A source may have checks and no figures, or figures and no checks.
            foreach (var work in (Func<TinContext, int, CancellationToken, Task>[])[FetchFigures, Check])
                try
                {
                    await work(db, id, stop);
                }
                catch (Exception e) when (e is MarketException { IsNotOffered: false } or KeyNotFoundException or InvalidInputException)
                {
                    problems.Add(e.Message);
                }
                catch (MarketException)
                {
                    // What a source does not offer is no problem of the day.
                }
                finally
                {
                    db.ChangeTracker.Clear();
                }

            return [.. problems.Distinct()];
        }
        finally
        {
            _one.Release();
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stop)
    {
        var wait = AfterStart;
        while (!stop.IsCancellationRequested)
            try
            {
                await Task.Delay(wait, stop);
                wait = Every;
                foreach (var problem in await Run(stop))
                    log.LogWarning("A listing was not watched today: {Problem}", problem);
            }
            catch (OperationCanceledException)
            {
                return;
            }
            catch (Exception e)
            {
                log.LogError(e, "The daily checks failed; they are tried again.");
            }
    }

    private bool TakesListings => market.Can.HasFlag(MarketAbilities.Send);

    // A market that takes listings knows only what was sent to it; another knows listings by the numbers that it gave them.
    private IQueryable<WatchRow> Watched(TinContext db)
    {
        var watches = db.Watches.Where(w => db.Set<ListingRow>().Any(l => l.Id == w.ListingId));
        return TakesListings
            ? watches.Where(w => db.Set<SentRow>().Any(s => s.ListingId == w.ListingId && s.MarketId == w.MarketId && !s.ByHand))
            : watches;
    }

    private async Task Check(TinContext db, int id, CancellationToken stop)
    {
        var watch = await db.Watches.FirstAsync(w => w.Id == id, stop);
        var today = market.Today;
        if (!watch.ChecksDaily || !TakesListings)
            return;
        if (watch.CheckedOn >= today)
        {
            await GoOn(db, watch, today, stop);
            return;
        }

        watch.CheckedOn = today;
        if (await FoundChecks.TermsOf(db, watch.ListingId, watch.MarketId, stop) is not { Count: > 0 } terms)
            return;
        var check = new CheckRow
        {
            ListingId = watch.ListingId,
            MarketId = watch.MarketId,
            At = market.Now,
            Day = today,
            Source = market.Name,
            IsDaily = true,
        };
        await FoundChecks.Begin(db, check, terms, stop);
        await checks.Run(check.Id, stop);
    }

    // The check of today, where the market did not answer to the end.
    private async Task GoOn(TinContext db, WatchRow watch, DateOnly today, CancellationToken stop)
    {
        var cutOff = await db.Checks.FirstOrDefaultAsync(
            c =>
                c.ListingId == watch.ListingId
                && c.MarketId == watch.MarketId
                && c.Day == today
                && c.IsDaily
                && c.State == CheckState.Stopped
                && c.Problem != null,
            stop
        );
        if (cutOff is null)
            return;
        (cutOff.State, cutOff.Problem) = (CheckState.Running, null);
        await db.SaveChangesAsync(stop);
        await checks.Run(cutOff.Id, stop);
    }

    private async Task FetchFigures(TinContext db, int id, CancellationToken stop)
    {
        var watch = await db.Watches.FirstAsync(w => w.Id == id, stop);
        var (own, first) = TakesListings ? await Sent(db, watch, stop) : await Numbered(db, watch, stop);
        var yesterday = market.Today.AddDays(-1);
        if (own is null || first > yesterday)
            return;
        var days = await market.Figures(watch.MarketId, own, first, yesterday, stop);
        db.Figures.AddRange(days.Select(d => FigureRow.Of(watch.ListingId, watch.MarketId, d, market.Name)));
        // Files may get the days that they lack now.
        watch.FiguresUntil = TakesListings ? yesterday : days.Select(d => (DateOnly?)d.Day).Max() ?? watch.FiguresUntil;
        await db.SaveChangesAsync(stop);
    }

    private static async Task<(string? Id, DateOnly First)> Sent(TinContext db, WatchRow watch, CancellationToken stop) =>
        (
            Sending.IdAtMarket($"{watch.ListingId}"),
            watch.FiguresUntil?.AddDays(1)
                ?? DateOnly.FromDateTime(
                    await db
                        .Sent.Where(s => s.ListingId == watch.ListingId && s.MarketId == watch.MarketId)
                        .MinAsync(s => s.NoticedAt, stop)
                )
        );

    private async Task<(string? Id, DateOnly First)> Numbered(TinContext db, WatchRow watch, CancellationToken stop) =>
        (
            await db.FindListing(watch.ListingId, stop) is { Details.Number: { Length: > 0 } number } ? number : null,
            watch.FiguresUntil?.AddDays(1) ?? market.Today.AddDays(-Bounds.Days)
        );
}
