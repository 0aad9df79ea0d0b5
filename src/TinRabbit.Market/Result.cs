namespace TinRabbit.Market;

/// <summary>A listing among the results of a search. Null is unknown.</summary>
/// <param name="Shop">The shop's name; empty where it is unknown.</param>
/// <param name="Title">Its title.</param>
/// <param name="Tags">Its tags, where the market shows any.</param>
/// <param name="Price">In the market's money, without shipping.</param>
/// <param name="Shipping">What shipping costs; 0 where it is included.</param>
/// <param name="Rating">Mean stars, 1–5.</param>
/// <param name="Ratings">How many rated it.</param>
/// <param name="Photos">How many photos it has.</param>
/// <param name="Sales">Sales a month; null where the market lets stays, too.</param>
/// <param name="Occupancy">Share of nights taken, 0–1; null where the market sells things, too.</param>
/// <param name="Attributes">Its attributes that are filled, by name.</param>
/// <param name="Id">The market's own name for it, by which it can be asked for again; null where the market gives none.</param>
/// <param name="Bullets">Its bullet points; null where the market shows none.</param>
/// <param name="Views">Views a month; null where the market does not show them.</param>
public sealed record Result(
    string Shop,
    string Title,
    IReadOnlyList<string> Tags,
    decimal? Price,
    decimal? Shipping,
    double? Rating,
    int? Ratings,
    int? Photos,
    int? Sales,
    double? Occupancy,
    IReadOnlyDictionary<string, string> Attributes,
    string? Id = null,
    IReadOnlyList<string>? Bullets = null,
    int? Views = null
)
{
    /// <summary>Whether it is an ad; ranks leave ads out.</summary>
    public bool IsAd { get; init; }

    /// <summary>Where it can be opened; null where that is unknown.</summary>
    public string? Address { get; init; }

    /// <summary>The alt text of its picture; null where that is unknown.</summary>
    public string? Alt { get; init; }

    /// <summary>Its picture among those of the shop, where the seller brought it in; null where there is none.</summary>
    public string? Picture { get; init; }

    /// <summary>Its description; null where the market does not show it among results.</summary>
    public string? Description { get; init; }
}
