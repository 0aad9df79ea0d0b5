namespace TinRabbit.Server.Rivals;

/// <summary>Another seller's listing that one of the shop's is compared with.</summary>
public sealed class RivalRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }

    /// <summary>The shop's listing that it is compared with.</summary>
    public int ListingId { get; set; }
    public required string MarketId { get; set; }

    /// <summary>The market's own name for it; null for one that was pasted or came from a file.</summary>
    public string? MarketListing { get; set; }

    /// <summary>Where it came from, as it is shown.</summary>
    public required string Source { get; set; }

    /// <summary>When it was saved, and how it was then.</summary>
    public DateTime SavedAt { get; set; }
    public required RivalState First { get; set; }

    /// <summary>When it was seen last, and how it was then.</summary>
    public DateTime SeenAt { get; set; }
    public required RivalState Latest { get; set; }
}
