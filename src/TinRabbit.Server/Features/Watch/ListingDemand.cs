using TinRabbit.Core.Comparing;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Watch;

/// <summary>The demand for the terms that find listings: the searches of each, by the best rank that it had. Half the rank brings twice the shoppers.</summary>
internal static class ListingDemand
{
    // What a term counts that finds a listing at an unknown rank.
    private const double UnknownRank = 50;

    /// <summary>The demand of each listing in each market; none of those whose terms have no searches by month.</summary>
    /// <param name="db">The database.</param>
    /// <param name="listings">The listings.</param>
    /// <param name="first">Ranks from this day on count.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<Dictionary<(int ListingId, string MarketId), Demand>> Of(
        TinContext db,
        IReadOnlyCollection<int> listings,
        DateOnly first,
        CancellationToken stop
    )
    {
        var found = await (
            from find in db.Finds
            join check in db.Checks on find.CheckId equals check.Id
            where listings.Contains(check.ListingId) && check.Day >= first && find.Found
            group find.Rank by find.TermId into ranks
            select new { TermId = ranks.Key, Rank = ranks.Min() }
        ).ToDictionaryAsync(f => f.TermId, f => f.Rank, stop);
        var followed = (
            await db
                .FollowedTerms.IgnoreQueryFilters()
                .AsNoTracking()
                .Where(t => listings.Contains(t.ListingId))
                .Select(t => new
                {
                    t.Id,
                    t.ListingId,
                    t.MarketId,
                    t.Key,
                })
                .ToListAsync(stop)
        ).Where(t => found.ContainsKey(t.Id)).ToList();
        var (markets, keys) = (followed.Select(t => t.MarketId).ToHashSet(), followed.Select(t => t.Key).ToHashSet());
        var readings = await db
            .Terms.AsNoTracking()
            .Where(t => markets.Contains(t.MarketId) && keys.Contains(t.Key) && t.Reading!.Months != null && t.Reading.From != null)
            .Select(t => new
            {
                t.MarketId,
                t.Key,
                t.Reading!.Months,
                t.Reading.From,
            })
            .ToDictionaryAsync(t => (t.MarketId, t.Key), stop);
        var demands = new Dictionary<(int, string), Demand>();
        foreach (var listing in followed.GroupBy(t => (t.ListingId, t.MarketId)))
        {
            var terms = listing
                .Where(t => readings.ContainsKey((t.MarketId, t.Key)))
                .Select(t => (Reading: readings[(t.MarketId, t.Key)], Weight: 1 / (found[t.Id] ?? UnknownRank)));
            if (Demand.Of(terms.Select(t => (t.Reading.Months!, t.Reading.From!.Value, t.Weight))) is { } demand)
                demands[listing.Key] = demand;
        }

        return demands;
    }
}
