using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pages;

// Writes what was chosen, and collects what takes all of it back.
internal sealed partial class ShopImport
{
    private readonly List<TextState> _texts = [];
    private readonly List<LeadState> _leads = [];
    private readonly List<PictureState> _pictures = [];
    private readonly List<ProductState> _states = [];
    private readonly Dictionary<string, string?> _profiles = [];
    private readonly List<ProductRow> _addedProducts = [];
    private readonly HashSet<ListingRow> _addedListings = [];
    private readonly List<(Entry Entry, ListingRow Listing, JsonObject Given)> _written = [];
    private readonly HashSet<PageRow> _addedPages = [];
    private readonly List<TakeRow> _addedTakes = [];
    private readonly List<RedirectRow> _addedRedirects = [];
    private readonly List<FilterRow> _addedFilters = [];
    private readonly List<(ListingRow Listing, IReadOnlyList<DocumentTake> Takes)> _takes = [];
    private readonly List<(Entry Entry, PageRow Page)> _placed = [];
    private readonly List<IUndoStep> _settings = [];

    /// <summary>The seller's own platforms that were imported, each with the shipped one that it resembles.</summary>
    public IEnumerable<(Platform Profile, string Like)> ImportedPlatforms =>
        _givenPlatforms.Where(p => _profiles.ContainsKey(p.Profile.Id));

    /// <summary>The markets that got terms.</summary>
    public IReadOnlyList<string> ChangedShelves => _terms.Changed;

    /// <summary>Imports what is chosen.</summary>
    /// <param name="chosen">Keys of <see cref="ImportItem"/>.</param>
    /// <param name="source">What the document is called.</param>
    /// <param name="live">That the listings' texts are live as they are; null where nobody says so.</param>
    /// <param name="changes">Notes what takes the import back.</param>
    /// <param name="stop">Stops the import; nothing is written then.</param>
    /// <returns>The import as a change; null where it changes nothing.</returns>
    public async Task<Changed?> Run(IReadOnlySet<string> chosen, string source, LiveTexts? live, ChangeLog changes, CancellationToken stop)
    {
        Changed? done = null;
        await db.InOneWrite(
            async () =>
            {
                var (things, steps) = await Apply(chosen, live, stop);
                if (things > 0)
                    done = await changes.Save(PageMessages.ImportedThings(things, source), new(Screen.Settings), steps, stop);
            },
            stop
        );
        return done;
    }

    /// <summary>Imports what is chosen, as a part of another change.</summary>
    /// <param name="chosen">Keys of <see cref="ImportItem"/>; null for everything.</param>
    /// <param name="live">That the listings' texts are live as they are; null where nobody says so.</param>
    /// <param name="stop">Stops the import; nothing is written then.</param>
    /// <returns>How many things were imported, and what takes them back.</returns>
    public async Task<(int Things, IReadOnlyList<IUndoStep> Steps)> Apply(
        IReadOnlySet<string>? chosen,
        LiveTexts? live,
        CancellationToken stop
    )
    {
        (int, IReadOnlyList<IUndoStep>) done = (0, []);
        await db.InOneWrite(
            async () =>
            {
                var keys = (await PlanShop(stop))
                    .Where(i => i.State != ImportState.Unchanged && (chosen?.Contains(i.Key) ?? true))
                    .Select(i => i.Key)
                    .ToHashSet(StringComparer.Ordinal);
                var terms = await _terms.Run(market => chosen?.Contains(TermsImport.KeyOf(market)) ?? true, stop);
                var recordings =
                    chosen?.Contains(ShopRecordings.Key) ?? true
                        ? await ShopRecordings.Add(db, await ShopRecordings.Lacking(db, document.Recordings, stop), stop)
                        : [];
                if (keys.Count == 0 && terms.Count == 0 && recordings.Count == 0)
                    return;
                _settings.AddRange(terms);
                _settings.AddRange(recordings);
                ThrowIfPlatformIsMissing(keys);
                var pagesBefore = _pages.Select(PageState.Of).ToList();
                await ApplySettings(keys, stop);
                var shopId = await db.Shops.OrderBy(s => s.Id).Select(s => s.Id).FirstAsync(stop);
                foreach (var entry in _entries.Where(e => IsChosen(e, keys)))
                    Apply(entry, keys, shopId);
                await db.SaveChangesAsync(stop);
                // What is new has a number from here on.
                await WriteTexts(stop);
                await db.SaveChangesAsync(stop);
                await AddTakes(stop);
                foreach (var (_, listing, _) in _written)
                    if (live?.MarketOf(listing.PlatformId) is { } market && !listing.Copy.IsEmpty)
                        _records.TakeLive(listing, _addedListings.Contains(listing), market, live.At);
                _settings.AddRange(await _records.Run(stop));
                await AddRedirects(stop);
                Place();
                await db.SaveChangesAsync(stop);
                done = (keys.Count + _terms.Changed.Count + recordings.Count, Before(pagesBefore));
            },
            stop
        );
        return done;
    }

