using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Html;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Pictures;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pages;

/// <summary>Compares a document with the shop, and imports what is chosen of it: all in one write, or nothing.</summary>
internal sealed partial class ShopImport(TinContext db, ListingEditor editor, ShopDocument document)
{
    private const string SiteKey = "site";
    private const string ShopKey = "shop";

    private readonly Dictionary<string, Platform> _platforms = new(StringComparer.Ordinal);
    private readonly List<(Platform Profile, string Like)> _givenPlatforms = [];
    private Dictionary<string, PlatformRow> _platformRows = [];
    private List<Entry> _entries = [];
    private Dictionary<int, Entry> _entryOfPage = [];
    private List<ProductRow> _products = [];
    private ILookup<int, PickRow> _picks = Array.Empty<PickRow>().ToLookup(p => p.ProductId);
    private List<PageRow> _pages = [];
    private Dictionary<int, PageRow> _pageById = [];
    private Platform _rules = null!;
    private ShopRecords _happened = ShopRecords.None;
    private RecordImport _records = null!;
    private readonly TermsImport _terms = new(db, document.Terms);
    private Dictionary<string, string> _filters = [];
    private List<UploadShapeRow> _shapes = [];

    /// <summary>Everything in the document, with what importing it would change. Nothing is written.</summary>
    /// <exception cref="InvalidInputException">The document contradicts itself, or names a platform that is not there.</exception>
    public async Task<IReadOnlyList<ImportItem>> Plan(CancellationToken stop)
    {
        var items = await PlanShop(stop);
        foreach (var (market, now, terms, readings) in await _terms.Plan(stop))
            items.Add(
                Item(
                    TermsImport.KeyOf(market),
                    "terms and their numbers",
                    market,
                    now == 0 && terms > 0,
                    [("Terms", $"{now:#,0}", $"{now + terms:#,0}"), ("Readings", "", readings == 0 ? "" : $"{readings:#,0} more")]
                )
            );
        if (document.Recordings.Count > 0)
        {
            var (now, lacking) = (await db.Recordings.CountAsync(stop), await ShopRecordings.Lacking(db, document.Recordings, stop));
            items.Add(
                Item(ShopRecordings.Key, "recordings of markets", "", false, [("Pages", $"{now:#,0}", $"{now + lacking.Count:#,0}")])
            );
        }

        return items;
    }

    // All but the terms, of which there may be a million: they find what the shop lacks when they are added.
    private async Task<List<ImportItem>> PlanShop(CancellationToken stop)
    {
        await Load(stop);
        var items = new List<ImportItem>();
        if (document.Shop is { } shop)
        {
            var now = await db.Shops.AsNoTracking().OrderBy(s => s.Id).FirstAsync(stop);
            items.Add(
                Item(
                    ShopKey,
                    "settings",
                    shop.Name,
                    false,
                    [
                        ("Shop name", now.Name, shop.Name),
                        ("Currency", now.Currency, shop.Currency),
                        ("Countries", Listed(now.Countries), Listed(CountriesOf(shop) ?? now.Countries)),
                        ("Language", now.Language, shop.Language ?? now.Language),
                        ("Own words", Described(now.OwnWords), Described(shop.OwnWords ?? now.OwnWords)),
                        (
                            "Saved filters",
                            Listed(_filters.Keys.Order(StringComparer.Ordinal)),
                            Listed(_filters.Keys.Union(document.Filters?.Keys ?? []).Order(StringComparer.Ordinal))
                        ),
                        (
                            "Layouts of exports",
                            Listed(_shapes.Select(s => s.Heads)),
                            Listed(_shapes.Select(s => s.Heads).Union(GivenShapes.Select(s => s.Heads)))
                        ),
                        .. RecordDifference.Of(document.Notes, _happened.Notes),
                    ]
                )
            );
        }

        if (document.Site is { } site)
        {
            var now = await db.Site(stop);
            items.Add(
                Item(
                    SiteKey,
                    "site settings",
                    site.Brand,
                    now.Id == 0,
                    [
                        ("Brand", now.Brand, site.Brand),
                        ("Address", now.Address, site.Address),
                        ("Language", now.Language, site.Language),
                        ("Country", now.Country, site.Country),
                        ("Added to page titles", now.TitleSuffix, site.TitleSuffix),
                    ]
                )
            );
        }

        foreach (var (profile, _) in _givenPlatforms)
        {
            var now = _platformRows.GetValueOrDefault(profile.Id) is { DeletedAt: null } row ? row : null;
            items.Add(
                Item(
                    PlatformKey(profile.Id),
                    "platform",
                    profile.Name,
                    now is null,
                    [("Profile", now is null ? "" : Profiles.Write(now.Profile), Profiles.Write(profile))]
                )
            );
        }

        foreach (var entry in _entries)
        {
            stop.ThrowIfCancellationRequested();
            items.AddRange(PlanProduct(entry));
        }

        return items;
    }

