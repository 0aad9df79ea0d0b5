namespace TinRabbit.Server.Listings;

/// <summary>A page of the web shop: where it is in the tree, and what is known of it beside its texts, which are a listing's.</summary>
public sealed class PageRow : IRestored, IOfPages, IPageNode
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }

    /// <summary>The listing with its texts, takes and versions.</summary>
    public int ListingId { get; set; }
    public ListingRow Listing { get; set; } = null!;
    public PageKind Kind { get; set; }

    /// <summary>The page that it is inside; of a product's categories the primary one. Null at the top.</summary>
    public int? ParentId { get; set; }

    /// <summary>Its place among the pages of the same parent, from 0.</summary>
    public int Order { get; set; }

    /// <summary>Other categories that a product is in as well.</summary>
    public List<int> AlsoIn { get; set; } = [];
    public bool IsHome { get; set; }
    public bool InMenu { get; set; } = true;
    public bool IsPublished { get; set; }

    /// <summary>Whether the site's suffix comes after its title.</summary>
    public bool HasSuffix { get; set; } = true;

    /// <summary>The heading of its text, stored beside it for lists; null where its text was not read yet.</summary>
    public string? Heading { get; set; }

    /// <summary>The menu name of its text; empty where it has none.</summary>
    public string MenuName { get; set; } = "";

    /// <summary>The title of its text; empty where it has none.</summary>
    public string Title { get; set; } = "";

    /// <summary>The pages that its text links to, by their numbers.</summary>
    public List<int> LinksTo { get; set; } = [];

    /// <summary>Counts the changes of what is known of it beside its texts, so that two windows notice each other.</summary>
    public int Revision { get; set; }

    /// <summary>The slug of its text, for searching; empty where it has none.</summary>
    public string Slug { get; set; } = "";

    /// <summary>The slug that it was published with last; null before it was.</summary>
    public string? LiveSlug { get; set; }
    public DateTime CreatedAt { get; set; }

    public async Task<string?> WhyNot(TinContext db, CancellationToken stop) =>
        await db.Pages.AnyAsync(p => p.ListingId == ListingId, stop) ? "The product has a new page. Delete it first, then undo." : null;
}
