namespace TinRabbit.Core.Measures;

/// <summary>Splits grip among the fields that give it (docs/model.md, "Grip").</summary>
public static class GripSplit
{
    // Stands for a strength of 1, whose logarithm has no end.
    private const double LeastLoose = 1e-9;

    /// <summary>
    /// The part of each field in a term's grip: as each field's logarithm of (1 − strength) is to the sum of them. This does not depend on
    /// an order of the fields, and the parts add up to the grip.
    /// </summary>
    /// <param name="strengths">The term's strength in each field, 0–1.</param>
    /// <returns>0–1 for each field; their sum is 1 − Π(1 − strength).</returns>
    public static double[] Of(IReadOnlyList<double> strengths)
    {
        var parts = new double[strengths.Count];
        var (loose, sum) = (1.0, 0.0);
        for (var i = 0; i < parts.Length; i++)
        {
            loose *= 1 - strengths[i];
            parts[i] = -Math.Log(Math.Max(LeastLoose, 1 - strengths[i]));
            sum += parts[i];
        }

        for (var i = 0; i < parts.Length; i++)
            parts[i] = sum > 0 ? parts[i] / sum * (1 - loose) : 0;
        return parts;
    }
}
