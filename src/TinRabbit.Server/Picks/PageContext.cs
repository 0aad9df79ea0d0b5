using TinRabbit.Core.Findings;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Picks;

/// <summary>What a check of a page needs to know of the rest of the shop.</summary>
internal static class PageContext
{
    /// <summary>The page whose texts a listing has, with its site and the pages around it; null for a listing that is no page.</summary>
    /// <param name="db">The database.</param>
    /// <param name="listing">The listing as it is saved.</param>
    /// <param name="platform">Its platform.</param>
    /// <param name="slug">The slug of the draft.</param>
    /// <param name="heading">Its name in the draft.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<PageToCheck?> Of(
        TinContext db,
        ListingRow listing,
        Platform platform,
        string slug,
        string heading,
        CancellationToken stop
    )
    {
        if (await db.Pages.AsNoTracking().FirstOrDefaultAsync(p => p.ListingId == listing.Id, stop) is not { } page)
            return null;
        var site = await db.Site(stop);
        // Nothing here is read in full: a shop has thousands of pages, and this is asked at every pause in the typing.
        var others = await db
            .Pages.AsNoTracking()
            .Where(p => p.Id != page.Id)
            .Select(p => new
            {
                p.Id,
                p.Slug,
                p.IsPublished,
                p.Listing.LeadKey,
            })
            .ToListAsync(stop);
        var taken = slug.Length > 0 ? others.FirstOrDefault(o => o.Slug == slug) : null;
        var rivals = listing.LeadKey is null ? [] : others.Where(o => o.LeadKey == listing.LeadKey).Select(o => o.Id).ToList();
        var parent = others.FirstOrDefault(o => o.Id == page.ParentId && o.IsPublished);
        var named = rivals.Concat([taken?.Id ?? 0, parent?.Id ?? 0]).ToList();
        var names = await db.PageNames(named, stop);
        var alike = page.Kind == PageKind.Category ? await Alike() : [];
        return new(page.Kind)
        {
            SameName = alike,
            TitleSuffix = site.SuffixOf(page),
            Brand = site.Brand,
            Host = Uri.TryCreate(site.Address, UriKind.Absolute, out var address) ? address.Host : "",
            Parent = parent is null ? null : (parent.Id, names[parent.Id]),
            TakenSlugs = others.Select(o => o.Slug).ToHashSet(StringComparer.Ordinal),
            SlugTakenBy = taken is null ? null : names[taken.Id],
            SameLead = [.. rivals.Select(id => names[id])],
            Published = others.Where(o => o.IsPublished).Select(o => o.Id).Append(page.Id).ToHashSet(),
        };

        async Task<IReadOnlyList<string>> Alike()
        {
            var key = Tokens.Key(heading);
            if (key.Length == 0)
                return [];
            var parents = await db
                .Pages.Where(p => p.Kind == PageKind.Category)
                .Select(p => new { p.Id, p.ParentId })
                .ToDictionaryAsync(p => p.Id, p => p.ParentId, stop);
            var called = await db.PageNames(parents.Keys, stop);
            return
            [
                .. called
                    .Where(c => c.Key != page.Id && Tokens.Key(c.Value) == key)
                    .Select(c => parents[c.Key] is { } above ? called.GetValueOrDefault(above, "") : ""),
            ];
        }
    }
}
