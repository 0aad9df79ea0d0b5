using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Watch;

/// <summary>The watched listings of the shop, those that moved most first.</summary>
/// <param name="Days">The days of each of the two periods that are compared.</param>
/// <param name="Until">The last day of the later one.</param>
public sealed record MoversView(int Days, DateOnly Until, IReadOnlyList<Mover> Listings);

/// <summary>A listing in a market, in two periods.</summary>
/// <param name="Checked">Terms in its last check; null without one.</param>
/// <param name="Found">How many of them found it.</param>
/// <param name="Appeared">Terms that find it now and did not in the check before.</param>
/// <param name="Disappeared">Terms that found it in the check before and do not now.</param>
/// <param name="DaysKnown">Days of the later period whose figures are known.</param>
public sealed record Mover(
    int ListingId,
    int ProductId,
    string Product,
    string Platform,
    string MarketId,
    string Country,
    int? Checked,
    int? Found,
    int Appeared,
    int Disappeared,
    MovedFigure Views,
    MovedFigure Clicks,
    MovedFigure Sales,
    int DaysKnown,
    IReadOnlyList<long?> Daily
);

/// <summary>A figure in two periods; each is null where not every day is known.</summary>
public sealed record MovedFigure(long? Before, long? Now);

internal static class MoversApi
{
    private const int LongestPeriod = 366;

    public static void MapMovers(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/movers", GetMovers).WithName("GetMovers").WithTags("Watch").ProducesValidationProblem();

    private static async Task<Ok<MoversView>> GetMovers(int days, TinContext db, IMarket market, CancellationToken stop)
    {
        if (days is < 1 or > LongestPeriod)
            throw new InvalidInputException([new("days", $"Compare periods of 1 to {LongestPeriod} days.")]);
        var until = market.Today.AddDays(-1);
        var from = until.AddDays(1 - 2 * days);
        var figures = (await DailyFigures.OfShop(db, from, stop)).ToDictionary(f => (f.ListingId, f.MarketId));
        var watches = await (
            from watch in db.Watches.AsNoTracking()
            join listing in db.Listings.AsNoTracking() on watch.ListingId equals listing.Id
            where listing.ArchivedAt == null
            select new
            {
                watch.MarketId,
                Listing = listing.Id,
                listing.ProductId,
                Product = listing.Product.Name,
                listing.PlatformId,
            }
        ).ToListAsync(stop);
        var names = await db.PlatformNames(stop);
        var lastTwo = await LastTwo(db, stop);
        var places = market.Places.ToDictionary(p => p.Id);
        var lines = new List<Mover>(watches.Count);
        foreach (var w in watches)
        {
            var known = figures.GetValueOrDefault((w.Listing, w.MarketId))?.Days ?? new Dictionary<DateOnly, Figures>();
            var (all, found, appeared, gone) = lastTwo.GetValueOrDefault((w.Listing, w.MarketId));
            lines.Add(
                new(
                    w.Listing,
                    w.ProductId,
                    w.Product,
                    names.GetValueOrDefault(w.PlatformId, ""),
                    w.MarketId,
                    places.GetValueOrDefault(w.MarketId)?.CountryName ?? "",
                    all,
                    found,
                    appeared,
                    gone,
                    Moved(known, Measure.Views, until, days),
                    Moved(known, Measure.Clicks, until, days),
                    Moved(known, Measure.Sales, until, days),
                    known.Keys.Count(d => d > until.AddDays(-days) && d <= until),
                    [.. Enumerable.Range(0, 2 * days).Select(d => known.TryGetValue(from.AddDays(d), out var f) ? f.Views : null)]
                )
            );
        }

        return TypedResults.Ok(
            new MoversView(
                days,
                until,
                [
                    .. lines
                        .OrderByDescending(l => l.Views is { Before: { } before, Now: { } now } ? Math.Abs(now - before) : -1)
                        .ThenBy(l => l.Product),
                ]
            )
        );
    }

    private static MovedFigure Moved(IReadOnlyDictionary<DateOnly, Figures> known, Measure measure, DateOnly until, int days)
    {
        return new(Sum(until.AddDays(-days)), Sum(until));

        long? Sum(DateOnly last)
        {
            var sum = 0L;
            for (var d = 0; d < days; d++)
                if (known.TryGetValue(last.AddDays(-d), out var figures) && figures[measure] is { } count)
                    sum += count;
                else
                    return null;
            return sum;
        }
    }

    // Of each watched listing the last two checks that ended, in two questions for the whole shop.
    private static async Task<Dictionary<(int, string), (int? All, int? Found, int Appeared, int Gone)>> LastTwo(
        TinContext db,
        CancellationToken stop
    )
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
                var now = finds[c.Value[0]].ToList();
                return (
                    (int?)now.Count,
                    (int?)now.Count(f => f.Found),
                    now.Count(f => f.Found && before.TryGetValue(f.TermId, out var was) && !was),
                    now.Count(f => !f.Found && before.GetValueOrDefault(f.TermId))
                );
            }
        );
    }
}
