using TinRabbit.Core.Reviews;

namespace TinRabbit.Server.Markets;

/// <summary>The reviews of the first listings that a market finds for a term: how usual a phrase is there. An answer is kept as long as that of <see cref="TopListings"/>.</summary>
internal sealed class MarketReviews(IMarket market, TopListings top) : IDisposable
{
    private const int MostOfEach = 40;
    private const int MostKept = 20;

    private readonly BoundedCache<(string Market, string Term), (DateTime At, IReadOnlyList<Review> Reviews)> _kept = new(MostKept);

    /// <summary>The reviews; none where the market gives none.</summary>
    public async Task<IReadOnlyList<Review>> Of(string marketId, string term, CancellationToken stop)
    {
        var now = market.Now;
        if (_kept.TryGet((marketId, term), out var kept) && now - kept.At < TopListings.Fresh)
            return kept.Reviews;
        try
        {
            var ids = (await top.Of(marketId, term, stop))?.Results.Select(r => r.Id).OfType<string>().ToList() ?? [];
            var found = await market.Reviews(marketId, ids, MostOfEach, stop);
            return _kept.Set((marketId, term), (now, [.. found.SelectMany(l => l ?? []).Select(r => new Review(r.Text, r.Stars))])).Reviews;
        }
        catch (MarketException)
        {
            return [];
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _kept.Dispose();
}
