using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using TinRabbit.Core;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Features.Pages;

/// <summary>A page in the tree.</summary>
/// <param name="Level">How deep it is, from 0.</param>
/// <param name="MenuName">Its name in menus.</param>
/// <param name="Address">Its address on the site.</param>
/// <param name="Redirects">How many old slugs lead to it.</param>
/// <param name="Lead">The text of its lead; null where none is chosen.</param>
/// <param name="LinkedFrom">How many other pages link to it.</param>
public sealed record PageView(
    int Id,
    int ListingId,
    int ProductId,
    PageKind Kind,
    int? ParentId,
    int Level,
    int Order,
    IReadOnlyList<int> AlsoIn,
    bool IsHome,
    bool InMenu,
    bool IsPublished,
    bool HasSuffix,
    string Name,
    string MenuName,
    string Title,
    string Slug,
    string? LiveSlug,
    string Address,
    int Redirects,
    string? Lead,
    int LinkedFrom
);

/// <summary>The pages of the web shop, in the order of the tree.</summary>
public sealed record PagesView(IReadOnlyList<PageView> Pages, IReadOnlyList<RedirectView> Redirects);

/// <summary>An old slug and where it leads.</summary>
public sealed record RedirectView(string From, string To, int PageId);

/// <summary>A new page.</summary>
/// <param name="ParentId">The page that it is inside; null at the top.</param>
/// <param name="ProductId">The product that it sells; null for other pages.</param>
public sealed record NewPageRequest(PageKind Kind, [MaxLength(Bounds.NameLength)] string? Name, int? ParentId, int? ProductId);

/// <summary>A pasted outline of categories.</summary>
public sealed record OutlineRequest([MaxLength(Bounds.PasteLength)] string Text, int? ParentId);

/// <summary>A page that an outline would create.</summary>
/// <param name="Level">How deep it would be, from 0.</param>
public sealed record PlannedPage(int Line, string Name, string Slug, int Level);

/// <summary>Where a page is to be.</summary>
/// <param name="ParentId">The page that it is inside; null at the top.</param>
/// <param name="Order">Its place among those of the same parent, from 0; more than there are puts it last.</param>
public sealed record MoveRequest(int? ParentId, int Order);

/// <summary>What is to be changed of a page; null leaves it.</summary>
public sealed record PageChangeRequest(PageKind? Kind, bool? InMenu, bool? IsPublished, bool? HasSuffix, bool? IsHome);

/// <summary>The categories that a product is in.</summary>
/// <param name="Primary">The one that its page is inside; null at the top.</param>
/// <param name="Others">Those that show it besides.</param>
public sealed record CategoriesRequest(int? Primary, [MaxLength(Bounds.Facts)] IReadOnlyList<int> Others);

/// <summary>What happens to the pages inside a page that is deleted, and to links to it.</summary>
/// <param name="Children">Whether they are deleted too; otherwise they move up.</param>
/// <param name="Links">Whether links to deleted pages are removed, their words left; otherwise they become findings.</param>
public sealed record DeletePageRequest(bool Children, bool Links);

/// <summary>What a deletion would concern.</summary>
/// <param name="Inside">Names of the pages inside it, at any depth.</param>
/// <param name="LinkedFrom">Names of the pages that link to it.</param>
public sealed record DeletionView(IReadOnlyList<string> Inside, IReadOnlyList<string> LinkedFrom);

internal static class PagesApi
{
    public static void MapPages(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/pages").WithTags("Pages");
        api.MapGet("/", GetPages).WithName("GetPages");
        api.MapPost("/", AddPage).RetriesRaces().WithName("AddPage").ProducesValidationProblem();
        api.MapPost("/outline/preview", PreviewOutline).WithName("PreviewOutline").ProducesValidationProblem();
        api.MapPost("/outline", AddOutline).RetriesRaces().WithName("AddOutline").ProducesValidationProblem();
        api.MapPut("/{id:int}/place", MovePage).RetriesRaces().WithName("MovePage").ProducesValidationProblem();
        api.MapPut("/{id:int}", ChangePage).RetriesRaces().WithName("ChangePage").ProducesValidationProblem();
        api.MapPut("/{id:int}/categories", SetCategories).RetriesRaces().WithName("SetCategories").ProducesValidationProblem();
        api.MapGet("/{id:int}/deletion", GetDeletion).WithName("GetDeletion");
        api.MapPost("/{id:int}/delete", DeletePage).RetriesRaces().WithName("DeletePage");
        api.MapGet("/redirects.csv", GetRedirects).WithName("GetRedirects");
    }

