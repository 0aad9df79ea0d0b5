namespace TinRabbit.Server.Listings;

/// <summary>Listings in the database.</summary>
internal static class ListingQueries
{
    /// <summary>A listing with its product and platform, to be changed.</summary>
    public static Task<ListingRow?> FindListing(this TinContext db, int id, CancellationToken stop) =>
        db.Listings.Include(l => l.Platform).Include(l => l.Product).FirstOrDefaultAsync(l => l.Id == id, stop);

    /// <summary>The name of each platform.</summary>
    public static async Task<Dictionary<string, string>> PlatformNames(this TinContext db, CancellationToken stop) =>
        (await db.Platforms.AsNoTracking().ToListAsync(stop)).ToDictionary(p => p.Id, p => p.Profile.Name);

    /// <summary>The product of a listing; null where there is no such listing.</summary>
    public static Task<int?> ProductOf(this TinContext db, int listingId, CancellationToken stop) =>
        db.Listings.Where(l => l.Id == listingId).Select(l => (int?)l.ProductId).FirstOrDefaultAsync(stop);
}
