namespace TinRabbit.Server.Shelf;

/// <summary>What is typical of a market's shelf, kept beside it.</summary>
public sealed class MarketRow : IWeighed
{
    public required string Id { get; set; }
    public MarketStatistics Norm { get; set; } = MarketStatistics.Unknown;
}
