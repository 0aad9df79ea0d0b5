namespace TinRabbit.Server.Markets;

/// <summary>The first listings that a market finds for a term. An answer is kept for some minutes, and a bounded number of them.</summary>
internal sealed class TopListings(IMarket market) : IDisposable
{
    /// <summary>How many are asked for.</summary>
    public const int Asked = 100;

    private const int MostKept = 200;

    /// <summary>How long an answer counts, by the market's clock.</summary>
    public static readonly TimeSpan Fresh = TimeSpan.FromMinutes(10);

    private readonly BoundedCache<(string Market, string Term), (DateTime At, SearchPage Page)> _kept = new(MostKept);

    /// <summary>What the market finds; null where that is unknown.</summary>
    /// <exception cref="MarketException">The market does not answer.</exception>
    public async Task<SearchPage?> Of(string marketId, string term, CancellationToken stop)
    {
        var now = market.Now;
        if (_kept.TryGet((marketId, term), out var kept) && now - kept.At < Fresh)
            return kept.Page;
        var page = await market.Search(marketId, term, Asked, stop);
        // What the seller brings in counts at once.
        return page is { Seen: null } ? _kept.Set((marketId, term), (now, page)).Page : page;
    }

    /// <inheritdoc/>
    public void Dispose() => _kept.Dispose();
}
