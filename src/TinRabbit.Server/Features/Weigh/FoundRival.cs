namespace TinRabbit.Server.Features.Weigh;

/// <summary>A listing that a market finds, weighed for the product's picks, to be chosen as a rival.</summary>
/// <param name="Id">The market's own name for it; null where it cannot be looked up again.</param>
/// <param name="Grip">0–100, by the fields that the market shows.</param>
/// <param name="Reach">0–100.</param>
/// <param name="IsSaved">Whether it is among the rivals already.</param>
/// <param name="IsMine">Whether it is the shop's own.</param>
public sealed record FoundRival(
    string? Id,
    string Shop,
    string Title,
    decimal? Price,
    double? Rating,
    int? Ratings,
    int? Sales,
    double? Occupancy,
    double Grip,
    double Reach,
    bool IsSaved,
    bool IsMine
);
