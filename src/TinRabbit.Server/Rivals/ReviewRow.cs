namespace TinRabbit.Server.Rivals;

/// <summary>What a buyer wrote about one of the shop's listings, or about a rival's.</summary>
public sealed class ReviewRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }

    /// <summary>The shop's listing that it belongs to, or is compared with.</summary>
    public int ListingId { get; set; }

    /// <summary>Whether it is about a rival.</summary>
    public bool OfRivals { get; set; }

    /// <summary>The rival, where it is known.</summary>
    public int? RivalId { get; set; }
    public required string Text { get; set; }

    /// <summary>1–5; null where none were given.</summary>
    public double? Stars { get; set; }

    /// <summary>The day it was written; null where it is not known.</summary>
    public DateOnly? At { get; set; }

    /// <summary>Who wrote it; empty where that is not known.</summary>
    public string Author { get; set; } = "";

    /// <summary>Where it came from, as it is shown.</summary>
    public required string Source { get; set; }
}