    private List<IUndoStep> Before(IReadOnlyList<PageState> pages)
    {
        var added = _addedProducts.Select(p => p.Id).ToHashSet();
        var listings = _addedListings.Where(l => !added.Contains(l.ProductId)).Select(l => l.Id).ToHashSet();
        var addedPages = _addedPages.Where(p => !added.Contains(p.Listing.ProductId) && !listings.Contains(p.ListingId)).Select(p => p.Id);
        List<IUndoStep> steps =
        [
            new PagesBefore(PageState.Changed(pages, _pages)),
            .. _texts,
            .. _leads,
            .. _pictures,
            .. _states,
            .. _settings,
            .. _profiles.Where(p => p.Value is not null).Select(p => new ProfileBefore(p.Key, p.Value!)),
            RemoveRows.Of<TakeRow>(_addedTakes.Select(t => t.Id)),
            RemoveRows.Of<FilterRow>(_addedFilters.Select(f => f.Id)),
            new RedirectsBefore(_addedRedirects.ToDictionary(r => r.From, _ => (int?)null)),
            RemoveRows.Of<PageRow>(addedPages),
            new RemoveListings([.. listings]),
            new RemoveProducts([.. added]),
            new RemoveRows(nameof(PlatformRow), [.. _profiles.Where(p => p.Value is null).Select(p => p.Key)]),
        ];
        return steps;
    }

    private static bool IsChosen(Entry entry, HashSet<string> keys) =>
        keys.Contains(entry.ProductKey) || entry.Listings.Any(l => keys.Contains(entry.ListingKey(l.Platform)));

    private void ThrowIfPlatformIsMissing(HashSet<string> keys)
    {
        foreach (var (profile, _) in _givenPlatforms)
            if (
                _platformRows.GetValueOrDefault(profile.Id) is not { DeletedAt: null }
                && !keys.Contains(PlatformKey(profile.Id))
                && _entries.FirstOrDefault(e => keys.Contains(e.ListingKey(profile.Id))) is { } entry
            )
                throw new InvalidInputException([
                    Wrong($"“{entry.Given.Name}” has a listing on {profile.Name}. Choose the platform {profile.Name} too."),
                ]);
    }

