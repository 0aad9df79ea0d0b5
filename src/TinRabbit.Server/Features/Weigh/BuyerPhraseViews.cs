using TinRabbit.Core.Reviews;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>What buyers say of a listing and of its rivals, phrase by phrase.</summary>
internal static class BuyerPhraseViews
{
    private const int MostFrequent = 120;

    public static async Task<BuyersView> Of(
        OpenDraft open,
        string marketId,
        TinContext db,
        MarketReviews ofMarket,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var reviews = await db.Reviews.AsNoTracking().Where(r => r.ListingId == open.Listing.Id).OrderBy(r => r.Id).ToListAsync(stop);
        Review[] mine = [.. reviews.Where(r => !r.OfRivals).Select(r => new Review(r.Text, r.Stars))];
        Review[] theirs = [.. reviews.Where(r => r.OfRivals).Select(r => new Review(r.Text, r.Stars))];
        var isOneSided = mine.Length == 0 || theirs.Length == 0;
        var market = !isOneSided && DraftRivals.TermOf(open) is { } term ? await ofMarket.Of(marketId, term, stop) : [];
        var phrases = isOneSided
            ? BuyerPhrases.Frequent([.. mine, .. theirs], mine.Length > 0, MostFrequent, stop)
            : BuyerPhrases.Of(mine, theirs, market.Count > 0 ? market : null, stop);
        var picks = (await db.Picks.Where(p => p.ProductId == open.Listing.ProductId).Select(p => p.Key).ToListAsync(stop)).ToHashSet();
        var terms = await shelves.MeasureTyped(db, marketId, [.. phrases.Select(p => p.Text)], stop);
        var held = Weigher.Weigh(open.Platform, open.Copy, [.. phrases.Select(p => new WantedTerm(p.Text))], stop).Terms;
        // The most telling phrase of a sentence stands for the others.
        var first = phrases.GroupBy(SentenceOf).ToDictionary(g => g.Key, g => g.First().Text);
        return new(
            mine.Length,
            theirs.Length,
            market.Count,
            [
                .. phrases
                    .Select(View)
                    .OrderByDescending(p => p.IsTrueOfMine)
                    .ThenByDescending(p => Math.Abs(p.Z))
                    .ThenByDescending(p => p.Mine + p.Theirs),
            ]
        );

        PhraseView View(BuyerPhrase p, int number) =>
            new(
                p.Text,
                p.Z,
                p.Mine,
                p.Theirs,
                OfRivals(p),
                p.Stars,
                p.Tone,
                OfRivals(p) && p.Tone != ReviewTone.Complaint && p.IsTrueBy(open.Facts),
                terms.GetValueOrDefault(Tokens.Key(p.Text))?.Reading?.Volume,
                picks.Contains(Tokens.Key(p.Text)) ? Tokens.Key(p.Text) : null,
                held[number].Grade,
                Facets.Unbacked(p.Text, open.Facts),
                first[SentenceOf(p)] is var stronger && stronger != p.Text ? stronger : null,
                p.Sentences
            );
    }

    private static (string?, bool) SentenceOf(BuyerPhrase phrase) => (phrase.Sentences is [var first, ..] ? first : null, OfRivals(phrase));

    // A phrase that tells nobody apart is of the side that it was counted for.
    private static bool OfRivals(BuyerPhrase phrase) => phrase.Z < 0 || (phrase.Z == 0 && phrase.Mine == 0);
}
