using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Searches worth making by hand, where a market has no connection.</summary>
/// <param name="Terms">What to look up, the first first; those that are done come before.</param>
/// <param name="Done">How many of them are done.</param>
public sealed record LookUpsView(IReadOnlyList<LookUp> Terms, int Done);

/// <summary>A search to make.</summary>
/// <param name="Needs">What is to be brought in of it; empty where it is done.</param>
/// <param name="IsLead">Whether it is a lead.</param>
/// <param name="DaysOld">How old the newest results are, in days; null where there are none.</param>
public sealed record LookUp(string Text, string Key, IReadOnlyList<RecordingKind> Needs, bool IsLead, int? DaysOld);

/// <summary>Lists the searches worth making for a product in a market: the head term, its leads and its best picks, and those that grew old.</summary>
internal sealed class LookUps(TinContext db, IMarket market)
{
    private const int MostPicks = 12;
    private const int Old = 30;

    /// <summary>The list; empty where the market has a connection.</summary>
    public async Task<LookUpsView> Of(ProductRow product, string marketId, CancellationToken stop)
    {
        if (market.IsConnected || market.Places.FirstOrDefault(p => p.Id == marketId) is not { } place)
            return new([], 0);
        var leads = await db
            .Listings.Where(l => l.ProductId == product.Id && l.PlatformId == place.PlatformId && l.LeadKey != null)
            .Select(l => l.LeadKey!)
            .ToListAsync(stop);
        var picks = (await db.PicksInUse(product.Id).AsNoTracking().ToListAsync(stop)).OrderBy(p => p.Fit).ThenBy(p => p.Order).ToList();
        var digs = await db
            .Digs.AsNoTracking()
            .Where(d => d.ProductId == product.Id && d.MarketId == marketId)
            .OrderBy(d => d.Id)
            .Select(d => d.Text)
            .ToListAsync(stop);
        var head =
            digs.Count > 0 ? digs[0]
            : product.Facts.What is { Length: > 0 } what ? what
            // The name of an idea is none that shoppers type.
            : product.IsIdea ? picks.Select(p => p.Text).FirstOrDefault("")
            : product.Name;
        List<string> texts =
        [
            head,
            .. picks.Where(p => leads.Contains(p.Key)).Select(p => p.Text),
            .. picks.Take(MostPicks).Select(p => p.Text),
        ];
        var terms = texts.Select(t => (Text: t, Key: Tokens.Key(t))).Where(t => t.Key.Length > 0).DistinctBy(t => t.Key).ToList();
        var keys = terms.ConvertAll(t => t.Key);
        var days = (
            await db
                .Recordings.Where(r => r.MarketId == marketId && keys.Contains(r.Key))
                .GroupBy(r => new { r.Key, r.Kind })
                .Select(g => new
                {
                    g.Key.Key,
                    g.Key.Kind,
                    Day = g.Max(r => r.Day),
                })
                .ToListAsync(stop)
        ).ToDictionary(d => (d.Key, d.Kind), d => d.Day);
        var headKey = Tokens.Key(head);
        List<LookUp> all =
        [
            .. terms.Select(t => new LookUp(
                t.Text,
                t.Key,
                [
                    .. (t.Key == headKey ? [RecordingKind.Suggestions, RecordingKind.Results] : new[] { RecordingKind.Results }).Where(k =>
                        Age(t.Key, k) is null or > Old
                    ),
                ],
                leads.Contains(t.Key),
                Age(t.Key, RecordingKind.Results)
            )),
        ];
        return new([.. all.OrderBy(t => t.Needs.Count > 0)], all.Count(t => t.Needs.Count == 0));

        int? Age(string key, RecordingKind kind) =>
            days.TryGetValue((key, kind), out var day) ? Math.Max(0, market.Today.DayNumber - day.DayNumber) : null;
    }
}
