using System.Collections.Concurrent;
using TinRabbit.Core.Reviews;
using TinRabbit.Market;

namespace TinRabbit.Server.Markets;

/// <summary>The reviews of the first listings that a market finds for a term: how usual a phrase is there. A bounded number of answers is kept.</summary>
internal sealed class MarketReviews(IMarket market, TopListings top)
{
    private const int MostOfEach = 40;
    private const int MostKept = 20;

    private readonly ConcurrentDictionary<(string Market, string Term), IReadOnlyList<Review>> _kept = new();

    /// <summary>The reviews; none where the market gives none.</summary>
    public async Task<IReadOnlyList<Review>> Of(string marketId, string term, CancellationToken stop)
    {
        if (_kept.TryGetValue((marketId, term), out var kept))
            return kept;
        if (_kept.Count >= MostKept)
            _kept.Clear();
        try
        {
            var ids = (await top.Of(marketId, term, stop)).Results.Select(r => r.Id).OfType<string>().ToList();
            var found = await market.Reviews(marketId, ids, MostOfEach, stop);
            return _kept[(marketId, term)] = [.. found.SelectMany(l => l).Select(r => new Review(r.Text, r.Stars))];
        }
        catch (MarketException)
        {
            return [];
        }
    }
}
