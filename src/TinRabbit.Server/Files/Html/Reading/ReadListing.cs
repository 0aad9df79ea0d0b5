namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>A listing as its own page shows it. Null is unknown.</summary>
/// <param name="Category">The path of categories, the widest first.</param>
/// <param name="Attributes">Values by name.</param>
/// <param name="Shop">The shop that sells it.</param>
/// <param name="Address">Where the page says that it is.</param>
public sealed record ReadListing(
    string Title,
    decimal? Price,
    string? Currency,
    string? Description,
    IReadOnlyList<string> Bullets,
    IReadOnlyList<string> Tags,
    IReadOnlyList<string> Category,
    IReadOnlyDictionary<string, string> Attributes,
    double? Rating,
    int? Ratings,
    IReadOnlyList<ReadImage> Images,
    IReadOnlyList<ReadReview> Reviews,
    string? Shop = null,
    string? Address = null
);
