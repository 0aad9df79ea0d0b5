using TinRabbit.Core.Watching;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Journal;

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

    /// <summary>Those of a platform's listings in one of its markets, from a day on.</summary>
    public static Task<List<DailySeries>> SeriesOfPlatform(
        this TinContext db,
        string platformId,
        string marketId,
        DateOnly from,
        CancellationToken stop
    ) =>
        Load(
            db.Set<ListingRow>()
                .Where(l => l.PlatformId == platformId)
                .SelectMany(l => db.Set<FigureRow>().Where(f => f.ListingId == l.Id && f.MarketId == marketId && f.Day >= from)),
            stop
        );

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
