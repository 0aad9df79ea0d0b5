using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pages;

/// <summary>What happened in the shop, as documents: read once for all of its listings and products.</summary>
internal sealed class ShopRecords
{
    private readonly ILookup<int, VersionRow> _versions;
    private readonly ILookup<int, AsideRow> _asides;
    private readonly ILookup<int, SentRow> _sent;
    private readonly ILookup<int, WatchRow> _watches;
    private readonly ILookup<int, FollowedTermRow> _followed;
    private readonly ILookup<int, CheckRow> _checks;
    private readonly ILookup<int, FindRow> _finds;
    private readonly ILookup<int, FigureRow> _figures;
    private readonly ILookup<int, RivalRow> _rivals;
    private readonly ILookup<int, ReviewRow> _reviews;
    private readonly ILookup<int, DigRow> _digs;
    private readonly ILookup<int, LikenessRow> _likeness;
    private readonly ILookup<(int? Product, int? Listing), NoteRow> _notes;
    private readonly Dictionary<int, FollowedTermRow> _terms;

    private ShopRecords(
        IReadOnlyList<VersionRow> versions,
        IReadOnlyList<AsideRow> asides,
        IReadOnlyList<SentRow> sent,
        IReadOnlyList<WatchRow> watches,
        IReadOnlyList<FollowedTermRow> followed,
        IReadOnlyList<CheckRow> checks,
        IReadOnlyList<FindRow> finds,
        IReadOnlyList<FigureRow> figures,
        IReadOnlyList<RivalRow> rivals,
        IReadOnlyList<ReviewRow> reviews,
        IReadOnlyList<DigRow> digs,
        IReadOnlyList<LikenessRow> likeness,
        IReadOnlyList<NoteRow> notes
    )
    {
        _versions = versions.ToLookup(v => v.ListingId);
        _asides = asides.ToLookup(a => a.ListingId);
        _sent = sent.ToLookup(s => s.ListingId);
        _watches = watches.ToLookup(w => w.ListingId);
        _followed = followed.ToLookup(f => f.ListingId);
        _checks = checks.ToLookup(c => c.ListingId);
        _finds = finds.ToLookup(f => f.CheckId);
        _figures = figures.ToLookup(f => f.ListingId);
        _rivals = rivals.ToLookup(r => r.ListingId);
        _reviews = reviews.ToLookup(r => r.ListingId);
        _digs = digs.ToLookup(d => d.ProductId);
        _likeness = likeness.ToLookup(l => l.ProductId);
        _notes = notes.ToLookup(n => (n.ProductId, n.ListingId));
        _terms = followed.ToDictionary(t => t.Id);
    }

    /// <summary>Nothing has happened.</summary>
    public static readonly ShopRecords None = new([], [], [], [], [], [], [], [], [], [], [], [], []);

    /// <summary>Change notes about no product.</summary>
    public IReadOnlyList<DocumentNote> Notes => [.. _notes[(null, null)].Select(n => NoteOf(n, []))];

    /// <summary>Reads them.</summary>
    public static async Task<ShopRecords> Load(TinContext db, CancellationToken stop) =>
        new(
            await db.Versions.AsNoTracking().OrderBy(v => v.Id).ToListAsync(stop),
            await db.Asides.AsNoTracking().OrderBy(a => a.Id).ToListAsync(stop),
            await db.Sent.AsNoTracking().OrderBy(s => s.At).ThenBy(s => s.Id).ToListAsync(stop),
            await db.Watches.AsNoTracking().OrderBy(w => w.MarketId).ToListAsync(stop),
            // What was followed once is in old checks.
            await db.FollowedTerms.IgnoreQueryFilters().AsNoTracking().OrderBy(t => t.Id).ToListAsync(stop),
            await db.Checks.AsNoTracking().OrderBy(c => c.At).ThenBy(c => c.Id).ToListAsync(stop),
            await db.Finds.AsNoTracking().ToListAsync(stop),
            await db.Figures.AsNoTracking().OrderBy(f => f.Day).ThenBy(f => f.Id).ToListAsync(stop),
            await db.Rivals.AsNoTracking().OrderBy(r => r.Id).ToListAsync(stop),
            await db.Reviews.AsNoTracking().OrderBy(r => r.Id).ToListAsync(stop),
            await db.Digs.AsNoTracking().OrderBy(d => d.Id).ToListAsync(stop),
            await db.Likenesses.AsNoTracking().OrderBy(l => l.MarketId).ThenBy(l => l.Key).ToListAsync(stop),
            await db.Notes.AsNoTracking().OrderBy(n => n.At).ThenBy(n => n.Id).ToListAsync(stop)
        );

