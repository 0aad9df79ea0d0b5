using TinRabbit.Core.Comparing;

namespace TinRabbit.Core.Watching;

/// <summary>
/// Compares the days before a change with those after it; what shoppers searched for meanwhile, or what happened to untouched listings, is
/// taken off (docs/model.md, "Before and after").
/// </summary>
public sealed class ChangeEffects
{
    // Below one a day the ratio is not reported: log(1 + count) is no ratio for small counts.
    private const double LeastDaily = 1;

    // How far off the demand is, as a standard error of its logarithm: months are of other years, and ranks follow the sales of weeks before.
    private const double DemandError = 0.15;

    // More of them make the control no steadier.
    private const int MostControls = 100;

    private readonly ChangedListing[] _all;
    private readonly ILookup<int, ChangedListing> _ofListing;
    private readonly ILookup<int, ChangedListing> _ofProduct;
    private readonly ILookup<string, ChangedListing> _ofMarket;

    /// <param name="series">The daily figures of the whole shop.</param>
    /// <param name="demands">The demand for the terms of the listings that are compared, where it is known.</param>
    /// <param name="notes">Every change note of the shop.</param>
    /// <param name="products">The product of each listing.</param>
    public ChangeEffects(
        IReadOnlyList<DailySeries> series,
        IReadOnlyDictionary<(int ListingId, string MarketId), Demand> demands,
        IReadOnlyList<ChangeNote> notes,
        IReadOnlyDictionary<int, int> products
    )
    {
        var ofShop = notes.Where(n => n.ListingId is null && n.ProductId is null).ToList();
        var ofProduct = notes.Where(n => n.ListingId is null && n.ProductId is not null).ToLookup(n => n.ProductId!.Value);
        var ofListing = notes.Where(n => n.ListingId is not null).ToLookup(n => n.ListingId!.Value);
        _all =
        [
            .. series
                .Select(s =>
                {
                    var product = products.GetValueOrDefault(s.ListingId);
                    var own = ofListing[s.ListingId].Where(n => n.MarketId is null || n.MarketId == s.MarketId);
                    var demand = demands.GetValueOrDefault((s.ListingId, s.MarketId));
                    return new ChangedListing(s, product, demand, [.. own, .. ofProduct[product], .. ofShop]);
                })
                .OrderByDescending(l => l.Views),
        ];
        _ofListing = _all.ToLookup(l => l.ListingId);
        _ofProduct = _all.ToLookup(l => l.Product);
        _ofMarket = _all.ToLookup(l => l.MarketId);
    }

    /// <summary>Whether any figure of what a note is about is known.</summary>
    public bool Knows(ChangeNote note) => ListingsOf(note).Any();

    /// <summary>What happened after a change.</summary>
    public ChangeEffect Of(ChangeNote note, DailyMeasure measure)
    {
        var own = ListingsOf(note).ToList();
        var windows = ChangeWindows.Of(note, own.SelectMany(l => l.Notes));
        var before =
            windows.Earliest >= windows.Changed ? [] : ChangedListing.Days(own, measure, windows.Changed.AddDays(-1), windows.Earliest);
        var after = windows.Latest < windows.Counts ? [] : ChangedListing.Days(own, measure, windows.Counts, windows.Latest);
        before.Reverse();
        var compared = new Comparison(own, measure, windows, new(before, after, windows.Counts.DayNumber - windows.Changed.DayNumber));
        var (found, demand, controls) =
            compared.IsTooFew ? (new(null, null, null, Verdict.Unclear, null, compared.Days), null, null)
            : compared.Days > 0 && own.All(l => l.Demand is not null) ? AtOneDemand(compared)
            : BesideOthers(compared);
        return new(
            measure,
            compared.DailyBefore,
            compared.DailyAfter,
            compared.IsFewOnOneSide ? found with { Difference = null, Low = null, High = null, Effect = null } : found,
            compared.Days == 0 ? null : compared.First,
            compared.Days == 0 ? null : compared.Last,
            demand,
            controls,
            after.Count,
            compared.IsTooFew,
            windows.IsCut && windows.Counts.AddDays(after.Count) > windows.Latest,
            before.Count < BeforeAfter.Week && windows.Changed.AddDays(-before.Count) == windows.Earliest
        );
    }

