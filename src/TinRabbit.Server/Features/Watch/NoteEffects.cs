using TinRabbit.Core.Comparing;
using TinRabbit.Server.Journal;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What happened after a change, by one measure.</summary>
/// <param name="DailyBefore">The mean of a day before it; null where nothing was compared.</param>
/// <param name="DailyAfter">The mean of a day after it.</param>
/// <param name="Difference">In percent, what happened to the demand or the control taken off; null where nothing was compared, or where a side has less than one a day.</param>
/// <param name="Low">The lower end of the 95 % interval.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Days">Days on each side.</param>
/// <param name="DaysNeeded">How many more days a difference of this size would need.</param>
/// <param name="From">The first day before; null where nothing was compared.</param>
/// <param name="To">The last day after.</param>
/// <param name="Demand">How much more its terms were searched on the days after, in percent; that is taken off. Null where it is not known.</param>
/// <param name="Controls">Where the demand is not known: how many untouched listings were compared with instead; 0 where none could be.</param>
/// <param name="Says">The verdict as a sentence.</param>
public sealed record EffectView(
    Measure Measure,
    double? DailyBefore,
    double? DailyAfter,
    double? Difference,
    double? Low,
    double? High,
    Verdict Verdict,
    int Days,
    int? DaysNeeded,
    DateOnly? From,
    DateOnly? To,
    double? Demand,
    int? Controls,
    string Says
)
{
    /// <summary>The logarithm of the ratio with its variance; null where nothing was compared.</summary>
    internal (double Log, double Variance)? Effect { get; init; }
}

/// <summary>Compares the days before a change note with those after it; what shoppers searched for meanwhile, or what happened to untouched listings, is taken off (docs/model.md, "Before and after").</summary>
internal sealed class NoteEffects
{
    // Fewer a day on both sides say nothing; on one side, how many percent that is says nothing, as log(1 + count) is no ratio there.
    private const double LeastDaily = 1;

    // How far off the demand is, as a standard error of its logarithm: months are of other years, and ranks follow the sales of weeks before.
    private const double DemandError = 0.15;

    // More of them make the control no steadier.
    private const int MostControls = 100;

    private readonly Line[] _lines;
    private readonly ILookup<int, Line> _ofListing;
    private readonly ILookup<int, Line> _ofProduct;
    private readonly ILookup<string, Line> _ofMarket;

    /// <param name="figures">The daily figures of the whole shop.</param>
    /// <param name="demands">The demand for the terms of the listings that are compared, where it is known.</param>
    /// <param name="notes">Every change note of the shop.</param>
    /// <param name="products">The product of each listing.</param>
    public NoteEffects(
        IReadOnlyList<DailyFigures> figures,
        IReadOnlyDictionary<(int ListingId, string MarketId), Demand> demands,
        IReadOnlyList<NoteRow> notes,
        IReadOnlyDictionary<int, int> products
    )
    {
        var ofShop = notes.Where(n => n.ListingId is null && n.ProductId is null).ToList();
        var ofProduct = notes.Where(n => n.ListingId is null && n.ProductId is not null).ToLookup(n => n.ProductId!.Value);
        var ofListing = notes.Where(n => n.ListingId is not null).ToLookup(n => n.ListingId!.Value);
        _lines =
        [
            .. figures
                .Select(f =>
                {
                    var product = products.GetValueOrDefault(f.ListingId);
                    var own = ofListing[f.ListingId].Where(n => n.MarketId is null || n.MarketId == f.MarketId);
                    var demand = demands.GetValueOrDefault((f.ListingId, f.MarketId));
                    return new Line(f, product, demand, [.. own, .. ofProduct[product], .. ofShop]);
                })
                .OrderByDescending(l => l.Views),
        ];
        _ofListing = _lines.ToLookup(l => l.ListingId);
        _ofProduct = _lines.ToLookup(l => l.Product);
        _ofMarket = _lines.ToLookup(l => l.MarketId);
    }

    /// <summary>Whether any figure of what a note is about is known.</summary>
    public bool Knows(NoteRow note) => LinesOf(note).Any();

