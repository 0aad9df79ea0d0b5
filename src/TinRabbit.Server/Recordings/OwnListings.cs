using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Recordings;

/// <summary>The shop's own listings among recorded results.</summary>
internal static class OwnListings
{
    /// <summary>An own listing with every title that it has, or had where it was live, and the address that it can be opened at; null where that is unknown.</summary>
    internal sealed record Own(int Id, string Name, IReadOnlyList<string> Titles, string? Address)
    {
        /// <summary>Whether a file means it by a name: its product's name, or a title, perhaps cut off.</summary>
        public bool IsNamed(string name) =>
            string.Equals(Name, name, StringComparison.OrdinalIgnoreCase) || Titles.Any(t => SeenListing.IsTitle(name, t));
    }

    /// <summary>The listings of a platform that are worked on.</summary>
    public static async Task<IReadOnlyList<Own>> Load(TinContext db, string platformId, CancellationToken stop)
    {
        var listings = await db
            .Listings.AsNoTracking()
            .Include(l => l.Product)
            .Include(l => l.Platform)
            .Where(l => l.PlatformId == platformId)
            .ToListAsync(stop);
        var ids = listings.Select(l => l.Id).ToList();
        var site = await db.Site(stop);
        var pages =
            platformId == site.PlatformId
                ? await db.Pages.AsNoTracking().Where(p => ids.Contains(p.ListingId)).ToDictionaryAsync(p => p.ListingId, stop)
                : [];
        var sent = (await db.Sent.AsNoTracking().Where(s => ids.Contains(s.ListingId)).ToListAsync(stop)).ToLookup(s => s.ListingId);
        return
        [
            .. listings
                .Select(l =>
                {
                    var titles = sent[l.Id]
                        .Select(s => s.Copy)
                        .Append(l.Copy)
                        .Select(c => c.TextOf(l.Platform.Profile, "title"))
                        .Where(t => t.Length > 0);
                    if (pages.GetValueOrDefault(l.Id) is not { } page)
                        return new Own(
                            l.Id,
                            l.Product.Name,
                            [.. titles.Distinct()],
                            l.Details?.Address is { Length: > 0 } known ? known : null
                        );
                    // What a search shows of a page is its title, or its name, with what the site adds to it.
                    var shown = titles.Append(page.Heading is { Length: > 0 } heading ? heading : l.Product.Name);
                    return new Own(
                        l.Id,
                        l.Product.Name,
                        [.. shown.SelectMany(t => new[] { t, t + site.SuffixOf(page) }).Distinct()],
                        site.Address.Length > 0 ? site.AddressOf(page) : null
                    );
                })
                .Where(o => o.Titles.Count > 0 || o.Address is not null),
        ];
    }

    /// <summary>The result that is a listing's; null where none is. Ads of it say nothing of its rank.</summary>
    public static ReadResult? Find(IEnumerable<ReadResult> results, Own own) =>
        results.FirstOrDefault(r =>
            !r.Sponsored
            && (
                own.Titles.Any(t => SeenListing.IsTitle(r.Title, t))
                || (own.Address is { } address && r.Url is { } url && SeenListing.IsSameAddress(address, url))
            )
        );

    /// <summary>What the pages of one search say of a listing; null where they do not tell, as when they show some of the results and it is not among them.</summary>
    /// <param name="pages">Pages of one search, the newest first.</param>
    /// <param name="own">The listing.</param>
    /// <param name="term">What was searched for.</param>
    /// <param name="day">When.</param>
    public static ObservedRow? Observe(IReadOnlyList<ReadPage> pages, Own own, string term, DateOnly? day)
    {
        var total = pages.Select(p => p.Total).FirstOrDefault(t => t is not null);
        var all = pages.SelectMany(p => p.Results).DistinctBy(r => r.Position).OrderBy(r => r.Position).ToList();
        if (Find(all, own) is { } found)
            return new(term, true, found.Position - all.Count(r => r.Sponsored && r.Position < found.Position), total, day);
        return total is null || all.Count < total ? null : new(term, false, null, total, day);
    }
}
