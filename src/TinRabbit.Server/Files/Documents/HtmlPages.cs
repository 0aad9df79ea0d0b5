using System.Net;
using System.Text.RegularExpressions;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using TinRabbit.Server.Files.Html;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Files.Documents;

/// <summary>Pages of a web shop as HTML: with their meta tags and schema.org data out, and any saved page in.</summary>
public static partial class HtmlPages
{
    private const string Menu = "menu-name";
    private const string Kind = "page-kind";
    private const string Slug = "page-slug";

    /// <summary>Whether a file is a page, by its name.</summary>
    public static bool IsHtml(string path) =>
        path.EndsWith(".html", StringComparison.OrdinalIgnoreCase) || path.EndsWith(".htm", StringComparison.OrdinalIgnoreCase);

    /// <summary>A page to be written.</summary>
    /// <param name="Fields">Its texts, by role.</param>
    /// <param name="Crumbs">Names and addresses of the pages that it is inside, from the top.</param>
    /// <param name="AddressOf">The address of a page of the shop by its number; null where it is gone.</param>
    public sealed record Page(
        PageKind Kind,
        IReadOnlyDictionary<string, string> Fields,
        string Suffix,
        string Brand,
        string Language,
        string Address,
        IReadOnlyList<(string Name, string Address)> Crumbs,
        IReadOnlyList<OnePicture> Pictures,
        Facts Facts,
        Func<int, string?> AddressOf
    );

    /// <summary>The folder of the pictures beside exported pages.</summary>
    public const string PicturesFolder = "pictures/";

    /// <summary>Writes a page.</summary>
    /// <param name="page">The page.</param>
    /// <param name="addressOf">The address of a picture's file.</param>
    /// <param name="style">The address of a style sheet; null for none.</param>
    public static string Write(Page page, Func<string, string> addressOf, string? style = null)
    {
        string Text(string role) => page.Fields.GetValueOrDefault(role, "");
        var body = RichBody.Read(Text("body"));
        var title = (Text("title") is { Length: > 0 } own ? own : DerivedText.PageTitle(Text("heading"))) + page.Suffix;
        var html = new StringBuilder();
        html.Append(
            CultureInfo.InvariantCulture,
            $"<!doctype html>\n<html lang=\"{Encoded(page.Language)}\">\n<head>\n<meta charset=\"utf-8\">\n"
        );
        html.Append(CultureInfo.InvariantCulture, $"<title>{Encoded(title)}</title>\n");
        if (style is not null)
            html.Append(CultureInfo.InvariantCulture, $"<link rel=\"stylesheet\" href=\"{style}\">\n");
        Meta("description", Text("meta") is { Length: > 0 } meta ? meta : DerivedText.MetaDescription(body));
        Meta("keywords", Text("keywords"));
        Meta(Menu, Text("menu"));
        Meta(Kind, page.Kind.ToString().ToLowerInvariant());
        Meta(Slug, Text("slug"));
        html.Append(CultureInfo.InvariantCulture, $"<link rel=\"canonical\" href=\"{Encoded(page.Address)}\">\n");
        html.Append(
            CultureInfo.InvariantCulture,
            $"<script type=\"application/ld+json\">{JsonLd(page, title)}</script>\n</head>\n<body>\n"
        );
        html.Append(CultureInfo.InvariantCulture, $"<h1>{Encoded(Text("heading"))}</h1>\n");
        if (Text("short").Length > 0)
            html.Append(CultureInfo.InvariantCulture, $"<p class=\"short\">{Encoded(Text("short"))}</p>\n");
        html.Append(CultureInfo.InvariantCulture, $"<main>{WithAddresses(Text("body"), page.AddressOf)}</main>\n");
        foreach (var picture in page.Pictures)
            html.Append(
                CultureInfo.InvariantCulture,
                $"<figure><img src=\"{(picture.File is { } file ? addressOf(file) : "")}\" alt=\"{Encoded(picture.Alt)}\"></figure>\n"
            );
        return html.Append("</body>\n</html>\n").ToString();

        void Meta(string name, string content)
        {
            if (content.Length > 0)
                html.Append(CultureInfo.InvariantCulture, $"<meta name=\"{name}\" content=\"{Encoded(content)}\">\n");
        }
    }

