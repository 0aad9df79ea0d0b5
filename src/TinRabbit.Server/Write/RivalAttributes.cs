using System.Collections.Concurrent;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;

namespace TinRabbit.Server.Write;

/// <summary>The share of rivals that fill each attribute. The stand-in's rivals stay the same, so an answer is kept, a bounded number of them.</summary>
internal sealed class RivalAttributes(IMarket market)
{
    private const int RivalsAsked = 100;
    private const int MostKept = 500;

    private readonly ConcurrentDictionary<(string Market, string Term), IReadOnlyList<RivalAttribute>> _kept = new();

    /// <summary>The share among those who are found for the lead, or for the most searched pick where there is no lead.</summary>
    public IReadOnlyList<RivalAttribute> Of(string marketId, OpenDraft open)
    {
        var term = open.Lead ?? open.Picks.Wanted.MaxBy(w => w.Volume)?.Text;
        if (term is null || open.Platform.Fields.All(f => f.Shape != FieldShape.Choices))
            return [];
        if (_kept.Count >= MostKept)
            _kept.Clear();
        return _kept.GetOrAdd(
            (marketId, term),
            key =>
            {
                var results = market.Search(key.Market, key.Term, RivalsAsked).Results;
                return
                [
                    .. results
                        .SelectMany(r => r.Attributes.Keys)
                        .GroupBy(a => a)
                        .Select(a => new RivalAttribute(a.Key, (double)a.Count() / results.Count)),
                ];
            }
        );
    }
}
