namespace TinRabbit.Server.Markets;

/// <summary>
/// Counts the terms that the source of numbers is asked for, where it states how many a day it answers. The count outlives a restart, so
/// that a metered source is never asked for more.
/// </summary>
public sealed class LookupBudget(IMarket market) : IDisposable
{
    private readonly SemaphoreSlim _gate = new(1, 1);

    /// <summary>Terms a day that the source answers; null without a limit.</summary>
    public int? PerDay => market.TermsPerDay;

    /// <summary>Takes lookups from the budget of the day (UTC).</summary>
    /// <param name="db">Where they are counted.</param>
    /// <param name="wanted">How many terms are to be asked for.</param>
    /// <param name="purpose">What for.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>How many of them may be asked for: all of them without a limit, none without a connection.</returns>
    public async Task<int> Take(TinContext db, int wanted, LookupPurpose purpose, CancellationToken stop)
    {
        if (!market.Can.HasFlag(MarketAbilities.Measure))
            return 0;
        if (PerDay is not { } perDay || wanted == 0)
            return wanted;
        await _gate.WaitAsync(stop);
        try
        {
            var granted = Math.Clamp(perDay - Reserved(perDay, purpose) - await Asked(db, stop), 0, wanted);
            if (granted > 0)
                await db.Database.ExecuteSqlAsync(
                    $"INSERT INTO LookupDays (Day, Asked) VALUES ({Day(db)}, {granted}) ON CONFLICT (Day) DO UPDATE SET Asked = Asked + {granted}",
                    stop
                );
            return granted;
        }
        finally
        {
            _gate.Release();
        }
    }

    /// <summary>How many lookups are left today; null without a limit.</summary>
    public async Task<int?> Left(TinContext db, CancellationToken stop) =>
        PerDay is { } perDay ? Math.Max(0, perDay - await Asked(db, stop)) : null;

    /// <inheritdoc/>
    public void Dispose() => _gate.Dispose();

    private static int Reserved(int perDay, LookupPurpose purpose) =>
        purpose switch
        {
            LookupPurpose.Asked => 0,
            LookupPurpose.Shown => perDay / 4,
            _ => perDay / 2,
        };

    private static DateOnly Day(TinContext db) => DateOnly.FromDateTime(db.Now);

    private static Task<int> Asked(TinContext db, CancellationToken stop)
    {
        var today = Day(db);
        return db.LookupDays.Where(d => d.Day == today).Select(d => d.Asked).FirstOrDefaultAsync(stop);
    }
}
