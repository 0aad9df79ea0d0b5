using TinRabbit.Core.Watching;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>The daily figures of listings, from the database.</summary>
internal static class DailySeriesQueries
{
    /// <summary>Those of one listing in a market.</summary>
    public static async Task<DailySeries> SeriesOf(this TinContext db, int listingId, string marketId, CancellationToken stop) =>
        (await Load(db.Figures.Where(f => f.ListingId == listingId && f.MarketId == marketId), stop)).FirstOrDefault()
        ?? DailySeries.Merge(listingId, marketId, []);

    /// <summary>Those of the whole shop, from a day on.</summary>
    public static Task<List<DailySeries>> SeriesOfShop(this TinContext db, DateOnly from, CancellationToken stop) =>
        Load(db.Figures.Where(f => f.Day >= from && db.Set<ListingRow>().Any(l => l.Id == f.ListingId)), stop);

    private static async Task<List<DailySeries>> Load(IQueryable<FigureRow> rows, CancellationToken stop) => [.. (
                await rows.OrderBy(f => f.Id)
                    .Select(f => new
                    {
                        f.ListingId,
                        f.MarketId,
                        f.Day,
                        Metrics = new DayMetrics(f.Views, f.Clicks, f.Sales, f.Source),
                    })
                    .ToListAsync(stop)
            ).GroupBy(f => (f.ListingId, f.MarketId)).Select(g => DailySeries.Merge(g.Key.ListingId, g.Key.MarketId, g.Select(f => (f.Day, f.Metrics))))];
}