    private async Task Load(CancellationToken stop)
    {
        _platformRows = await db.Platforms.IgnoreQueryFilters().ToDictionaryAsync(p => p.Id, stop);
        foreach (var row in _platformRows.Values.Where(r => r.DeletedAt is null))
            _platforms[row.Id] = row.Profile;
        foreach (var platform in document.Platforms ?? [])
        {
            var profile = PlatformJson.Read(JsonSerializer.SerializeToElement(platform.Profile));
            _givenPlatforms.Add((profile, platform.Like));
            _platforms[profile.Id] = profile;
        }

        _rules = await db.PageRules(stop);
        _products = await db.Products.Include(p => p.Pictures).Include(p => p.Listings).OrderBy(p => p.Id).ToListAsync(stop);
        _picks = (await db.Picks.ToListAsync(stop)).ToLookup(p => p.ProductId);
        _pages = await db.AllPages(stop);
        _pageById = _pages.ToDictionary(p => p.Id);
        _shapes = await db.UploadShapes.AsNoTracking().OrderBy(s => s.Id).ToListAsync(stop);
        _filters = await db.Filters.AsNoTracking().ToDictionaryAsync(f => f.Name, f => f.Filters, stop);
        // A table or a page tells of nothing that happened.
        _happened = HasRecords ? await ShopRecords.Load(db, stop) : ShopRecords.None;
        _records = new(db, _happened, (fields, platform) => ListingText.Of(TextsToStore(fields, _platforms[platform])));
        Resolve();
        ThrowIfContradictory();
    }

    private IEnumerable<UploadShapeRow> GivenShapes =>
        (document.Shapes ?? []).Select(s => new UploadShapeRow
        {
            PlatformId = s.Platform,
            Heads = string.Join('\t', s.Columns.Select(c => c.Head)),
            Columns = s.Columns,
        });

    private bool HasRecords =>
        document.Notes is not null
        || document.Products?.Any(p =>
            p.Notes is not null || p.Digs is not null || p.Likeness is not null || p.Listings?.Any(l => l.Records is not null) == true
        ) == true;

