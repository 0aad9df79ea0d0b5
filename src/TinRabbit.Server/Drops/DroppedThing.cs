using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Drops;

/// <summary>Something that was dropped, and where and when it belongs.</summary>
/// <param name="Content">What it is.</param>
/// <param name="Choice">What the seller corrected of it.</param>
/// <param name="Market">The market.</param>
/// <param name="Day">The day that it was seen.</param>
/// <param name="PictureOf">The name among the shop's pictures of a picture that came with it, by the address that the page names; null where it did not come.</param>
internal sealed record DroppedThing(
    DropContent Content,
    DropChoice Choice,
    MarketPlace Market,
    DateOnly Day,
    Func<string, string?> PictureOf
)
{
    /// <summary>The listing that it is of: the chosen one, otherwise the one that is worked on; null for none.</summary>
    public int? ListingId => (Choice.ListingId ?? Content.Context.ListingId) is > 0 and var id ? id : null;

    /// <summary>That listing, where it is on the market's platform; null otherwise.</summary>
    public async Task<ListingRow?> Listing(TinContext db, CancellationToken stop) =>
        ListingId is { } id && await db.FindListing(id, stop) is { } listing && listing.PlatformId == Market.PlatformId ? listing : null;
}
