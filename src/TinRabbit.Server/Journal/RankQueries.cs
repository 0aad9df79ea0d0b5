using TinRabbit.Core.Watching;

namespace TinRabbit.Server.Journal;

/// <summary>The ranks of a listing by day, from its found checks.</summary>
internal static class RankQueries
{
    /// <summary>What happened to the ranks around a change, and the days with a check: of each day, the last check counts.</summary>
    public static async Task<(RankEffect Effect, IReadOnlyList<DateOnly> Days)> RanksAround(
        this TinContext db,
        int listingId,
        string marketId,
        ChangeWindows windows,
        CancellationToken stop
    )
    {
        var checks = (
            await db
                .Checks.AsNoTracking()
                .Where(c =>
                    c.ListingId == listingId
                    && c.MarketId == marketId
                    && c.State == CheckState.Finished
                    && c.Day >= windows.Earliest
                    && c.Day <= windows.Latest
                    && (c.Day < windows.Changed || c.Day >= windows.Counts)
                )
                .ToListAsync(stop)
        )
            .GroupBy(c => c.Day)
            .Select(day => day.OrderBy(c => c.At).ThenBy(c => c.Id).Last())
            .ToDictionary(c => c.Id, c => c.Day);
        var ids = checks.Keys.ToList();
        var finds = await db
            .Finds.AsNoTracking()
            .Where(f => ids.Contains(f.CheckId) && f.IsDone)
            .Select(f => new
            {
                f.CheckId,
                f.TermId,
                f.Found,
                f.Rank,
            })
            .ToListAsync(stop);
        var names = await db
            .FollowedTerms.IgnoreQueryFilters()
            .Where(t => t.ListingId == listingId && t.MarketId == marketId)
            .ToDictionaryAsync(t => t.Id, t => t.Text, stop);
        var effect = RankEffect.Of(
            finds
                // Where it was found but not at which rank, nothing is known of the rank.
                .Where(f => names.ContainsKey(f.TermId) && (!f.Found || f.Rank is not null))
                .GroupBy(f => names[f.TermId])
                .ToDictionary(
                    t => t.Key,
                    t =>
                        (
                            RanksOf(t.Where(f => checks[f.CheckId] < windows.Changed).Select(f => f.Rank)),
                            RanksOf(t.Where(f => checks[f.CheckId] >= windows.Counts).Select(f => f.Rank))
                        )
                )
        );
        return (effect, [.. checks.Values.Order()]);

        static IReadOnlyList<int?> RanksOf(IEnumerable<int?> days) => [.. days];
    }
}
