namespace TinRabbit.Core.Comparing;

/// <summary>
/// Whether paired numbers lie around 0: Wilcoxon's signed-rank test ("Individual comparisons by ranking methods", Biometrics Bulletin 1,
/// 1945). Differences of 0 are left out; equal sizes share their mean rank. Exact under 25 differences, otherwise by the normal distribution
/// with the correction for ties and for continuity.
/// </summary>
/// <param name="Count">Differences that are not 0.</param>
/// <param name="Positive">The sum of the ranks of those above 0.</param>
/// <param name="P">How likely a sum at least as far from its mean is by chance, 0–1, both sides together; 1 without differences.</param>
public readonly record struct SignedRankTest(int Count, double Positive, double P)
{
    /// <summary>From so many differences on the normal distribution is used.</summary>
    public const int ExactUnder = 25;

    /// <summary>Tests some differences.</summary>
    public static SignedRankTest Of(IEnumerable<double> differences)
    {
        double[] known = [.. differences.Where(d => d != 0)];
        var ranks = MeanRanks.Of([.. known.Select(Math.Abs)]);
        var positive = known.Zip(ranks, (d, r) => d > 0 ? r : 0).Sum();
        return new(
            known.Length,
            positive,
            known.Length == 0 ? 1
                : known.Length < ExactUnder ? Exact(ranks, positive)
                : Normal(ranks, positive)
        );
    }

    // Every choice of signs is equally likely: in how many is the sum at least as far from its mean? Mean ranks are halves, so twice them is whole.
    private static double Exact(double[] ranks, double positive)
    {
        int[] doubled = [.. ranks.Select(r => (int)Math.Round(2 * r))];
        var sum = doubled.Sum();
        var ways = new double[sum + 1];
        ways[0] = 1;
        foreach (var rank in doubled)
            for (var at = sum; at >= rank; at--)
                ways[at] += ways[at - rank];
        var off = Math.Abs(4 * positive - sum);
        var extreme = ways.Where((_, at) => Math.Abs(2 * at - sum) >= off - 1e-9).Sum();
        return Math.Min(1, extreme / Math.Pow(2, ranks.Length));
    }

    private static double Normal(double[] ranks, double positive)
    {
        var n = ranks.Length;
        var ties = ranks.CountBy(r => r).Sum(t => Math.Pow(t.Value, 3) - t.Value);
        var variance = n * (n + 1.0) * (2 * n + 1) / 24 - ties / 48;
        var off = Math.Max(0, Math.Abs(positive - n * (n + 1) / 4.0) - 0.5);
        return Math.Min(1, 2 * (1 - StandardNormal(off / Math.Sqrt(variance))));
    }

    private static double StandardNormal(double z) => MathNet.Numerics.Distributions.Normal.CDF(0, 1, z);
}
