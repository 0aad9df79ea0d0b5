using TinRabbit.Core.Measures;

namespace TinRabbit.Core.Shapes;

/// <summary>A named year, with the figures that named it.</summary>
/// <param name="Shape">Its name.</param>
/// <param name="PeakMonths">For a seasonal one, its peak months from 1 (January), in the order of the season; otherwise empty.</param>
/// <param name="Change12">Change over twelve months along the Theil–Sen line, in percent.</param>
/// <param name="SeasonalStrength">0–1 (Hyndman); null under 24 months.</param>
/// <param name="P">Two-sided p of the Mann–Kendall test for a trend.</param>
/// <param name="ReadyBy">For a seasonal one, the next day to be ready by: six weeks before the peak months begin.</param>
/// <param name="Months">How many months it rests on.</param>
public sealed record YearShape(
    Shape Shape,
    IReadOnlyList<int> PeakMonths,
    double Change12,
    double? SeasonalStrength,
    double P,
    DateOnly? ReadyBy,
    int Months
)
{
    /// <summary>Fewest months that can be named.</summary>
    public const int Least = 12;

    private const int TwoYears = 24;
    private const double SeasonalFrom = 0.6;
    private const double PeakAbove = 1.25;
    private const double TrendFrom = 25;
    private const int DaysToBeReady = 42;

    /// <summary>Names a history (docs/model.md, "The shape of a year").</summary>
    /// <param name="months">Searches by month, oldest first.</param>
    /// <param name="from">The month that they begin with.</param>
    /// <returns>Null under twelve months.</returns>
    public static YearShape? Of(IReadOnlyList<double> months, DateOnly from)
    {
        if (months.Count < Least)
            return null;
        var logs = months.Select(m => Math.Log(1 + m)).ToArray();
        var line = Trend.TheilSen(logs);
        var change = (Math.Exp(12 * line.Slope) - 1) * 100;
        var p = Trend.MannKendall(months);
        var season = months.Count >= TwoYears ? Season.Of(logs, line, from.Month) : null;
        var shape =
            months.Count(m => m == 0) * 3 > months.Count ? Shape.Sparse
            : IsOneOff(months) ? Shape.OneOff
            : season is { Strength: >= SeasonalFrom } && Math.Exp(season.Peak) >= PeakAbove ? Shape.Seasonal
            : p < 0.05 && change >= TrendFrom ? Shape.Rising
            : p < 0.05 && change <= -TrendFrom ? Shape.Fading
            : Shape.Steady;
        var peaks = shape == Shape.Seasonal ? season!.PeakMonths(Math.Log(PeakAbove)) : [];
        return new(
            shape,
            peaks,
            change,
            season?.Strength,
            p,
            peaks.Count > 0 ? ReadyFor(peaks[0], from.AddMonths(months.Count)) : null,
            months.Count
        );
    }

    /// <summary>How certain the shape is, and how many more months would settle it, as a sentence.</summary>
    public string HowSure => ShapeTexts.Certainty(Shape, Months, P);

    // Whether the peak is at least four times the median, lasts one or two adjacent months, and comes in one year only.
    private static bool IsOneOff(IReadOnlyList<double> months)
    {
        var top = months.Max();
        var at = months.ToList().IndexOf(top);
        var others = months.Where((_, i) => i != at).ToList();
        if (top <= 0 || top < 4 * QuickSelect.Median(others))
            return false;
        var high = Enumerable.Range(0, months.Count).Where(i => months[i] >= top / 2).ToArray();
        if (high.Length > 2 || (high.Length == 2 && high[1] != high[0] + 1))
            return false;
        return !new[] { at - 12, at + 12 }.Any(i => i >= 0 && i < months.Count && months[i] >= top / 2);
    }

    private static DateOnly ReadyFor(int month, DateOnly now)
    {
        var ready = new DateOnly(now.Year, month, 1).AddDays(-DaysToBeReady);
        return ready >= now ? ready : new DateOnly(now.Year + 1, month, 1).AddDays(-DaysToBeReady);
    }

    // Each calendar month's mean residual above the trend line, in logarithms.
    private sealed record Season(double Strength, double?[] Levels)
    {
        public double Peak => Levels.Max() ?? 0;

        public static Season Of(double[] logs, (double Slope, double At0) line, int firstMonth)
        {
            var bare = logs.Select((v, i) => v - line.At0 - line.Slope * i).ToArray();
            var month = Enumerable.Range(0, logs.Length).Select(i => (firstMonth - 1 + i) % 12).ToArray();
            var levels = new double?[12];
            foreach (var group in month.Zip(bare).GroupBy(p => p.First, p => p.Second))
                levels[group.Key] = group.Average();
            var rest = bare.Select((v, i) => v - levels[month[i]]!.Value).ToArray();
            var all = Variance(bare);
            // A constant series has no season; what is left is rounding error.
            return new(all < 1e-12 ? 0 : Math.Max(0, 1 - Variance(rest) / all), levels);
        }

        // The run of months around the highest that reach half its height and stand out.
        public List<int> PeakMonths(double least)
        {
            var top = Array.IndexOf(Levels, Levels.Max());
            bool High(int m) => Levels[(m + 12) % 12] is { } level && level >= Math.Max(least, Peak / 2);
            var (first, last) = (top, top);
            while (top - first < 11 && High(first - 1))
                first--;
            while (last - first < 11 && High(last + 1))
                last++;
            return [.. Enumerable.Range(first, last - first + 1).Select(m => (m + 12) % 12 + 1)];
        }

        private static double Variance(double[] values)
        {
            var mean = values.Average();
            return values.Sum(v => (v - mean) * (v - mean)) / values.Length;
        }
    }
}
