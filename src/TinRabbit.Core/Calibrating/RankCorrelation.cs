using TinRabbit.Core.Comparing;

namespace TinRabbit.Core.Calibrating;

/// <summary>Whether grip predicts rank: Spearman's rank correlation of grip and −rank, with mean ranks for ties and Fisher's interval.</summary>
/// <param name="Count">Terms whose rank is known.</param>
/// <param name="Rho">−1 to 1; null where there are too few to say, or where all are alike.</param>
/// <param name="Low">The lower end of the 95 % interval.</param>
/// <param name="High">Its upper end.</param>
public sealed record RankCorrelation(int Count, double? Rho, double? Low, double? High)
{
    /// <summary>The fewest terms that anything is said of.</summary>
    public const int Least = 20;

    private const double Z = 1.959964;

    /// <summary>Correlates the grip of terms with the rank at which the listing was found.</summary>
    public static RankCorrelation Of(IReadOnlyList<(double Grip, int Rank)> terms)
    {
        var count = terms.Count;
        if (count < Least)
            return new(count, null, null, null);
        var (grips, ranks) = (MeanRanks.Of([.. terms.Select(t => t.Grip)]), MeanRanks.Of([.. terms.Select(t => -(double)t.Rank)]));
        var mean = (count + 1) / 2.0;
        var (both, one, other) = (0.0, 0.0, 0.0);
        for (var i = 0; i < count; i++)
        {
            both += (grips[i] - mean) * (ranks[i] - mean);
            one += (grips[i] - mean) * (grips[i] - mean);
            other += (ranks[i] - mean) * (ranks[i] - mean);
        }

        if (one == 0 || other == 0)
            return new(count, null, null, null);
        var rho = Math.Clamp(both / Math.Sqrt(one * other), -1, 1);
        var half = Z / Math.Sqrt(count - 3);
        return new(count, rho, Math.Tanh(Math.Atanh(rho) - half), Math.Tanh(Math.Atanh(rho) + half));
    }
}
