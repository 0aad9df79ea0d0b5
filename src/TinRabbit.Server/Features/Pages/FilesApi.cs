using MiniExcelLibs;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Pictures;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pages;

/// <summary>A file that was uploaded, compared with the shop. Nothing is written yet.</summary>
/// <param name="Id">Names the file in the requests that follow.</param>
/// <param name="Kind">What it is, in words.</param>
public sealed record ShopImportView(string Id, string Name, string Kind, IReadOnlyList<ImportItem> Items);

/// <summary>Which things to import.</summary>
/// <param name="Keys">Keys of <see cref="ImportItem"/>.</param>
/// <param name="LiveSince">Since when the imported listings are live as they are; null where nobody says so.</param>
public sealed record ShopImportRequest(IReadOnlyList<string> Keys, DateOnly? LiveSince = null);

internal static class FilesApi
{
    private const string Xlsx = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    public static void MapFiles(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/shop");
        api.MapGet("/export.zip", ExportShop).DisableRequestTimeout();
        api.MapGet("/html.zip", ExportHtml).DisableRequestTimeout();
        api.MapGet("/pages.csv", ExportPagesCsv);
        api.MapGet("/pages.xlsx", ExportPagesXlsx);
        api.MapGet("/sitemap.xml", ExportSitemap);
        app.MapGet("/api/pages/{id:int}/page.html", ExportPage);
        app.MapGet("/api/pages/{id:int}/preview", PreviewPage);
        api.MapPost("/imports", BeginShopImport).TakesFile().ProducesProblem(413).DisableRequestTimeout();
        api.MapPost("/imports/{id}/run", RunShopImport).DisableRequestTimeout();
        api.MapDelete("/imports/{id}", ForgetShopImport);
    }

    private static PushStreamHttpResult ExportShop(TinContext db, PictureFiles files, CancellationToken stop) =>
        TypedResults.Stream(s => Whole(s, inner => ShopExport.Zip(db, files, inner, stop), stop), "application/zip", "shop.zip");

    private static PushStreamHttpResult ExportHtml(TinContext db, PictureFiles files, CancellationToken stop) =>
        TypedResults.Stream(s => Whole(s, inner => ShopExport.HtmlZip(db, files, inner, stop), stop), "application/zip", "pages.zip");

    private static async Task<FileContentHttpResult> ExportPagesCsv(TinContext db, CancellationToken stop) =>
        CsvFile.Of(await ShopExport.PagesCsv(db, await db.PageRules(stop), stop), "pages.csv");

    private static async Task<FileContentHttpResult> ExportPagesXlsx(TinContext db, CancellationToken stop)
    {
        var (heads, rows) = await ShopExport.PagesTable(db, await db.PageRules(stop), stop);
        using var file = new MemoryStream();
        await file.SaveAsAsync(
            rows.Select(r => heads.Zip(r).ToDictionary(c => c.First, c => (object)c.Second)).ToList(),
            cancellationToken: stop
        );
        return TypedResults.File(file.ToArray(), Xlsx, "pages.xlsx");
    }

    private static async Task<FileContentHttpResult> ExportSitemap(TinContext db, CancellationToken stop) =>
        TypedResults.File(
            Encoding.UTF8.GetBytes(ShopExport.Sitemap(await db.Site(stop), await db.AllPages(stop))),
            "application/xml",
            "sitemap.xml"
        );

    private static async Task<FileContentHttpResult> ExportPage(int id, TinContext db, CancellationToken stop)
    {
        var page = await Find(db, id, stop);
        var html = Encoding.UTF8.GetBytes(await ShopExport.Html(db, page, stop));
        return TypedResults.File(html, "text/html; charset=utf-8", ShopExport.FileNameOf(page, _ => false));
    }

    private static async Task<string> PreviewPage(int id, TinContext db, CancellationToken stop) =>
        await ShopExport.Preview(db, await Find(db, id, stop), stop);

    private static async Task<PageRow> Find(TinContext db, int id, CancellationToken stop) =>
        await db.Pages.Include(p => p.Listing).ThenInclude(l => l.Product).FirstOrDefaultAsync(p => p.Id == id, stop).OrNotThere();

    private static async Task<Results<Ok<ShopImportView>, ProblemHttpResult>> BeginShopImport(
        string? name,
        string? platformId,
        TinContext db,
        ListingEditor editor,
        DataFolder data,
        PictureFiles pictures,
        HttpRequest request,
        CancellationToken stop
    )
    {
        var view = await ImportFiles.Store(request, data, db.Now, $"{platformId}\n{name}", Read, stop);
        return view is null ? ImportFiles.TooLarge() : TypedResults.Ok(view);

        async Task<ShopImportView> Read(string id, string file)
        {
            var (document, kind) = await ShopFiles.Read(file, name ?? "", platformId, db, pictures.NameOf, stop);
            return new(id, name ?? "", kind, await new ShopImport(db, editor, document).Plan(stop));
        }
    }

    private static async Task<Changed> RunShopImport(
        string id,
        ShopImportRequest request,
        TinContext db,
        ListingEditor editor,
        DataFolder data,
        PictureFiles pictures,
        ChangeLog changes,
        MarketSetup markets,
        Shelves shelves,
        IMarket market,
        CancellationToken stop
    )
    {
        var live = request.LiveSince is { } since ? LiveTexts.Since(since, market) : null;
        var file = ImportFiles.Find(data, id) ?? throw new NotThereException();
        // A file that waits to be imported elsewhere has no platform in its name.
        if ((await File.ReadAllTextAsync(file + ".name", stop)).Split('\n', 2) is not [_, _] named)
            throw new NotThereException();
        var (document, _) = await ShopFiles.Read(file, named[1], named[0].Length > 0 ? named[0] : null, db, pictures.Add, stop);
        var import = new ShopImport(db, editor, document);
        var changed = await import.Run(request.Keys.ToHashSet(StringComparer.Ordinal), named[1], live, changes, stop);
        ImportFiles.Remove(file);
        foreach (var (profile, like) in import.ImportedPlatforms)
            await markets.TryOpen(profile, like, stop);
        await markets.KnowPlaces(db, stop);
        foreach (var shelf in import.ChangedShelves)
        {
            shelves.Evict(shelf);
            await shelves.Settle(db, shelf);
        }

        return changed ?? new(null);
    }

    private static NoContent ForgetShopImport(string id, DataFolder data)
    {
        if (ImportFiles.Find(data, id) is { } file)
            ImportFiles.Remove(file);
        return TypedResults.NoContent();
    }

    // An archive is finished before it is sent, so that a failure is an answer and no half file.
    private static async Task Whole(Stream body, Func<Stream, Task> write, CancellationToken stop)
    {
        await using var file = new FileStream(
            Path.GetTempFileName(),
            FileMode.Open,
            FileAccess.ReadWrite,
            FileShare.None,
            1 << 16,
            FileOptions.DeleteOnClose
        );
        await write(file);
        file.Position = 0;
        await file.CopyToAsync(body, stop);
    }
}
