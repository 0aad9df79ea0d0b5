using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Files.Html;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Features.Pages;

/// <summary>The pages of the web shop as a tree that is changed: a page is never inside itself, and each parent's pages are numbered without gaps.</summary>
internal sealed class PageTree(TinContext db, ListingEditor editor, Platform rules, List<PageRow> pages, int shopId)
{
    private readonly List<TextState> _texts = [];
    private readonly List<ListingRow> _listings = [];

    /// <summary>The platform whose rules the pages have.</summary>
    public Platform Rules => rules;

    /// <summary>All pages.</summary>
    public IReadOnlyList<PageRow> Pages => pages;

    /// <summary>Loads the tree to change it.</summary>
    public static async Task<PageTree> Load(TinContext db, ListingEditor editor, CancellationToken stop) =>
        new(
            db,
            editor,
            await Platform(db, stop),
            await db.AllPages(stop),
            await db.Shops.OrderBy(s => s.Id).Select(s => s.Id).FirstAsync(stop)
        );

    /// <summary>The platform whose rules pages have.</summary>
    public static async Task<Platform> Platform(TinContext db, CancellationToken stop)
    {
        var id = (await db.Site(stop)).PlatformId;
        return await db.Platforms.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, stop) is { } row
            ? row.Profile
            : throw new InvalidInputException([new("platform", $"The platform “{id}” of the web shop was deleted. Restore it first.")]);
    }

    /// <summary>The pages that a body links to, by id.</summary>
    public static IEnumerable<int> LinksIn(string body) =>
        body.Contains(RichLink.PagePrefix, StringComparison.Ordinal) ? RichBody.Read(body).Links.Select(l => l.PageId).OfType<int>() : [];

    /// <summary>The text of each page's lead, by the page's id.</summary>
    public static async Task<IReadOnlyDictionary<int, string>> Leads(TinContext db, IReadOnlyList<PageRow> pages, CancellationToken stop)
    {
        var keys = pages.Select(p => p.Listing.LeadKey).OfType<string>().Distinct().ToList();
        var picks = (await db.Picks.AsNoTracking().Where(p => keys.Contains(p.Key)).ToListAsync(stop)).ToLookup(p => (p.ProductId, p.Key));
        return pages
            .Where(p => p.Listing.LeadKey is not null)
            .ToDictionary(p => p.Id, p => picks[(p.Listing.ProductId, p.Listing.LeadKey!)].FirstOrDefault()?.Text ?? p.Listing.LeadKey!);
    }

    /// <summary>A page; null where there is none.</summary>
    public PageRow? Find(int id) => pages.FirstOrDefault(p => p.Id == id);

    /// <summary>The pages inside a page, at any depth.</summary>
    public IReadOnlyList<PageRow> Inside(PageRow page)
    {
        var inside = new List<PageRow>();
        for (var next = new Queue<int>([page.Id]); next.TryDequeue(out var id); )
            foreach (var child in pages.Where(p => p.ParentId == id && !inside.Contains(p) && p != page))
            {
                inside.Add(child);
                next.Enqueue(child.Id);
            }

        return inside;
    }

    /// <summary>The pages whose body links to one of some pages; those themselves left out.</summary>
    public IEnumerable<PageRow> LinkingTo(IReadOnlyCollection<PageRow> targets) =>
        pages.Where(p => !targets.Contains(p) && LinksIn(p.TextOf(rules, "body")).Any(id => targets.Any(t => t.Id == id)));

    /// <summary>Whether there is such a parent, and room for a page inside it.</summary>
    public void CheckParent(int? id)
    {
        if (id is { } parent && Find(parent) is null)
            throw new InvalidInputException([new("parentId", "That page was deleted meanwhile.")]);
        ThrowIfTooDeep(id, 1);
    }

    /// <summary>Puts a product into categories: its page is inside the primary one, and shown in the others.</summary>
    /// <exception cref="InvalidInputException">One of them is no category.</exception>
    public void SetCategories(PageRow page, int? primary, IReadOnlyList<int> others)
    {
        if (others.Concat(primary is { } one ? [one] : []).Any(id => Find(id)?.Kind != PageKind.Category))
            throw new InvalidInputException([new("categories", "A product can only be in pages of the kind category.")]);
        if (primary != page.ParentId)
            Move(page, primary, int.MaxValue);
        page.AlsoIn = [.. others.Where(id => id != primary).Distinct()];
    }

    /// <summary>What an outline would create.</summary>
    /// <exception cref="InvalidInputException">A name is there already under the same parent.</exception>
    public List<PlannedPage> Plan(IReadOnlyList<OutlineLine> lines, int? parentId)
    {
        CheckParent(parentId);
        if (pages.Count + lines.Count > Core.Bounds.Pages)
            throw new InvalidInputException([new("text", $"A shop has at most {Core.Bounds.Pages:#,0} pages.")]);
        if (lines.Count == 0)
            throw new InvalidInputException([new("text", "Paste a list of names, one on each line.")]);
        var siblings = pages.Where(p => p.ParentId == parentId).ToDictionary(p => p.Id, p => p.NameOf(rules));
        var problems = lines
            .Where(l => l.Inside < 0 && siblings.Values.Contains(l.Name, StringComparer.OrdinalIgnoreCase))
            .Select(l => new Problem($"line {l.Number}", $"Line {l.Number}: there is a page “{l.Name}” here already."))
            .ToList();
        if (problems.Count > 0)
            throw new InvalidInputException(problems);
        var (taken, levels, planned) = (Taken(), new List<int>(), new List<PlannedPage>());
        foreach (var line in lines)
        {
            levels.Add(line.Inside < 0 ? 0 : levels[line.Inside] + 1);
            var slug = Slugs.Of(line.Name, taken.Contains);
            taken.Add(slug);
            planned.Add(new(line.Number, line.Name, slug, levels[^1]));
        }

        ThrowIfTooDeep(parentId, levels.Max() + 1);
        return planned;
    }

    /// <summary>Adds a page about no product; its slug comes from its name until it has a lead.</summary>
    public Task<PageRow> Add(PageKind kind, string name, int? parentId, CancellationToken stop)
    {
        var product = new ProductRow
        {
            Name = name,
            IsPage = true,
            ShopId = shopId,
        };
        return Add(kind, product, name, parentId, stop);
    }

    /// <summary>Puts the pages of an outline inside each other, once they have numbers.</summary>
    /// <param name="made">A page for each line, all inside the same one.</param>
    /// <param name="lines">The outline.</param>
    public void Nest(IReadOnlyList<PageRow> made, IReadOnlyList<OutlineLine> lines)
    {
        for (var i = 0; i < made.Count; i++)
            if (lines[i].Inside >= 0)
                made[i].ParentId = made[lines[i].Inside].Id;
        foreach (var parent in made.Select(m => m.ParentId).Distinct())
            Number([.. pages.Where(p => p.ParentId == parent).OrderBy(p => p.Order).ThenBy(p => p.Id)]);
    }

    /// <summary>Adds the page of a product; its listing on the platform is used where it has one.</summary>
    public async Task<PageRow> AddProduct(int productId, string? name, int? parentId, CancellationToken stop)
    {
        if (await db.Products.Include(p => p.Listings).FirstOrDefaultAsync(p => p.Id == productId && !p.IsPage, stop) is not { } product)
            throw new InvalidInputException([new("productId", "There is no such product.")]);
        if (pages.FirstOrDefault(p => p.Listing.ProductId == productId) is { } there)
            throw new InvalidInputException([new("productId", $"“{there.NameOf(rules)}” is this product’s page already.")]);
        return await Add(PageKind.Product, product, name is { Length: > 0 } ? name : product.Name, parentId, stop);
    }

    /// <summary>Moves a page, and numbers the pages of both parents anew.</summary>
    /// <exception cref="InvalidInputException">It would be inside itself, or too deep.</exception>
    public void Move(PageRow page, int? parentId, int order)
    {
        if (parentId == page.Id || (parentId is { } id && Inside(page).Any(p => p.Id == id)))
            throw new InvalidInputException([new("parentId", $"“{page.NameOf(rules)}” can’t be inside itself.")]);
        ThrowIfTooDeep(parentId, HeightOf(page));
        var from = page.ParentId;
        page.ParentId = parentId;
        page.AlsoIn = [.. page.AlsoIn.Where(a => a != parentId)];
        var there = pages.Where(p => p.ParentId == parentId && p != page).OrderBy(p => p.Order).ThenBy(p => p.Id).ToList();
        there.Insert(Math.Clamp(order, 0, there.Count), page);
        Number(there);
        if (from != parentId)
            Number([.. pages.Where(p => p.ParentId == from).OrderBy(p => p.Order).ThenBy(p => p.Id)]);
    }

    /// <summary>Puts the words of links to some pages in the place of the links; each text before it is kept as a version.</summary>
    public async Task<IReadOnlyList<TextState>> RemoveLinks(IReadOnlyCollection<PageRow> targets, CancellationToken stop)
    {
        var texts = new List<TextState>();
        if (rules.Role("body") is not { } field)
            return texts;
        foreach (var page in LinkingTo(targets).ToList())
        {
            var copy = page.Listing.Copy.Fields();
            copy[field.Key] = RichText.WithoutLinks(
                copy[field.Key]!.GetValue<string>(),
                address => targets.Any(t => address == $"{RichLink.PagePrefix}{t.Id}")
            );
            if (await editor.Replace(page.Listing, ListingText.Of(copy), VersionReason.LinksRemoved, stop) is { } text)
                texts.Add(text);
        }

        return texts;
    }

    /// <summary>Those of some earlier states that pages no longer have.</summary>
    public PagesBefore Changed(IReadOnlyList<PageState> before) => new(PageState.Changed(before, pages));

    /// <summary>What takes back that pages were added, once they have numbers.</summary>
    public IReadOnlyList<IUndoStep> Added(IReadOnlyCollection<PageRow> added) =>
        [
            .. _texts,
            new RemovePages([.. added.Select(p => p.Id)]),
            .. _listings.Count > 0 ? [new RemoveListings([.. _listings.Select(l => l.Id)])] : Array.Empty<IUndoStep>(),
        ];

    /// <summary>Every page as it is.</summary>
    public IReadOnlyList<PageState> States() => [.. pages.Select(PageState.Of)];

    private HashSet<string> Taken() => pages.Select(p => p.Slug).Where(s => s.Length > 0).ToHashSet(StringComparer.Ordinal);

    private async Task<PageRow> Add(PageKind kind, ProductRow product, string name, int? parentId, CancellationToken stop)
    {
        if (pages.Count >= Core.Bounds.Pages)
            throw new InvalidInputException([new("name", $"A shop has at most {Core.Bounds.Pages:#,0} pages.")]);
        var listing = product.Listings.FirstOrDefault(l => l.PlatformId == rules.Id);
        var copy = listing?.Copy.Fields() ?? [];
        SetIfEmpty(copy, "heading", name);
        SetIfEmpty(copy, "slug", Slugs.Of(name, Taken().Contains));
        var text = ListingText.Of(copy);
        if (listing is null)
        {
            listing = ListingEditor.Add(product, rules.Id, db.Now, text);
            if (product.Id == 0)
                db.Products.Add(product);
            else
                _listings.Add(listing);
        }
        else if (await editor.Replace(listing, text, VersionReason.PageAdded, stop) is { } changed)
            _texts.Add(changed);

        var page = new PageRow
        {
            Listing = listing,
            Kind = kind,
            ParentId = parentId,
            Order = pages.Count(p => p.ParentId == parentId),
            IsHome = pages.Count == 0 && kind == PageKind.Content,
            CreatedAt = db.Now,
        };
        ListingEditor.SetSlug(page, rules);
        db.Pages.Add(page);
        pages.Add(page);
        return page;
    }

    private void SetIfEmpty(JsonObject copy, string role, string text)
    {
        if (rules.Role(role) is { } field && copy[field.Key] is not JsonValue)
            copy[field.Key] = text;
    }

    // How many levels a page and those inside it have.
    private int HeightOf(PageRow page)
    {
        var height = 0;
        for (List<PageRow> level = [page]; level.Count > 0 && height <= Outline.MostLevels; height++)
        {
            var ids = level.Select(p => p.Id).ToHashSet();
            level = [.. pages.Where(p => p.ParentId is { } id && ids.Contains(id))];
        }

        return height;
    }

    private void ThrowIfTooDeep(int? parentId, int height)
    {
        for (var above = parentId; above is { } id && height <= Outline.MostLevels; above = Find(id)?.ParentId)
            height++;
        if (height > Outline.MostLevels)
            throw new InvalidInputException([new("parentId", $"Pages can be at most {Outline.MostLevels} levels deep.")]);
    }

    private static void Number(List<PageRow> siblings)
    {
        for (var i = 0; i < siblings.Count; i++)
            siblings[i].Order = i;
    }
}
