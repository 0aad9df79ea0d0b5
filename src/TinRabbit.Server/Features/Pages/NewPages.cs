using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Pages;

/// <summary>Pages that are added to the web shop, with their listings.</summary>
internal sealed class NewPages
{
    private readonly TinContext _db;
    private readonly ListingEditor _editor;
    private readonly Platform _rules;
    private readonly int _shopId;
    private readonly HashSet<string> _slugs;
    private readonly Dictionary<int, int> _inside;
    private readonly List<TextState> _texts = [];
    private readonly List<ListingRow> _listings = [];
    private int _count;

    private NewPages(TinContext db, ListingEditor editor, Platform rules, int shopId, HashSet<string> slugs, Dictionary<int, int> inside) =>
        (_db, _editor, _rules, _shopId, _slugs, _inside, _count) = (db, editor, rules, shopId, slugs, inside, inside.Values.Sum());

    /// <summary>Gets ready to add pages to those that are there.</summary>
    public static async Task<NewPages> Load(TinContext db, ListingEditor editor, CancellationToken stop) =>
        new(
            db,
            editor,
            await db.PageRules(stop),
            await db.Shops.OrderBy(s => s.Id).Select(s => s.Id).FirstAsync(stop),
            await Slugs(db, stop),
            await db
                .Pages.GroupBy(p => p.ParentId ?? 0)
                .Select(g => new { g.Key, Count = g.Count() })
                .ToDictionaryAsync(g => g.Key, g => g.Count, stop)
        );

    /// <summary>The slugs that pages have.</summary>
    public static async Task<HashSet<string>> Slugs(TinContext db, CancellationToken stop) =>
        (await db.Pages.Where(p => p.Slug != "").Select(p => p.Slug).ToListAsync(stop)).ToHashSet(StringComparer.Ordinal);

    /// <summary>Adds a page about no product; its slug comes from its name until it has a lead.</summary>
    public Task<PageRow> Add(PageKind kind, string name, int? parentId, CancellationToken stop)
    {
        var product = new ProductRow
        {
            Name = name,
            IsPage = true,
            ShopId = _shopId,
        };
        return Add(kind, product, name, parentId, stop);
    }

    /// <summary>Adds the page of a product; its listing on the platform is used where it has one.</summary>
    /// <exception cref="InvalidInputException">There is no such product, or it has a page.</exception>
    public async Task<PageRow> AddProduct(int productId, string? name, int? parentId, CancellationToken stop)
    {
        if (await _db.Products.Include(p => p.Listings).FirstOrDefaultAsync(p => p.Id == productId && !p.IsPage, stop) is not { } product)
            throw new InvalidInputException([new("productId", "There is no such product.")]);
        if (await _db.Pages.Where(p => p.Listing.ProductId == productId).Select(p => p.Id).FirstOrDefaultAsync(stop) is > 0 and var there)
            throw new InvalidInputException([
                new("productId", $"“{(await _db.PageNames([there], stop))[there]}” is this product’s page already."),
            ]);
        return await Add(PageKind.Product, product, name is { Length: > 0 } ? name : product.Name, parentId, stop);
    }

    /// <summary>What takes back that pages were added, once they have numbers.</summary>
    public IReadOnlyList<IUndoStep> Undo(IReadOnlyCollection<PageRow> added) =>
        [
            .. _texts,
            new RemovePages([.. added.Select(p => p.Id)]),
            .. _listings.Count > 0 ? [new RemoveListings([.. _listings.Select(l => l.Id)])] : Array.Empty<IUndoStep>(),
        ];

    private async Task<PageRow> Add(PageKind kind, ProductRow product, string name, int? parentId, CancellationToken stop)
    {
        if (_count >= Bounds.Pages)
            throw new InvalidInputException([new("name", $"A shop has at most {Bounds.Pages:#,0} pages.")]);
        var listing = product.Listings.FirstOrDefault(l => l.PlatformId == _rules.Id);
        var copy = listing?.Copy.Fields() ?? [];
        SetIfEmpty(copy, "heading", name);
        SetIfEmpty(copy, "slug", Core.Pages.Slugs.Of(name, _slugs.Contains));
        var text = ListingText.Of(copy);
        if (listing is null)
        {
            listing = ListingEditor.Add(product, _rules.Id, _db.Now, text);
            if (product.Id == 0)
                _db.Products.Add(product);
            else
                _listings.Add(listing);
        }
        else if (await _editor.Replace(listing, text, VersionReason.PageAdded, stop) is { } changed)
            _texts.Add(changed);

        var siblings = _inside.GetValueOrDefault(parentId ?? 0);
        var page = new PageRow
        {
            Listing = listing,
            Kind = kind,
            ParentId = parentId,
            Order = siblings,
            IsHome = _count == 0 && kind == PageKind.Content,
            CreatedAt = _db.Now,
        };
        ListingEditor.SetHead(page, _rules);
        _db.Pages.Add(page);
        (_inside[parentId ?? 0], _count) = (siblings + 1, _count + 1);
        _slugs.Add(page.Slug);
        return page;
    }

    private void SetIfEmpty(JsonObject copy, string role, string text)
    {
        if (_rules.Role(role) is { } field && copy[field.Key] is not JsonValue)
            copy[field.Key] = text;
    }
}
