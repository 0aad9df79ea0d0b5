using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

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
    int LinkedFrom,
    int Revision
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

/// <summary>Where a page is to be.</summary>
/// <param name="ParentId">The page that it is inside; null at the top.</param>
/// <param name="Order">Its place among those of the same parent, from 0; more than there are puts it last.</param>
public sealed record MoveRequest(int? ParentId, int Order);

/// <summary>What is to be changed of a page; null leaves it.</summary>
/// <param name="Revision">The <see cref="PageView.Revision"/> that the seller saw; null to change whatever is there.</param>
public sealed record PageChangeRequest(
    PageKind? Kind,
    bool? InMenu,
    bool? IsPublished,
    bool? HasSuffix,
    bool? IsHome,
    int? Revision = null
);

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
        var api = app.MapGroup("/api/pages");
        api.MapGet("/", GetPages);
        api.MapPost("/", AddPage).RetriesRaces();
        api.MapPost("/outline/preview", PreviewOutline);
        api.MapPost("/outline", AddOutline).RetriesRaces();
        api.MapPut("/{id:int}/place", MovePage).RetriesRaces();
        api.MapPut("/{id:int}", ChangePage).RetriesRaces();
        api.MapPut("/{id:int}/categories", SetCategories).RetriesRaces();
        api.MapGet("/{id:int}/deletion", GetDeletion);
        api.MapPost("/{id:int}/delete", DeletePage).RetriesRaces();
        api.MapGet("/redirects.csv", GetRedirects);
    }

    private static async Task<PagesView> GetPages(TinContext db, CancellationToken stop)
    {
        var site = await db.Site(stop);
        var pages = await db.PageHeads(stop);
        var redirects = await db.RedirectsOf([.. pages.Select(p => (p.Id, p.Slug, p.LiveSlug, p.IsPublished))], stop);
        var leading = redirects.CountBy(r => r.PageId).ToDictionary();
        var linked = pages.SelectMany(p => p.LinksTo.Where(id => id != p.Id)).CountBy(id => id).ToDictionary();
        var leads = await db.LeadsOf(pages.Select(p => (p.Id, p.ProductId, p.LeadKey)), stop);
        var slugs = pages.ToDictionary(p => p.Id, p => p.Slug);
        return new PagesView(
            [.. PageTree.InOrder(pages).Select(p => View(p.Page, p.Level, site, leading, leads, linked))],
            [.. redirects.Select(r => new RedirectView(r.From, slugs[r.PageId], r.PageId))]
        );
    }

    private static async Task<Changed> AddPage(NewPageRequest request, PageEditor editor, CancellationToken stop) =>
        await editor.Add(request, stop);

    private static async Task<IReadOnlyList<PlannedPage>> PreviewOutline(
        OutlineRequest request,
        PageEditor editor,
        CancellationToken stop
    ) => await editor.Plan(Outline.Read(request.Text), request.ParentId, stop);

    private static async Task<Changed> AddOutline(OutlineRequest request, PageEditor editor, CancellationToken stop) =>
        await editor.AddOutline(Outline.Read(request.Text), request.ParentId, stop);

    private static Task<Changed> MovePage(int id, MoveRequest request, PageEditor editor, CancellationToken stop) =>
        editor.Move(id, request, stop).OrNotThere();

    private static async Task<Results<Ok<Changed>, Conflict<string>>> ChangePage(
        int id,
        PageChangeRequest request,
        TinContext db,
        PageEditor editor,
        CancellationToken stop
    )
    {
        var page = await db.Pages.Include(p => p.Listing).ThenInclude(l => l.Product).FirstOrDefaultAsync(p => p.Id == id, stop);
        return page is null ? throw new NotThereException()
            : await editor.Change(page, request, stop) is { } changed ? TypedResults.Ok(changed)
            : TypedResults.Conflict("This page was changed in another window. It is shown as it is now; change it again.");
    }

    private static Task<Changed> SetCategories(int id, CategoriesRequest request, PageEditor editor, CancellationToken stop) =>
        editor.SetCategories(id, request, stop).OrNotThere();

    private static Task<DeletionView> GetDeletion(int id, PageEditor editor, CancellationToken stop) =>
        editor.Deletion(id, stop).OrNotThere();

    private static Task<Changed> DeletePage(int id, DeletePageRequest request, PageEditor editor, CancellationToken stop) =>
        editor.Delete(id, request, stop).OrNotThere();

    private static async Task<ContentHttpResult> GetRedirects(TinContext db, CancellationToken stop)
    {
        var site = await db.Site(stop);
        var pages = (await db.PageHeads(stop)).ToDictionary(p => p.Id);
        var redirects = await db.RedirectsOf([.. pages.Values.Select(p => (p.Id, p.Slug, p.LiveSlug, p.IsPublished))], stop);
        return TypedResults.Text(
            CsvText.Of(
                ["from", "to"],
                redirects.Select(r => (string[])[$"/{r.From}", site.AddressOf(pages[r.PageId].IsHome, pages[r.PageId].Slug)])
            ),
            "text/csv; charset=utf-8"
        );
    }

    private static PageView View(
        PageHead page,
        int level,
        SiteRow site,
        Dictionary<int, int> redirects,
        IReadOnlyDictionary<int, string> leads,
        Dictionary<int, int> linked
    ) =>
        new(
            page.Id,
            page.ListingId,
            page.ProductId,
            page.Kind,
            page.ParentId,
            level,
            page.Order,
            page.AlsoIn,
            page.IsHome,
            page.InMenu,
            page.IsPublished,
            page.HasSuffix,
            page.Name,
            page.MenuName,
            page.Title,
            page.Slug,
            page.LiveSlug,
            site.AddressOf(page.IsHome, page.Slug),
            redirects.GetValueOrDefault(page.Id),
            leads.GetValueOrDefault(page.Id),
            linked.GetValueOrDefault(page.Id),
            page.Revision
        );
}
