using TinRabbit.Core.Reviews;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>The phrases that tell the buyers of a listing from those of its rivals.</summary>
/// <param name="Mine">How many reviews of the listing there are.</param>
/// <param name="Theirs">How many of its rivals.</param>
/// <param name="Market">How many of the market's reviews say how usual a phrase is; 0 where the market gives none, and the two sets do.</param>
/// <param name="Phrases">What is said about theirs and true of mine by the facts first, then the most telling.</param>
public sealed record BuyersView(int Mine, int Theirs, int Market, IReadOnlyList<PhraseView> Phrases);

/// <summary>A phrase of buyers.</summary>
/// <param name="Z">How far beyond chance; more than 0 where it marks mine, 0 where only one side has reviews.</param>
/// <param name="OfRivals">Whether it marks the rivals.</param>
/// <param name="IsTrueOfMine">Whether it is said about theirs, no complaint, and true of mine by the facts.</param>
/// <param name="Volume">Searches/mo in the market; null where nobody searches for it, or the market does not know.</param>
/// <param name="Pick">The key of the pick that it is; null where it is none.</param>
/// <param name="Holds">How the listing holds it.</param>
/// <param name="NotInFacts">What it claims that the facts lack.</param>
/// <param name="Within">A more telling phrase of the same sentences, under which this one is shown; null where there is none.</param>
public sealed record PhraseView(
    string Text,
    double Z,
    int Mine,
    int Theirs,
    bool OfRivals,
    double? Stars,
    ReviewTone Tone,
    bool IsTrueOfMine,
    long? Volume,
    string? Pick,
    Grade Holds,
    IReadOnlyList<Claim> NotInFacts,
    string? Within,
    IReadOnlyList<string> Sentences
);

/// <summary>Whose reviews.</summary>
public sealed record ReviewsRequest(string MarketId);

/// <summary>What came of asking the market for reviews.</summary>
/// <param name="Mine">Reviews of the listing that are there now.</param>
/// <param name="Theirs">Reviews of rivals that are there now.</param>
/// <param name="NotSent">Whether the market does not know the listing, since it was never sent there.</param>
public sealed record ReviewsFetched(int Mine, int Theirs, bool NotSent, string? What, int? Id);

internal static class ReviewsApi
{
    public static void MapReviews(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/reviews");
        api.MapPost("/fetch", FetchReviews);
        api.MapDelete("/", RemoveReviews);
        api.MapGet("/export.csv", ExportReviews);
        api.MapGet("/phrases", GetPhrases).WithRequestTimeout(ProblemAnswers.Computes);
    }

    private static async Task<ReviewsFetched> FetchReviews(
        int id,
        ReviewsRequest request,
        TinContext db,
        ReviewEditor editor,
        CancellationToken stop
    )
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await editor.Fetch(listing, request.MarketId, stop);
    }

    private static async Task<Changed> RemoveReviews(int id, bool ofRivals, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var gone = await db.Reviews.Where(r => r.ListingId == id && r.OfRivals == ofRivals).ToListAsync(stop);
        return gone.Count == 0
            ? new(null)
            : await changes.Delete(WeighMessages.RemovedReviews(gone.Count), new(Screen.Weigh, listing.ProductId, id), gone, stop);
    }

    private static async Task<FileContentHttpResult> ExportReviews(int id, TinContext db, CancellationToken stop)
    {
        await db.FindListing(id, stop).OrNotThere();
        var reviews = await db
            .Reviews.AsNoTracking()
            .Where(r => r.ListingId == id)
            .OrderBy(r => r.OfRivals)
            .ThenBy(r => r.Id)
            .ToListAsync(stop);
        var shops = await db.Rivals.Where(r => r.ListingId == id).ToDictionaryAsync(r => r.Id, r => r.Latest.Shop, stop);
        return CsvFile.Of(
            ReviewTables.Csv(
                reviews.Select(r =>
                    (
                        r,
                        !r.OfRivals ? "mine"
                        : r.RivalId is { } rival ? shops.GetValueOrDefault(rival, "rival")
                        : "rival"
                    )
                )
            ),
            "reviews.csv"
        );
    }

    private static async Task<BuyersView> GetPhrases(
        int id,
        string marketId,
        TinContext db,
        PreparedPicksCache ready,
        MarketReviews ofMarket,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(marketId, null), stop).OrNotThere();
        return await BuyerPhraseViews.Of(open, marketId, db, ofMarket, shelves, stop);
    }
}
