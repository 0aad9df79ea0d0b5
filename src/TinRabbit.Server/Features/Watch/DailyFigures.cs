using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What happened on one day, and where it came from; each figure is null when unknown.</summary>
internal readonly record struct Figures(long? Views, long? Clicks, long? Sales, string Source = "")
{
    /// <summary>The figure of a measure.</summary>
    public long? this[Measure measure] =>
        measure switch
        {
            Measure.Clicks => Clicks,
            Measure.Sales => Sales,
            _ => Views,
        };

    /// <summary>These figures, and where they say nothing, those that were known before.</summary>
    public Figures Over(Figures before) =>
        this is { Views: not null, Clicks: not null, Sales: not null }
            ? this
            : new(
                Views ?? before.Views,
                Clicks ?? before.Clicks,
                Sales ?? before.Sales,
                before.Source.StartsWith(Source, StringComparison.Ordinal) ? before.Source : $"{Source} + {before.Source}"
            );
}

/// <summary>What is counted by day.</summary>
public enum Measure
{
    Views,
    Clicks,
    Sales,
}

/// <summary>The daily figures of a listing in a market: of several for one day, the newest number of each.</summary>
/// <param name="Days">By day.</param>
internal sealed record DailyFigures(int ListingId, string MarketId, IReadOnlyDictionary<DateOnly, Figures> Days)
{
    /// <summary>Those of one listing.</summary>
    public static async Task<DailyFigures> Of(TinContext db, int listingId, string marketId, CancellationToken stop) =>
        (await Read(db.Figures.Where(f => f.ListingId == listingId && f.MarketId == marketId), stop)).FirstOrDefault()
        ?? new(listingId, marketId, new Dictionary<DateOnly, Figures>());

    /// <summary>Those of the whole shop, from a day on.</summary>
    public static Task<List<DailyFigures>> OfShop(TinContext db, DateOnly from, CancellationToken stop) =>
        Read(db.Figures.Where(f => f.Day >= from && db.Set<ListingRow>().Any(l => l.Id == f.ListingId)), stop);

    private static async Task<List<DailyFigures>> Read(IQueryable<FigureRow> rows, CancellationToken stop) =>
        [
            .. (
                await rows.OrderBy(f => f.Id)
                    .Select(f => new
                    {
                        f.ListingId,
                        f.MarketId,
                        f.Day,
                        f.Views,
                        f.Clicks,
                        f.Sales,
                        f.Source,
                    })
                    .ToListAsync(stop)
            )
                .GroupBy(f => (f.ListingId, f.MarketId))
                .Select(g =>
                {
                    var days = new Dictionary<DateOnly, Figures>();
                    foreach (var f in g)
                    {
                        var figures = new Figures(f.Views, f.Clicks, f.Sales, f.Source);
                        days[f.Day] = days.TryGetValue(f.Day, out var before) ? figures.Over(before) : figures;
                    }

                    return new DailyFigures(g.Key.ListingId, g.Key.MarketId, days);
                }),
        ];
}
