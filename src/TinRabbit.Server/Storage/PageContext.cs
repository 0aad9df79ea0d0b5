using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Server.Storage;

/// <summary>What a check of a page needs to know of the rest of the shop.</summary>
internal static class PageContext
{
    /// <summary>The page whose texts a listing has, with its site and the pages around it; null for a listing that is no page.</summary>
    /// <param name="db">The database.</param>
    /// <param name="listing">The listing as it is saved.</param>
    /// <param name="platform">Its platform.</param>
    /// <param name="slug">The slug of the draft.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<PageToCheck?> Of(TinContext db, ListingRow listing, Platform platform, string slug, CancellationToken stop)
    {
        if (await db.Pages.AsNoTracking().FirstOrDefaultAsync(p => p.ListingId == listing.Id, stop) is not { } page)
            return null;
        var site = await db.Site(stop);
        var others = await db
            .Pages.AsNoTracking()
            .Where(p => p.Id != page.Id)
            .Select(p => new
            {
                p.Id,
                p.Slug,
                p.IsPublished,
                p.Listing.LeadKey,
                p.Listing.Copy,
                p.Listing.Product.Name,
            })
            .ToListAsync(stop);
        string NameOf(string copy, string product) => Sites.TextOf(copy, platform, "heading") is { Length: > 0 } name ? name : product;
        return new(page.Kind)
        {
            TitleSuffix = site.SuffixOf(page),
            Brand = site.Brand,
            Host = Uri.TryCreate(site.Address, UriKind.Absolute, out var address) ? address.Host : "",
            ParentId = page.ParentId,
            SlugTakenBy =
                slug.Length > 0 && others.FirstOrDefault(o => o.Slug == slug) is { } taken ? NameOf(taken.Copy, taken.Name) : null,
            SameLead = listing.LeadKey is null
                ? []
                : [.. others.Where(o => o.LeadKey == listing.LeadKey).Select(o => NameOf(o.Copy, o.Name))],
            Pages = others.Where(o => o.IsPublished).ToDictionary(o => o.Id, o => NameOf(o.Copy, o.Name)),
        };
    }
}