    /// <summary>Reads a saved page; what a browser would run is left out.</summary>
    /// <param name="html">The page.</param>
    /// <param name="name">The name of its file, without folders.</param>
    /// <param name="rules">The platform whose fields it gets.</param>
    /// <param name="suffix">What the site adds to page titles, which is no part of the title.</param>
    /// <param name="pageAt">The number of the page of the shop at an address; null for other addresses.</param>
    /// <exception cref="InvalidInputException">It is beyond <see cref="HtmlBounds"/>.</exception>
    public static DocumentProduct Read(string html, string name, Platform rules, string suffix, Func<string, int?> pageAt)
    {
        RichText.Check(html, "file");
        var document = new HtmlParser().ParseDocument(html);
        string Meta(string key) => document.QuerySelector($"meta[name='{key}' i]")?.GetAttribute("content")?.Trim() ?? "";
        var heading = Visible.Line(document.QuerySelector("h1")?.TextContent);
        var title = Visible.Line(document.Title);
        if (suffix.Length > 0 && title.EndsWith(suffix.Trim(), StringComparison.Ordinal))
            title = title[..^suffix.Trim().Length].TrimEnd();
        var content = document.QuerySelector("main") ?? document.QuerySelector("article") ?? document.Body;
        var pictures = document
            .QuerySelectorAll<IHtmlImageElement>("img")
            .Where(i => content?.Contains(i) != true || content == document.Body)
            .Select(i => new DocumentPicture(Visible.Line(i.GetAttribute("alt"))))
            .ToList();
        foreach (var gone in content?.QuerySelectorAll("h1, nav, header, footer, script, style, form, p.short, figure").ToList() ?? [])
            gone.Remove();
        foreach (var link in content?.QuerySelectorAll("a[href]").ToList() ?? [])
            if (pageAt(link.GetAttribute("href") ?? "") is { } id)
                link.SetAttribute("href", RichLink.PagePrefix + id.ToString(CultureInfo.InvariantCulture));
        var fields = new JsonObject();
        void Set(string role, string text)
        {
            if (text.Length > 0 && rules.Role(role) is { } field)
                fields[field.Key] =
                    field.Shape == FieldShape.Phrases ? new JsonArray([.. text.Split(',').Select(t => (JsonNode)t.Trim())]) : text;
        }

        var slug = Meta(Slug) is { Length: > 0 } own
            ? own
            : SlugOf(document.QuerySelector("link[rel=canonical]")?.GetAttribute("href"), name);
        Set("heading", heading.Length > 0 ? heading : title);
        // What was derived from the name and the text is no text of its own.
        var body = RichText.Sanitize(content?.InnerHtml ?? "").Trim();
        Set("title", title == heading ? "" : title);
        Set(
            "meta",
            Meta("description") is var description && description == DerivedText.MetaDescription(RichBody.Read(body)) ? "" : description
        );
        Set("keywords", Meta("keywords"));
        Set("menu", Meta(Menu));
        Set("slug", slug);
        Set("short", Visible.Line(document.QuerySelector("p.short")?.TextContent));
        Set("body", body);
        var kind =
            Enum.TryParse<PageKind>(Meta(Kind), ignoreCase: true, out var known) ? known
            : html.Contains("\"Product\"", StringComparison.Ordinal) ? PageKind.Product
            : PageKind.Content;
        return new(
            heading.Length > 0 ? heading
                : title.Length > 0 ? title
                : name,
            IsPage: kind != PageKind.Product,
            Pictures: pictures.Count > 0 ? pictures : null,
            Listings: [new(rules.Id, fields)],
            Page: new(0, kind, IsPublished: true, LiveSlug: slug)
        );
    }

    /// <summary>A product's schema.org data, or those of a page and where it is.</summary>
    public static string JsonLd(Page page, string title)
    {
        var graph = new JsonArray
        {
            new JsonObject
            {
                ["@type"] = "BreadcrumbList",
                ["itemListElement"] = new JsonArray([
                    .. page
                        .Crumbs.Append((page.Fields.GetValueOrDefault("heading", title), page.Address))
                        .Select(
                            (c, i) =>
                                (JsonNode)
                                    new JsonObject
                                    {
                                        ["@type"] = "ListItem",
                                        ["position"] = i + 1,
                                        ["name"] = c.Item1,
                                        ["item"] = c.Item2,
                                    }
                        ),
                ]),
            },
        };
        if (page.Kind == PageKind.Product)
            graph.Add(
                new JsonObject
                {
                    ["@type"] = "Product",
                    ["name"] = page.Fields.GetValueOrDefault("heading", title),
                    ["description"] = RichBody.Read(page.Fields.GetValueOrDefault("body", "")).Text,
                    ["url"] = page.Address,
                    ["brand"] = new JsonObject { ["@type"] = "Brand", ["name"] = page.Brand },
                    ["material"] = Strings(page.Facts.Materials),
                    ["color"] = Strings(page.Facts.Colours),
                    ["size"] = Strings(page.Facts.Sizes),
                }
            );
        // "</script" inside a text would end the element.
        return new JsonObject { ["@context"] = "https://schema.org", ["@graph"] = graph }
            .ToJsonString()
            .Replace("</", "<\\/", StringComparison.Ordinal);
    }

