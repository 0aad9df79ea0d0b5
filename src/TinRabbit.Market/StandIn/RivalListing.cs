namespace TinRabbit.Market.StandIn;

/// <summary>A rival's listing, with the groups of the head word that it is about. It stands for a stall of others much like it.</summary>
internal sealed record RivalListing(
    string Id,
    string[] Groups,
    string Shop,
    string Title,
    IReadOnlyList<string> Tags,
    IReadOnlyList<string> Bullets,
    decimal Price,
    decimal Shipping,
    double Rating,
    int Ratings,
    int Photos,
    int Sales,
    double Occupancy,
    int Alike,
    int AgeDays,
    IReadOnlyDictionary<string, string> Attributes
);
