namespace TinRabbit.Core.Rivals;

/// <summary>What can be seen of a rival's listing that rivals are compared by. Null is unknown.</summary>
/// <param name="Attributes">Its attributes by name, each with its values.</param>
/// <param name="Price">In the market's currency; more than 0.</param>
/// <param name="Sales">Sales a month.</param>
/// <param name="Views">Views a month.</param>
/// <param name="Occupancy">Share of nights taken, 0–1.</param>
public sealed record RivalListing(
    IReadOnlyDictionary<string, IReadOnlyList<string>> Attributes,
    double? Price = null,
    double? Sales = null,
    double? Views = null,
    double? Occupancy = null
)
{
    /// <summary>Its title; empty where it is unknown.</summary>
    public string Title { get; init; } = "";

    /// <summary>Its tags; empty where they are unknown.</summary>
    public IReadOnlyList<string> Tags { get; init; } = [];

    /// <summary>Its description; empty where it is unknown.</summary>
    public string Description { get; init; } = "";

    /// <summary>How many rated it.</summary>
    public double? Ratings { get; init; }
}
