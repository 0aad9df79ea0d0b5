using System.Collections.Concurrent;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Write;

/// <summary>The share of rivals that fill each attribute. The stand-in's rivals stay the same, so an answer is kept, a bounded number of them.</summary>
internal sealed class AttributeShares(IMarket market)
{
    private const int RivalsAsked = 100;
    private const int MostKept = 500;

    private readonly ConcurrentDictionary<(string Market, string Term), IReadOnlyList<AttributeShare>> _kept = new();

    /// <summary>The share among those who are found for the lead, or for the most searched pick where there is no lead; none where the market does not answer.</summary>
    public async Task<IReadOnlyList<AttributeShare>> Of(string marketId, OpenDraft open, CancellationToken stop)
    {
        var term = open.Lead ?? open.Picks.Wanted.MaxBy(w => w.Volume)?.Text;
        if (term is null || open.Platform.Fields.All(f => f.Shape != FieldShape.Choices))
            return [];
        if (_kept.TryGetValue((marketId, term), out var kept))
            return kept;
        if (_kept.Count >= MostKept)
            _kept.Clear();
        try
        {
            var results = (await market.Search(marketId, term, RivalsAsked, stop)).Results;
            return _kept[(marketId, term)] = [
                .. results
                    .SelectMany(r => r.Attributes.Keys)
                    .GroupBy(a => a)
                    .Select(a => new AttributeShare(a.Key, (double)a.Count() / results.Count)),
            ];
        }
        catch (MarketException)
        {
            return [];
        }
    }
}
