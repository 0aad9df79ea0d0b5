using TinRabbit.Core.Findings;
using TinRabbit.Core.Rivals;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Picks;

/// <summary>The listings that a draft competes with.</summary>
internal static class DraftRivals
{
    /// <summary>The term that a listing's rivals are looked up by: the one given, otherwise its lead, otherwise its most searched pick; null without any.</summary>
    public static string? TermOf(OpenDraft open, string? given = null) =>
        given?.Trim() is { Length: > 0 } term ? term : open.Lead ?? open.Picks.Wanted.MaxBy(w => w.Volume)?.Text;

    /// <summary>How many of the words that the titles of the first listings use most are in the picks; none where the market does not answer.</summary>
    public static async Task<UsualWords> Usual(TopListings top, string marketId, OpenDraft open, CancellationToken stop)
    {
        if (TermOf(open) is not { } term)
            return default;
        try
        {
            var results = (await top.Of(marketId, term, stop))?.Ranked() ?? [];
            return UsualWords.Of([.. results.Select(r => r.Title)], open.Picks.Wanted.Select(w => w.Text));
        }
        catch (MarketException)
        {
            return default;
        }
    }

    /// <summary>The share of the first listings that fill each attribute; none where there is no term to ask for, or the market does not answer.</summary>
    public static async Task<IReadOnlyList<AttributeShare>> AttributeShares(
        TopListings top,
        string marketId,
        OpenDraft open,
        CancellationToken stop
    )
    {
        if (TermOf(open) is not { } term || open.Platform.Fields.All(f => f.Shape != FieldShape.Choices))
            return [];
        try
        {
            // Only listings whose attributes are known say how many fill one.
            var results = (await top.Of(marketId, term, stop))?.Ranked().Where(r => r.Attributes.Count > 0).ToList() ?? [];
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
