namespace TinRabbit.Server.Journal;

/// <summary>A term that a listing is looked for by in a market.</summary>
public sealed class FollowedTermRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ListingId { get; set; }
    public required string MarketId { get; set; }
    public required string Key { get; set; }
    public required string Text { get; set; }
}
