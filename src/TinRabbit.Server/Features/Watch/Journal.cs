using TinRabbit.Core.Comparing;
using TinRabbit.Core.Watching;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Every change note of the shop, with what it is about.</summary>
/// <param name="notes">The newest first.</param>
/// <param name="listings">The product of each listing, and the name of its platform.</param>
/// <param name="products">The name of each product.</param>
internal sealed class Journal(
    IReadOnlyList<NoteRow> notes,
    IReadOnlyDictionary<int, (int Product, string Platform)> listings,
    IReadOnlyDictionary<int, string> products
)
{
    public static async Task<Journal> Load(TinContext db, CancellationToken stop)
    {
        var notes = await db.Notes.AsNoTracking().OrderByDescending(n => n.At).ThenByDescending(n => n.Id).ToListAsync(stop);
        var listings = (
            await db
                .Listings.Select(l => new
                {
                    l.Id,
                    l.ProductId,
                    l.PlatformId,
                })
                .ToListAsync(stop)
        ).ToDictionary(l => l.Id);
        var names = await db.PlatformNames(stop);
        var products = await db.Products.ToDictionaryAsync(p => p.Id, p => p.Name, stop);
        // A note of a listing that was deleted is not shown while it is.
        notes.RemoveAll(n =>
            (n.ListingId is { } listing && !listings.ContainsKey(listing)) || (n.ProductId is { } product && !products.ContainsKey(product))
        );
        return new(
            notes,
            listings.ToDictionary(l => l.Key, l => (l.Value.ProductId, names.GetValueOrDefault(l.Value.PlatformId, ""))),
            products
        );
    }

    /// <summary>The notes that pass, the newest first.</summary>
    /// <param name="has">Words that the text, the product or the term has; null for any.</param>
    /// <param name="kind">What was changed; null for anything.</param>
    /// <param name="productId">Notes about a product, its listings and the shop; null for all.</param>
    /// <param name="listingId">Notes about a listing, its product and the shop; null for all.</param>
    /// <param name="marketId">Notes about a market, and those about all; null for all.</param>
    public List<NoteRow> Notes(string? has, NoteKind? kind, int? productId, int? listingId, string? marketId)
    {
        var words = has?.Split(' ', StringSplitOptions.RemoveEmptyEntries) ?? [];
        var product = listingId is { } id ? listings.GetValueOrDefault(id).Product : productId;
        return
        [
            .. notes.Where(n =>
                (kind is null || n.Kinds.Contains(kind.Value))
                && (product is null || n.ProductId is null || n.ProductId == product)
                && (listingId is null || n.ListingId is null || n.ListingId == listingId)
                && (marketId is null || n.MarketId is null || n.MarketId == marketId)
                && words.All(w => TextOf(n).Contains(w, StringComparison.OrdinalIgnoreCase))
            ),
        ];
    }

    /// <summary>Notes with what they are about, but not what happened after them.</summary>
    public List<NoteView> Views(IReadOnlyList<NoteRow> some) => [.. some.Select(n => View(n, []))];

    /// <summary>Notes with what happened after them.</summary>
    public async Task<List<NoteView>> Compare(TinContext db, IReadOnlyList<NoteRow> some, CancellationToken stop)
    {
        var effects = await Effects(db, some, stop);
        return
        [
            .. some.Select(n =>
                View(
                    n,
                    CanCompare(n) && effects.Knows(ChangeOf(n))
                        ? [.. Enum.GetValues<DailyMeasure>().Select(m => EffectView.Of(effects.Of(ChangeOf(n), m)))]
                        : []
                )
            ),
        ];
    }

    /// <summary>The days that can be compared around a change of one listing in one market; null for other notes.</summary>
    public (int ListingId, string MarketId, ChangeWindows Windows)? WindowsOf(int noteId)
    {
        if (notes.FirstOrDefault(n => n.Id == noteId) is not { ListingId: { } listing, MarketId: { } market } note || !CanCompare(note))
            return null;
        return (listing, market, ChangeWindows.Of(ChangeOf(note), Notes(null, null, null, listing, market).Select(ChangeOf)));
    }

    /// <summary>For each kind of change that there is, what it did on average.</summary>
    public async Task<List<PooledView>> Pooled(TinContext db, DailyMeasure measure, CancellationToken stop)
    {
        var effects = await Effects(db, notes, stop);
        var compared = notes
            .Where(CanCompare)
            .Select(n => (Note: n, effects.Of(ChangeOf(n), measure).Found.Effect))
            .Where(n => n.Effect is not null)
            .ToList();
        return
        [
            .. Enum.GetValues<NoteKind>()
                .Where(kind => notes.Any(n => n.Kinds.Contains(kind)))
                .Select(kind =>
                {
                    var ofKind = compared.Where(c => c.Note.Kinds.Contains(kind)).ToList();
                    var pooled = PooledDifference.Of([.. ofKind.Select(c => c.Effect!.Value)]);
                    return new PooledView(
                        kind,
                        pooled.Count,
                        ofKind.Count(c => c.Note.Kinds.Count > 1),
                        pooled.Difference,
                        pooled.Low,
                        pooled.High,
                        pooled.Verdict,
                        WatchMessages.Pooled(pooled, measure)
                    );
                })
                .OrderByDescending(p => p.Count),
        ];
    }

    // Figures of the days that these notes are compared on, and the demand for what they touch.
    private async Task<ChangeEffects> Effects(TinContext db, IReadOnlyList<NoteRow> some, CancellationToken stop)
    {
        var compared = some.Where(CanCompare).ToList();
        var products = listings.ToDictionary(l => l.Key, l => l.Value.Product);
        if (compared.Count == 0)
            return new([], new Dictionary<(int, string), Demand>(), [], products);
        var first = compared.Min(n => DateOnly.FromDateTime(n.At)).AddDays(-BeforeAfter.LongestWindow);
        var ofListings = compared.Select(n => n.ListingId).ToHashSet();
        var ofProducts = compared.Where(n => n.ListingId is null).Select(n => n.ProductId).ToHashSet();
        var touched = products
            .Where(l => ofListings.Contains(l.Key) || ofProducts.Contains(l.Value) || ofProducts.Contains(null))
            .Select(l => l.Key)
            .ToHashSet();
        return new(
            await db.SeriesOfShop(first, stop),
            await ListingDemand.Of(db, touched, first, stop),
            [.. notes.Select(ChangeOf)],
            products
        );
    }

    private NoteView View(NoteRow note, IReadOnlyList<EffectView> effects) =>
        new(
            note.Id,
            note.Revision,
            note.At,
            note.CountsFrom,
            note.Kinds,
            note.Text,
            note.SentId is not null,
            note.ProductId,
            ProductOf(note),
            note.ListingId,
            note.ListingId is { } listing ? listings[listing].Platform : null,
            note.MarketId,
            note.TermKey,
            effects
        );

    private static ChangeNote ChangeOf(NoteRow note) =>
        new(note.Id, note.ProductId, note.ListingId, note.MarketId, note.At, note.CountsFrom);

    // The first send has no days before it.
    private static bool CanCompare(NoteRow note) => note.SentId is null || note.Kinds.Count > 0;

    private string? ProductOf(NoteRow note) => note.ProductId is { } id ? products.GetValueOrDefault(id) : null;

    private string TextOf(NoteRow note) => $"{note.Text} {ProductOf(note)} {note.TermKey} {string.Join(' ', note.Kinds)}";
}
