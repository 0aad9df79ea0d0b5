namespace TinRabbit.Server.Listings;

/// <summary>One product on one platform.</summary>
public sealed class ListingRow : IRestored
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ProductId { get; set; }
    public ProductRow Product { get; set; } = null!;
    public required string PlatformId { get; set; }
    public PlatformRow Platform { get; set; } = null!;

    /// <summary>Its text.</summary>
    public ListingText Copy { get; set; } = ListingText.Empty;

    /// <summary>Counts the saves, so that two windows notice each other.</summary>
    public int Revision { get; set; }

    /// <summary>The key of the pick it is built around.</summary>
    public string? LeadKey { get; set; }
    public DateTime SavedAt { get; set; }

    /// <summary>When it was archived; null while it is worked on.</summary>
    public DateTime? ArchivedAt { get; set; }
    public List<VersionRow> Versions { get; } = [];

    /// <summary>The page of the web shop that has its texts: one, and those that were deleted.</summary>
    public List<PageRow> Pages { get; } = [];

    public async Task<string?> WhyNot(TinContext db, CancellationToken stop) =>
        await db.Listings.AnyAsync(l => l.ProductId == ProductId && l.PlatformId == PlatformId, stop)
            ? "The product has a new listing on this platform. Delete it first, then undo."
            : null;

    /// <summary>What the marketplace's own export says of it beside its text; null where none was imported.</summary>
    public ListingDetails? Details { get; set; }
}
