namespace TinRabbit.Server.Listings;

/// <summary>The web shop and its pages as they lie in the database.</summary>
internal static class Sites
{
    /// <summary>The platform whose rules pages have.</summary>
    public const string PlatformId = "web-shop";

    /// <summary>The site; where none was set up yet, an empty one that is not saved.</summary>
    public static async Task<SiteRow> Site(this TinContext db, CancellationToken stop) =>
        await db.Sites.OrderBy(s => s.Id).FirstOrDefaultAsync(stop) ?? new() { PlatformId = PlatformId };

    /// <summary>The web market that the site's numbers come from; null where the source of numbers has none for its country.</summary>
    public static MarketPlace? MarketOf(this IMarket market, SiteRow site) =>
        market.Places.FirstOrDefault(p => p.PlatformId == MarketPlace.Web && p.Country == site.Country);

    /// <summary>The markets by platform of the shop: the web shop's numbers come from the web market of its country.</summary>
    public static IEnumerable<MarketPlace> PlacesWith(this IMarket market, SiteRow site)
    {
        var web = market.MarketOf(site);
        return market.Places.Select(m => m.Id == web?.Id ? m with { PlatformId = site.PlatformId } : m);
    }

    /// <summary>The market of each platform in one country, by the platform's ID. The web shop has only that of its own country.</summary>
    public static IReadOnlyDictionary<string, string> MarketsIn(this IMarket market, SiteRow site, string country) =>
        market
            .PlacesWith(site)
            .Where(p => p.Country == country || p.PlatformId == site.PlatformId)
            .DistinctBy(p => p.PlatformId)
            .ToDictionary(p => p.PlatformId, p => p.Id);

    /// <summary>The text of a page's field; empty where it has none.</summary>
    public static string TextOf(this PageRow page, Platform platform, string role) => page.Listing.Copy.TextOf(platform, role);

    /// <summary>The name of a page: its heading, otherwise what its product is called.</summary>
    public static string NameOf(this PageRow page, Platform platform) =>
        page.TextOf(platform, "heading") is { Length: > 0 } name ? name : page.Listing.Product.Name;

    /// <summary>The name of a page in menus: its own menu name, otherwise its name.</summary>
    public static string MenuNameOf(this PageRow page, Platform platform) =>
        page.TextOf(platform, "menu") is { Length: > 0 } name ? name : page.NameOf(platform);

    /// <summary>The address of a page on its site; the path alone where the site has no address.</summary>
    public static string AddressOf(this SiteRow site, PageRow page) => site.AddressOf(page.IsHome, page.LiveSlug ?? page.Slug);

    /// <summary>The address of a slug on the site.</summary>
    public static string AddressOf(this SiteRow site, bool isHome, string slug) => $"{site.Address.TrimEnd('/')}/{(isHome ? "" : slug)}";

    /// <summary>What comes after a page's title by itself.</summary>
    public static string SuffixOf(this SiteRow site, PageRow page) => page.HasSuffix ? site.TitleSuffix : "";

    /// <summary>Old slugs and the page each leads to: those that are kept, and the published slugs that have changed since.</summary>
    /// <param name="db">The database.</param>
    /// <param name="pages">Every page: its number, its slug, the slug that it was published with, and whether it is published.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<List<(string From, int PageId)>> RedirectsOf(
        this TinContext db,
        IReadOnlyCollection<(int Id, string Slug, string? LiveSlug, bool IsPublished)> pages,
        CancellationToken stop
    )
    {
        var ids = pages.Select(p => p.Id).ToHashSet();
        var used = pages.Select(p => p.Slug).ToHashSet(StringComparer.Ordinal);
        var kept = await db.Redirects.AsNoTracking().OrderBy(r => r.From).ToListAsync(stop);
        return
        [
            .. kept.Where(r => ids.Contains(r.PageId))
                .Select(r => (r.From, r.PageId))
                .Concat(pages.Where(p => p.IsPublished && p.LiveSlug is { } live && live != p.Slug).Select(p => (p.LiveSlug!, p.Id)))
                .Where(r => !used.Contains(r.Item1))
                .DistinctBy(r => r.Item1)
                .OrderBy(r => r.Item1, StringComparer.Ordinal),
        ];
    }

    /// <summary>Publishes a page under its present slug; the one it had leads there from now on.</summary>
    /// <exception cref="InvalidInputException">Its slug is none, or another page has it.</exception>
    /// <returns>The redirects as they were.</returns>
    public static async Task<RedirectsBefore> Publish(this TinContext db, PageRow page, CancellationToken stop)
    {
        if (!page.IsHome && !Slugs.IsSlug(page.Slug))
            throw new InvalidInputException([new("slug", "Enter a URL slug before you publish: lower-case words, joined by hyphens.")]);
        if (!page.IsHome && await db.Pages.AnyAsync(p => p.Id != page.Id && p.Slug == page.Slug, stop))
            throw new InvalidInputException([new("slug", $"Another page has the URL slug “{page.Slug}” already.")]);
        page.IsPublished = true;
        var before = page.LiveSlug;
        page.LiveSlug = page.Slug;
        var redirects = new Dictionary<string, int?>();
        foreach (var old in await db.Redirects.Where(r => r.From == page.Slug).ToListAsync(stop))
        {
            redirects[old.From] = old.PageId;
            db.Redirects.Remove(old);
        }

        if (before is { Length: > 0 } && before != page.Slug && !await db.Redirects.AnyAsync(r => r.From == before, stop))
        {
            redirects[before] = null;
            db.Redirects.Add(new() { From = before, PageId = page.Id });
        }

        return new(redirects);
    }

    /// <summary>The copy of a page with its alt texts: those of its pictures, which all platforms share.</summary>
    public static async Task<IReadOnlyDictionary<string, FieldValue>> WithAltTexts(
        this TinContext db,
        Platform platform,
        int productId,
        IReadOnlyDictionary<string, FieldValue> copy,
        CancellationToken stop
    ) =>
        platform.Role("alt") is null
            ? copy
            : WithAltTexts(
                platform,
                copy,
                await db
                    .Products.Where(p => p.Id == productId)
                    .SelectMany(p => p.Pictures)
                    .OrderBy(p => p.Order)
                    .Select(p => p.Description)
                    .ToListAsync(stop)
            );

    /// <summary>Copy with alt texts in the field for them, where the platform has one.</summary>
    public static IReadOnlyDictionary<string, FieldValue> WithAltTexts(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        IReadOnlyList<string> alts
    ) => platform.Role("alt") is { } field ? new Dictionary<string, FieldValue>(copy) { [field.Key] = new FieldValue.Items(alts) } : copy;
}
