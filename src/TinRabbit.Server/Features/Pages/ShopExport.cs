using System.IO.Compression;
using System.Xml.Linq;
using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Pictures;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pages;

/// <summary>Writes the shop and its pages in open formats.</summary>
internal static class ShopExport
{
    /// <summary>The shop as a document.</summary>
    public static async Task<ShopDocument> Document(TinContext db, CancellationToken stop)
    {
        var shop = await db.Shops.AsNoTracking().OrderBy(s => s.Id).FirstAsync(stop);
        var site = await db.Site(stop);
        var pages = await db.AllPages(stop);
        var byListing = pages.ToDictionary(p => p.ListingId);
        var products = await db
            .Products.AsNoTracking()
            .Include(p => p.Pictures)
            .Include(p => p.Listings)
            .OrderBy(p => p.Id)
            .ToListAsync(stop);
        var picks = (await db.Picks.AsNoTracking().ToListAsync(stop)).ToLookup(p => p.ProductId);
        var takes = (await db.Takes.AsNoTracking().OrderBy(t => t.Id).ToListAsync(stop)).ToLookup(t => t.ListingId);
        var redirects = await db.RedirectsOf([.. pages.Select(p => (p.Id, p.Slug, p.LiveSlug, p.IsPublished))], stop);
        var slugs = pages.ToDictionary(p => p.Id, p => p.Slug);
        var records = await ShopRecords.Load(db, stop);
        return new(
            ShopDocument.Name,
            ShopDocument.Latest,
            new(shop.Name, shop.Currency, shop.Countries, shop.Language, shop.OwnWords),
            site.Id == 0 ? null : new(site.Brand, site.Address, site.Language, site.Country, site.TitleSuffix),
            [
                .. (await db.Platforms.AsNoTracking().Where(p => p.Like != null).OrderBy(p => p.Id).ToListAsync(stop)).Select(
                    p => new DocumentPlatform(PlatformJson.Write(p.Profile), p.Like!)
                ),
            ],
            [
                .. products.Select(p => new DocumentProduct(
                    p.Name,
                    p.IsPage,
                    p.Facts,
                    [.. p.PictureStates().Select(o => new DocumentPicture(o.Alt, o.Shows, o.File, o.IsLocked))],
                    [
                        .. picks[p.Id]
                            .OrderBy(k => k.Order)
                            .ThenBy(k => k.Id)
                            .Select(k => new DocumentPick(k.Text, k.Fit, k.Home, k.Note, k.Source, k.SaidBy, k.Language, k.FitByHand)),
                    ],
                    [
                        .. p
                            .Listings.OrderBy(l => l.PlatformId, StringComparer.Ordinal)
                            .Select(l => new DocumentListing(
                                l.PlatformId,
                                l.Copy.Fields(),
                                l.LeadKey,
                                [.. takes[l.Id].Select(t => new DocumentTake(t.Text, t.Name, t.At))],
                                records.Of(l),
                                l.Details
                            )),
                    ],
                    p.Listings.Select(l => byListing.GetValueOrDefault(l.Id)).FirstOrDefault(x => x is not null) is { } page
                        ? new(
                            page.Id,
                            page.Kind,
                            page.ParentId,
                            page.Order,
                            page.AlsoIn,
                            page.IsHome,
                            page.InMenu,
                            page.IsPublished,
                            page.HasSuffix,
                            page.LiveSlug
                        )
                        : null,
                    records.NotesOf(p.Id),
                    records.DigsOf(p.Id),
                    p.IsIdea,
                    records.LikenessOf(p.Id)
                )),
            ],
            redirects.ToDictionary(r => r.From, r => slugs[r.PageId]),
            await db.Filters.AsNoTracking().OrderBy(f => f.Name).ToDictionaryAsync(f => f.Name, f => f.Filters, stop),
            records.Notes,
            [
                .. (await db.UploadShapes.AsNoTracking().OrderBy(s => s.Id).ToListAsync(stop)).Select(s => new DocumentShape(
                    s.PlatformId,
                    s.Columns
                )),
            ]
        );
    }

