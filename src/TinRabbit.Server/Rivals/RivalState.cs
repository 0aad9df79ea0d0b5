using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Rivals;

/// <summary>What was seen of a rival's listing at one time. Null is unknown.</summary>
/// <param name="Shop">The shop's name; empty where it is not known.</param>
/// <param name="Copy">Its text on the listing's platform; fields that were not seen are left out.</param>
/// <param name="Price">In the market's currency, without shipping.</param>
/// <param name="Rating">Mean stars, 1–5.</param>
/// <param name="Ratings">How many rated it.</param>
/// <param name="Photos">How many photos it has.</param>
/// <param name="Sales">Sales a month.</param>
/// <param name="Views">Views a month.</param>
/// <param name="Occupancy">Share of nights taken, 0–1.</param>
public sealed record RivalState(
    string Shop,
    ListingText Copy,
    decimal? Price = null,
    double? Rating = null,
    int? Ratings = null,
    int? Photos = null,
    int? Sales = null,
    int? Views = null,
    double? Occupancy = null
);
