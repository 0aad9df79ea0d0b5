using TinRabbit.Core.Watching;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Compares the watched listings of the shop in two periods.</summary>
internal sealed class Movers(TinContext db, IMarket market)
{
    /// <summary>The last whole days beside those before them.</summary>
    /// <param name="days">The days of each period.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<MoversView> Load(int days, CancellationToken stop)
    {
        var until = market.Today.AddDays(-1);
        var series = (await db.SeriesOfShop(until.AddDays(1 - 2 * days), stop)).ToDictionary(f => (f.ListingId, f.MarketId));
        var watches = await (
            from watch in db.Watches.AsNoTracking()
            join listing in db.Listings.AsNoTracking() on watch.ListingId equals listing.Id
            where listing.ArchivedAt == null
            select new WatchedListing(listing.Id, listing.ProductId, listing.Product.Name, listing.PlatformId, watch.MarketId)
        ).ToListAsync(stop);
        var names = await db.PlatformNames(stop);
        var lastTwo = await LastTwo(stop);
        var places = market.Places.ToDictionary(p => p.Id);
        return new(
            days,
            until,
            [
                .. watches
                    .Select(w => MoverOf(w, series.GetValueOrDefault((w.Id, w.MarketId)) ?? DailySeries.Merge(w.Id, w.MarketId, [])))
                    .OrderByDescending(l => l.Views is { Before: { } before, Now: { } now } ? Math.Abs(now - before) : -1)
                    .ThenBy(l => l.Product),
            ]
        );

        Mover MoverOf(WatchedListing w, DailySeries known)
        {
            var (all, found, appeared, gone) = lastTwo.GetValueOrDefault((w.Id, w.MarketId));
            return new(
                w.Id,
                w.ProductId,
                w.Product,
                names.GetValueOrDefault(w.PlatformId, ""),
                w.MarketId,
                places.GetValueOrDefault(w.MarketId)?.CountryName ?? "",
                all,
                found,
                appeared,
                gone,
                Moved(known, DailyMeasure.Views, until, days),
                Moved(known, DailyMeasure.Clicks, until, days),
                Moved(known, DailyMeasure.Sales, until, days),
                known.Days.Keys.Count(d => d > until.AddDays(-days) && d <= until),
                [
                    .. Enumerable
                        .Range(1 - 2 * days, 2 * days)
                        .Select(d => known.Days.TryGetValue(until.AddDays(d), out var f) ? f.Views : null),
                ]
            );
        }
    }

    private static MovedFigure Moved(DailySeries known, DailyMeasure measure, DateOnly until, int days) =>
        new(known.Sum(measure, until.AddDays(-days), days), known.Sum(measure, until, days));

    // Of each watched listing the last two checks that ended, in two questions for the whole shop.
    private async Task<Dictionary<(int, string), (int? All, int? Found, int Appeared, int Gone)>> LastTwo(CancellationToken stop)
    {
        var checks = (
            await db
                .Watches.SelectMany(w =>
                    db.Set<CheckRow>()
                        .Where(c => c.ListingId == w.ListingId && c.MarketId == w.MarketId && c.State == CheckState.Finished)
                        .OrderByDescending(c => c.Day)
                        .ThenByDescending(c => c.Id)
                        .Take(2)
                        .Select(c => new
                        {
                            c.Id,
                            c.ListingId,
                            c.MarketId,
                            c.Day,
                        })
                )
                .ToListAsync(stop)
        ).GroupBy(c => (c.ListingId, c.MarketId)).ToDictionary(g => g.Key, g => g.OrderByDescending(c => c.Day).ThenByDescending(c => c.Id).Select(c => c.Id).ToArray());
        var ids = checks.Values.SelectMany(c => c).ToList();
        var finds = (await db.Finds.AsNoTracking().Where(f => ids.Contains(f.CheckId) && f.IsDone).ToListAsync(stop)).ToLookup(f =>
            f.CheckId
        );
        return checks.ToDictionary(
            c => c.Key,
            c =>
            {
                var before = c.Value.Length > 1 ? finds[c.Value[1]].ToDictionary(f => f.TermId, f => f.Found) : [];
                var now = finds[c.Value[0]].ToDictionary(f => f.TermId, f => f.Found);
                var (appeared, gone) = Flips.Count(before, now);
                return ((int?)now.Count, (int?)now.Values.Count(f => f), appeared, gone);
            }
        );
    }

    private sealed record WatchedListing(int Id, int ProductId, string Product, string PlatformId, string MarketId);
}
