using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;
using static TinRabbit.Server.Features.Pages.RecordDifference;

namespace TinRabbit.Server.Features.Pages;

/// <summary>Adds what a document says that happened and the shop lacks. Nothing that the shop has is changed by it.</summary>
/// <param name="db">The shop.</param>
/// <param name="now">What happened in the shop so far.</param>
/// <param name="textOf">A listing's text as it is stored, from the document's fields and its platform.</param>
internal sealed partial class RecordImport(TinContext db, ShopRecords now, Func<JsonObject, string, ListingText> textOf)
{
    private readonly List<OfListing> _listings = [];
    private readonly List<(ProductRow? Product, bool IsNew, IReadOnlyList<DocumentNote> Notes)> _notes = [];
    private readonly List<(ProductRow Product, bool IsNew, IReadOnlyList<DocumentDig> Digs)> _digs = [];
    private readonly List<(ProductRow Product, bool IsNew, IReadOnlyList<DocumentLikeness> Likeness)> _likeness = [];
    private readonly List<(ListingRow Listing, bool IsNew, string Market, DateTime At)> _live = [];
    private readonly List<IUndoStep> _steps = [];

    // What came to things that were there before: it is deleted by itself when the import is undone.
    private readonly List<IDeletable> _added = [];

    /// <summary>What happened with a listing, and how much of it the shop has.</summary>
    private sealed record OfListing(ListingRow Row, bool IsNew, DocumentRecords Given, DocumentRecords Now);

    /// <summary>Finds what cannot be, before anything is written.</summary>
    /// <exception cref="InvalidInputException">A number cannot be, or a text is none of the platform.</exception>
    public void Check(DocumentRecords given, string platformId)
    {
        ThrowIfImpossible(given);
        foreach (
            var fields in (given.Versions ?? [])
                .Select(v => v.Fields)
                .Concat((given.Sent ?? []).Select(s => s.Fields))
                .Concat((given.Rivals ?? []).SelectMany(r => (JsonObject[])[r.First.Fields, r.Latest.Fields]))
        )
            textOf(fields, platformId);
    }

    /// <summary>Takes what happened with a listing, to be added by <see cref="Run"/>.</summary>
    public void Take(ListingRow listing, DocumentRecords given)
    {
        _listings.Add(new(listing, listing.Id == 0, given, Now(listing)));
        if (given.ArchivedAt is not { } archived || listing.ArchivedAt is not null)
            return;
        listing.ArchivedAt = archived;
        if (listing.Id > 0)
            _steps.Add(new ArchivedState(listing.Id, null));
    }

    /// <summary>Takes what is kept with a product.</summary>
    public void Take(ProductRow product, DocumentProduct given)
    {
        var isNew = product.Id == 0;
        _notes.Add((product, isNew, Lacking(given.Notes, isNew ? [] : now.NotesOf(product.Id), Identity)));
        _digs.Add((product, isNew, given.Digs ?? []));
        _likeness.Add((product, isNew, Lacking(given.Likeness, isNew ? [] : now.LikenessOf(product.Id), Identity)));
    }

    /// <summary>Takes that a listing's text is live in a market since a time, once it is written.</summary>
    public void TakeLive(ListingRow listing, bool isNew, string market, DateTime at) => _live.Add((listing, isNew, market, at));

    /// <summary>Takes change notes about no product.</summary>
    public void Take(IReadOnlyList<DocumentNote>? notes) => _notes.Add((null, false, Lacking(notes, now.Notes, Identity)));

    /// <summary>Adds what was taken, once the products and listings are saved; the caller's transaction commits.</summary>
    /// <returns>What takes it back, but for what goes with a new product or listing.</returns>
    /// <exception cref="InvalidInputException">There would be more of something than its bound.</exception>
    public async Task<IReadOnlyList<IUndoStep>> Run(CancellationToken stop)
    {
        foreach (var listing in _listings)
        {
            stop.ThrowIfCancellationRequested();
            await AddListing(listing, stop);
        }

        await AddLive(stop);
        foreach (var (product, isNew, notes) in _notes)
            AddNotes(notes, product?.Id, null, isNew, _ => null);
        foreach (var (product, isNew, digs) in _digs)
            await AddDigs(product, isNew, digs, stop);
        foreach (var (product, isNew, likeness) in _likeness)
            AddLikeness(product, isNew, likeness);
        await db.SaveChangesAsync(stop);
        if (await db.Notes.CountAsync(stop) > Bounds.Notes)
            throw Wrong($"The shop would have more than {Bounds.Notes:#,0} change notes, the limit.");
        return
        [
            .. _steps,
            .. _added
                .GroupBy(r => r.GetType().Name)
                .Select(g => RemoveRows.Of(g.Key, g.Select(r => (int)db.Entry(r).Property(nameof(ChangeRow.Id)).CurrentValue!))),
        ];
    }

