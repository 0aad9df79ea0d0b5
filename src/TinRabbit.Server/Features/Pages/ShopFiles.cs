using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Pages;

/// <summary>Reads any file that a shop can be imported from: what it is is seen from its content.</summary>
internal static class ShopFiles
{
    private const int MostText = 32 << 20;
    private const int MostShop = 256 << 20;

    /// <summary>The file as a document, and what it is in words.</summary>
    /// <param name="platformId">The platform of listings that name none; null for the web shop.</param>
    /// <param name="picture">Gives a picture of an archive its name; an import also stores it.</param>
    /// <exception cref="InvalidInputException">It is none of the formats, or damaged.</exception>
    public static async Task<(ShopDocument Document, string Kind)> Read(
        string file,
        string name,
        string? platformId,
        TinContext db,
        Func<Stream, CancellationToken, string?, Task<string>> picture,
        CancellationToken stop
    )
    {
        var rules = await db.PageRules(stop);
        var platforms = (await db.Platforms.AsNoTracking().ToListAsync(stop)).ToDictionary(p => p.Id, p => p.Profile);
        if (ZipFiles.IsZip(file) && !await ZipFiles.Has(file, p => p == "xl/workbook.xml"))
            return await Archive(file, db, rules, picture, stop);
        if (ZipFiles.IsZip(file))
            return (ShopDocument.Of([.. ListingTables.Read(file, platforms, platformId ?? rules.Id, stop)]), "Table of listings (XLSX)");
        if (new FileInfo(file).Length == 0)
            throw new InvalidInputException([new("file", "The file is empty.")]);
        var start = await FileText.Start(file, stop);
        if (start.StartsWith('<'))
            return (ShopDocument.Of(await Html(file, name, db, rules, stop)), "Web page (HTML)");
        if (start.StartsWith('{') || start.StartsWith('['))
        {
            var text = await Text(file, stop);
            return text.Contains(ShopDocument.Name, StringComparison.Ordinal)
                ? (ShopDocument.Read(new MemoryStream(System.Text.Encoding.UTF8.GetBytes(text))), "Shop (JSON)")
                : (ShopDocument.Of([.. HtmlPages.ReadJsonLd(text, rules)]), "Products (schema.org JSON-LD)");
        }

        return (ShopDocument.Of([.. ListingTables.Read(file, platforms, platformId ?? rules.Id, stop)]), "Table of listings (CSV)");
    }

    private static async Task<(ShopDocument, string)> Archive(
        string file,
        TinContext db,
        Platform rules,
        Func<Stream, CancellationToken, string?, Task<string>> picture,
        CancellationToken stop
    )
    {
        ShopDocument? shop = null;
        var terms = new List<DocumentTerm>();
        var recordings = new List<DocumentRecording>();
        var pages = new List<DocumentProduct>();
        var renamed = new Dictionary<string, string>(StringComparer.Ordinal);
        var site = await db.Site(stop);
        var pageAt = await Addresses(db, stop);
        await ZipFiles.Read(
            file,
            path =>
                path is "shop.json" or ShopTerms.FileName or ShopRecordings.FileName ? MostShop
                : HtmlPages.IsHtml(path) ? MostText
                : IsPicture(path) ? Core.Bounds.PictureBytes
                : 0,
            async (path, content) =>
            {
                if (path == "shop.json")
                    shop = ShopDocument.Read(content);
                else if (path == ShopTerms.FileName)
                    terms = ShopTerms.Read(content);
                else if (path == ShopRecordings.FileName)
                    recordings = ShopRecordings.Read(content);
                else if (HtmlPages.IsHtml(path))
                    pages.Add(HtmlPages.Read(FileText.Decode(content.ToArray()), NameOf(path), rules, site.TitleSuffix, pageAt));
                else
                {
                    var given = Path.GetFileNameWithoutExtension(NameOf(path));
                    renamed[given] = await picture(content, stop, given);
                }
            },
            stop
        );
        if (shop is not null)
            return (
                WithPictures(shop, renamed) with
                {
                    Terms = terms,
                    Recordings = recordings.ConvertAll(r => WithPictures(r, renamed)),
                },
                "Whole shop (ZIP)"
            );
        return pages.Count > 0
            ? (ShopDocument.Of(pages), $"{pages.Count:#,0} web pages (ZIP)")
            : throw new InvalidInputException([new("file", "There is no shop and no web page in this archive.")]);
    }

    private static bool IsPicture(string path) => path.StartsWith("pictures/", StringComparison.Ordinal);

    private static string NameOf(string path) => path.Split('/')[^1];

    // A picture is named after its content; what was made of it has another name when it is stored again.
    private static ShopDocument WithPictures(ShopDocument shop, Dictionary<string, string> renamed) =>
        shop with
        {
            Products =
            [
                .. (shop.Products ?? []).Select(p =>
                    p.Pictures is null
                        ? p
                        : p with
                        {
                            Pictures = [.. p.Pictures.Select(o => o with { File = o.File is { } f ? renamed.GetValueOrDefault(f) : null })],
                        }
                ),
            ],
        };

    private static DocumentRecording WithPictures(DocumentRecording recording, Dictionary<string, string> renamed) =>
        recording with
        {
            Page = recording.Page with
            {
                Results =
                [
                    .. recording.Page.Results.Select(r =>
                        r.Image?.Picture is { } picture
                            ? r with
                            {
                                Image = r.Image with { Picture = renamed.GetValueOrDefault(picture) },
                            }
                            : r
                    ),
                ],
            },
        };

    private static async Task<DocumentProduct[]> Html(string file, string name, TinContext db, Platform rules, CancellationToken stop) =>
        [HtmlPages.Read(await Text(file, stop), name, rules, (await db.Site(stop)).TitleSuffix, await Addresses(db, stop))];

    private static async Task<Func<string, int?>> Addresses(TinContext db, CancellationToken stop)
    {
        var site = await db.Site(stop);
        var known = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var page in await db.AllPages(stop))
        {
            known.TryAdd(site.AddressOf(page.IsHome, page.Slug), page.Id);
            known.TryAdd(page.IsHome ? "/" : $"/{page.Slug}", page.Id);
        }

        return address => known.TryGetValue(address, out var id) ? id : null;
    }

    private static async Task<string> Text(string file, CancellationToken stop)
    {
        if (new FileInfo(file).Length > MostText)
            throw new InvalidInputException([new("file", $"This file is larger than {MostText >> 20} MB, the limit for a page or JSON.")]);
        return FileText.Decode(await File.ReadAllBytesAsync(file, stop));
    }
}
