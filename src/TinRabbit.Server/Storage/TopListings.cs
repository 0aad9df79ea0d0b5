using System.Collections.Concurrent;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;

namespace TinRabbit.Server.Storage;

/// <summary>The first listings that a market finds for a term. An answer is kept for some minutes, and a bounded number of them.</summary>
internal sealed class TopListings(IMarket market)
{
    /// <summary>How many are asked for.</summary>
    public const int Asked = 100;

    private const int MostKept = 200;
    private static readonly TimeSpan Fresh = TimeSpan.FromMinutes(10);

    private readonly ConcurrentDictionary<(string Market, string Term), (DateTime At, SearchPage Page)> _kept = new();

    /// <summary>The term that a listing's rivals are looked up by: the one given, otherwise its lead, otherwise its most searched pick; null without any.</summary>
    public static string? TermOf(OpenDraft open, string? given = null) =>
        given?.Trim() is { Length: > 0 } term ? term : open.Lead ?? open.Picks.Wanted.MaxBy(w => w.Volume)?.Text;

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

    /// <summary>The share of them that fill each attribute; none where there is no term to ask for, or the market does not answer.</summary>
    public async Task<IReadOnlyList<AttributeShare>> AttributeShares(string marketId, OpenDraft open, CancellationToken stop)
    {
        if (TermOf(open) is not { } term || open.Platform.Fields.All(f => f.Shape != FieldShape.Choices))
            return [];
        try
        {
            var results = (await Of(marketId, term, stop)).Results;
            return
            [
                .. results
                    .SelectMany(r => r.Attributes.Keys)
                    .CountBy(a => a)
                    .Select(a => new AttributeShare(a.Key, (double)a.Value / results.Count)),
            ];
        }
        catch (MarketException)
        {
            return [];
        }
    }
}
