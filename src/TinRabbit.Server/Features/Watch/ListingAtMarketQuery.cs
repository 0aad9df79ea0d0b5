using TinRabbit.Core.Watching;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What a market has of a listing, from the database.</summary>
internal static class ListingAtMarketQuery
{
    public static async Task<ListingAtMarket> AtMarket(this TinContext db, ListingRow listing, string marketId, CancellationToken stop)
    {
        var platform = listing.Platform.Profile;
        var sent = await db
            .Sent.AsNoTracking()
            .Where(s => s.ListingId == listing.Id && s.MarketId == marketId)
            .OrderBy(s => s.Id)
            .ToListAsync(stop);
        return new(platform, [.. sent.Select(s => new SentText(s.NoticedAt, s.Copy.On(platform)))], listing.Copy.On(platform));
    }
}
