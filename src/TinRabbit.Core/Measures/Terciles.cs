namespace TinRabbit.Core.Measures;

/// <summary>Where the lowest and the middle third of a market's known values end.</summary>
/// <param name="LowTo">Highest value of the lowest third.</param>
/// <param name="MediumTo">Highest value of the middle third.</param>
public sealed record Terciles(double LowTo, double MediumTo)
{
    /// <summary>Takes them; null without values.</summary>
    /// <param name="values">The known values; their order changes.</param>
    public static Terciles? Of(List<double> values) =>
        values.Count == 0 ? null : new(QuickSelect.Select(values, Third(values, 1)), QuickSelect.Select(values, Third(values, 2)));

    /// <summary>The third that a value is in; null where it is unknown.</summary>
    public Band? BandOf(double? value) =>
        value is not { } v ? null
        : v <= LowTo ? Band.Low
        : v <= MediumTo ? Band.Medium
        : Band.High;

    private static int Third(List<double> values, int which) => Math.Max(0, (int)Math.Ceiling(values.Count * which / 3.0) - 1);
}