    private IEnumerable<ChangedListing> ListingsOf(ChangeNote note) =>
        note.ListingId is { } listing ? _ofListing[listing].Where(l => note.MarketId is null || note.MarketId == l.MarketId)
        : note.ProductId is { } product ? _ofProduct[product]
        : _all;

    // Every day's count as it would be at the demand of the days before.
    private static (BeforeAfter, double? Demand, int? Controls) AtOneDemand(Comparison c)
    {
        var (changed, counts) = (c.Windows.Changed, c.Windows.Counts);
        var level = c.Own.ToDictionary(l => l, l => l.DemandOf(c.First, changed.AddDays(-1)));
        var steady = new DailyCounts(
            ChangedListing.Days(c.Own, c.Measure, changed.AddDays(-c.Counts.Before.Count), changed.AddDays(-1), level),
            ChangedListing.Days(c.Own, c.Measure, counts, counts.AddDays(c.Counts.After.Count - 1), level),
            c.Counts.DaysLeftOut
        );
        var grown = c.Own.Sum(l => l.DemandOf(counts, c.Last)) / level.Values.Sum();
        return (BeforeAfter.Of(steady, adjusted: DemandError * DemandError), 100 * (grown - 1), null);
    }

    private (BeforeAfter, double? Demand, int? Controls) BesideOthers(Comparison c)
    {
        if (c.Days == 0)
            return (BeforeAfter.Of(c.Counts), null, null);
        var others = Untouched(c);
        var control = Control(others, c);
        return (BeforeAfter.Of(c.Counts, control), null, control is null ? 0 : others.Count);
    }

    // Listings that are known on every day and were not changed on any of them. The most alike: the same product elsewhere, which has the same
    // season; then the same market, then any. Of many, those that are seen most: they vary least by chance.
    private List<ChangedListing> Untouched(Comparison c)
    {
        var isOwn = c.Own.ToHashSet();
        var same = Among(c.Own.Where(l => l.Product != 0).SelectMany(l => _ofProduct[l.Product]));
        if (same.Count > 0)
            return same;
        var near = Among(c.Own.Select(l => l.MarketId).Distinct().SelectMany(m => _ofMarket[m]));
        return near.Count > 0 ? near : Among(_all);

        List<ChangedListing> Among(IEnumerable<ChangedListing> some) =>
            [
                .. some.Distinct()
                    .Where(l =>
                        !isOwn.Contains(l)
                        && !l.Notes.Any(n => n.FirstDay > c.First && n.Day <= c.Last)
                        && l.IsKnown(c.Measure, c.First, c.Windows.Changed.AddDays(-1))
                        && l.IsKnown(c.Measure, c.Windows.Counts, c.Last)
                    )
                    .Take(MostControls),
            ];
    }

    // What happened to others, brought to the size of the listing itself: log(1 + count) is not a ratio where counts are small.
    private static DailyCounts? Control(List<ChangedListing> others, Comparison c)
    {
        if (others.Count == 0)
            return null;
        var early = ChangedListing.Days(others, c.Measure, c.First, c.Windows.Changed.AddDays(-1));
        var late = ChangedListing.Days(others, c.Measure, c.Windows.Counts, c.Last);
        if (early.Average() == 0)
            return null;
        var size = c.DailyBefore!.Value / early.Average();
        return new([.. early.Select(n => n * size)], [.. late.Select(n => n * size)], c.Counts.DaysLeftOut);
    }

    /// <summary>The days of some listings around a change, in whole weeks on both sides.</summary>
    private sealed record Comparison(List<ChangedListing> Own, DailyMeasure Measure, ChangeWindows Windows, DailyCounts Counts)
    {
        public int Days { get; } = Math.Min(Counts.Before.Count, Counts.After.Count) / BeforeAfter.Week * BeforeAfter.Week;
        public DateOnly First => Windows.Changed.AddDays(-Days);
        public DateOnly Last => Windows.Counts.AddDays(Days - 1);
        public double? DailyBefore => Days == 0 ? null : Counts.Before.TakeLast(Days).Average();
        public double? DailyAfter => Days == 0 ? null : Counts.After.Take(Days).Average();
        public bool IsTooFew => DailyBefore < LeastDaily && DailyAfter < LeastDaily;
        public bool IsFewOnOneSide => DailyBefore < LeastDaily || DailyAfter < LeastDaily;
    }
}