    private static async Task<Ok<PagesView>> GetPages(TinContext db, CancellationToken stop)
    {
        var site = await db.Site(stop);
        var platform = await PageTree.Platform(db, stop);
        var pages = await db.AllPages(stop);
        var redirects = await db.RedirectsOf(pages, stop);
        var leading = redirects.ToLookup(r => r.Page.Id);
        var linked = pages
            .SelectMany(p => PageTree.LinksIn(p.TextOf(platform, "body")).Where(id => id != p.Id).Distinct())
            .GroupBy(id => id)
            .ToDictionary(g => g.Key, g => g.Count());
        var leads = await PageTree.Leads(db, pages, stop);
        return TypedResults.Ok(
            new PagesView(
                [.. Sites.InTreeOrder(pages).Select(p => View(p.Page, p.Level, site, platform, leading[p.Page.Id].Count(), leads, linked))],
                [.. redirects.Select(r => new RedirectView(r.From, r.Page.Slug, r.Page.Id))]
            )
        );
    }

    private static async Task<Results<Ok<Changed>, NotFound>> AddPage(
        NewPageRequest request,
        TinContext db,
        ListingEditor editor,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var tree = await PageTree.Load(db, editor, stop);
        tree.CheckParent(request.ParentId);
        var page = request.ProductId is { } id
            ? await tree.AddProduct(id, request.Name, request.ParentId, stop)
            : await tree.Add(request.Kind, NewName.Check(request.Name ?? ""), request.ParentId, stop);
        return TypedResults.Ok(await SaveAdded(tree, [page], PageMessages.AddedPage(page.NameOf(tree.Rules)), changes, db, stop));
    }

    private static async Task<Ok<List<PlannedPage>>> PreviewOutline(
        OutlineRequest request,
        TinContext db,
        ListingEditor editor,
        CancellationToken stop
    )
    {
        var tree = await PageTree.Load(db, editor, stop);
        return TypedResults.Ok(tree.Plan(Outline.Read(request.Text), request.ParentId));
    }

    private static async Task<Ok<Changed>> AddOutline(
        OutlineRequest request,
        TinContext db,
        ListingEditor editor,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var tree = await PageTree.Load(db, editor, stop);
        var lines = Outline.Read(request.Text);
        tree.Plan(lines, request.ParentId);
        var made = new List<PageRow>(lines.Count);
        foreach (var line in lines)
            made.Add(await tree.Add(PageKind.Category, line.Name, request.ParentId, stop));
        return TypedResults.Ok(
            await SaveAdded(tree, made, PageMessages.AddedPages(made.Count), changes, db, stop, () => tree.Nest(made, lines))
        );
    }

    private static async Task<Results<Ok<Changed>, NotFound>> MovePage(
        int id,
        MoveRequest request,
        TinContext db,
        ListingEditor editor,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var tree = await PageTree.Load(db, editor, stop);
        if (tree.Find(id) is not { } page)
            return TypedResults.NotFound();
        tree.CheckParent(request.ParentId);
        var before = tree.States();
        tree.Move(page, request.ParentId, request.Order);
        return TypedResults.Ok(await Save(tree, id, before, PageMessages.MovedPage(page.NameOf(tree.Rules)), changes, db, stop));
    }

    private static async Task<Results<Ok<Changed>, NotFound>> ChangePage(
        int id,
        PageChangeRequest request,
        TinContext db,
        ListingEditor editor,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var tree = await PageTree.Load(db, editor, stop);
        if (tree.Find(id) is not { } page)
            return TypedResults.NotFound();
        var before = tree.States();
        if (request.Kind is { } kind && page.Listing.Product.IsPage)
            page.Kind = kind;
        page.InMenu = request.InMenu ?? page.InMenu;
        page.HasSuffix = request.HasSuffix ?? page.HasSuffix;
        if (request.IsHome == true)
            foreach (var other in tree.Pages)
                other.IsHome = other.Id == id;
        RedirectsBefore? redirects = null;
        if (request.IsPublished == true)
            redirects = await db.Publish(page, stop);
        else if (request.IsPublished == false)
            page.IsPublished = false;

        return TypedResults.Ok(
            await Save(tree, id, before, PageMessages.ChangedPage(page.NameOf(tree.Rules)), changes, db, stop, redirects)
        );
    }

    private static async Task<Results<Ok<Changed>, NotFound>> SetCategories(
        int id,
        CategoriesRequest request,
        TinContext db,
        ListingEditor editor,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var tree = await PageTree.Load(db, editor, stop);
        if (tree.Find(id) is not { } page)
            return TypedResults.NotFound();
        var before = tree.States();
        tree.SetCategories(page, request.Primary, request.Others);
        return TypedResults.Ok(await Save(tree, id, before, PageMessages.ChangedPage(page.NameOf(tree.Rules)), changes, db, stop));
    }

