using System.Globalization;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Hosting;

/// <summary>Tells the market what it does not remember from one start to the next: the seller's own platforms, and what was sent.</summary>
internal static class MarketSetup
{
    /// <summary>Opens markets for the seller's own platforms.</summary>
    public static async Task OpenOwn(TinContext db, IMarket market)
    {
        market.Open(ShippedPlatforms.All.First(p => p.Id == ShippedPlatforms.WebShop), MarketPlace.Web);
        foreach (var own in await db.Platforms.AsNoTracking().Where(p => p.Like != null).ToListAsync())
            market.Open(PlatformJson.Read(own.Profile), own.Like!);
    }

    /// <summary>Sends again what was sent before this start.</summary>
    public static async Task SendAgain(TinContext db, IMarket market)
    {
        if (await db.Shops.OrderBy(s => s.Id).Select(s => s.Name).FirstOrDefaultAsync() is not { } shop)
            return;
        var listings = await db
            .Listings.AsNoTracking()
            .Include(l => l.Platform)
            .IgnoreQueryFilters()
            .Where(l => db.Sent.Any(s => s.ListingId == l.Id))
            .ToDictionaryAsync(l => l.Id);
        foreach (var sent in await db.Sent.AsNoTracking().Where(s => !s.ByHand).OrderBy(s => s.Id).ToListAsync())
            if (market.Places.Any(p => p.Id == sent.MarketId))
                market.Send(
                    sent.MarketId,
                    new(
                        sent.ListingId.ToString(CultureInfo.InvariantCulture),
                        shop,
                        Listings.CopyOf(sent.Copy, PlatformJson.Read(listings[sent.ListingId].Platform.Profile))
                    ),
                    sent.At
                );
    }
}
