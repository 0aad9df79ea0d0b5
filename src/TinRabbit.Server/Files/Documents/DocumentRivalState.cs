namespace TinRabbit.Server.Files.Documents;

/// <summary>What was seen of a rival's listing at one time; null is unknown.</summary>
/// <param name="Shop">The rival's shop; empty where it is not known.</param>
/// <param name="Fields">The texts that were seen.</param>
/// <param name="Rating">Mean stars, 1–5.</param>
/// <param name="Sales">A month.</param>
/// <param name="Views">A month.</param>
/// <param name="Occupancy">Share of nights taken, 0–1.</param>
public sealed record DocumentRivalState(
    [MaxLength(Bounds.NameLength)] string Shop,
    JsonObject Fields,
    decimal? Price = null,
    double? Rating = null,
    int? Ratings = null,
    int? Photos = null,
    int? Sales = null,
    int? Views = null,
    double? Occupancy = null
);
