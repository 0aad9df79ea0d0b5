using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Reviews;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>The phrases that tell the buyers of a listing from those of its rivals.</summary>
/// <param name="Mine">How many reviews of the listing there are.</param>
/// <param name="Theirs">How many of its rivals.</param>
/// <param name="Market">How many of the market's reviews say how usual a phrase is; 0 where the market gives none, and the two sets do.</param>
/// <param name="Phrases">What is said about theirs and true of mine by the facts first, then the most telling.</param>
public sealed record BuyersView(int Mine, int Theirs, int Market, IReadOnlyList<PhraseView> Phrases);

/// <summary>A phrase of buyers.</summary>
/// <param name="Z">How far beyond chance; more than 0 where it marks mine.</param>
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
    private const int Asked = 200;

    public static void MapReviews(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/reviews").WithTags("Weigh");
        api.MapPost("/fetch", FetchReviews).WithName("FetchReviews").ProducesValidationProblem();
        api.MapPost("/import", ImportReviews)
            .WithName("ImportReviews")
            .Accepts<byte[]>("application/octet-stream")
            .ProducesValidationProblem();
        api.MapDelete("/", RemoveReviews).WithName("RemoveReviews");
        api.MapGet("/export.csv", ExportReviews).WithName("ExportReviews");
        api.MapGet("/phrases", GetPhrases).WithName("GetPhrases").WithRequestTimeout(ProblemAnswers.Computes);
    }

    // What the market gives now takes the place of what it gave before; what came from files stays.
    private static async Task<Results<Ok<ReviewsFetched>, NotFound>> FetchReviews(
        int id,
        ReviewsRequest request,
        TinContext db,
        IMarket market,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        if (await db.FindListing(id, stop) is not { } listing)
            return TypedResults.NotFound();
        var rivals = await db
            .Rivals.Where(r => r.ListingId == id && r.MarketId == request.MarketId && r.MarketListing != null)
            .OrderBy(r => r.Id)
            .ToListAsync(stop);
        var wasSent = await db.Sent.AnyAsync(s => s.ListingId == id && s.MarketId == request.MarketId && !s.ByHand, stop);
        var own = Sending.IdAtMarket($"{id}");
        var found = await market.Reviews(
            request.MarketId,
            [.. rivals.Select(r => r.MarketListing!).Concat(wasSent ? [own] : [])],
            Asked,
            stop
        );
        var before = await db.Reviews.Where(r => r.ListingId == id).ToListAsync(stop);
        var known = before.Select(r => (r.RivalId, r.Text, r.At)).ToHashSet();
        var added = new List<ReviewRow>();
        foreach (var (reviews, number) in found.Select((r, i) => (r, i)))
        {
            int? rivalId = number < rivals.Count ? rivals[number].Id : null;
            added.AddRange(
                reviews.Where(r => known.Add((rivalId, r.Text, r.At))).Select(r => Row(id, rivalId is not null, rivalId, r, market.Name))
            );
        }

        var changed = await Add(db, changes, listing, added, stop);
        return TypedResults.Ok(
            new ReviewsFetched(
                before.Concat(added).Count(r => !r.OfRivals),
                before.Concat(added).Count(r => r.OfRivals),
                !wasSent,
                changed.What,
                changed.Id
            )
        );
    }

    private static async Task<Results<Ok<Changed>, NotFound>> ImportReviews(
        int id,
        bool ofRivals,
        string? name,
        TinContext db,
        DataFolder data,
        IMarket market,
        ChangeLog changes,
        HttpRequest request,
        CancellationToken stop
    )
    {
        if (await db.FindListing(id, stop) is not { } listing)
            return TypedResults.NotFound();
        var read = await ImportFiles.ReadOnce(data, db.Now, request.Body, file => ReviewTables.Read(file, market.LastDay, stop), stop);
        var source = ImportFiles.SourceOf(name);
        // The same file once more adds nothing.
        var known = (
            await db.Reviews.Where(r => r.ListingId == id && r.OfRivals == ofRivals).Select(r => r.Text).ToListAsync(stop)
        ).ToHashSet();
        return TypedResults.Ok(
            await Add(db, changes, listing, [.. read.Where(r => known.Add(r.Text)).Select(r => Row(id, ofRivals, null, r, source))], stop)
        );
    }

    private static async Task<Results<Ok<Changed>, NotFound>> RemoveReviews(
        int id,
        bool ofRivals,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        if (await db.FindListing(id, stop) is not { } listing)
            return TypedResults.NotFound();
        var gone = await db.Reviews.Where(r => r.ListingId == id && r.OfRivals == ofRivals).ToListAsync(stop);
        return TypedResults.Ok(
            gone.Count == 0
                ? new(null)
                : await changes.Delete(WeighMessages.RemovedReviews(gone.Count), new(Screen.Weigh, listing.ProductId, id), gone, stop)
        );
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> ExportReviews(int id, TinContext db, CancellationToken stop)
    {
        if (await db.FindListing(id, stop) is null)
            return TypedResults.NotFound();
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

    private static async Task<Results<Ok<BuyersView>, NotFound>> GetPhrases(
        int id,
        string marketId,
        TinContext db,
        PreparedPicksCache ready,
        MarketReviews ofMarket,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (await OpenDraft.Open(db, ready, id, new(marketId, null), stop) is not { } open)
            return TypedResults.NotFound();
        var reviews = await db.Reviews.AsNoTracking().Where(r => r.ListingId == id).OrderBy(r => r.Id).ToListAsync(stop);
        Review[] mine = [.. reviews.Where(r => !r.OfRivals).Select(r => new Review(r.Text, r.Stars))];
        Review[] theirs = [.. reviews.Where(r => r.OfRivals).Select(r => new Review(r.Text, r.Stars))];
        if (mine.Length == 0 || theirs.Length == 0)
            return TypedResults.Ok(new BuyersView(mine.Length, theirs.Length, 0, []));
        var market = DraftRivals.TermOf(open) is { } term ? await ofMarket.Of(marketId, term, stop) : [];
        var phrases = BuyerPhrases.Of(mine, theirs, market.Count > 0 ? market : null, stop);
        var facts = open.Facts;
        var picks = (await db.Picks.Where(p => p.ProductId == open.Listing.ProductId).Select(p => p.Key).ToListAsync(stop)).ToHashSet();
        var terms = await shelves.MeasureTyped(db, marketId, [.. phrases.Select(p => p.Text)], stop);
        var held = Weigher.Weigh(open.Platform, open.Copy, [.. phrases.Select(p => new WantedTerm(p.Text))], stop);
        // The most telling phrase of a sentence stands for the others.
        var first = phrases.GroupBy(SentenceOf).ToDictionary(g => g.Key, g => g.First().Text);
        return TypedResults.Ok(
            new BuyersView(
                mine.Length,
                theirs.Length,
                market.Count,
                [
                    .. phrases
                        .Select(
                            (p, i) =>
                                new PhraseView(
                                    p.Text,
                                    p.Z,
                                    p.Mine,
                                    p.Theirs,
                                    p.Stars,
                                    p.Tone,
                                    p.Z < 0 && p.Tone != ReviewTone.Complaint && p.IsTrueBy(facts),
                                    terms.GetValueOrDefault(Tokens.Key(p.Text))?.Reading?.Volume,
                                    picks.Contains(Tokens.Key(p.Text)) ? Tokens.Key(p.Text) : null,
                                    held.Terms[i].Grade,
                                    Facets.Unbacked(p.Text, facts),
                                    first[SentenceOf(p)] is var stronger && stronger != p.Text ? stronger : null,
                                    p.Sentences
                                )
                        )
                        .OrderByDescending(p => p.IsTrueOfMine)
                        .ThenByDescending(p => Math.Abs(p.Z)),
                ]
            )
        );
    }

    private static (string?, bool) SentenceOf(BuyerPhrase phrase) => (phrase.Sentences is [var first, ..] ? first : null, phrase.Z > 0);

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

    private static async Task<Changed> Add(
        TinContext db,
        ChangeLog changes,
        ListingRow listing,
        List<ReviewRow> reviews,
        CancellationToken stop
    )
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
