using TinRabbit.Core.Watching;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Puts the last two observations of each term beside what the profile predicts.</summary>
internal static class FoundTerms
{
    /// <summary>A term that no check asked for in so many is shown as not checked.</summary>
    public const int LastChecks = 40;

    public static async Task<List<FoundTerm>> Of(TinContext db, ListingRow listing, string marketId, CancellationToken stop)
    {
        var terms = await db
            .FollowedTerms.AsNoTracking()
            .Where(t => t.ListingId == listing.Id && t.MarketId == marketId)
            .OrderBy(t => t.Id)
            .ToListAsync(stop);
        var checks = await FoundChecks.Of(db, listing.Id, marketId).AsNoTracking().Take(LastChecks).ToListAsync(stop);
        var ids = checks.Select(c => c.Id).ToList();
        var times = checks.ToDictionary(c => c.Id, c => c.At);
        var finds = (await db.Finds.AsNoTracking().Where(f => ids.Contains(f.CheckId) && f.IsDone).ToListAsync(stop))
            .GroupBy(f => f.TermId)
            .ToDictionary(g => g.Key, g => g.OrderBy(f => ids.IndexOf(f.CheckId)).Take(2).ToArray());
        var volumes = await Shelves.VolumesOf(db, marketId, [.. terms.Select(t => t.Key)], stop);
        var picks = await db.PicksInUse(listing.ProductId).Select(p => p.Key).ToHashSetAsync(stop);
        var pageSize = await FoundChecks.PageSizeOf(db, listing.Id, marketId, stop);
        var atMarket = await db.AtMarket(listing, marketId, stop);
        var inDraft = atMarket.Weigh(atMarket.Draft, [.. terms.Select(t => t.Text)], stop);
        // Each term by the text that the market had when it was last checked.
        var weighed = atMarket.WeighAt(
            [.. terms.Select(t => (t.Text, finds.TryGetValue(t.Id, out var of) ? times[of[0].CheckId] : DateTime.MaxValue))],
            stop
        );
        var latest = finds.Count == 0 ? null : atMarket.CopyAt(finds.Values.Max(f => times[f[0].CheckId]));
        return
        [
            .. terms.Select(
                (term, i) =>
                {
                    var last = finds.GetValueOrDefault(term.Id)?[0];
                    var before = finds.GetValueOrDefault(term.Id)?.ElementAtOrDefault(1);
                    var at = last is null ? (DateTime?)null : times[last.CheckId];
                    var (held, isHeld) = (weighed[i], weighed[i].Grade != Grade.Missing);
                    var why = last is { Found: false } ? atMarket.WhyNotFound(term.Text, isHeld, at!.Value, stop) : (NotFoundReason?)null;
                    var explained = why == NotFoundReason.WordMissing ? held.Explain() : null;
                    return new FoundTerm(
                        term.Id,
                        term.Key,
                        term.Text,
                        volumes.TryGetValue(term.Key, out var volume) ? volume : null,
                        picks.Contains(term.Key),
                        at,
                        last?.Found,
                        last?.Rank,
                        FirstPage.PageOf(last?.Rank, pageSize),
                        last?.Results,
                        before is null ? null : new(times[before.CheckId], before.Found, before.Rank),
                        Flips.Between(before?.Found, last?.Found),
                        isHeld,
                        why,
                        explained?.Missing ?? [],
                        explained is null ? [] : held.Near(explained),
                        last is not null
                            && why is not (NotFoundReason.IndexDelay or NotFoundReason.NotSent)
                            && latest is not null
                            && ReferenceEquals(atMarket.CopyAt(at!.Value), latest),
                        inDraft[i].Grade != Grade.Missing
                    );
                }
            ),
        ];
    }
}
