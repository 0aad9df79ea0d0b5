using MathNet.Numerics.Distributions;

namespace TinRabbit.Core.Comparing;

/// <summary>
/// Whether daily counts differ after a change: least squares of log(1 + count) on the seven weekdays and an "after" mark, with an interval
/// that is widened for days that resemble the day before (docs/model.md, "Before and after").
/// </summary>
/// <param name="Difference">In percent; null where either side has less than a week.</param>
/// <param name="Low">The lower end of the 95 % interval, in percent.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Verdict">What can be said.</param>
/// <param name="DaysNeeded">How many more days a difference of this size would need to be told; null where it is told, or would take more than a year.</param>
/// <param name="Days">The days on each side that were compared: whole weeks.</param>
public sealed record BeforeAfter(double? Difference, double? Low, double? High, Verdict Verdict, int? DaysNeeded, int Days)
{
    /// <summary>The logarithm of the ratio, and its variance: what several of them are pooled by. Null where nothing was compared.</summary>
    public (double Log, double Variance)? Effect { get; init; }

    /// <summary>Days of a week.</summary>
    public const int Week = 7;

    /// <summary>The longest window on each side, in days.</summary>
    public const int LongestWindow = 4 * Week;

    private const double Confidence = 0.95;

    // The autocorrelation of few days is underestimated (about 1/n), and what is left of that is made good by a little more.
    private const double PositiveMargin = 0.1;
    private const double HighestAutocorrelation = 0.9;
    private const int LongestWait = 365;

    /// <summary>Compares the days around a change.</summary>
    /// <param name="counts">The counts.</param>
    /// <param name="control">The same days of what the change could not touch, whose own difference is taken off; null where there is none.</param>
    /// <param name="adjusted">Where the counts were adjusted before: the variance of that adjustment's logarithm, 0 or more. More days don't lessen it.</param>
    public static BeforeAfter Of(DailyCounts counts, DailyCounts? control = null, double adjusted = 0)
    {
        var days = WindowOf(counts);
        if (control is not null)
            days = Math.Min(days, WindowOf(control));
        if (days == 0)
            return new(null, null, null, Verdict.Unclear, DaysToAWeek(counts, control), 0);
        var own = Fit(counts, days);
        var (log, variance, freedom) = own;
        var shares = own.Variance * own.Variance / own.Freedom;
        if (control is not null)
        {
            var other = Fit(control, days);
            log -= other.Log;
            variance += other.Variance;
            shares += other.Variance * other.Variance / other.Freedom;
        }

        // Welch and Satterthwaite: the degrees of freedom of several variances together.
        variance += adjusted;
        if (shares > 0)
            freedom = variance * variance / shares;

        var half = variance > 0 ? StudentT.InvCDF(0, 1, freedom, 0.5 + Confidence / 2) * Math.Sqrt(variance) : 0;
        var verdict = LogRatio.VerdictOf(log, half);
        return new(
            LogRatio.Percent(log),
            LogRatio.Percent(log - half),
            LogRatio.Percent(log + half),
            verdict,
            verdict == Verdict.Unclear ? Needed(days, log, half, variance > 0 ? adjusted / variance : 0) : null,
            days
        )
        {
            Effect = (log, variance),
        };
    }

    // Equal windows of whole weeks, as long as both sides have, up to four.
    private static int WindowOf(DailyCounts counts) =>
        Math.Min(LongestWindow, Math.Min(counts.Before.Count, counts.After.Count) / Week * Week);

    private static int? DaysToAWeek(DailyCounts counts, DailyCounts? control)
    {
        var before = Math.Min(counts.Before.Count, control?.Before.Count ?? int.MaxValue);
        // What lies before a change does not become more.
        return before < Week ? null : Week - Math.Min(counts.After.Count, control?.After.Count ?? int.MaxValue);
    }

    // The windows have each weekday equally often, so that the mark's estimate is the difference of two means.
    private static (double Log, double Variance, double Freedom) Fit(DailyCounts counts, int days)
    {
        double[] before = [.. counts.Before.Skip(counts.Before.Count - days).Select(Logged)];
        double[] after = [.. counts.After.Take(days).Select(Logged)];
        var log = after.Average() - before.Average();
        var weekdays = new double[Week];
        for (var i = 0; i < days; i++)
        {
            weekdays[i % Week] += before[i] + log / 2;
            weekdays[(i + counts.DaysLeftOut) % Week] += after[i] - log / 2;
        }

        var each = 2.0 * days / Week;
        double[] ofBefore = [.. before.Select((y, i) => y + log / 2 - weekdays[i % Week] / each)];
        double[] ofAfter = [.. after.Select((y, i) => y - log / 2 - weekdays[(i + counts.DaysLeftOut) % Week] / each)];
        var squares = ofBefore.Sum(e => e * e) + ofAfter.Sum(e => e * e);
        var freedom = 2 * days - Week - 1;
        var variance = squares / freedom * 2 / days;
        if (squares > 0)
        {
            var autocorrelation = (Lagged(ofBefore) + Lagged(ofAfter)) / squares + 1.0 / (2 * days);
            if (autocorrelation > 0)
            {
                autocorrelation = Math.Min(HighestAutocorrelation, autocorrelation + PositiveMargin);
                variance *= (1 + autocorrelation) / (1 - autocorrelation);
            }
        }

        return (log, variance, freedom);
    }

    private static double Lagged(double[] residuals) => residuals.Zip(residuals.Skip(1), (one, next) => one * next).Sum();

    private static double Logged(double count) => Math.Log(1 + count);

    // The interval narrows with the root of the days, but for the share of its square that stays.
    private static int? Needed(int days, double log, double half, double stays)
    {
        var room = log * log - half * half * stays;
        if (room <= 0)
            return null;
        var all = days * half * half * (1 - stays) / room;
        return all > days + LongestWait ? null : Math.Max(Week, (int)Math.Ceiling(all / Week) * Week - days);
    }
}
