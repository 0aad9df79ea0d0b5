using MathNet.Numerics.Distributions;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Calibrating;

/// <summary>
/// Weights of the fields that order a market's results better than the profile's: Kendall's τ of grip and the market's order, by coordinate
/// ascent, shrunk towards the profile's weights as far as cross-validation says.
/// </summary>
/// <param name="Weights">The weight of each searched field, 0.05–1; null where there are too few searches, or none orders them better.</param>
/// <param name="Searches">Searches with enough results to have an order.</param>
/// <param name="TauNow">The mean τ with the profile's weights, −1 to 1; null with too few searches.</param>
/// <param name="Improvement">What searches gain that the weights were not fitted to: the mean τ with them − with the profile's.</param>
/// <param name="Low">The lower end of its 95 % interval.</param>
/// <param name="High">Its upper end.</param>
public sealed record FieldWeights(
    IReadOnlyDictionary<string, double>? Weights,
    int Searches,
    double? TauNow,
    double? Improvement,
    double? Low,
    double? High
)
{
    /// <summary>The fewest searches that weights are fitted to.</summary>
    public const int LeastSearches = 8;

    /// <summary>The fewest results of a search that count as an order.</summary>
    public const int LeastResults = 5;

    private const int Folds = 8;
    private const int Rounds = 4;
    private const int Steps = 20;
    private const double Confidence = 0.95;

    // How far to go from the profile's weights to the fitted ones.
    private static readonly double[] Shares = [0.25, 0.5, 0.75, 1];

    /// <summary>Fits weights to searches.</summary>
    /// <exception cref="InvalidInputException">A term has no word.</exception>
    public static FieldWeights Of(Platform platform, IReadOnlyList<RankedSearch> searches, CancellationToken stop = default)
    {
        List<WeighedSearch> known =
        [
            .. searches
                .Where(s => s.Listings.Count >= LeastResults)
                .Select(s => WeighedSearch.Of(platform, s, stop))
                .Where(s => s.HasOrder),
        ];
        if (known.Count < LeastSearches)
            return new(null, known.Count, null, null, null, null);
        double[] profile = [.. platform.IndexedFields.Select(f => f.Weight)];
        var now = known.Average(s => s.Tau(profile));

        // What each share gains on searches that the fit has not seen.
        var gains = Shares.Select(_ => new double[known.Count]).ToArray();
        for (var fold = 0; fold < Folds; fold++)
        {
            var fitted = Fit(known.Where((_, i) => i % Folds != fold).ToList(), profile, stop);
            for (var i = fold; i < known.Count; i += Folds)
            for (var share = 0; share < Shares.Length; share++)
                gains[share][i] = known[i].Tau(Mixed(profile, fitted, Shares[share])) - known[i].Tau(profile);
        }

        var best = Enumerable.Range(0, Shares.Length).MaxBy(s => gains[s].Average());
        var (mean, half) = Interval(gains[best]);
        var weights = mean - half > 0 ? Mixed(profile, Fit(known, profile, stop), Shares[best]) : null;
        return new(
            weights is null ? null : platform.IndexedFields.Index().ToDictionary(f => f.Item.Key, f => Math.Round(weights[f.Index], 2)),
            known.Count,
            now,
            mean,
            mean - half,
            mean + half
        );
    }

    // Each weight in turn is set to the step that orders the searches best, until none changes.
    private static double[] Fit(List<WeighedSearch> searches, double[] profile, CancellationToken stop)
    {
        var weights = (double[])profile.Clone();
        var best = searches.Average(s => s.Tau(weights));
        for (var round = 0; round < Rounds; round++)
        {
            var before = best;
            for (var field = 0; field < weights.Length; field++)
            {
                stop.ThrowIfCancellationRequested();
                var kept = weights[field];
                for (var step = 1; step <= Steps; step++)
                {
                    weights[field] = (double)step / Steps;
                    var tau = searches.Average(s => s.Tau(weights));
                    if (tau > best + 1e-12)
                        (best, kept) = (tau, weights[field]);
                }

                weights[field] = kept;
            }

            if (best <= before + 1e-12)
                break;
        }

        return weights;
    }

    private static double[] Mixed(double[] profile, double[] fitted, double share) =>
        [.. profile.Zip(fitted, (p, f) => p + share * (f - p))];

    private static (double Mean, double Half) Interval(double[] gains)
    {
        var mean = gains.Average();
        var variance = gains.Sum(g => (g - mean) * (g - mean)) / (gains.Length - 1);
        return (mean, StudentT.InvCDF(0, 1, gains.Length - 1, 0.5 + Confidence / 2) * Math.Sqrt(variance / gains.Length));
    }
}
