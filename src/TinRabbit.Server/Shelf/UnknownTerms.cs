using System.Collections.Concurrent;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Shelf;

/// <summary>
/// Terms that a market was asked for and does not know, so that it is not asked again every time. What the seller asked for or keeps, and
/// what a metered source was asked for, is remembered from one start to the next; guesses are many, and otherwise remembered while the program
/// runs.
/// </summary>
public sealed class UnknownTerms(IMarket market)
{
    // After so many days a market is asked again.
    private const int Days = 30;
    private const int MostOfMarket = 500_000;

    private readonly ConcurrentDictionary<string, ConcurrentDictionary<string, DateOnly>> _byMarket = new();

    /// <summary>The terms of a market, by their keys, that were unknown when they were last asked for.</summary>
    public async Task<Func<string, bool>> Of(TinContext db, string marketId, CancellationToken stop)
    {
        var unknown = await Load(db, marketId, stop);
        var expired = Expired(db);
        return key => unknown.TryGetValue(key, out var day) && day > expired;
    }

    /// <summary>Remembers that a market does not know these terms.</summary>
    public async Task Add(TinContext db, string marketId, IReadOnlyCollection<string> keys, LookupPurpose purpose, CancellationToken stop)
    {
        if (keys.Count == 0)
            return;
        var unknown = await Load(db, marketId, stop);
        if (unknown.Count > MostOfMarket)
            unknown.Clear();
        var today = DateOnly.FromDateTime(db.Now);
        foreach (var key in keys)
            unknown[key] = today;
        if (purpose == LookupPurpose.Shown && market.TermsPerDay is null)
            return;
        // One statement: another request may remember the same terms.
        var json = JsonSerializer.Serialize(keys);
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO UnknownTerms (MarketId, Key, Day) SELECT DISTINCT {marketId}, value, {today} FROM json_each({json}) WHERE true
            ON CONFLICT (MarketId, Key) DO UPDATE SET Day = excluded.Day
            """,
            stop
        );
    }

    /// <summary>Forgets what is kept beside the database: all of it was replaced.</summary>
    public void Clear() => _byMarket.Clear();

    private static DateOnly Expired(TinContext db) => DateOnly.FromDateTime(db.Now).AddDays(-Days);

    private async Task<ConcurrentDictionary<string, DateOnly>> Load(TinContext db, string marketId, CancellationToken stop)
    {
        if (_byMarket.TryGetValue(marketId, out var unknown))
            return unknown;
        var expired = Expired(db);
        var stored = await db.UnknownTerms.AsNoTracking().Where(t => t.MarketId == marketId && t.Day > expired).ToListAsync(stop);
        return _byMarket.GetOrAdd(marketId, _ => new(stored.Select(t => KeyValuePair.Create(t.Key, t.Day)), StringComparer.Ordinal));
    }
}