    private async Task ApplySettings(HashSet<string> keys, CancellationToken stop)
    {
        if (document.Shop is { } shop && keys.Contains(ShopKey))
        {
            var row = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
            _settings.Add(ShopNames.Of(row));
            new ShopNames(NewName.Check(shop.Name), shop.Currency, CountriesOf(shop), shop.Language).ApplyTo(row);
            if (shop.OwnWords is { } words)
            {
                _settings.Add(new OwnWordsBefore(row.OwnWords));
                row.OwnWords = words;
            }

            _addedFilters.AddRange(
                (document.Filters ?? new Dictionary<string, string>())
                    .Where(f => !_filters.ContainsKey(f.Key))
                    .Select(f => new FilterRow { Name = NewName.Check(f.Key), Filters = f.Value })
            );
            db.Filters.AddRange(_addedFilters);
            List<UploadShapeRow> shapes =
            [
                .. GivenShapes.Where(g => !_shapes.Exists(s => s.PlatformId == g.PlatformId && s.Columns.SequenceEqual(g.Columns))),
            ];
            db.UploadShapes.AddRange(shapes);
            await db.SaveChangesAsync(stop);
            _settings.Add(RemoveRows.Of<UploadShapeRow>(shapes.Select(s => s.Id)));
            _records.Take(document.Notes);
        }

        if (document.Site is { } site && keys.Contains(SiteKey))
        {
            var row = await db.Site(stop);
            _settings.Add(SiteState.Of(row));
            new SiteState(site.Brand, site.Address, site.Language, site.Country, site.TitleSuffix).ApplyTo(row);
            if (row.Id == 0)
                db.Sites.Add(row);
        }

        foreach (var (profile, like) in _givenPlatforms.Where(p => keys.Contains(PlatformKey(p.Profile.Id))))
        {
            if (!_platformRows.TryGetValue(profile.Id, out var row))
                db.Platforms.Add(
                    row = new()
                    {
                        Id = profile.Id,
                        Profile = profile,
                        DeletedAt = db.Now,
                    }
                );
            _profiles[profile.Id] = row.DeletedAt is null ? Profiles.Write(row.Profile) : null;
            (row.Profile, row.Revision, row.DeletedAt) = (profile, row.Revision + 1, null);
            row.Like ??= like;
        }
    }

    private void Apply(Entry entry, HashSet<string> keys, int shopId)
    {
        if (entry.Subject.Row is not { } product)
        {
            entry.Subject.Row = product = new()
            {
                Name = NewName.Check(NameOf(entry.Given)),
                IsPage = entry.Given.IsPage,
                IsIdea = entry.Given.IsIdea,
                ShopId = shopId,
            };
            db.Products.Add(product);
            _addedProducts.Add(product);
        }

        // A new product comes with all that is known of it.
        if (keys.Contains(entry.ProductKey) || product.Id == 0)
            ApplyFacts(entry.Given, product);
        foreach (var listing in entry.Listings.Where(l => keys.Contains(entry.ListingKey(l.Platform))))
            ApplyListing(entry, product, listing);
    }

    private void ApplyFacts(DocumentProduct given, ProductRow product)
    {
        _records.Take(product, given);
        var (factsBefore, picksBefore) = (product.Facts, new Dictionary<string, PickState?>());
        if (given.Facts is { } facts)
            (product.Facts, product.Revision) = (facts, product.Revision + 1);
        if (given.Pictures is { } pictures)
        {
            var before = product.PictureStates();
            product.SetPictures([.. Merged(pictures, product)]);
            if (product.Id > 0)
                _pictures.Add(new(product.Id, before, product.PictureStates()));
        }

        if (given.Picks is { } picks)
            ApplyPicks(picks, product, picksBefore);
        if (product.Id > 0)
            _states.Add(new(product.Id, given.Facts is null ? null : factsBefore, picksBefore));
    }

    private void ApplyPicks(IReadOnlyList<DocumentPick> picks, ProductRow product, Dictionary<string, PickState?> before)
    {
        var there = PicksOf(product).ToDictionary(p => p.Key);
        var order = 0;
        foreach (var (pick, key) in picks.Select(p => (p, Tokens.Key(p.Text))).Where(p => p.Item2.Length > 0).DistinctBy(p => p.Item2))
        {
            before[key] = there.Remove(key, out var row) ? PickState.Of(row) : null;
            if (row is null)
                db.Picks.Add(
                    row = new()
                    {
                        Product = product,
                        Text = pick.Text,
                        Key = key,
                    }
                );
            new PickState(pick.Text, pick.Fit, pick.Home, pick.Note, pick.Source, ++order)
            {
                SaidBy = pick.SaidBy,
                Language = pick.Language,
                FitByHand = pick.FitByHand,
            }.ApplyTo(row);
        }

        foreach (var (key, gone) in there)
        {
            before[key] = PickState.Of(gone);
            db.Picks.Remove(gone);
        }
    }

