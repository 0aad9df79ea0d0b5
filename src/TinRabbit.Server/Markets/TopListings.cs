using System.Collections.Concurrent;
using TinRabbit.Market;

namespace TinRabbit.Server.Markets;

/// <summary>The first listings that a market finds for a term. An answer is kept for some minutes, and a bounded number of them.</summary>
internal sealed class TopListings(IMarket market)
{
    /// <summary>How many are asked for.</summary>
    public const int Asked = 100;

    private const int MostKept = 200;
    private static readonly TimeSpan Fresh = TimeSpan.FromMinutes(10);

    private readonly ConcurrentDictionary<(string Market, string Term), (DateTime At, SearchPage Page)> _kept = new();

    /// <summary>What the market finds.</summary>
    /// <exception cref="MarketException">The market does not answer.</exception>
    public async Task<SearchPage> Of(string marketId, string term, CancellationToken stop)
    {
        var now = market.Now;
        if (_kept.TryGetValue((marketId, term), out var kept) && now - kept.At < Fresh)
            return kept.Page;
        if (_kept.Count >= MostKept)
            _kept.Clear();
        var page = await market.Search(marketId, term, Asked, stop);
        _kept[(marketId, term)] = (now, page);
        return page;
    }
}
