using TinRabbit.Server.Listings;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Demo;

/// <summary>Rivals of the demo's first listing, with what made-up buyers wrote about them.</summary>
internal static class DemoRivals
{
    private const int Chosen = 4;
    private const int LookedAt = 20;
    private const int ReviewsOfEach = 40;

    /// <summary>Adds them to a new demo shop: the first listings of others for its lead.</summary>
    public static async Task Add(TinContext db, IMarket market)
    {
        var past = DemoShop.Shipped.Past[0];
        if (market.Places.All(p => p.Id != past.MarketId))
            return;
        var listing = await db
            .Listings.Include(l => l.Platform)
            .FirstAsync(l => l.Product.Name == past.Product && l.PlatformId == past.Platform);
        if (await market.Search(past.MarketId, listing.LeadKey!, LookedAt, default) is not { } page)
            return;
        var found = page.Ranked()
            .Where(r => r.Id is not null && r.Shop != DemoShop.Shipped.Name)
            .DistinctBy(r => r.Shop)
            .Take(Chosen)
            .ToList();
        var now = db.Now;
        var rivals = found.ConvertAll(r =>
            SavedRivals.Row(listing.Id, past.MarketId, r.Id, market.Name, RivalStates.Of(r, listing.Platform.Profile), now, now)
        );
        await SavedRivals.Add(db, listing.Id, rivals, default);
        var reviews = await market.Reviews(past.MarketId, [.. found.Select(r => r.Id!)], ReviewsOfEach, default);
        foreach (var (rival, written) in rivals.Zip(reviews))
            await Reviews.Add(
                db,
                listing.Id,
                ofRivals: true,
                rival.Id,
                (written ?? []).Select(r => new GivenReview(r.Text, r.Stars, r.At)),
                market.Name,
                default
            );
    }
}