    /// <summary>What happened after a note.</summary>
    public EffectView Of(NoteRow note, Measure measure)
    {
        var own = LinesOf(note).ToList();
        var (changed, counts) = (DayOf(note.At), FirstDay(note));
        // Other changes of the same listings end the windows: what they did is not this one's.
        var longest = counts.AddDays(BeforeAfter.LongestWindow - 1);
        var (earliest, latest) = (changed.AddDays(-BeforeAfter.LongestWindow), longest);
        foreach (var other in own.SelectMany(l => l.Notes).Where(n => n.Id != note.Id))
        {
            if (FirstDay(other) is var from && DayOf(other.At) < changed && from > earliest)
                earliest = from;
            if (DayOf(other.At) is var begins && begins > changed && begins <= latest)
                latest = begins.AddDays(-1);
        }

        var before = Days(own, measure, changed.AddDays(-1), earliest, -1);
        var after = Days(own, measure, counts, latest, 1);
        before.Reverse();
        var days = Math.Min(before.Count, after.Count) / BeforeAfter.Week * BeforeAfter.Week;
        var (first, last) = (changed.AddDays(-days), counts.AddDays(days - 1));
        var raw = new DailyCounts(before, after, counts.DayNumber - changed.DayNumber);
        double? dailyBefore = days == 0 ? null : before.TakeLast(days).Average();
        double? dailyAfter = days == 0 ? null : after.Take(days).Average();
        if (dailyBefore < LeastDaily && dailyAfter < LeastDaily)
            return View(new(null, null, null, Verdict.Unclear, null, days), null, null, WatchMessages.TooFew(measure));
        BeforeAfter found;
        double? demand = null;
        int? controls = null;
        if (days > 0 && own.All(l => l.Demand is not null))
        {
            // Every day's count as it would be at the demand of the days before.
            var level = LevelOf(own, first, changed.AddDays(-1));
            var steady = new DailyCounts(
                Days(own, measure, changed.AddDays(-before.Count), changed.AddDays(-1), 1, level),
                Days(own, measure, counts, counts.AddDays(after.Count - 1), 1, level),
                raw.DaysLeftOut
            );
            found = BeforeAfter.Of(steady, adjusted: DemandError * DemandError);
            demand = 100 * (LevelOf(own, counts, last).Values.Sum() / level.Values.Sum() - 1);
        }
        else
        {
            var others = days == 0 ? [] : Untouched(own, measure, first, last, changed, counts);
            var control = Control(others, measure, before.TakeLast(days), (first, changed.AddDays(-1)), (counts, last), raw.DaysLeftOut);
            found = BeforeAfter.Of(raw, control);
            controls =
                days == 0 ? null
                : control is null ? 0
                : others.Count;
        }

        if (dailyBefore < LeastDaily || dailyAfter < LeastDaily)
            found = found with { Difference = null, Low = null, High = null, Effect = null };
        return View(
            found,
            demand,
            controls,
            WatchMessages.Effect(
                measure,
                found,
                (dailyBefore ?? 0, dailyAfter ?? 0),
                after.Count,
                latest < longest && counts.AddDays(after.Count) > latest,
                before.Count < BeforeAfter.Week && changed.AddDays(-before.Count) == earliest
            )
        );

        EffectView View(BeforeAfter found, double? demand, int? controls, string says) =>
            new(
                measure,
                dailyBefore,
                dailyAfter,
                found.Difference,
                found.Low,
                found.High,
                found.Verdict,
                days,
                found.DaysNeeded,
                days == 0 ? null : first,
                days == 0 ? null : last,
                demand,
                controls,
                says
            )
            {
                Effect = found.Effect,
            };
    }

    // The demand for each listing on a mean day of some.
    private static Dictionary<Line, double> LevelOf(List<Line> own, DateOnly from, DateOnly to) =>
        own.ToDictionary(l => l, l => Enumerable.Range(0, to.DayNumber - from.DayNumber + 1).Average(d => l.Demand!.On(from.AddDays(d))));

    private IEnumerable<Line> LinesOf(NoteRow note) =>
        note.ListingId is { } listing ? _ofListing[listing].Where(l => note.MarketId is null || note.MarketId == l.MarketId)
        : note.ProductId is { } product ? _ofProduct[product]
        : _lines;

    private static DateOnly DayOf(DateTime at) => DateOnly.FromDateTime(at);

    // The first whole day on which the change counts.
    private static DateOnly FirstDay(NoteRow note) => DayOf(note.CountsFrom > note.At ? note.CountsFrom : note.At).AddDays(1);

