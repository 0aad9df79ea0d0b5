using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>Compares the listings of a product on the platforms of one country.</summary>
internal sealed class ProductComparison(TinContext db, IMarket market, PreparedPicksCache prepared)
{
    /// <summary>The listings side by side, each with its reach and grip, and each pick with how every one holds it.</summary>
    public async Task<ProductPlatforms> Of(
        int productId,
        IReadOnlyList<ListingRow> listings,
        PlatformsRequest request,
        CancellationToken stop
    )
    {
        var places = market.MarketsIn(await db.Site(stop), request.Country);
        var columns = new List<Column>();
        foreach (var listing in listings.Where(l => places.ContainsKey(l.PlatformId)))
        {
            var picks = await prepared.Get(db, productId, places[listing.PlatformId], listing.Platform.Profile, stop);
            var copy =
                listing.Id == request.ListingId && request.Fields is { ValueKind: JsonValueKind.Object } draft
                    ? CopyJson.Read(draft, picks.Platform)
                    : listing.Copy.On(picks.Platform);
            copy = await db.WithAltTexts(picks.Platform, productId, copy, stop);
            columns.Add(new(listing.Id, places[listing.PlatformId], picks, Weigher.Weigh(picks.Terms, copy, picks.Wanted, stop)));
        }

        var keys = columns.Count == 0 ? [] : columns[0].Picks.Keys;
        return new([.. columns.Select(ListingOf)], [.. keys.Select((key, i) => TermOf(key, i, columns))]);
    }

    private static PlacedListing ListingOf(Column column) =>
        new(
            column.ListingId,
            column.MarketId,
            column.Picks.Platform.Name,
            column.Weighing.Counted > 0 ? column.Weighing.Reach : null,
            column.Weighing.Counted > 0 ? column.Weighing.Grip : null,
            column.Weighing.LostVolume,
            column.Weighing.LostTerms
        );

    private static PlacedTerm TermOf(string key, int number, List<Column> columns) =>
        new(
            key,
            columns[0].Picks.Wanted[number].Text,
            [
                .. columns.Select(c => new PlacedHolding(
                    c.Picks.Wanted[number].Volume,
                    c.Weighing.Terms[number].Grade,
                    c.Weighing.Terms[number].Grip,
                    c.Weighing.Terms[number].Grade == Grade.Missing ? c.Weighing.Terms[number].Explain().Missing : []
                )),
            ]
        );

    private sealed record Column(int ListingId, string MarketId, PreparedPicks Picks, Weighing Weighing);
}