    private void ApplyListing(Entry entry, ProductRow product, DocumentListing listing)
    {
        var row = product.Listings.FirstOrDefault(l => l.PlatformId == listing.Platform);
        if (row is null)
        {
            row = ListingEditor.Add(product, listing.Platform, db.Now);
            _addedListings.Add(row);
        }

        if (listing.Details is { } details)
        {
            if (row.Id > 0)
                _settings.Add(new DetailsBefore(row.Id, row.Details));
            row.Details = details;
        }

        _written.Add((entry, row, TextsToStore(listing.Fields, _platforms[listing.Platform])));
        if (listing.Records is { } records)
            _records.Take(row, records);
        if (LeadKeyOf(listing) is { } lead && lead != row.LeadKey)
        {
            if (row.Id > 0)
                _leads.Add(new(row.Id, row.LeadKey, lead));
            ListingEditor.SetLead(row, lead);
        }

        if (listing.Takes is { Count: > 0 } takes)
            _takes.Add((row, takes));
        if (listing.Platform == _rules.Id && entry.Given.Page is not null)
            _placed.Add((entry, PageOf(entry, row)));
    }

    private PageRow PageOf(Entry entry, ListingRow listing)
    {
        if (entry.Subject.Page is { } there)
            return there;
        var page = new PageRow
        {
            ListingId = listing.Id,
            Listing = listing,
            Order = _pages.Count,
            CreatedAt = db.Now,
        };
        entry.Subject.Page = page;
        db.Pages.Add(page);
        _pages.Add(page);
        _addedPages.Add(page);
        return page;
    }

    // Once all pages have numbers of this shop, the links get them.
    private async Task WriteTexts(CancellationToken stop)
    {
        var ids = _pages.Select(p => p.Id).ToHashSet();
        foreach (var (entry, listing, given) in _written)
        {
            // A link to a page that is not there leads nowhere, also where another page has its number here.
            if (entry.Place is not null && listing.PlatformId == _rules.Id)
                Renumber(given, _rules, id => _entryOfPage.GetValueOrDefault(id)?.Subject.Page?.Id ?? (ids.Contains(id) ? 0 : id));
            var fields = listing.Copy.Fields();
            foreach (var (key, value) in given)
                fields[key] = value?.DeepClone();
            if (
                await editor.Replace(listing, ListingText.Of(fields), VersionReason.Import, stop) is { } text
                && !_addedListings.Contains(listing)
            )
                _texts.Add(text);
        }

        foreach (var page in _addedPages)
            ListingEditor.SetHead(page, _rules);
    }

    private async Task AddTakes(CancellationToken stop)
    {
        var listings = _takes.Select(t => t.Listing.Id).ToList();
        var kept = (await db.Takes.Where(t => listings.Contains(t.ListingId)).Select(t => new { t.ListingId, t.Text }).ToListAsync(stop))
            .Select(t => (t.ListingId, t.Text))
            .ToHashSet();
        foreach (var (listing, takes) in _takes)
        foreach (var take in takes)
            if (take.Text.Trim() is { Length: > 0 } text && kept.Add((listing.Id, text)))
                _addedTakes.Add(
                    new()
                    {
                        ListingId = listing.Id,
                        At = take.At ?? db.Now,
                        Text = text,
                        Name = take.Name,
                    }
                );
        db.Takes.AddRange(_addedTakes);
    }

    // Old slugs of the pages that were imported: none that a page has now.
}