    private IEnumerable<ImportItem> PlanProduct(Entry entry)
    {
        var (given, now) = (entry.Given, entry.Subject.Row);
        if (entry.HasMoreThanTexts)
        {
            var changes = new List<(string, string, string)>();
            if (given.Facts is { } facts)
                changes.Add(("Facts", Normal(now?.Facts), Normal(facts)));
            if (given.Pictures is { } pictures)
                changes.Add(
                    (
                        "Pictures",
                        string.Join('\n', (now?.PictureStates() ?? []).Select(Described)),
                        string.Join('\n', Merged(pictures, now).Select(Described))
                    )
                );
            if (given.Picks is { } picks)
                changes.Add(
                    (
                        "Picks",
                        string.Join('\n', PicksOf(now).OrderBy(p => p.Order).ThenBy(p => p.Id).Select(p => Described(PickOf(p)))),
                        string.Join('\n', picks.Select(Described))
                    )
                );
            changes.AddRange(RecordDifference.Of(given.Notes, now is null ? [] : _happened.NotesOf(now.Id)));
            changes.AddRange(RecordDifference.Of(given.Digs, now is null ? [] : _happened.DigsOf(now.Id)));
            changes.AddRange(RecordDifference.Of(given.Likeness, now is null ? [] : _happened.LikenessOf(now.Id)));
            yield return Item(entry.ProductKey, given.IsPage ? "page’s facts and picks" : "product", given.Name, now is null, changes);
        }

        foreach (var listing in entry.Listings)
        {
            var platform = _platforms[listing.Platform];
            var stored = now?.Listings.FirstOrDefault(l => l.PlatformId == listing.Platform);
            var (before, after) = (stored is null ? [] : stored.Copy.Fields(), TextsToStore(listing.Fields, platform));
            Renumber(after, platform, id => _entryOfPage.GetValueOrDefault(id)?.Subject.Page?.Id ?? id);
            var isPage = listing.Platform == _rules.Id && given.Page is not null;
            var changes = after.Select(f => (platform.Find(f.Key)?.Label ?? f.Key, Written(before[f.Key]), Written(f.Value))).ToList();
            if (LeadKeyOf(listing) is { } lead)
                changes.Add(("Lead", stored?.LeadKey ?? "", lead));
            if (listing.Details is { } details)
                changes.AddRange(DetailChanges(stored?.Details ?? new(), details));
            if (listing.Records is { } records)
            {
                _records.Check(records, listing.Platform);
                changes.AddRange(RecordDifference.Of(records, stored is null ? new() : _happened.Of(stored)));
            }
            if (isPage && entry.Place is { } place && entry.Subject.Page is { } page)
                changes.AddRange(PlaceChanges(place, page));
            yield return Item(
                entry.ListingKey(listing.Platform),
                isPage ? "page" : $"listing on {platform.Name}",
                isPage ? PageNameOf(entry) : given.Name,
                stored is null || (isPage && entry.Subject.Page is null),
                changes
            );
        }
    }

    private IEnumerable<(string, string, string)> PlaceChanges(DocumentPage place, PageRow page)
    {
        yield return (
            "State",
            State(page.Kind, page.IsHome, page.InMenu, page.IsPublished, page.HasSuffix),
            State(place.Kind, place.IsHome, place.InMenu, place.IsPublished, place.HasSuffix)
        );
        yield return (
            "Place",
            Place(page.ParentId is { } parent ? NameNow(parent) : null, page.Order),
            Place(place.Parent is { } above && _entryOfPage.TryGetValue(above, out var entry) ? PageNameOf(entry) : null, place.Order)
        );
        yield return (
            "Also in",
            string.Join('\n', page.AlsoIn.Select(NameNow)),
            string.Join('\n', (place.AlsoIn ?? []).Where(_entryOfPage.ContainsKey).Select(id => PageNameOf(_entryOfPage[id])))
        );

        string? NameNow(int id) => _pageById.GetValueOrDefault(id)?.NameOf(_rules);
        static string Place(string? parent, int order) => $"{(parent is null ? "at the top" : $"in “{parent}”")}, no. {order + 1}";
    }

    private static IEnumerable<(string, string, string)> DetailChanges(ListingDetails now, ListingDetails given)
    {
        yield return ("Listing number", now.Number, given.Number);
        yield return ("SKU", now.Sku, given.Sku);
        yield return ("Price", Priced(now), Priced(given));
        yield return ("Quantity", $"{now.Quantity}", $"{given.Quantity}");
        yield return ("Address", now.Address, given.Address);
        yield return ("Pictures", Listed(now.Pictures ?? []), Listed(given.Pictures ?? []));
        yield return ("Other columns", Others(now), Others(given));

        static string Priced(ListingDetails details) =>
            details.Price is { } price ? $"{price.ToString(CultureInfo.InvariantCulture)} {details.Currency}".TrimEnd() : "";
        static string Others(ListingDetails details) =>
            Listed((details.Others ?? new Dictionary<string, string>()).Select(o => $"{o.Key}: {o.Value}"));
    }

    private string PageNameOf(Entry entry) =>
        entry.Listings.FirstOrDefault(l => l.Platform == _rules.Id) is { } listing
        && ListingText.Of(listing.Fields).TextOf(_rules, "heading") is { Length: > 0 } heading
            ? heading
            : entry.Given.Name;

    private static string? LeadKeyOf(DocumentListing listing) =>
        listing.Lead is { } lead && Tokens.Key(lead) is { Length: > 0 } key ? key : null;

