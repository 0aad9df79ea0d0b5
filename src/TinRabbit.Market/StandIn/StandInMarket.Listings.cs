using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Market.StandIn;

/// <content>Listings as they are shown on a day, and what buyers wrote about them.</content>
public sealed partial class StandInMarket
{
    // What changes in a listing as weeks pass: the share of weeks with a new price, and of sales that are rated.
    private static readonly DateTime Beginning = new(2026, 6, 1, 0, 0, 0, DateTimeKind.Utc);
    private const double PriceChanges = 0.06;
    private const double RatedSales = 0.02;
    private const int WeeksRemembered = 60;

    private const int MostReviews = 40;

    // The seller's own listings are liked, and have some reviews from before.
    private const double OwnRating = 4.6;
    private const int OwnReviews = 32;

    // Prices change now and then, and buyers go on rating: looked up a month later, a listing is not quite the same.
    private Result Shown(string marketId, RivalListing rival, bool isStay)
    {
        var random = _random.For(marketId).For("drift").For(rival.Id);
        var weeks = Math.Max(0, (int)(Now - Beginning).TotalDays / 7);
        var price = rival.Price;
        for (var week = Math.Max(0, weeks - WeeksRemembered); week <= weeks; week++)
            if (random.For(week).Uniform < PriceChanges)
                price = Math.Round(rival.Price * (decimal)(0.85 + 0.3 * random.For(week).For("price").Uniform), 2);
        return new(
            rival.Shop,
            rival.Title,
            rival.Tags,
            price,
            isStay ? 0 : rival.Shipping,
            rival.Rating,
            rival.Ratings + (int)(rival.Sales * RatedSales * weeks),
            rival.Photos,
            isStay ? null : rival.Sales,
            isStay ? rival.Occupancy : null,
            rival.Attributes,
            rival.Id,
            rival.Bullets,
            (int)((rival.Sales + 1) * (18 + 30 * random.For("views").Uniform))
        );
    }

    /// <inheritdoc cref="IMarket.Listings"/>
    public IReadOnlyList<Result?> ListingsOf(string marketId, IReadOnlyList<string> ids)
    {
        var (_, rivals) = Made(marketId);
        return [.. ids.Select(id => Find(rivals, id) is { } rival ? Shown(marketId, rival, IsStay(marketId)) : null)];
    }

    /// <inheritdoc cref="IMarket.Reviews"/>
    public IReadOnlyList<IReadOnlyList<MarketReview>> ReviewsOf(string marketId, IReadOnlyList<string> ids, int most)
    {
        var (_, rivals) = Made(marketId);
        var today = DateOnly.FromDateTime(Now);
        return
        [
            .. ids.Select(id =>
                Find(rivals, id) is { } rival
                    ? Reviews.Of(
                        rival.Groups,
                        rival.Rating,
                        Math.Min(most, Math.Min(MostReviews, rival.Ratings / 2)),
                        today,
                        _random.For(marketId).For("reviews").For(id)
                    )
                : Sent(marketId, id) is { } own
                    ? Reviews.Of(GroupsOf(own), OwnRating, Math.Min(most, OwnReviews), today, _random.For(marketId).For("reviews").For(id))
                : (IReadOnlyList<MarketReview>)[]
            ),
        ];
    }

    private static RivalListing? Find(Catalogue? rivals, string id) =>
        id is ['r', .. var number] && int.TryParse(number, out var i) && rivals is not null && i >= 0 && i < rivals.Listings.Count
            ? rivals.Listings[i]
            : null;

    // The last state that was sent under an ID.
    private Sending? Sent(string marketId, string id)
    {
        if (!_sent.TryGetValue((marketId, id), out var states))
            return null;
        lock (states)
            return states[^1].Listing;
    }

    private static string TitleOf(Sending listing) => (listing.Copy.GetValueOrDefault("title") as FieldValue.Text)?.Value ?? "";

    private static string[] GroupsOf(Sending listing)
    {
        var words = Tokens.Of(TitleOf(listing)).Select(t => Plurals.Stem(t.Word)).ToHashSet();
        return
        [
            .. Vocabulary
                .Read()
                .Heads.Where(h => Tokens.Of(h.Text).All(t => words.Contains(Plurals.Stem(t.Word))))
                .SelectMany(h => h.Groups)
                .Distinct(),
        ];
    }

    private bool IsStay(string marketId) => KindOf(Places.First(p => p.Id == marketId).PlatformId) == "marsh-and-moor";
}
