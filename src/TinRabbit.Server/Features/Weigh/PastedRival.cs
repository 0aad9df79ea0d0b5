namespace TinRabbit.Server.Features.Weigh;

/// <summary>A rival's listing as the seller pasted it.</summary>
/// <param name="Fields">Its fields on the listing's platform; those that are not known are left out.</param>
/// <param name="RivalId">The rival that it is a newer state of; null for a new one.</param>
public sealed record PastedRival(
    string MarketId,
    [MaxLength(Bounds.NameLength)] string Shop,
    JsonElement Fields,
    decimal? Price = null,
    double? Rating = null,
    int? Ratings = null,
    int? Sales = null,
    int? RivalId = null
);