    private static async Task<Results<Ok<DeletionView>, NotFound>> GetDeletion(
        int id,
        TinContext db,
        ListingEditor editor,
        CancellationToken stop
    )
    {
        var tree = await PageTree.Load(db, editor, stop);
        return tree.Find(id) is { } page
            ? TypedResults.Ok(
                new DeletionView(
                    [.. tree.Inside(page).Select(p => p.NameOf(tree.Rules))],
                    [.. tree.LinkingTo([page]).Select(p => p.NameOf(tree.Rules))]
                )
            )
            : TypedResults.NotFound();
    }

    private static async Task<Results<Ok<Changed>, NotFound>> DeletePage(
        int id,
        DeletePageRequest request,
        TinContext db,
        ListingEditor editor,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var tree = await PageTree.Load(db, editor, stop);
        if (tree.Find(id) is not { } page)
            return TypedResults.NotFound();
        var before = tree.States();
        List<PageRow> gone = request.Children ? [page, .. tree.Inside(page)] : [page];
        if (!request.Children)
            foreach (var child in tree.Pages.Where(p => p.ParentId == id).ToList())
                tree.Move(child, page.ParentId, int.MaxValue);
        var texts = request.Links ? await tree.RemoveLinks(gone, stop) : [];
        foreach (var other in tree.Pages.Where(p => p.AlsoIn.Any(a => gone.Any(g => g.Id == a))))
            other.AlsoIn = [.. other.AlsoIn.Where(a => gone.All(g => g.Id != a))];
        var ids = gone.Select(p => p.Id).ToList();
        var restore = changes.MarkDeleted(await db.OfPages(ids, stop), new RemovePages(ids));
        return TypedResults.Ok(
            await changes.Save(
                gone.Count == 1 ? ChangeMessages.Deleted("page", page.NameOf(tree.Rules)) : PageMessages.DeletedPages(gone.Count),
                new(Screen.Pages, PageId: id),
                [restore, tree.Changed(before), .. texts],
                stop
            )
        );
    }

    private static async Task<ContentHttpResult> GetRedirects(TinContext db, CancellationToken stop)
    {
        var site = await db.Site(stop);
        var redirects = await db.RedirectsOf(await db.AllPages(stop), stop);
        return TypedResults.Text(
            CsvText.Of(["from", "to"], redirects.Select(r => (string[])[$"/{r.From}", site.AddressOf(r.Page.IsHome, r.Page.Slug)])),
            "text/csv; charset=utf-8"
        );
    }

    private static async Task<Changed> SaveAdded(
        PageTree tree,
        List<PageRow> added,
        string what,
        ChangeLog changes,
        TinContext db,
        CancellationToken stop,
        Action? then = null
    )
    {
        Changed? saved = null;
        await db.InOneWrite(
            async () =>
            {
                await db.SaveChangesAsync(stop);
                then?.Invoke();
                saved = await changes.Save(what, new(Screen.Pages, PageId: added.Count == 1 ? added[0].Id : null), tree.Added(added), stop);
            },
            stop
        );
        return saved!;
    }

    private static async Task<Changed> Save(
        PageTree tree,
        int pageId,
        IReadOnlyList<PageState> before,
        string what,
        ChangeLog changes,
        TinContext db,
        CancellationToken stop,
        RedirectsBefore? redirects = null
    )
    {
        var changed = tree.Changed(before);
        if (changed.Pages.Count > 0 || redirects is { Pages.Count: > 0 })
            return await changes.Save(what, new(Screen.Pages, PageId: pageId), redirects is null ? [changed] : [changed, redirects], stop);
        await db.SaveChangesAsync(stop);
        return new(null);
    }

    private static PageView View(
        PageRow page,
        int level,
        SiteRow site,
        Platform platform,
        int redirects,
        IReadOnlyDictionary<int, string> leads,
        Dictionary<int, int> linked
    )
    {
        return new(
            page.Id,
            page.ListingId,
            page.Listing.ProductId,
            page.Kind,
            page.ParentId,
            level,
            page.Order,
            page.AlsoIn,
            page.IsHome,
            page.InMenu,
            page.IsPublished,
            page.HasSuffix,
            page.NameOf(platform),
            page.MenuNameOf(platform),
            page.TextOf(platform, "title"),
            page.Slug,
            page.LiveSlug,
            site.AddressOf(page.IsHome, page.Slug),
            redirects,
            leads.GetValueOrDefault(page.Id),
            linked.GetValueOrDefault(page.Id)
        );
    }
}