    // Day after day in one direction, as long as every listing is known; as they were, or brought to one level of demand.
    private static List<double> Days(
        IReadOnlyList<Line> of,
        Measure measure,
        DateOnly from,
        DateOnly to,
        int step,
        Dictionary<Line, double>? levels = null
    )
    {
        var days = new List<double>();
        if (of.Count == 0)
            return days;
        for (var day = from; step > 0 ? day <= to : day >= to; day = day.AddDays(step))
        {
            var sum = 0.0;
            foreach (var one in of)
                sum += levels is null ? one[measure, day] : one[measure, day] * levels[one] / one.Demand!.On(day);
            if (double.IsNaN(sum))
                return days;
            days.Add(sum);
        }

        return days;
    }

    // Listings that are known on every day and were not changed on any of them. The most alike: the same product elsewhere, which has the same
    // season; then the same market, then any. Of many, those that are seen most: they vary least by chance.
    private List<Line> Untouched(List<Line> own, Measure measure, DateOnly first, DateOnly last, DateOnly changed, DateOnly counts)
    {
        var isOwn = own.ToHashSet();
        var same = Of(own.Where(l => l.Product != 0).SelectMany(l => _ofProduct[l.Product]));
        if (same.Count > 0)
            return same;
        var near = Of(own.Select(l => l.MarketId).Distinct().SelectMany(m => _ofMarket[m]));
        return near.Count > 0 ? near : Of(_lines);

        List<Line> Of(IEnumerable<Line> lines) =>
            [
                .. lines
                    .Distinct()
                    .Where(l =>
                        !isOwn.Contains(l)
                        && !l.Notes.Any(n => FirstDay(n) > first && DayOf(n.At) <= last)
                        && l.IsKnown(measure, first, changed.AddDays(-1))
                        && l.IsKnown(measure, counts, last)
                    )
                    .Take(MostControls),
            ];
    }

    // What happened to others, brought to the size of the listing itself: log(1 + count) is not a ratio where counts are small.
    private static DailyCounts? Control(
        List<Line> others,
        Measure measure,
        IEnumerable<double> ownBefore,
        (DateOnly First, DateOnly Last) before,
        (DateOnly First, DateOnly Last) after,
        int leftOut
    )
    {
        if (others.Count == 0)
            return null;
        var (early, late) = (Days(others, measure, before.First, before.Last, 1), Days(others, measure, after.First, after.Last, 1));
        if (early.Average() == 0)
            return null;
        var size = ownBefore.Average() / early.Average();
        return new([.. early.Select(c => c * size)], [.. late.Select(c => c * size)], leftOut);
    }

    /// <summary>A listing in a market day by day, so that thousands of them can be compared with: a count is an entry of an array.</summary>
    private sealed class Line
    {
        private static readonly Measure[] Measures = Enum.GetValues<Measure>();
        private readonly int _first;
        private readonly double[][] _counts;

        public Line(DailyFigures figures, int product, Demand? demand, NoteRow[] notes)
        {
            (ListingId, MarketId, Product, Demand, Notes) = (figures.ListingId, figures.MarketId, product, demand, notes);
            _first = figures.Days.Count == 0 ? 0 : figures.Days.Keys.Min().DayNumber;
            var days = figures.Days.Count == 0 ? 0 : figures.Days.Keys.Max().DayNumber - _first + 1;
            _counts = [.. Measures.Select(_ => new double[days])];
            foreach (var counts in _counts)
                Array.Fill(counts, double.NaN);
            foreach (var (day, known) in figures.Days)
            foreach (var measure in Measures)
                if (known[measure] is { } count)
                    _counts[(int)measure][day.DayNumber - _first] = count;
            Views = figures.Days.Values.Sum(d => d.Views ?? 0.0);
        }

        public int ListingId { get; }
        public string MarketId { get; }
        public int Product { get; }

        /// <summary>The demand for its terms; null where it is not known.</summary>
        public Demand? Demand { get; }

        /// <summary>All views that are known.</summary>
        public double Views { get; }

        /// <summary>The notes that touch it.</summary>
        public NoteRow[] Notes { get; }

        /// <summary>The count of a day; NaN where it is unknown.</summary>
        public double this[Measure measure, DateOnly day] =>
            day.DayNumber - _first is var at && at >= 0 && at < _counts[(int)measure].Length ? _counts[(int)measure][at] : double.NaN;

        /// <summary>Whether the count of every day is known.</summary>
        public bool IsKnown(Measure measure, DateOnly from, DateOnly to)
        {
            var (first, end) = (from.DayNumber - _first, to.DayNumber - _first + 1);
            return first >= 0
                && end <= _counts[(int)measure].Length
                && (first >= end || !_counts[(int)measure].AsSpan(first, end - first).Contains(double.NaN));
        }
    }
}
