using System.Collections.Concurrent;
using System.Threading.Channels;
using TinRabbit.Server.Journal;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Runs found checks one after another. What each portion of terms found is saved before the next is asked for, so a check that was cut off goes on where it was.</summary>
internal sealed class CheckService(IServiceScopeFactory scopes, IMarket market, ILogger<CheckService> log) : BackgroundService
{
    private const int TermsAtOnce = 50;

    private readonly Channel<int> _waiting = Channel.CreateUnbounded<int>();
    private readonly ConcurrentDictionary<int, CancellationTokenSource> _running = new();

    /// <summary>Runs a check when those before it have ended.</summary>
    public void Queue(int id) => _waiting.Writer.TryWrite(id);

    /// <summary>Stops a check that is under way; what it has found stays.</summary>
    public void Stop(int id)
    {
        if (_running.TryGetValue(id, out var running))
            running.Cancel();
    }

    /// <summary>Asks for the terms of a check that were not asked for yet.</summary>
    public async Task Run(int id, CancellationToken stop)
    {
        using var stopped = CancellationTokenSource.CreateLinkedTokenSource(stop);
        if (!_running.TryAdd(id, stopped))
            return;
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await AskAll(scope.ServiceProvider.GetRequiredService<TinContext>(), id, stopped.Token);
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            // Stop has saved that it is stopped.
        }
        finally
        {
            _running.TryRemove(id, out _);
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stop)
    {
        await using (var scope = scopes.CreateAsyncScope())
            foreach (
                var id in await scope
                    .ServiceProvider.GetRequiredService<TinContext>()
                    .Checks.Where(c => c.State == CheckState.Running)
                    .OrderBy(c => c.Id)
                    .Select(c => c.Id)
                    .ToListAsync(stop)
            )
                Queue(id);
        await foreach (var id in _waiting.Reader.ReadAllAsync(stop))
            try
            {
                await Run(id, stop);
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "The found check {Check} failed; it goes on after the next start.", id);
            }
    }

    private async Task AskAll(TinContext db, int id, CancellationToken stop)
    {
        if (await db.Checks.FirstOrDefaultAsync(c => c.Id == id && c.State == CheckState.Running, stop) is not { } check)
            return;
        var own = Sending.IdAtMarket($"{check.ListingId}");
        while (await NextOf(db, id, stop) is { Count: > 0 } next)
        {
            try
            {
                var found = await market.Find(check.MarketId, own, [.. next.Select(n => n.Text)], stop);
                foreach (var ((find, _), at) in next.Zip(found))
                    if (at is null)
                        db.Finds.Remove(find);
                    else
                        (find.IsDone, find.Found, find.Rank, find.Results) = (true, at.Found, at.Rank, at.Results);
            }
            catch (Exception e) when (e is MarketException or KeyNotFoundException)
            {
                await End(db, id, CheckState.Stopped, e.Message, stop);
                return;
            }

            await db.SaveChangesAsync(stop);
            db.ChangeTracker.Clear();
        }

        await End(db, id, CheckState.Finished, null, stop);
    }

    // Unless it was stopped with the last answer.
    private static Task<int> End(TinContext db, int id, CheckState state, string? problem, CancellationToken stop) =>
        db
            .Checks.Where(c => c.Id == id && c.State == CheckState.Running)
            .ExecuteUpdateAsync(c => c.SetProperty(x => x.State, state).SetProperty(x => x.Problem, problem), stop);

    // The next terms that were not asked for, also of those that are no longer followed.
    private static async Task<List<(FindRow Find, string Text)>> NextOf(TinContext db, int id, CancellationToken stop) =>
        [
            .. (
                await (
                    from find in db.Finds
                    join term in db.FollowedTerms.IgnoreQueryFilters() on find.TermId equals term.Id
                    where find.CheckId == id && !find.IsDone
                    orderby find.TermId
                    select new { find, term.Text }
                )
                    .Take(TermsAtOnce)
                    .ToListAsync(stop)
            ).Select(n => (n.find, n.Text)),
        ];
}
