namespace TinRabbit.Core.Comparing;

/// <summary>What the logarithm of a ratio and its interval say.</summary>
internal static class LogRatio
{
    /// <summary>The difference in percent.</summary>
    public static double Percent(double log) => (Math.Exp(log) - 1) * 100;

    /// <summary>Up or down where the whole interval is on one side of no difference.</summary>
    public static Verdict VerdictOf(double log, double half) =>
        log - half > 0 ? Verdict.Up
        : log + half < 0 ? Verdict.Down
        : Verdict.Unclear;
}
