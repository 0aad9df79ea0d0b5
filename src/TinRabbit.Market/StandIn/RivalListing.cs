namespace TinRabbit.Market.StandIn;

/// <summary>A rival's listing. It stands for a stall of others much like it.</summary>
internal sealed record RivalListing(
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
