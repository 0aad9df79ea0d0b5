using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Picks;

/// <summary>Keeps prepared picks until something they are made of changes: they are asked for at every key.</summary>
public sealed class PreparedPicksCache(DataVersion version) : IDisposable
{
    private const int Most = 32;

    private readonly BoundedCache<(int Product, string Market, string Platform, long Version), PreparedPicks> _kept = new(Most);

    // The same for every product: a check of the whole shop would ask thousands of times.
    private volatile Tuple<long, IReadOnlyList<Avoided>>? _avoided;

    /// <summary>The picks of a product in a market, ready for a platform.</summary>
    public async Task<PreparedPicks> Get(TinContext db, int productId, string marketId, Platform platform, CancellationToken stop)
    {
        var now = version.Count;
        if (_kept.TryGet((productId, marketId, platform.Id, now), out var kept) && ReferenceEquals(kept.Platform, platform))
            return kept;
        var picks = await db.WantedOf(productId, marketId, stop);
        var wanted = picks.Select(p => p.Term).ToArray();
        var avoided = await AvoidedInShop(db, now, stop);
        var prepared = new PreparedPicks(
            [.. picks.Select(p => p.Key)],
            wanted,
            TermSet.Prepare(platform, [.. wanted.Select(w => w.Text)]),
            avoided,
            OwnWord.ByKey(await db.OwnWords(stop)),
            new(platform, [.. avoided.Select(a => a.Text)])
        );
        return _kept.Set((productId, marketId, platform.Id, now), prepared);
    }

    /// <inheritdoc/>
    public void Dispose() => _kept.Dispose();

    private async Task<IReadOnlyList<Avoided>> AvoidedInShop(TinContext db, long now, CancellationToken stop)
    {
        if (_avoided is { } kept && kept.Item1 == now)
            return kept.Item2;
        IReadOnlyList<Avoided> terms = await db.AvoidedInShop(stop);
        _avoided = new(now, terms);
        return terms;
    }
}
