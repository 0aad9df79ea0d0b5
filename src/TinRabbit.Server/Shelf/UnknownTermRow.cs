namespace TinRabbit.Server.Shelf;

/// <summary>A term that a market was asked for and does not know, so that it is not asked again at every start.</summary>
public sealed class UnknownTermRow
{
    public required string MarketId { get; set; }
    public required string Key { get; set; }

    /// <summary>When it was asked, in UTC.</summary>
    public DateOnly Day { get; set; }
}
