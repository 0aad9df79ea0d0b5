using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Journal;

/// <summary>A listing as it was sent to a market, or as the seller marked it as published.</summary>
public sealed class SentRow
{
    public int Id { get; set; }
    public int ListingId { get; set; }
    public required string MarketId { get; set; }
    public DateTime At { get; set; }

    /// <summary>When the market's index notices it.</summary>
    public DateTime NoticedAt { get; set; }

    /// <summary>Whether the seller published it elsewhere, so that no market received it.</summary>
    public bool ByHand { get; set; }
    public required ListingText Copy { get; set; }

    /// <summary>A listing's text that is live as it is, by the seller's own word.</summary>
    public static SentRow Live(ListingRow listing, string marketId, DateTime at) =>
        new()
        {
            ListingId = listing.Id,
            MarketId = marketId,
            At = at,
            NoticedAt = at,
            ByHand = true,
            Copy = listing.Copy,
        };
}