    // The texts as they are stored: every one within its shape, HTML without what a browser would run.
    private static JsonObject TextsToStore(JsonObject fields, Platform platform) =>
        RichText.SanitizeFields(
            CopyJson.Write(
                CopyJson.Read(
                    JsonSerializer.SerializeToElement(
                        new JsonObject(
                            fields
                                .Where(f => platform.Find(f.Key) is not null)
                                .Select(f => KeyValuePair.Create(f.Key, f.Value?.DeepClone()))
                        )
                    ),
                    platform
                )
            ),
            platform
        );

    // Links of a body lead to pages by their numbers in the document; here they get those of the shop.
    private static void Renumber(JsonObject fields, Platform platform, Func<int, int> numberOf)
    {
        if (
            platform.Role("body") is { } field
            && fields[field.Key] is JsonValue value
            && value.TryGetValue<string>(out var body)
            && body.Contains(RichLink.PagePrefix, StringComparison.Ordinal)
        )
            fields[field.Key] = RichText.WithPageNumbers(body, numberOf);
    }

    private static ImportItem Item(
        string key,
        string what,
        string name,
        bool isNew,
        IReadOnlyList<(string Label, string Before, string After)> changes
    )
    {
        var different = changes.Where(c => c.Before != c.After).Select(c => new ItemChange(c.Label, c.Before, c.After)).ToList();
        return new(
            key,
            what,
            name,
            isNew ? ImportState.New
                : different.Count > 0 ? ImportState.Changed
                : ImportState.Unchanged,
            different
        );
    }

    // What the document does not say of a picture stays as it is.
    private static IEnumerable<OnePicture> Merged(IReadOnlyList<DocumentPicture> pictures, ProductRow? product)
    {
        var now = product?.PictureStates() ?? [];
        return pictures.Select(
            (p, i) =>
                new OnePicture(
                    p.Alt,
                    p.Shows ?? (i < now.Count ? now[i].Shows : ""),
                    p.File ?? (i < now.Count ? now[i].File : null),
                    p.IsLocked ?? (i < now.Count && now[i].IsLocked)
                )
        );
    }

    private static string PlatformKey(string id) => $"platform {id}";

    private static string State(PageKind kind, bool isHome, bool inMenu, bool isPublished, bool hasSuffix) =>
        string.Join(
            ", ",
            isHome ? "home page" : kind.ToString().ToLowerInvariant(),
            inMenu ? "in the menu" : "not in the menu",
            isPublished ? "published" : "draft",
            hasSuffix ? "title with what the site adds" : "title without what the site adds"
        );

    private static string Described(OnePicture picture) => string.Join(" | ", picture.Alt, picture.Shows, picture.File ?? "");

    private static string Described(IEnumerable<OwnWord> words) => string.Join('\n', words.Select(w => $"{w.Word} | {w.Facet}"));

    // A country that only a newer program knows is left out.
    private static List<string>? CountriesOf(DocumentShop shop) => shop.Countries?.Where(Countries.All.ContainsKey).ToList();

    private static string Listed(IEnumerable<string> items) => string.Join('\n', items);

    private static string Described(DocumentPick pick) =>
        string.Join(" | ", pick.Text, pick.Fit, pick.Home, pick.Note, pick.Source, pick.SaidBy, pick.Language);

    private IEnumerable<PickRow> PicksOf(ProductRow? product) => product is null ? [] : _picks[product.Id];

    private static DocumentPick PickOf(PickRow p) => new(p.Text, p.Fit, p.Home, p.Note, p.Source, p.SaidBy, p.Language);

    private static string Normal(Facts? facts) => facts is null ? "" : JsonSerializer.Serialize(facts, JsonSerializerOptions.Web);

    private static string Written(JsonNode? node) =>
        node switch
        {
            null => "",
            JsonValue value when value.TryGetValue<string>(out var text) => text,
            // A line each: no item has a line break of its own.
            JsonArray items when items.All(i => i is JsonValue v && v.TryGetValue<string>(out _)) => string.Join(
                '\n',
                items.Select(i => i!.GetValue<string>())
            ),
            _ => node.ToJsonString(ListingText.Format),
        };

    private static Problem Wrong(string message) => new("file", message);
}
