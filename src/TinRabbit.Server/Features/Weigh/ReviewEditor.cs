using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>Adds reviews of a listing and of its rivals, from the market and from files.</summary>
internal sealed class ReviewEditor(TinContext db, IMarket market, TableUpload upload, ChangeLog changes)
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
        var before = await db.Reviews.Where(r => r.ListingId == listing.Id).ToListAsync(stop);
        var known = before.Select(r => (r.RivalId, r.Text, r.At)).ToHashSet();
        var added = new List<ReviewRow>();
        foreach (var (reviews, number) in found.Select((r, i) => (r, i)))
        {
            int? rivalId = number < rivals.Count ? rivals[number].Id : null;
            added.AddRange(
                reviews
                    .Where(r => known.Add((rivalId, r.Text, r.At)))
                    .Select(r => Row(listing.Id, rivalId is not null, rivalId, r, market.Name))
            );
        }

        var changed = await Add(listing, added, stop);
        return new(
            before.Concat(added).Count(r => !r.OfRivals),
            before.Concat(added).Count(r => r.OfRivals),
            !wasSent,
            changed.What,
            changed.Id
        );
    }

    /// <summary>Adds reviews from a table, or from saved pages of listings; the same file once more adds nothing.</summary>
    public async Task<Changed> Import(ListingRow listing, bool ofRivals, string? name, Stream body, CancellationToken stop)
    {
        var read = await upload.Read(
            body,
            async file =>
                await SavedPages.Are(file, stop)
                    ? OnPages(await SavedPages.Read(file, null, stop))
                    : ReviewTables.Read(file, market.LastDay, stop),
            "There is no review in it.",
            stop
        );
        var source = ImportFiles.SourceOf(name);
        var known = (
            await db.Reviews.Where(r => r.ListingId == listing.Id && r.OfRivals == ofRivals).Select(r => r.Text).ToListAsync(stop)
        ).ToHashSet();
        return await Add(listing, [.. read.Where(r => known.Add(r.Text)).Select(r => Row(listing.Id, ofRivals, null, r, source))], stop);
    }

    private List<MarketReview> OnPages(IEnumerable<ReadPage> pages) =>
        [
            .. pages
                .SelectMany(p => p.Listing?.Reviews ?? [])
                .Where(r => r.Text.Length <= Bounds.ReviewLength)
                .Select(r => new MarketReview(r.Text, r.Stars, r.Date <= market.LastDay ? r.Date : null)),
        ];

    private static ReviewRow Row(int listingId, bool ofRivals, int? rivalId, MarketReview review, string source) =>
        new()
        {
            ListingId = listingId,
            OfRivals = ofRivals,
            RivalId = rivalId,
            Text = review.Text,
            Stars = review.Stars,
            At = review.At,
            Source = source,
        };

    private async Task<Changed> Add(ListingRow listing, List<ReviewRow> reviews, CancellationToken stop)
    {
        if (reviews.Count == 0)
            return new(null);
        foreach (var ofRivals in (bool[])[false, true])
            if (
                await db.Reviews.CountAsync(r => r.ListingId == listing.Id && r.OfRivals == ofRivals, stop)
                    + reviews.Count(r => r.OfRivals == ofRivals)
                is > Bounds.Reviews
                    and var all
            )
                throw new InvalidInputException([
                    new(
                        "file",
                        $"There would be {all:#,0} reviews of {(ofRivals ? "rivals" : "this listing")}; the limit is {Bounds.Reviews:#,0}."
                    ),
                ]);
        db.Reviews.AddRange(reviews);
        await db.SaveChangesAsync(stop);
        return await changes.Save(
            WeighMessages.AddedReviews(reviews.Count),
            new(Screen.Weigh, listing.ProductId, listing.Id),
            [RemoveRows.Of<ReviewRow>(reviews.Select(r => r.Id))],
            stop
        );
    }
}