    /// <summary>The whole shop as a ZIP: JSON to be imported, CSV for people, the pictures.</summary>
    public static async Task Zip(TinContext db, PictureFiles files, Stream stream, CancellationToken stop)
    {
        var document = await Document(db, stop);
        await using var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true);
        await using (var json = await zip.CreateEntry("shop.json").OpenAsync(stop))
            await JsonSerializer.SerializeAsync(json, document, ShopDocument.Json, stop);
        await using (var terms = await zip.CreateEntry(ShopTerms.FileName).OpenAsync(stop))
            await ShopTerms.Write(db, terms, stop);
        IReadOnlySet<string> recorded;
        await using (var recordings = await zip.CreateEntry(ShopRecordings.FileName).OpenAsync(stop))
            recorded = await ShopRecordings.Write(db, recordings, stop);
        var rules = await db.PageRules(stop);
        await Add(zip, "pages.csv", await PagesCsv(db, rules, stop), stop);
        await Add(
            zip,
            "picks.csv",
            CsvText.Of(
                ["product", "term", "fit", "home", "note"],
                document.Products!.SelectMany(p =>
                    p.Picks!.Select(k =>
                        (string[])[p.Name, k.Text, k.Fit.ToString().ToLowerInvariant(), k.Home.ToString().ToLowerInvariant(), k.Note]
                    )
                )
            ),
            stop
        );
        foreach (var platform in await db.Platforms.AsNoTracking().OrderBy(p => p.Id).ToListAsync(stop))
        {
            var profile = platform.Profile;
            var listings = document
                .Products!.SelectMany(p =>
                    p.Listings!.Where(l => l.Platform == platform.Id && l.Fields.Count > 0).Select(l => (p.Name, l.Fields))
                )
                .Select(l => (l.Name, ListingText.Of(l.Fields).On(profile)))
                .ToList();
            if (listings.Count > 0)
                await Add(zip, $"listings-{platform.Id}.csv", ListingFiles.Csv(profile, listings), stop);
        }

