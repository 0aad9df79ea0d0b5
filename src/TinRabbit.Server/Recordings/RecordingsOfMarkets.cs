namespace TinRabbit.Server.Recordings;

/// <summary>What the seller brought in, market by market, kept prepared until there is more or less of it.</summary>
internal sealed class RecordingsOfMarkets(IServiceScopeFactory scopes) : IDisposable
{
    private const int MostKept = 20;
    private static readonly RecordedPages Nothing = new([], isWeb: false);

    private readonly BoundedCache<string, (string MadeOf, RecordedPages Pages)> _kept = new(MostKept);

    /// <summary>Everything of a market.</summary>
    public async Task<RecordedPages> Of(MarketPlace place, CancellationToken stop)
    {
        var marketId = place.Id;
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        var there = db.Recordings.AsNoTracking().Where(r => r.MarketId == marketId);
        // Recordings are never changed: as many with the same numbers and days are the same.
        var madeOf = await there
            .GroupBy(_ => 1)
            .Select(g => $"{g.Count()} {g.Sum(r => (long)r.Id)} {g.Max(r => r.Id)} {g.Max(r => r.Day)}")
            .FirstOrDefaultAsync(stop);
        if (madeOf is null)
            return Nothing;
        if (_kept.TryGet(marketId, out var kept) && kept.MadeOf == madeOf)
            return kept.Pages;
        return _kept.Set(marketId, (madeOf, new(await there.ToListAsync(stop), place.PlatformId == MarketPlace.Web))).Pages;
    }

    /// <inheritdoc/>
    public void Dispose() => _kept.Dispose();
}
