namespace TinRabbit.Server.Listings;

/// <summary>The pages of the web shop in the database.</summary>
internal static class PageQueries
{
    private const int PagesAtOnce = 500;

    /// <summary>The platform whose rules pages have.</summary>
    /// <exception cref="InvalidInputException">It was deleted.</exception>
    public static async Task<Platform> PageRules(this TinContext db, CancellationToken stop)
    {
        var id = (await db.Site(stop)).PlatformId;
        return await db.Platforms.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, stop) is { } row
            ? row.Profile
            : throw new InvalidInputException([new("platform", $"The platform “{id}” of the web shop was deleted. Restore it first.")]);
    }

    /// <summary>All pages with their texts, each parent's in order.</summary>
    public static Task<List<PageRow>> AllPages(this TinContext db, CancellationToken stop) =>
        db
            .Pages.Include(p => p.Listing)
                .ThenInclude(l => l.Product)
            .OrderBy(p => p.ParentId)
            .ThenBy(p => p.Order)
            .ThenBy(p => p.Id)
            .ToListAsync(stop);

    /// <summary>All pages without their texts, each parent's in order.</summary>
    public static async Task<List<PageHead>> PageHeads(this TinContext db, CancellationToken stop)
    {
        await db.FillHeads(stop);
        return await db
            .Pages.AsNoTracking()
            .OrderBy(p => p.ParentId)
            .ThenBy(p => p.Order)
            .ThenBy(p => p.Id)
            .Select(p => new PageHead(
                p.Id,
                p.ListingId,
                p.Listing.ProductId,
                p.Kind,
                p.ParentId,
                p.Order,
                p.AlsoIn,
                p.IsHome,
                p.InMenu,
                p.IsPublished,
                p.HasSuffix,
                p.Heading == "" ? p.Listing.Product.Name : p.Heading!,
                p.MenuName != "" ? p.MenuName
                    : p.Heading == "" ? p.Listing.Product.Name
                    : p.Heading!,
                p.Title,
                p.Slug,
                p.LiveSlug,
                p.Listing.LeadKey,
                p.LinksTo,
                p.Revision
            ))
            .ToListAsync(stop);
    }

    /// <summary>Where every page is in the tree.</summary>
    public static async Task<PageTree> PageTree(this TinContext db, CancellationToken stop) =>
        new(
            await db.Pages.AsNoTracking().Select(p => new PageNode(p.Id, p.Kind, p.ParentId, p.Order, p.IsHome, p.AlsoIn)).ToListAsync(stop)
        );

    /// <summary>The names of some pages, by their number.</summary>
    public static Task<Dictionary<int, string>> PageNames(this TinContext db, IEnumerable<int> ids, CancellationToken stop) =>
        db
            .Pages.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .Select(p => new { p.Id, Name = p.Heading == null || p.Heading == "" ? p.Listing.Product.Name : p.Heading })
            .ToDictionaryAsync(p => p.Id, p => p.Name, stop);

    /// <summary>Has the texts of a platform's pages read anew for lists: its fields may have other roles now.</summary>
    public static Task ForgetHeads(this TinContext db, string platformId, CancellationToken stop) =>
        db
            .Pages.Where(p => db.Set<ListingRow>().Any(l => l.Id == p.ListingId && l.PlatformId == platformId))
            .ExecuteUpdateAsync(set => set.SetProperty(p => p.Heading, (string?)null), stop);

    /// <summary>Stores what lists show of the pages whose text was not read yet: after an update, or after the rules of pages changed.</summary>
    public static async Task FillHeads(this TinContext db, CancellationToken stop)
    {
        if (!await db.Pages.AnyAsync(p => p.Heading == null, stop))
            return;
        var rules = await db.PageRules(stop);
        while (
            await db
                .Pages.AsNoTracking()
                .Where(p => p.Heading == null)
                .OrderBy(p => p.Id)
                .Take(PagesAtOnce)
                .Select(p => new { p.Id, p.Listing.Copy })
                .ToListAsync(stop)
                is { Count: > 0 } pages
        )
            await db.InOneWrite(() => ListingEditor.SetHeads(db, pages.Select(p => (p.Id, p.Copy)), rules, stop), stop);
    }
}
