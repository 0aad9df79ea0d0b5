using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Journal;

/// <summary>A listing on its way to a market. It is stored before the market is asked and removed when the answer is stored, so that a crash in between neither loses a send nor makes two of it.</summary>
public sealed class OutboxRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }
    public required string MarketId { get; set; }

    /// <summary>When it was sent. A market takes the same listing with the same time for the same send.</summary>
    public DateTime At { get; set; }
    public required ListingText Copy { get; set; }
}
