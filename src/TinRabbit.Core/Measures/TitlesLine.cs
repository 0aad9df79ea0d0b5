namespace TinRabbit.Core.Measures;

/// <summary>
/// How many exact-title matches a volume usually has on a shelf: the Theil–Sen line of log10(max(1, titles)) on log10(volume), with the median of
/// y − slope·x as its height.
/// </summary>
/// <param name="At0">Its height at log10 volume 0.</param>
/// <param name="Slope">Its slope.</param>
public sealed record TitlesLine(double At0, double Slope)
{
    private const int FewestReadings = 20;

    // The slopes of all pairs are compared, so that very many readings are thinned, evenly by volume.
    private const int MostReadings = 2000;

    /// <summary>The titles that a volume usually has.</summary>
    public double Expected(double volume) => Math.Pow(10, At0 + Slope * Math.Log10(volume));

    /// <summary>The line of a shelf; null with fewer than 20 readings that have both numbers, or where all volumes are the same.</summary>
    public static TitlesLine? Fit(List<(double Volume, double Titles)> readings)
    {
        if (readings.Count < FewestReadings)
            return null;
        readings.Sort();
        var count = Math.Min(readings.Count, MostReadings);
        var (x, y) = (new double[count], new double[count]);
        for (var i = 0; i < count; i++)
        {
            var (volume, titles) = readings[(int)((long)i * readings.Count / count)];
            (x[i], y[i]) = (Math.Log10(volume), Math.Log10(Math.Max(1, titles)));
        }

        var slopes = new List<double>(count * (count - 1) / 2);
        for (var i = 0; i < count; i++)
        for (var k = i + 1; k < count; k++)
            if (x[k] != x[i])
                slopes.Add((y[k] - y[i]) / (x[k] - x[i]));
        if (QuickSelect.Median(slopes) is not { } slope)
            return null;
        var heights = new List<double>(count);
        for (var i = 0; i < count; i++)
            heights.Add(y[i] - slope * x[i]);
        return new(QuickSelect.Median(heights)!.Value, slope);
    }
}
