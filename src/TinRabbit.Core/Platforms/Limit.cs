namespace TinRabbit.Core.Platforms;

/// <summary>The room of a field, or of each item of a list field.</summary>
/// <param name="Max">Most that a text, or each item, may hold; null when only the items are counted.</param>
/// <param name="Unit">What <paramref name="Max"/> counts.</param>
/// <param name="MaxItems">Most items of a list; null when not limited.</param>
public sealed record Limit(int? Max, Unit Unit, int? MaxItems)
{
    /// <summary>The width at which results pages cut the text off, in pixels; null where it is not known.</summary>
    public int? MaxPixels { get; init; }

    /// <summary>The font size in pixels that <see cref="MaxPixels"/> is measured at (<see cref="Pages.PixelWidth"/>).</summary>
    public double? FontSize { get; init; }
}
