using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Server.Formats;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Pages;

/// <summary>What an imported thing is against the shop.</summary>
public enum ImportState
{
    New,
    Changed,
    Unchanged,
}

/// <summary>Something that an import would create or change.</summary>
/// <param name="Key">Names it in the choice of what to import.</param>
/// <param name="What">What it is, as a word: page, product, listing on a platform, settings.</param>
/// <param name="Changes">What would be different, by field.</param>
public sealed record ImportItem(string Key, string What, string Name, ImportState State, IReadOnlyList<ItemChange> Changes);

/// <summary>A field that an import would change.</summary>
public sealed record ItemChange(string Label, string Before, string After);

/// <summary>Compares a document with the shop, and imports what is chosen of it: all in one write, or nothing.</summary>
internal sealed class ShopImport(TinContext db, ShopDocument document)
{
    private const string SiteKey = "site";
    private const string ShopKey = "shop";

    private readonly List<int> _added = [];
    private readonly List<TextState> _texts = [];
    private readonly List<PictureState> _pictures = [];
    private List<ProductRow> _products = [];
    private List<PageRow> _pages = [];
    private Dictionary<string, Platform> _platforms = [];
    private Platform _rules = null!;

    /// <summary>Everything in the document, with what importing it would change. Nothing is written.</summary>
    public async Task<IReadOnlyList<ImportItem>> Plan(CancellationToken stop)
    {
        await Load(stop);
        var items = new List<ImportItem>();
        if (document.Shop is { } shop)
        {
            var now = await db.Shops.AsNoTracking().OrderBy(s => s.Id).FirstAsync(stop);
            items.Add(
                Item(ShopKey, "settings", shop.Name, false, [("Shop name", now.Name, shop.Name), ("Currency", now.Currency, shop.Currency)])
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

        foreach (var platform in document.Platforms ?? [])
        {
            var profile = PlatformJson.Read(JsonSerializer.SerializeToElement(platform.Profile));
            var now = await db.Platforms.AsNoTracking().FirstOrDefaultAsync(p => p.Id == profile.Id, stop);
            items.Add(
                Item(
                    PlatformKey(profile.Id),
                    "platform",
                    profile.Name,
                    now is null,
                    [("Profile", now is null ? "" : Normal(now.Profile), Normal(PlatformJson.Write(profile).ToJsonString()))]
                )
            );
        }

        foreach (var (product, index) in (document.Products ?? []).Select((p, i) => (p, i)))
            items.AddRange(await PlanProduct(product, index, stop));
        return items;
    }

    /// <summary>Imports what is chosen, and says how to take it back.</summary>
    /// <param name="chosen">Keys of <see cref="ImportItem"/>.</param>
    /// <param name="stop">Stops the import; nothing is written then.</param>
    /// <returns>How many things were imported, and what was there before.</returns>
    public async Task<(int Count, ShopState Before)> Run(IReadOnlySet<string> chosen, CancellationToken stop)
    {
        var plan = (await Plan(stop)).Where(i => chosen.Contains(i.Key) && i.State != ImportState.Unchanged).ToList();
        var keys = plan.Select(i => i.Key).ToHashSet(StringComparer.Ordinal);
        var pagesBefore = _pages.Select(PageState.Of).ToList();
        await db.InOneWrite(
            async () =>
            {
                await ApplySettings(keys, stop);
                var numbers = new Dictionary<int, PageRow>();
                foreach (var (product, index) in (document.Products ?? []).Select((p, i) => (p, i)))
                    if (keys.Contains(ProductKey(index)) || (product.Listings ?? []).Any(l => keys.Contains(ListingKey(index, l.Platform))))
                        await Apply(product, index, keys, numbers, stop);
                    else if (product.Page is { Id: > 0 } page && FindPage(product) is { } there)
                        numbers[page.Id] = there;
                await Place(numbers, keys, stop);
                foreach (var (from, to) in document.Redirects ?? new Dictionary<string, string>())
                    if (
                        _pages.FirstOrDefault(p => p.Slug == to) is { } target
                        && _pages.All(p => p.Slug != from)
                        && !await db.Redirects.AnyAsync(r => r.From == from, stop)
                    )
                        db.Redirects.Add(new() { From = from, PageId = target.Id });
                await db.SaveChangesAsync(stop);
            },
            stop
        );
        return (plan.Count, new(pagesBefore, _texts, _pictures) { Added = _added });
    }

    private async Task Load(CancellationToken stop)
    {
        _products = await db
            .Products.Include(p => p.Pictures)
            .Include(p => p.Picks)
            .Include(p => p.Listings)
            .OrderBy(p => p.Id)
            .ToListAsync(stop);
        _pages = await db.AllPages(stop);
        _platforms = (await db.Platforms.AsNoTracking().ToListAsync(stop)).ToDictionary(p => p.Id, p => PlatformJson.Read(p.Profile));
        foreach (var platform in document.Platforms ?? [])
            if (PlatformJson.Read(JsonSerializer.SerializeToElement(platform.Profile)) is var profile)
                _platforms.TryAdd(profile.Id, profile);
        _rules = await PageTree.Platform(db, stop);
    }

    private Task<IReadOnlyList<ImportItem>> PlanProduct(DocumentProduct product, int index, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        var now = Find(product);
        var items = new List<ImportItem>();
        if (product.Facts is not null || product.Pictures is not null || product.Picks is not null)
        {
            var changes = new List<(string, string, string)>();
            if (product.Facts is { } facts)
                changes.Add(("Facts", now is null ? "" : Normal(now.Facts), Normal(facts)));
            if (product.Pictures is { } pictures)
                changes.Add(
                    (
                        "Pictures",
                        now is null ? "" : string.Join('\n', now.PictureStates().Select(Described)),
                        string.Join('\n', Merged(pictures, now).Select(Described))
                    )
                );
            if (product.Picks is { } picks)
                changes.Add(
                    (
                        "Picks",
                        now is null
                            ? ""
                            : string.Join('\n', now.Picks.OrderBy(p => p.Order).ThenBy(p => p.Id).Select(p => Described(PickOf(p)))),
                        string.Join('\n', picks.Select(Described))
                    )
                );
            items.Add(Item(ProductKey(index), product.IsPage ? "page’s facts and picks" : "product", product.Name, now is null, changes));
        }

        foreach (var listing in product.Listings ?? [])
        {
            var platform =
                _platforms.GetValueOrDefault(listing.Platform)
                ?? throw new InvalidInputException([
                    new("file", $"“{product.Name}” has a listing on “{listing.Platform}”, a platform that is not there."),
                ]);
            var stored = now?.Listings.FirstOrDefault(l => l.PlatformId == listing.Platform);
            var (before, after) = (stored is null ? [] : Listings.Parse(stored.Copy), Checked(listing, platform));
            var isPage = listing.Platform == _rules.Id && product.Page is not null;
            var changes = after.Select(f => (platform.Find(f.Key)?.Label ?? f.Key, Written(before[f.Key]), Written(f.Value))).ToList();
            if (listing.Lead is not null)
                changes.Add(("Lead", stored?.LeadKey ?? "", listing.Lead));
            if (isPage && product.Page is { Id: > 0 } page && FindPage(product) is { } there)
                changes.Add(("State", State(there.Kind, there.InMenu, there.IsPublished), State(page.Kind, page.InMenu, page.IsPublished)));
            items.Add(
                Item(
                    ListingKey(index, listing.Platform),
                    isPage ? "page" : $"listing on {platform.Name}",
                    isPage && Written(after[_rules.Fields.FirstOrDefault(f => f.Role == "heading")?.Key ?? ""]) is { Length: > 0 } name
                        ? name
                        : product.Name,
                    stored is null || (isPage && FindPage(product) is null),
                    changes
                )
            );
        }

        return Task.FromResult<IReadOnlyList<ImportItem>>(items);
    }

    private async Task ApplySettings(HashSet<string> keys, CancellationToken stop)
    {
        if (document.Shop is { } shop && keys.Contains(ShopKey))
        {
            var row = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
            (row.Name, row.Currency) = (NewName.Check(shop.Name), shop.Currency);
        }

        if (document.Site is { } site && keys.Contains(SiteKey))
        {
            var row = await db.Site(stop);
            (row.Brand, row.Address, row.Language) = (site.Brand, site.Address, site.Language);
            (row.Country, row.TitleSuffix, row.Revision) = (site.Country, site.TitleSuffix, row.Revision + 1);
            if (row.Id == 0)
                db.Sites.Add(row);
        }

        foreach (var platform in document.Platforms ?? [])
        {
            var profile = PlatformJson.Read(JsonSerializer.SerializeToElement(platform.Profile));
            if (!keys.Contains(PlatformKey(profile.Id)))
                continue;
            var row = await db.Platforms.FirstOrDefaultAsync(p => p.Id == profile.Id, stop);
            if (row is null)
                db.Platforms.Add(
                    new()
                    {
                        Id = profile.Id,
                        Profile = PlatformJson.Write(profile).ToJsonString(),
                        Like = platform.Like,
                    }
                );
            else
                (row.Profile, row.Revision) = (PlatformJson.Write(profile).ToJsonString(), row.Revision + 1);
        }

        await db.SaveChangesAsync(stop);
    }

    private async Task Apply(
        DocumentProduct given,
        int index,
        HashSet<string> keys,
        Dictionary<int, PageRow> numbers,
        CancellationToken stop
    )
    {
        var product = Find(given);
        if (product is null)
        {
            product = new()
            {
                Name = NewName.Check(given.Name.Length > Core.Bounds.NameLength ? given.Name[..Core.Bounds.NameLength] : given.Name),
                IsPage = given.IsPage,
                ShopId = await db.Shops.OrderBy(s => s.Id).Select(s => s.Id).FirstAsync(stop),
            };
            db.Products.Add(product);
            _products.Add(product);
            await db.SaveChangesAsync(stop);
            _added.Add(product.Id);
        }

        // A new product comes with all that is known of it.
        if (keys.Contains(ProductKey(index)) || _added.Contains(product.Id))
            ApplyFacts(given, product);
        foreach (var listing in (given.Listings ?? []).Where(l => keys.Contains(ListingKey(index, l.Platform))))
            await ApplyListing(given, product, listing, numbers, stop);
    }

    private void ApplyFacts(DocumentProduct given, ProductRow product)
    {
        if (given.Facts is { } facts)
            (product.Facts, product.Revision) = (facts, product.Revision + 1);
        if (given.Pictures is { } pictures)
        {
            var before = product.PictureStates();
            product.SetPictures([.. Merged(pictures, product).Take(Core.Bounds.Pictures)]);
            _pictures.Add(new(product.Id, before, product.PictureStates()));
        }

        if (given.Picks is not { } picks)
            return;
        var order = 0;
        foreach (var pick in picks.Where(p => Tokens.Key(p.Text).Length > 0).DistinctBy(p => Tokens.Key(p.Text)))
        {
            var key = Tokens.Key(pick.Text);
            var row = product.Picks.FirstOrDefault(p => p.Key == key);
            if (row is null)
                product.Picks.Add(row = new() { Text = pick.Text, Key = key });
            (row.Text, row.Fit, row.Home, row.Note) = (pick.Text, pick.Fit, pick.Home, pick.Note);
            (row.Source, row.SaidBy, row.Language, row.Order) = (pick.Source, pick.SaidBy, pick.Language, ++order);
        }

        foreach (var gone in product.Picks.Where(p => picks.All(k => Tokens.Key(k.Text) != p.Key)).ToList())
            gone.DeletedAt = DateTime.UtcNow;
    }

    private async Task ApplyListing(
        DocumentProduct given,
        ProductRow product,
        DocumentListing listing,
        Dictionary<int, PageRow> numbers,
        CancellationToken stop
    )
    {
        var row = product.Listings.FirstOrDefault(l => l.PlatformId == listing.Platform);
        if (row is null)
        {
            row = new() { PlatformId = listing.Platform, SavedAt = DateTime.UtcNow };
            product.Listings.Add(row);
            await db.SaveChangesAsync(stop);
        }

        var before = row.Copy;
        var copy = Listings.Parse(before);
        foreach (var (key, value) in Checked(listing, _platforms[listing.Platform]))
            copy[key] = value?.DeepClone();
        await db.SaveVersion(row, "before an import", "", stop);
        (row.Copy, row.Revision, row.LeadKey) = (copy.ToJsonString(Listings.Json), row.Revision + 1, listing.Lead ?? row.LeadKey);
        _texts.Add(new(row.Id, before, row.Copy));
        foreach (var take in listing.Takes ?? [])
            if (take.Text.Trim().Length > 0 && !await db.Takes.AnyAsync(t => t.ListingId == row.Id && t.Text == take.Text, stop))
                db.Takes.Add(
                    new()
                    {
                        ListingId = row.Id,
                        At = DateTime.UtcNow,
                        Text = take.Text,
                        Name = take.Name,
                    }
                );
        if (listing.Platform != _rules.Id || given.Page is not { } page)
            return;
        var there = _pages.FirstOrDefault(p => p.ListingId == row.Id);
        if (there is null)
        {
            there = new()
            {
                ListingId = row.Id,
                Listing = row,
                Order = _pages.Count(p => p.ParentId is null),
                CreatedAt = DateTime.UtcNow,
            };
            db.Pages.Add(there);
            _pages.Add(there);
        }

        there.Slug = Sites.TextOf(row.Copy, _rules, "slug");
        // A page or a table says nothing of the state of a page that is there already.
        if (page.Id > 0 || there.Id == 0)
        {
            (there.Kind, there.InMenu, there.IsPublished) = (page.Kind, page.InMenu, page.IsPublished);
            (there.HasSuffix, there.LiveSlug) = (page.HasSuffix, page.IsPublished ? page.LiveSlug ?? there.Slug : page.LiveSlug);
        }

        await db.SaveChangesAsync(stop);
        if (page.Id > 0)
            numbers[page.Id] = there;
    }

    // Pages get their parents, and links their pages, once all of them have numbers of this shop.
    private async Task Place(Dictionary<int, PageRow> numbers, HashSet<string> keys, CancellationToken stop)
    {
        foreach (var (product, index) in (document.Products ?? []).Select((p, i) => (p, i)))
        {
            if (
                product.Page is not { Id: > 0 } page
                || !numbers.TryGetValue(page.Id, out var row)
                || !keys.Contains(ListingKey(index, _rules.Id))
            )
                continue;
            row.ParentId = page.Parent is { } parent && numbers.TryGetValue(parent, out var above) && above != row ? above.Id : null;
            row.Order = page.Order;
            row.AlsoIn = [.. (page.AlsoIn ?? []).Where(numbers.ContainsKey).Select(id => numbers[id].Id)];
            if (page.IsHome)
                foreach (var other in _pages)
                    other.IsHome = other == row;
            if (_rules.Fields.FirstOrDefault(f => f.Role == "body") is not { } field)
                continue;
            var copy = Listings.Parse(row.Listing.Copy);
            if (
                copy[field.Key] is not JsonValue html
                || !html.TryGetValue<string>(out var body)
                || !body.Contains(RichLink.PagePrefix, StringComparison.Ordinal)
            )
                continue;
            copy[field.Key] = Renumbered(body, numbers);
            row.Listing.Copy = copy.ToJsonString(Listings.Json);
            _texts[_texts.FindIndex(t => t.ListingId == row.ListingId)] = _texts.First(t => t.ListingId == row.ListingId) with
            {
                After = row.Listing.Copy,
            };
        }

        await db.SaveChangesAsync(stop);
    }

    // A link to a page that is not in the document stays as it is written.
    private static string Renumbered(string html, Dictionary<int, PageRow> numbers) =>
        System.Text.RegularExpressions.Regex.Replace(
            html,
            "\"page:(\\d{1,9})\"",
            m =>
                numbers.TryGetValue(int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture), out var page)
                    ? $"\"page:{page.Id}\""
                    : m.Value
        );

    // A page is found by its slug; a product by its name.
    private ProductRow? Find(DocumentProduct product) =>
        FindPage(product) is { } page
            ? _products.FirstOrDefault(p => p.Id == page.Listing.ProductId)
            : _products.FirstOrDefault(p =>
                p.IsPage == product.IsPage && string.Equals(p.Name, product.Name.Trim(), StringComparison.OrdinalIgnoreCase)
            );

    private PageRow? FindPage(DocumentProduct product) =>
        product.Page is not null
        && product.Listings?.FirstOrDefault(l => l.Platform == _rules.Id) is { } listing
        && _rules.Fields.FirstOrDefault(f => f.Role == "slug") is { } field
        && listing.Fields[field.Key] is JsonValue value
        && value.TryGetValue<string>(out var slug)
        && slug.Length > 0
            ? _pages.FirstOrDefault(p => p.Slug == slug)
            : null;

    // The texts as they are stored: every one within its shape, HTML without what a browser would run.
    private static JsonObject Checked(DocumentListing listing, Platform platform)
    {
        var known = new JsonObject(
            listing.Fields.Where(f => platform.Find(f.Key) is not null).Select(f => KeyValuePair.Create(f.Key, f.Value?.DeepClone()))
        );
        var fields = CopyJson.Write(CopyJson.Read(JsonSerializer.SerializeToElement(known), platform));
        foreach (var field in platform.Fields.Where(f => f.Shape == FieldShape.Rich))
            if (fields[field.Key] is JsonValue html)
                fields[field.Key] = RichText.Sanitize(html.GetValue<string>());
        return fields;
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
            (p, i) => new OnePicture(p.Alt, p.Shows ?? (i < now.Count ? now[i].Shows : ""), p.File ?? (i < now.Count ? now[i].File : null))
        );
    }

    private static string ProductKey(int index) => $"product {index}";

    private static string ListingKey(int index, string platform) => $"listing {index} {platform}";

    private static string PlatformKey(string id) => $"platform {id}";

    private static string State(PageKind kind, bool inMenu, bool isPublished) =>
        $"{kind.ToString().ToLowerInvariant()}, {(inMenu ? "in the menu" : "not in the menu")}, {(isPublished ? "published" : "draft")}";

    private static string Described(OnePicture picture) => string.Join(" | ", picture.Alt, picture.Shows, picture.File ?? "");

    private static string Described(DocumentPick pick) =>
        string.Join(" | ", pick.Text, pick.Fit, pick.Home, pick.Note, pick.Source, pick.SaidBy, pick.Language);

    private static DocumentPick PickOf(PickRow p) => new(p.Text, p.Fit, p.Home, p.Note, p.Source, p.SaidBy, p.Language);

    private static string Normal(object value) => JsonSerializer.Serialize(value, JsonSerializerOptions.Web);

    private static string Normal(string json) => JsonNode.Parse(json)!.ToJsonString();

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
            _ => node.ToJsonString(Listings.Json),
        };
}
