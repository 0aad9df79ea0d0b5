using TinRabbit.Core.Findings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Write;

/// <summary>What a fill says besides its suggestion: why room is left, and which terms of the shelf would use it.</summary>
internal static class FillAdvice
{
    private const int LookedAt = 300;
    private const int Shown = 6;

    /// <summary>The field with the product's materials that it lacks.</summary>
    public static (IReadOnlyList<string> Items, IReadOnlyList<string> Added) Materials(OpenDraft open, Field field)
    {
        string[] present =
        [
            .. (open.Copy.GetValueOrDefault(field.Key)?.Units(field.Shape) ?? []).Where(i => !string.IsNullOrWhiteSpace(i)),
        ];
        var room = (field.Limit?.MaxItems ?? int.MaxValue) - present.Length;
        string[] added =
        [
            .. open
                .Listing.Product.Facts.Materials.Where(m => Tokens.Of(m).Count > 0 && !present.Any(p => Tokens.HasPhrase(p, m)))
                .Where(m => field.Limit?.Max is not { } max || TextLength.Of(m, field.Limit.Unit) <= max)
                .Take(Math.Max(0, room)),
        ];
        return ([.. present, .. added], added);
    }

    /// <summary>The fill with the reason for the room that it leaves, and terms that would use it.</summary>
    /// <param name="fill">The fill.</param>
    /// <param name="value">The field with it.</param>
    public static async Task<FillView> Add(
        FillView fill,
        FieldValue? value,
        OpenDraft open,
        Field field,
        string marketId,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (field.IsMaterials)
            return fill with
            {
                Note =
                    fill.Pieces.Count > 0 ? null
                    : open.Listing.Product.Facts.Materials.Count == 0 ? WriteMessages.NoMaterials
                    : WriteMessages.AllMaterials,
            };
        if (field.Limit is not { } limit || !shelves.Knows(marketId))
            return fill;
        if (
            RoomUsed.Of(field, value).Filled(field) is not var (used, most)
            || most - used <= ListingToCheck.ThresholdOf(open.Platform, "unusedShare") * most
        )
            return fill;
        var items = field.Shape == FieldShape.Phrases && limit.MaxItems is not null;
        var longest = items ? limit.Max ?? int.MaxValue : most - used - (used > 0 ? field.Separator.Length : 0);
        var offers = await Offers(open, longest, limit.Unit, marketId, db, shelves, stop);
        var shown = offers.Take(items ? Math.Min(Shown, most - used) : Shown).ToList();
        var nothing = field.Shape == FieldShape.Line ? fill.Takes.Count == 0 : fill.Pieces.Count == 0;
        return fill with
        {
            Note = WriteMessages.RoomLeft(open.Picks.Keys.Count, nothing, offers.Count),
            Offers = shown,
            MoreOffers = offers.Count - shown.Count,
        };
    }

    // Terms about the same thing as the product that are no picks yet, that it may claim, and that fit.
    private static async Task<List<ReadTerm>> Offers(
        OpenDraft open,
        int longest,
        Unit unit,
        string marketId,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var facts = open.Facts;
        var about = new[] { facts.What, open.Lead ?? "" }
            .Select(t => Tokens.Of(t).Select(w => w.Word).ToArray())
            .Where(w => w.Length > 0)
            .Select(w => w[StopWords.About(w)])
            .Distinct()
            .ToArray();
        var (ids, norm) = await shelves.Query(
            db,
            marketId,
            s => (about.SelectMany(word => s.Search(new(Has: word, VolumeFrom: 1, Take: LookedAt)).Ids).ToHashSet(), s.Norm),
            stop
        );
        var known = (await db.Picks.Where(p => p.ProductId == open.Listing.ProductId).Select(p => p.Key).ToListAsync(stop)).ToHashSet();
        var avoided = new AvoidedTerms(open.Platform, open.Avoid);
        var terms = await db.Terms.AsNoTracking().Include(t => t.Reading).Where(t => ids.Contains(t.Id)).ToListAsync(stop);
        var offers = terms
            .Where(t => !known.Contains(t.Key) && t.Key.Split(' ').Intersect(about).Any() && TextLength.Of(t.Key, unit) <= longest)
            .Where(t => Facets.Unbacked(t.Key, facts).Count == 0 && avoided.UsesIn(t.Key) == 0)
            .OrderByDescending(t => t.Reading!.Volume)
            .ToList();
        // Terms with every word of what the product is, where there are any: a nest box is no bat box.
        var exact = offers.Where(t => FitByFacts.Of(t.Key, facts) == Core.Measures.Fit.Core).ToList();
        return
        [
            .. (exact.Count > 0 ? exact : offers).Select(t => new ReadTerm(
                t.Text,
                t.Reading!.Volume,
                t.Reading.Competition,
                norm.BandOf(norm.SupplyOf(t.Reading.Competition, t.Reading.TitlesHolding))
            )),
        ];
    }
}
