namespace TinRabbit.Core.Comparing;

/// <summary>What several changes of one kind did on average: random effects (DerSimonian and Laird, "Meta-analysis in clinical trials", Controlled Clinical Trials 7, 1986).</summary>
/// <param name="Count">How many changes were pooled.</param>
/// <param name="Difference">In percent; null where there are too few.</param>
/// <param name="Low">The lower end of the 95 % interval, in percent.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Between">The variance between changes beyond chance, of the logarithms of their ratios; 0 or more.</param>
/// <param name="Verdict">What can be said.</param>
public sealed record PooledDifference(int Count, double? Difference, double? Low, double? High, double? Between, Verdict Verdict)
{
    /// <summary>The fewest changes that are pooled.</summary>
    public const int Least = 3;

    private const double Z = 1.959964;

    /// <summary>Pools the effects of changes, each the logarithm of a ratio with its variance.</summary>
    public static PooledDifference Of(IReadOnlyList<(double Log, double Variance)> effects)
    {
        var known = effects.Where(e => e.Variance > 0).ToList();
        if (known.Count < Least)
            return new(known.Count, null, null, null, null, Verdict.Unclear);
        var weights = known.Select(e => 1 / e.Variance).ToArray();
        var sum = weights.Sum();
        var mean = known.Zip(weights, (e, w) => e.Log * w).Sum() / sum;
        // Cochran's Q: how far the effects lie apart, beyond what their own variances explain.
        var q = known.Zip(weights, (e, w) => w * (e.Log - mean) * (e.Log - mean)).Sum();
        var between = Math.Max(0, (q - (known.Count - 1)) / (sum - weights.Sum(w => w * w) / sum));
        var random = known.Select(e => 1 / (e.Variance + between)).ToArray();
        var pooled = known.Zip(random, (e, w) => e.Log * w).Sum() / random.Sum();
        var half = Z / Math.Sqrt(random.Sum());
        return new(
            known.Count,
            LogRatio.Percent(pooled),
            LogRatio.Percent(pooled - half),
            LogRatio.Percent(pooled + half),
            between,
            LogRatio.VerdictOf(pooled, half)
        );
    }
}
