namespace TinRabbit.Server.Features.Watch;

/// <summary>A listing in a market, in two periods.</summary>
/// <param name="Checked">Terms in its last check; null without one.</param>
/// <param name="Found">How many of them found it.</param>
/// <param name="Appeared">Terms that find it now and did not in the check before.</param>
/// <param name="Disappeared">Terms that found it in the check before and do not now.</param>
/// <param name="DaysKnown">Days of the later period whose figures are known.</param>
public sealed record Mover(
    int ListingId,
    int ProductId,
    string Product,
    string Platform,
    string MarketId,
    string Country,
    int? Checked,
    int? Found,
    int Appeared,
    int Disappeared,
    MovedFigure Views,
    MovedFigure Clicks,
    MovedFigure Sales,
    int DaysKnown,
    IReadOnlyList<long?> Daily
);
