using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Picks;

/// <summary>What is deleted together.</summary>
internal static class RowsTogether
{
    /// <summary>Everything of some products that goes when they do, themselves included.</summary>
    public static async Task<List<IDeletable>> OfProducts(this TinContext db, IReadOnlyCollection<int> products, CancellationToken stop) =>
        [
            .. await db.Products.Where(p => products.Contains(p.Id)).ToListAsync(stop),
            .. await db.Listings.Where(l => products.Contains(l.ProductId)).ToListAsync(stop),
            .. await db.Picks.Where(p => products.Contains(p.ProductId)).ToListAsync(stop),
            .. await db.Pages.Where(p => products.Contains(p.Listing.ProductId)).ToListAsync(stop),
        ];

    /// <summary>Some listings with their pages.</summary>
    public static async Task<List<IDeletable>> OfListings(this TinContext db, IReadOnlyCollection<int> ids, CancellationToken stop) =>
        [
            .. await db.Listings.Where(l => ids.Contains(l.Id)).ToListAsync(stop),
            .. await db.Pages.Where(p => ids.Contains(p.ListingId)).ToListAsync(stop),
        ];

    /// <summary>Some pages with what a page alone is about. A product keeps its listing.</summary>
    public static async Task<List<IDeletable>> OfPages(this TinContext db, IReadOnlyCollection<int> ids, CancellationToken stop)
    {
        var pages = await db.Pages.Include(p => p.Listing).ThenInclude(l => l.Product).Where(p => ids.Contains(p.Id)).ToListAsync(stop);
        var products = pages.Where(p => p.Listing.Product.IsPage).Select(p => p.Listing.ProductId).ToList();
        return [.. pages, .. await db.OfProducts(products, stop)];
    }
}
