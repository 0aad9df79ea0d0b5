using TinRabbit.Core.Measures;

namespace TinRabbit.Core.Shapes;

/// <summary>Trends that outliers do not move.</summary>
public static class Trend
{
    /// <summary>The line through a series by Theil (1950) and Sen (1968): the median of all slopes, and the median of what it leaves at 0.</summary>
    public static (double Slope, double At0) TheilSen(IReadOnlyList<double> values)
    {
        var slopes = new List<double>(values.Count * (values.Count - 1) / 2);
        for (var i = 0; i < values.Count; i++)
        for (var k = i + 1; k < values.Count; k++)
            slopes.Add((values[k] - values[i]) / (k - i));
        var slope = QuickSelect.Median(slopes) ?? 0;
        return (slope, QuickSelect.Median([.. values.Select((v, i) => v - slope * i)]) ?? 0);
    }

    /// <summary>Two-sided p of the Mann–Kendall test for a trend, with ties and the correction for continuity, by the normal approximation.</summary>
    public static double MannKendall(IReadOnlyList<double> values)
    {
        var n = values.Count;
        var s = 0;
        for (var i = 0; i < n; i++)
        for (var k = i + 1; k < n; k++)
            s += Math.Sign(values[k] - values[i]);
        var ties = values.GroupBy(v => v).Select(g => (double)g.Count()).Sum(t => t * (t - 1) * (2 * t + 5));
        var variance = (n * (n - 1.0) * (2 * n + 5) - ties) / 18;
        return variance <= 0 || s == 0 ? 1 : Math.Min(1, 2 * UpperTail((Math.Abs(s) - 1) / Math.Sqrt(variance)));
    }

    // 1 − Φ(z) for z ≥ 0: the rational approximation of erfc by W. J. Cody in the form of Numerical Recipes, good to 1.2e-7.
    private static double UpperTail(double z)
    {
        var x = z / Math.Sqrt(2);
        var t = 1 / (1 + 0.5 * x);
        return 0.5
            * t
            * Math.Exp(
                -x * x
                    - 1.26551223
                    + t
                        * (
                            1.00002368
                            + t
                                * (
                                    0.37409196
                                    + t
                                        * (
                                            0.09678418
                                            + t
                                                * (
                                                    -0.18628806
                                                    + t
                                                        * (
                                                            0.27886807
                                                            + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277)))
                                                        )
                                                )
                                        )
                                )
                        )
            );
    }
}
