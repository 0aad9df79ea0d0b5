namespace TinRabbit.Server.Listings;

/// <summary>A seller's workspace.</summary>
public sealed class ShopRow : IWeighed
{
    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>ISO 4217 code: what prices are in on the seller's own platforms.</summary>
    public string Currency { get; set; } = "USD";

    /// <summary>How far the clock of the simulated markets is ahead.</summary>
    public TimeSpan ClockAhead { get; set; }

    /// <summary>Words whose claims the seller has corrected or added.</summary>
    public IReadOnlyList<OwnWord> OwnWords { get; set; } = [];
    public List<ProductRow> Products { get; } = [];
}