    private void AddLikeness(ProductRow product, bool isNew, IReadOnlyList<DocumentLikeness> likeness)
    {
        foreach (var of in likeness)
        {
            var key = Tokens.Key(of.Term);
            db.Likenesses.Add(
                new()
                {
                    ProductId = product.Id,
                    MarketId = of.Market,
                    Key = key,
                    Judged = of.Judged,
                }
            );
            if (!isNew)
                _steps.Add(new LikenessBefore(product.Id, of.Market, key, null));
        }
    }

    private async Task AddListing(OfListing listing, CancellationToken stop)
    {
        var (row, isNew, given, there) = listing;
        foreach (var version in Lacking(given.Versions, there.Versions, Identity))
            Add(
                new VersionRow
                {
                    ListingId = row.Id,
                    At = version.At,
                    Reason = version.Reason,
                    Copy = textOf(version.Fields, row.PlatformId),
                    Name = version.Name,
                },
                isNew
            );
        foreach (var dismissal in Lacking(given.Dismissed, there.Dismissed, Identity))
        {
            db.Asides.Add(AsideRow.Of(row.Id, dismissal.Key, dismissal.At));
            if (!isNew)
                _steps.Add(new DismissedBefore(row.Id, dismissal.Key, IsDismissed: false));
        }

        foreach (var figure in Lacking(given.Figures, there.Figures, Identity))
            Add(FigureRow.Of(row.Id, figure.Market, new(figure.Day, figure.Views, figure.Clicks, figure.Sales), figure.Source), isNew);
        // How a listing is watched that is there already is the seller's own choice.
        if (isNew)
            foreach (var watch in given.Watches ?? [])
                db.Watches.Add(
                    new()
                    {
                        ListingId = row.Id,
                        MarketId = watch.Market,
                        ChecksDaily = watch.ChecksDaily,
                        PageSize = watch.PageSize,
                        CheckedOn = watch.CheckedOn,
                        FiguresUntil = watch.FiguresUntil,
                    }
                );
        var sent = await AddSent(listing, stop);
        AddNotes(Lacking(given.Notes, there.Notes, Identity), row.ProductId, row.Id, isNew, place => sent.ElementAtOrDefault(place)?.Id);
        await AddRivals(listing, stop);
        await AddChecks(listing, stop);
        db.Release<FigureRow>();
        db.Release<FindRow>();
        db.Release<VersionRow>();
    }

    private async Task<List<SentRow>> AddSent(OfListing listing, CancellationToken stop)
    {
        var there = await db.Sent.Where(s => s.ListingId == listing.Row.Id).ToListAsync(stop);
        var (all, added) = (new List<SentRow>(), new List<SentRow>());
        foreach (var sent in listing.Given.Sent ?? [])
        {
            if (there.FirstOrDefault(s => s.MarketId == sent.Market && s.At == sent.At) is not { } row)
            {
                row = new()
                {
                    ListingId = listing.Row.Id,
                    MarketId = sent.Market,
                    At = sent.At,
                    NoticedAt = sent.NoticedAt,
                    ByHand = sent.ByHand,
                    Copy = textOf(sent.Fields, listing.Row.PlatformId),
                };
                db.Sent.Add(row);
                added.Add(row);
            }

            all.Add(row);
        }

        await db.SaveChangesAsync(stop);
        if (!listing.IsNew)
            _steps.AddRange(added.Select(s => new RemoveLive(s.Id)));
        return all;
    }

    // What was published since is newer.
    private async Task AddLive(CancellationToken stop)
    {
        var listings = _live.Select(l => l.Listing.Id).ToList();
        var before = (
            await db.Sent.AsNoTracking().Where(s => listings.Contains(s.ListingId)).OrderBy(s => s.At).ToListAsync(stop)
        ).ToLookup(s => (s.ListingId, s.MarketId));
        foreach (var (listing, isNew, market, at) in _live)
        {
            var last = before[(listing.Id, market)].LastOrDefault();
            // What was published later counts, and the same text once more is no change.
            if (last is not null && (last.At >= at || last.Copy == listing.Copy))
                continue;
            if (!isNew)
                _steps.Add(await WatchBefore.Of(db, listing.Id, market, stop));
            var sent = SentRow.Live(listing, market, at);
            db.Sent.Add(sent);
            await db.WatchOf(listing.Id, market, stop);
            await db.SaveChangesAsync(stop);
            if (last is not null)
            {
                await db.Entry(listing).Reference(l => l.Platform).LoadAsync(stop);
                await db.NoteSent(listing, sent, last, stop);
                await db.SaveChangesAsync(stop);
                _steps.Add(RemoveRows.Of<NoteRow>(await db.Notes.Where(n => n.SentId == sent.Id).Select(n => n.Id).ToListAsync(stop)));
            }

            if (!isNew)
                _steps.Add(new RemoveLive(sent.Id));
        }
    }