    /// <summary>What happened with a listing.</summary>
    public DocumentRecords Of(ListingRow listing)
    {
        var (sent, rivals) = (_sent[listing.Id].ToList(), _rivals[listing.Id].ToList());
        return new(
            listing.ArchivedAt,
            [.. _versions[listing.Id].Select(v => new DocumentVersion(v.At, v.Reason, v.Copy.Fields(), v.Name))],
            [.. _asides[listing.Id].Select(a => new DocumentDismissal(a.Key, a.At))],
            [.. sent.Select(s => new DocumentSent(s.MarketId, s.At, s.NoticedAt, s.ByHand, s.Copy.Fields()))],
            [.. _notes[(listing.ProductId, listing.Id)].Select(n => NoteOf(n, sent))],
            [.. _watches[listing.Id].Select(w => new DocumentWatch(w.MarketId, w.ChecksDaily, w.PageSize, w.CheckedOn, w.FiguresUntil))],
            [.. _followed[listing.Id].Where(t => t.DeletedAt is null).Select(t => new DocumentFollowed(t.MarketId, t.Text))],
            [.. _checks[listing.Id].Select(CheckOf)],
            [.. _figures[listing.Id].Select(f => new DocumentFigure(f.MarketId, f.Day, f.Source, f.Views, f.Clicks, f.Sales))],
            [
                .. rivals.Select(r => new DocumentRival(
                    r.MarketId,
                    r.Source,
                    r.SavedAt,
                    StateOf(r.First),
                    r.SeenAt,
                    StateOf(r.Latest),
                    r.MarketListing
                )),
            ],
            [
                .. _reviews[listing.Id]
                    .Select(r => new DocumentReview(
                        r.Text,
                        r.Source,
                        r.OfRivals,
                        Place(rivals.FindIndex(v => v.Id == r.RivalId)),
                        r.Stars,
                        r.At,
                        r.Author
                    )),
            ]
        );
    }

    /// <summary>Change notes about a product and none of its listings.</summary>
    public IReadOnlyList<DocumentNote> NotesOf(int product) => [.. _notes[(product, null)].Select(n => NoteOf(n, []))];

    /// <summary>What was dug for a product.</summary>
    public IReadOnlyList<DocumentDig> DigsOf(int product)
    {
        var digs = _digs[product].ToList();
        return [.. digs.Select(d => new DocumentDig(d.MarketId, d.Text, d.At, Place(digs.FindIndex(p => p.Id == d.ParentId))))];
    }

    /// <summary>Which results were judged to be like a product.</summary>
    public IReadOnlyList<DocumentLikeness> LikenessOf(int product) =>
        [.. _likeness[product].Where(l => l.Judged.Count > 0).Select(l => new DocumentLikeness(l.MarketId, l.Key, l.Judged))];

    private DocumentCheck CheckOf(CheckRow check) =>
        new(
            check.MarketId,
            check.At,
            check.Day,
            check.Source,
            check.State,
            check.IsDaily,
            check.Problem,
            [
                .. _finds[check.Id]
                    .OrderBy(f => _terms[f.TermId].Key, StringComparer.Ordinal)
                    .Select(f => new DocumentFind(_terms[f.TermId].Text, f.IsDone, f.Found, f.Rank, f.Results)),
            ]
        );

    private static DocumentNote NoteOf(NoteRow note, List<SentRow> sent) =>
        new(note.At, note.CountsFrom, note.Kinds, note.Text, note.MarketId, note.TermKey, Place(sent.FindIndex(s => s.Id == note.SentId)));

    private static DocumentRivalState StateOf(RivalState state) =>
        new(
            state.Shop,
            state.Copy.Fields(),
            state.Price,
            state.Rating,
            state.Ratings,
            state.Photos,
            state.Sales,
            state.Views,
            state.Occupancy
        );

    private static int? Place(int index) => index < 0 ? null : index;
}
