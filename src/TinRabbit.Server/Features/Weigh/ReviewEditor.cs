using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>Adds reviews of a listing and of its rivals that the market has.</summary>
internal sealed class ReviewEditor(TinContext db, IMarket market, ChangeLog changes)
{
    private const int Asked = 200;

    /// <summary>Adds the reviews that the market has and the shop has not.</summary>
    public async Task<ReviewsFetched> Fetch(ListingRow listing, string marketId, CancellationToken stop)
    {
        var rivals = await db
            .Rivals.Where(r => r.ListingId == listing.Id && r.MarketId == marketId && r.MarketListing != null)
            .OrderBy(r => r.Id)
            .ToListAsync(stop);
        var wasSent = await db.Sent.AnyAsync(s => s.ListingId == listing.Id && s.MarketId == marketId && !s.ByHand, stop);
        var own = Sending.IdAtMarket($"{listing.Id}");
        var found = await market.Reviews(marketId, [.. rivals.Select(r => r.MarketListing!).Concat(wasSent ? [own] : [])], Asked, stop);
        var added = new List<ReviewRow>();
        foreach (var (reviews, number) in found.Select((r, i) => (r ?? [], i)))
        {
            int? rivalId = number < rivals.Count ? rivals[number].Id : null;
            added.AddRange(await Reviews.Add(db, listing.Id, rivalId is not null, rivalId, reviews.Select(Given), market.Name, stop));
        }

        var changed = await Noted(listing, added, stop);
        return new(
            await db.Reviews.CountAsync(r => r.ListingId == listing.Id && !r.OfRivals, stop),
            await db.Reviews.CountAsync(r => r.ListingId == listing.Id && r.OfRivals, stop),
            !wasSent,
            changed.What,
            changed.Id
        );
    }

    private static GivenReview Given(MarketReview review) => new(review.Text, review.Stars, review.At);

    private async Task<Changed> Noted(ListingRow listing, List<ReviewRow> reviews, CancellationToken stop) =>
        reviews.Count == 0
            ? new(null)
            : await changes.Save(
                WeighMessages.AddedReviews(reviews.Count),
                new(Screen.Weigh, listing.ProductId, listing.Id),
                [RemoveRows.Of<ReviewRow>(reviews.Select(r => r.Id))],
                stop
            );
}