    private void AddNotes(IReadOnlyList<DocumentNote> notes, int? product, int? listing, bool isNew, Func<int, int?> sentAt)
    {
        foreach (var note in notes)
            Add(
                new NoteRow
                {
                    ProductId = product,
                    ListingId = listing,
                    MarketId = note.Market,
                    TermKey = note.Term is { } term ? Tokens.Key(term) : null,
                    At = note.At,
                    CountsFrom = note.CountsFrom,
                    Kinds = [.. note.Kinds],
                    Text = note.Text,
                    SentId = note.Sent is { } place ? sentAt(place) : null,
                },
                isNew
            );
    }

    private async Task AddRivals(OfListing listing, CancellationToken stop)
    {
        var (row, isNew, given, there) = listing;
        var known = await db.Rivals.Where(r => r.ListingId == row.Id).ToListAsync(stop);
        var all = new List<RivalRow>();
        foreach (var rival in given.Rivals ?? [])
            all.Add(
                known.FirstOrDefault(r => Identity(rival) == (r.MarketId, r.SavedAt, r.MarketListing))
                    ?? Add(
                        new RivalRow
                        {
                            ListingId = row.Id,
                            MarketId = rival.Market,
                            MarketListing = rival.MarketListing,
                            Source = rival.Source,
                            SavedAt = rival.SavedAt,
                            First = StateOf(rival.First, row.PlatformId),
                            SeenAt = rival.SeenAt,
                            Latest = StateOf(rival.Latest, row.PlatformId),
                        },
                        isNew
                    )
            );
        await db.SaveChangesAsync(stop);
        if (known.Union(all).Count() is > Bounds.Rivals and var count)
            throw Wrong($"“{row.Product.Name}” would have {count:#,0} rivals on one platform; the most is {Bounds.Rivals:#,0}.");
        foreach (var review in Lacking(given.Reviews, there.Reviews, Identity))
            Add(
                new ReviewRow
                {
                    ListingId = row.Id,
                    OfRivals = review.OfRivals,
                    RivalId = review.Rival is { } place ? all.ElementAtOrDefault(place)?.Id : null,
                    Text = review.Text,
                    Stars = review.Stars,
                    At = review.At,
                    Author = review.Author,
                    Source = review.Source,
                },
                isNew
            );
    }

    // A dig leads to those below it: where the product has digs of its own, they stay as they are.
    private async Task AddDigs(ProductRow product, bool isNew, IReadOnlyList<DocumentDig> digs, CancellationToken stop)
    {
        if (Lacking(digs, isNew ? [] : now.DigsOf(product.Id), Identity).ToHashSet() is not { Count: > 0 } lacking)
            return;
        var all = await db.Digs.Where(d => d.ProductId == product.Id).ToListAsync(stop);
        var rows = digs.Select(d =>
                lacking.Contains(d)
                    ? Add(
                        new DigRow
                        {
                            ProductId = product.Id,
                            MarketId = d.Market,
                            Text = d.Term,
                            Key = Tokens.Key(d.Term),
                            At = d.At,
                        },
                        isNew
                    )
                    : all.FirstOrDefault(r => Identity(d) == (r.MarketId, r.Key, r.At))
            )
            .ToList();
        await db.SaveChangesAsync(stop);
        foreach (var (dig, row) in digs.Zip(rows))
            if (row is not null && lacking.Contains(dig) && dig.Parent is { } place)
                row.ParentId = rows.ElementAtOrDefault(place)?.Id;
    }

    private T Add<T>(T row, bool isNew)
        where T : class, IDeletable
    {
        db.Add(row);
        if (!isNew)
            _added.Add(row);
        return row;
    }

    private RivalState StateOf(DocumentRivalState state, string platformId) =>
        new(
            state.Shop,
            textOf(state.Fields, platformId),
            state.Price,
            state.Rating,
            state.Ratings,
            state.Photos,
            state.Sales,
            state.Views,
            state.Occupancy
        );

    private DocumentRecords Now(ListingRow? listing) => listing is null or { Id: 0 } ? new() : now.Of(listing);

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
