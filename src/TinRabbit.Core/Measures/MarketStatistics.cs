namespace TinRabbit.Core.Measures;

/// <summary>Statistics of a market's shelf.</summary>
/// <param name="Centre">Median of log10(volume / max(1, competition)) where volume is above zero; null without such a reading.</param>
/// <param name="LowTo">Highest competition of the lowest third; null without readings.</param>
/// <param name="MediumTo">Highest competition of the middle third.</param>
/// <param name="Readings">How many readings it rests on.</param>
public sealed record MarketStatistics(double? Centre, double? LowTo, double? MediumTo, int Readings)
{
    /// <summary>The norm of a shelf nobody has measured.</summary>
    public static readonly MarketStatistics Unknown = new(null, null, null, 0);

    /// <summary>Lowest volume of the top tenth; null without volumes.</summary>
    public double? TopTenthFrom { get; init; }

    /// <summary>The regression line of log10 competition on log10 volume; null with fewer than 30 readings that have both.</summary>
    [System.Text.Json.Serialization.JsonPropertyName("usual")] // as it is stored
    public RegressionLine? CompetitionLine { get; init; }

    /// <summary>A straight line by least squares, with how far readings usually lie from it.</summary>
    /// <param name="At0">Its height at log10 volume 0.</param>
    /// <param name="Slope">Its slope.</param>
    /// <param name="Middle">Median of the residuals.</param>
    /// <param name="Spread">Robust standard deviation of the residuals: 1.4826 × the median absolute deviation.</param>
    public sealed record RegressionLine(double At0, double Slope, double Middle, double Spread)
    {
        /// <summary>By how many robust standard deviations a reading lies above (or below) the line; null where it cannot be said.</summary>
        public double? Off(double volume, double competition) =>
            Spread <= 0 || volume <= 0 ? null : (Math.Log10(Math.Max(1, competition)) - At0 - Slope * Math.Log10(volume) - Middle) / Spread;
    }

    private const int FewestForLine = 30;

    /// <summary>Takes the norm of a shelf's readings.</summary>
    public static MarketStatistics Compute(IEnumerable<(double? Volume, double? Competition)> readings)
    {
        var volumes = new List<double>();
        var competitions = new List<double>();
        var ratios = new List<double>();
        var (x, y) = (new List<double>(), new List<double>());
        var count = 0;
        foreach (var (volume, competition) in readings)
        {
            count++;
            if (volume is { } known)
                volumes.Add(known);
            if (competition is not { } c)
                continue;
            competitions.Add(c);
            if (volume is not { } v || v <= 0)
                continue;
            ratios.Add(TermMeasures.Ratio(v, c));
            x.Add(Math.Log10(v));
            y.Add(Math.Log10(Math.Max(1, c)));
        }

        return new(
            QuickSelect.Median(ratios),
            competitions.Count == 0 ? null : QuickSelect.Select(competitions, Third(1)),
            competitions.Count == 0 ? null : QuickSelect.Select(competitions, Third(2)),
            count
        )
        {
            TopTenthFrom = volumes.Count == 0 ? null : QuickSelect.Select(volumes, Math.Max(0, (int)Math.Ceiling(volumes.Count * 0.9) - 1)),
            CompetitionLine = x.Count < FewestForLine ? null : Fit(x, y),
        };

        int Third(int which) => Math.Max(0, (int)Math.Ceiling(competitions.Count * which / 3.0) - 1);
    }

    /// <summary>The band of a competition; null when it or the shelf is unknown.</summary>
    public Band? BandOf(double? competition) =>
        competition is not { } c || LowTo is not { } low || MediumTo is not { } medium ? null
        : c <= low ? Band.Low
        : c <= medium ? Band.Medium
        : Band.High;

    private static RegressionLine Fit(List<double> x, List<double> y)
    {
        var (mx, my) = (x.Average(), y.Average());
        var (sxy, sxx) = (0.0, 0.0);
        for (var i = 0; i < x.Count; i++)
        {
            sxy += (x[i] - mx) * (y[i] - my);
            sxx += (x[i] - mx) * (x[i] - mx);
        }

        var slope = sxx > 0 ? sxy / sxx : 0;
        var at0 = my - slope * mx;
        var left = y;
        for (var i = 0; i < x.Count; i++)
            left[i] = y[i] - at0 - slope * x[i];
        var middle = QuickSelect.Median(left)!.Value;
        for (var i = 0; i < left.Count; i++)
            left[i] = Math.Abs(left[i] - middle);
        return new(at0, slope, middle, 1.4826 * QuickSelect.Median(left)!.Value);
    }
}
