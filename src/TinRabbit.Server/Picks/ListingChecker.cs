using TinRabbit.Core.Findings;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Picks;

/// <summary>Checks a listing with all that its findings depend on: picks, facts, pictures, its page, and what rivals fill.</summary>
internal sealed class ListingChecker(TopListings rivals, PictureFiles files)
{
    /// <summary>The check of a draft, dismissed findings included.</summary>
    public async Task<CheckResult> Check(TinContext db, OpenDraft open, string marketId, CancellationToken stop)
    {
        var shop = await db.Shops.OrderBy(s => s.Id).Select(s => s.Name).FirstAsync(stop);
        var pictures = await db
            .Products.Where(p => p.Id == open.Listing.ProductId)
            .SelectMany(p => p.Pictures)
            .OrderBy(p => p.Order)
            .Select(p => new
            {
                p.Description,
                p.File,
                p.IsLocked,
            })
            .ToListAsync(stop);
        var page = await PageContext.Of(db, open.Listing, open.Platform, open.TextOf("slug"), open.TextOf("heading"), stop);
        return ListingCheck.Check(
            new(
                open.Platform,
                open.Copy,
                open.Picks.Wanted,
                open.Lead,
                open.Listing.Product.Facts == new Facts() ? null : open.Facts,
                [.. open.Picks.Avoided.Select(a => new AvoidedTerm(a.Text, a.Reason))],
                shop,
                await DraftRivals.AttributeShares(rivals, marketId, open, stop)
            )
            {
                Pictures = pictures.ConvertAll(p => p.Description),
                LockedPictures = pictures.Index().Where(p => p.Item.IsLocked).Select(p => p.Index).ToHashSet(),
                Page = page is null
                    ? null
                    : page with
                    {
                        PictureSides = pictures.ConvertAll(p => p.File is { } file ? files.SideOf(file) : null),
                    },
            },
            stop
        );
    }
}