    /// <summary>The products of schema.org JSON-LD, as listings.</summary>
    public static IReadOnlyList<ReadListing> ListingsIn(string json)
    {
        using var given = GivenJson.Parse(new MemoryStream(Encoding.UTF8.GetBytes(json)));
        List<JsonNode?> nodes =
        [
            .. given.Deserialize<JsonNode>() switch
            {
                JsonArray list => list,
                JsonObject one when one["@graph"] is JsonArray graph => graph,
                var one => [one],
            },
        ];
        if (nodes.Count > Bounds.ImportedProducts)
            throw new InvalidInputException([
                new("file", $"This file has more than {Bounds.ImportedProducts:#,0} products. Import it in parts."),
            ]);
        // A product of its own is read as the page is that has it.
        return
        [
            .. nodes
                .OfType<JsonObject>()
                .Where(n => StructuredData.Texts(n["@type"]).Contains("Product"))
                .Select(n =>
                    PageReader
                        .Read(
                            $"<script type=\"application/ld+json\">{n.ToJsonString().Replace("</", "<\\/", StringComparison.Ordinal)}</script>",
                            null,
                            null,
                            default
                        )
                        .Listing
                )
                .OfType<ReadListing>(),
        ];
    }

    /// <summary>Reads products of schema.org JSON-LD.</summary>
    /// <exception cref="InvalidInputException">It is no JSON, or there is no product in it.</exception>
    public static IReadOnlyList<DocumentProduct> ReadJsonLd(string json, Platform rules)
    {
        using var given = GivenJson.Parse(new MemoryStream(Encoding.UTF8.GetBytes(json)));
        var products = new List<DocumentProduct>();
        Find(given.Deserialize<JsonNode>());
        return products.Count > 0
            ? products
            : throw new InvalidInputException([new("file", "There is no schema.org product in this file.")]);

        void Find(JsonNode? node)
        {
            switch (node)
            {
                case JsonArray list:
                    foreach (var item in list)
                        Find(item);
                    break;
                case JsonObject item when StructuredData.Texts(item["@type"]).Contains("Product"):
                    if (products.Count == Bounds.ImportedProducts)
                        throw new InvalidInputException([
                            new("file", $"This file has more than {Bounds.ImportedProducts:#,0} products. Import it in parts."),
                        ]);
                    products.Add(ProductOf(item, rules));
                    break;
                case JsonObject item:
                    Find(item["@graph"]);
                    break;
            }
        }
    }

    private static DocumentProduct ProductOf(JsonObject item, Platform rules)
    {
        var name = First(item["name"]) is { Length: > 0 } named ? Visible.Line(named) : "Product";
        var fields = new JsonObject();
        void Set(string role, string text)
        {
            if (text.Length > 0 && rules.Role(role) is { } field)
                fields[field.Key] = text;
        }

        var description = First(item["description"]) ?? "";
        Set("heading", name);
        Set(
            "body",
            RichText.Sanitize(
                string.Concat(description.Split('\n').Where(l => l.Trim().Length > 0).Select(l => $"<p>{Encoded(l.Trim())}</p>"))
            )
        );
        Set("slug", SlugOf(First(item["url"]), name));
        return new(
            name,
            Facts: new Facts
            {
                What = "",
                Materials = [.. StructuredData.Texts(item["material"])],
                Colours = [.. StructuredData.Texts(item["color"])],
                Sizes = [.. StructuredData.Texts(item["size"])],
            },
            Listings: [new(rules.Id, fields)],
            Page: new(0, PageKind.Product)
        );
    }

    private static string SlugOf(string? address, string name)
    {
        var path =
            address is null ? ""
            : Uri.TryCreate(address, UriKind.Absolute, out var uri) ? uri.AbsolutePath
            : address;
        var last = WebUtility.UrlDecode(path.TrimEnd('/')).Split('/')[^1];
        return last.Length > 0 ? last : Slugs.Of(Path.GetFileNameWithoutExtension(name), _ => false);
    }

    // A link to a page that is gone keeps its words.
    private static string WithAddresses(string html, Func<int, string?> addressOf) =>
        PageLink()
            .Replace(
                RichText.WithoutLinks(
                    html,
                    a =>
                        a.StartsWith(RichLink.PagePrefix, StringComparison.Ordinal)
                        && (new RichLink(a, "").PageId is not { } id || addressOf(id) is null)
                ),
                m => $"href=\"{Encoded(addressOf(int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture)) ?? "")}\""
            );

    private static string? First(JsonNode? node) => StructuredData.Texts(node).FirstOrDefault();

    private static JsonArray Strings(IReadOnlyList<string> texts) => new([.. texts.Select(t => (JsonNode)t)]);

    private static string Encoded(string text) => WebUtility.HtmlEncode(text);

    [GeneratedRegex("href=\"page:(\\d{1,9})\"")]
    private static partial Regex PageLink();
}
