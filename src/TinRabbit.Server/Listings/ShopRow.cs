namespace TinRabbit.Server.Listings;

/// <summary>A seller's workspace.</summary>
public sealed class ShopRow : IWeighed
{
    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>ISO 4217 code: what prices are in on the seller's own platforms.</summary>
    public string Currency { get; set; } = "USD";

    /// <summary>The countries that the seller sells in, the home country first: ISO 3166-1 alpha-2, lower case. None until the seller has said.</summary>
    public IReadOnlyList<string> Countries { get; set; } = [];

    /// <summary>The language that the seller writes in, as a BCP 47 tag; empty until the seller has said.</summary>
    public string Language { get; set; } = "";

    /// <summary>How far the clock of the simulated markets is ahead.</summary>
    public TimeSpan ClockAhead { get; set; }

    /// <summary>How far it was ahead before it was set right: a seller's own shop has the real time.</summary>
    public TimeSpan ClockWasAhead { get; set; }

    /// <summary>Whether an older program may have put sample data into this shop, of which the seller has not been rid, or decided to keep it.</summary>
    public bool MayHoldSampleData { get; set; }

    /// <summary>Words whose claims the seller has corrected or added.</summary>
    public IReadOnlyList<OwnWord> OwnWords { get; set; } = [];
    public List<ProductRow> Products { get; } = [];
}