        foreach (var file in document.Products!.SelectMany(p => p.Pictures!).Select(p => p.File).OfType<string>().Union(recorded))
            if (files.PathOf(file) is { } path && File.Exists(path))
                await zip.CreateEntryFromFileAsync(path, ExportedPicture(file), CompressionLevel.NoCompression, stop);
    }

    /// <summary>Every published page as HTML, with its pictures, the site map and the redirects, as a ZIP.</summary>
    public static async Task HtmlZip(TinContext db, PictureFiles files, Stream stream, CancellationToken stop)
    {
        var pages = await db.AllPages(stop);
        var shop = await Around.All(db, pages, stop);
        await using var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true);
        var pictures = new HashSet<string>(StringComparer.Ordinal);
        var names = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var page in pages.Where(p => p.IsPublished))
        {
            stop.ThrowIfCancellationRequested();
            var view = shop.View(page);
            pictures.UnionWith(view.Pictures.Select(p => p.File).OfType<string>());
            await Add(zip, FileNameOf(page, n => !names.Add(n)), HtmlPages.Write(view, ExportedPicture), stop);
        }

        await Add(zip, "sitemap.xml", Sitemap(shop.Site, pages), stop);
        foreach (var file in pictures)
            if (files.PathOf(file) is { } path && File.Exists(path))
                await zip.CreateEntryFromFileAsync(path, ExportedPicture(file), CompressionLevel.NoCompression, stop);
    }

    /// <summary>The name of a page's file: its slug, of which nothing is left that could lead out of a folder.</summary>
    /// <param name="page">The page.</param>
    /// <param name="isTaken">Whether another page has this slug in the same archive.</param>
    public static string FileNameOf(PageRow page, Func<string, bool> isTaken) =>
        Slugs.Of(page.IsHome ? "index" : page.Slug, isTaken) is { Length: > 0 } slug ? $"{slug}.html" : $"page-{page.Id}.html";

    /// <summary>One page as HTML.</summary>
    public static async Task<string> Html(TinContext db, PageRow page, CancellationToken stop) =>
        HtmlPages.Write((await Around.One(db, page, stop)).View(page), ExportedPicture);

    /// <summary>The same to be looked at here, with its pictures.</summary>
    public static async Task<string> Preview(TinContext db, PageRow page, CancellationToken stop) =>
        HtmlPages.Write((await Around.One(db, page, stop)).View(page), file => $"/api/pictures/files/{file}", "/page-preview.css");

    private static string ExportedPicture(string file) => $"{HtmlPages.PicturesFolder}{file}.webp";

    /// <summary>The published pages as a site map, each with its language.</summary>
    public static string Sitemap(SiteRow site, IReadOnlyList<PageRow> pages)
    {
        XNamespace map = "http://www.sitemaps.org/schemas/sitemap/0.9";
        XNamespace xhtml = "http://www.w3.org/1999/xhtml";
        return new XDeclaration("1.0", "utf-8", null)
            + "\n"
            + new XDocument(
                new XElement(
                    map + "urlset",
                    new XAttribute(XNamespace.Xmlns + "xhtml", xhtml),
                    PageTree
                        .InOrder(pages)
                        .Where(p => p.Page.IsPublished)
                        .Select(p => site.AddressOf(p.Page.IsHome, p.Page.Slug))
                        .Select(address => new XElement(
                            map + "url",
                            new XElement(map + "loc", address),
                            new XElement(
                                xhtml + "link",
                                new XAttribute("rel", "alternate"),
                                new XAttribute("hreflang", site.Language),
                                new XAttribute("href", address)
                            )
                        ))
                )
            );
    }

    /// <summary>The pages as a table.</summary>
    public static async Task<string> PagesCsv(TinContext db, Platform rules, CancellationToken stop)
    {
        var (heads, rows) = await PagesTable(db, rules, stop);
        return CsvText.Of(heads, rows);
    }

    /// <summary>The pages as a table: their place, then their fields in the platform's order.</summary>
    public static async Task<(string[] Heads, IReadOnlyList<string[]> Rows)> PagesTable(
        TinContext db,
        Platform rules,
        CancellationToken stop
    )
    {
        var (site, pages) = (await db.Site(stop), await db.AllPages(stop));
        var fields = rules.Fields.Where(f => f.Role != "alt").ToList();
        var names = pages.ToDictionary(p => p.Id, p => p.NameOf(rules));
        return (
            ["product", "platform", "kind", "inside", "address", .. fields.Select(f => f.Key)],
            [
                .. PageTree
                    .InOrder(pages)
                    .Select(p =>
                    {
                        var copy = p.Page.Listing.Copy.On(rules);
                        return (string[])
                            [
                                p.Page.Listing.Product.Name,
                                rules.Id,
                                p.Page.Kind.ToString().ToLowerInvariant(),
                                p.Page.ParentId is { } parent ? names.GetValueOrDefault(parent, "") : "",
                                site.AddressOf(p.Page.IsHome, p.Page.Slug),
                                .. fields.Select(f => copy.TryGetValue(f.Key, out var value) ? ListingFiles.OneText(f, value) : ""),
                            ];
                    }),
            ]
        );
    }

    /// <summary>What stands around pages that are written.</summary>
    /// <param name="ById">Every page of the shop; their texts may be missing.</param>
    /// <param name="Names">The names of the pages above those that are written.</param>
    /// <param name="Pictures">By product.</param>
    private sealed record Around(
        SiteRow Site,
        Platform Rules,
        IReadOnlyDictionary<int, PageRow> ById,
        IReadOnlyDictionary<int, string> Names,
        ILookup<int, PictureRow> Pictures
    )
    {
        public static async Task<Around> All(TinContext db, IReadOnlyList<PageRow> pages, CancellationToken stop)
        {
            var rules = await db.PageRules(stop);
            return new(
                await db.Site(stop),
                rules,
                pages.ToDictionary(p => p.Id),
                pages.ToDictionary(p => p.Id, p => p.NameOf(rules)),
                (await db.Products.AsNoTracking().SelectMany(p => p.Pictures).ToListAsync(stop)).ToLookup(p => p.ProductId)
            );
        }

        // Without the texts of the other pages, which may be thousands.
        public static async Task<Around> One(TinContext db, PageRow page, CancellationToken stop)
        {
            var byId = await db.Pages.AsNoTracking().ToDictionaryAsync(p => p.Id, stop);
            var product = page.Listing.ProductId;
            return new(
                await db.Site(stop),
                await db.PageRules(stop),
                byId,
                await db.PageNames(Above(page, byId).Select(p => p.Id), stop),
                (await db.Products.AsNoTracking().Where(p => p.Id == product).SelectMany(p => p.Pictures).ToListAsync(stop)).ToLookup(p =>
                    p.ProductId
                )
            );
        }

        // The page above first.
        private static IEnumerable<PageRow> Above(PageRow page, IReadOnlyDictionary<int, PageRow> byId)
        {
            for (var levels = 0; levels < Outline.MostLevels && byId.TryGetValue(page.ParentId ?? 0, out var parent); levels++)
                yield return page = parent;
        }

        public HtmlPages.Page View(PageRow page)
        {
            var copy = page.Listing.Copy.On(Rules);
            var crumbs = Above(page, ById).Select(p => (Names[p.Id], Site.AddressOf(p.IsHome, p.Slug))).Reverse().ToList();
            return new(
                page.Kind,
                Rules
                    .Fields.Where(f => f.Role.Length > 0 && copy.ContainsKey(f.Key))
                    .GroupBy(f => f.Role)
                    .ToDictionary(
                        f => f.Key,
                        f =>
                            f.Key == "keywords"
                                ? string.Join(", ", copy[f.First().Key].Units(FieldShape.Phrases))
                                : page.TextOf(Rules, f.Key)
                    ),
                Site.SuffixOf(page),
                Site.Brand,
                Site.Language,
                Site.AddressOf(page.IsHome, page.Slug),
                crumbs,
                [.. Pictures[page.Listing.ProductId].OrderBy(p => p.Order).Select(OnePicture.Of)],
                page.Listing.Product.Facts,
                id => ById.TryGetValue(id, out var target) && target.IsPublished ? Site.AddressOf(target.IsHome, target.Slug) : null
            );
        }
    }

    private static async Task Add(ZipArchive zip, string name, string text, CancellationToken stop)
    {
        await using var entry = await zip.CreateEntry(name).OpenAsync(stop);
        await entry.WriteAsync(Encoding.UTF8.GetBytes(text), stop);
    }
}
