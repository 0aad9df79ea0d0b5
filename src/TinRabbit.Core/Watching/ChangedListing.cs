using TinRabbit.Core.Comparing;

namespace TinRabbit.Core.Watching;

/// <summary>A listing in a market day by day, so that thousands of them can be compared with: a count is an entry of an array.</summary>
internal sealed class ChangedListing
{
    private static readonly DailyMeasure[] Measures = Enum.GetValues<DailyMeasure>();
    private readonly int _first;
    private readonly double[][] _counts;

    /// <param name="series">Its days.</param>
    /// <param name="product">Its product; 0 where it has none.</param>
    /// <param name="demand">The demand for its terms; null where it is not known.</param>
    /// <param name="notes">The notes that touch it.</param>
    public ChangedListing(DailySeries series, int product, Demand? demand, ChangeNote[] notes)
    {
        (ListingId, MarketId, Product, Demand, Notes) = (series.ListingId, series.MarketId, product, demand, notes);
        _first = series.Days.Count == 0 ? 0 : series.Days.Keys.Min().DayNumber;
        var days = series.Days.Count == 0 ? 0 : series.Days.Keys.Max().DayNumber - _first + 1;
        _counts = [.. Measures.Select(_ => new double[days])];
        foreach (var counts in _counts)
            Array.Fill(counts, double.NaN);
        foreach (var (day, known) in series.Days)
        foreach (var measure in Measures)
            if (known[measure] is { } count)
                _counts[(int)measure][day.DayNumber - _first] = count;
        Views = series.Days.Values.Sum(d => d.Views ?? 0.0);
    }

    public int ListingId { get; }
    public string MarketId { get; }
    public int Product { get; }
    public Demand? Demand { get; }

    /// <summary>All views that are known.</summary>
    public double Views { get; }
    public ChangeNote[] Notes { get; }

    /// <summary>The count of a day; NaN where it is unknown.</summary>
    public double this[DailyMeasure measure, DateOnly day] =>
        day.DayNumber - _first is var at && at >= 0 && at < _counts[(int)measure].Length ? _counts[(int)measure][at] : double.NaN;

    /// <summary>Whether the count of every day is known.</summary>
    public bool IsKnown(DailyMeasure measure, DateOnly from, DateOnly to)
    {
        var (first, end) = (from.DayNumber - _first, to.DayNumber - _first + 1);
        return first >= 0
            && end <= _counts[(int)measure].Length
            && (first >= end || !_counts[(int)measure].AsSpan(first, end - first).Contains(double.NaN));
    }

    /// <summary>The mean demand of some days.</summary>
    public double DemandOf(DateOnly from, DateOnly to) =>
        Enumerable.Range(0, to.DayNumber - from.DayNumber + 1).Average(d => Demand!.On(from.AddDays(d)));

    /// <summary>The counts of several listings together, day after day in one direction, as long as each is known.</summary>
    /// <param name="of">The listings.</param>
    /// <param name="measure">What is counted.</param>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last day; before the first one to go backwards.</param>
    /// <param name="levels">The demand that each listing's days are brought to; null to leave them as they were.</param>
    public static List<double> Days(
        IReadOnlyList<ChangedListing> of,
        DailyMeasure measure,
        DateOnly from,
        DateOnly to,
        IReadOnlyDictionary<ChangedListing, double>? levels = null
    )
    {
        var days = new List<double>();
        if (of.Count == 0)
            return days;
        var step = Math.Sign(to.DayNumber - from.DayNumber);
        for (var day = from; ; day = day.AddDays(step))
        {
            var sum = 0.0;
            foreach (var one in of)
                sum += levels is null ? one[measure, day] : one[measure, day] * levels[one] / one.Demand!.On(day);
            if (double.IsNaN(sum))
                return days;
            days.Add(sum);
            if (day == to)
                return days;
        }
    }
}
