using System.Text.RegularExpressions;
using AngleSharp.Dom;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>Reads the page of one listing.</summary>
internal static partial class ListingReader
{
    private const int MostOfAKind = 200;
    private const int LongestText = 200_000;

    /// <summary>Reads it: structured data first, the visible page for what that lacks.</summary>
    public static ReadListing Read(IDocument document, IElement body, StructuredData data)
    {
        var product = data.Products.FirstOrDefault() ?? [];
        var heading = body.QuerySelector("h1") is { } h1 ? Visible.Text(h1) : "";
        var title =
            StructuredData.Text(product, "name") is { Length: > 0 } named ? named
            : heading.Length > 0 ? heading
            : Visible.Line(document.Title);
        if (heading.Length > title.Length && heading.StartsWith(title.TrimEnd('.', '…'), StringComparison.OrdinalIgnoreCase))
            title = heading;
        var offer = StructuredData.OfferOf(product);
        var shown = offer is null ? MainPrice(body) : null;
        var (stars, count) = StructuredData.RatingOf(product);
        var (seenStars, seenCount) = stars is null || count is null ? RecordReader.RatingOf(new(WorkOf(body))) : (null, null);
        return new(
            title,
            offer?.Price ?? shown?.Value,
            offer?.Currency ?? shown?.Currency,
            DescriptionOf(body) is { Length: > 0 } description ? description
                : Plain(StructuredData.Text(product, "description")) is { Length: > 0 } told ? told
                : null,
            Bullets(body),
            Tags(body, product),
            Category(body, data, title),
            Attributes(body, product),
            stars ?? seenStars,
            count ?? seenCount,
            Images(body, product),
            Reviews(body, product),
            SellerOf(body, product),
            AddressOf(document, product)
        );
    }

    private static string? SellerOf(IElement body, JsonObject product) =>
        StructuredData
            .Objects(product["offers"])
            .Select(o => StructuredData.Texts(o["seller"]).FirstOrDefault())
            .FirstOrDefault(s => s is not null)
        ?? Visible
            .Under([WorkOf(body)])
            .Select(e => Visible.Text(e))
            .Where(t => t.Length is > 2 and <= 80)
            .Select(PageWords.ShopIn)
            .FirstOrDefault(s => s is not null);

    private static string? AddressOf(IDocument document, JsonObject product)
    {
        string?[] told =
        [
            document.QuerySelector("link[rel=canonical]")?.GetAttribute("href"),
            document.QuerySelector("meta[property='og:url' i]")?.GetAttribute("content"),
            StructuredData.Text(product, "url"),
        ];
        return Array.Find(told, t => !string.IsNullOrWhiteSpace(t))?.Trim();
    }

    private static IElement WorkOf(IElement body) => body.QuerySelector("main") ?? body.QuerySelector("article") ?? body;

    // The first price below the heading that is paid.
    private static PriceText.Found? MainPrice(IElement body)
    {
        for (var at = body.QuerySelector("h1"); at is not null; at = at.ParentElement)
            if (RecordReader.PriceOf(new(at)) is { } paid)
                return paid.Price;
        return null;
    }

    private static string? DescriptionOf(IElement body)
    {
        var text =
            body.QuerySelector("[itemprop=description]") is { } marked ? marked
            : Headed(body, DescriptionHead()) is { } headed ? headed
            : null;
        return text is null ? null : Paragraphs(text);
    }

    // What stands below a heading that says what it is.
    private static IElement? Headed(IElement body, Regex head)
    {
        foreach (var heading in body.QuerySelectorAll("h2, h3, h4, summary, dt, button, [role=tab], strong"))
        {
            if (Visible.Text(heading) is not { Length: > 2 and <= 60 } text || !head.IsMatch(text))
                continue;
            for (var at = heading; at is not null && at != body; at = at.ParentElement)
                if (at.NextElementSibling is { } next && Visible.Text(next).Length > 20)
                    return next;
        }

        return null;
    }

    private static string Paragraphs(IElement element)
    {
        var lines = new List<string>();
        var blocks = element.QuerySelectorAll("p, li, h2, h3, h4, div").Where(b => b.QuerySelector("p, li, div") is null).ToList();
        if (blocks.Count > 0)
            lines.AddRange(blocks.Select(b => Visible.Text(b)).Where(t => t.Length > 0));
        if (lines.Sum(l => l.Length) * 2 < Visible.Text(element).Length)
            return Breaks(element);
        return Short(string.Join('\n', lines));
    }

    // Lines that are apart by breaks alone.
    private static string Breaks(IElement element)
    {
        var text = new StringBuilder();
        foreach (var node in element.ChildNodes)
            text.Append(
                node is IElement { LocalName: "br" } ? "\n"
                : node is IElement part ? Visible.Text(part) + " "
                : node is IText words ? words.Data
                : ""
            );
        return Short(string.Join('\n', text.ToString().Split('\n').Select(l => Visible.Line(l)).Where(l => l.Length > 0)));
    }

    private static IReadOnlyList<string> Bullets(IElement body)
    {
        if (Headed(body, BulletHead()) is { } headed && headed.QuerySelectorAll("li") is { Length: > 1 } items)
            return Few(items.Select(i => Visible.Text(i)));
        // A list of sentences right beside the heading.
        return Few(
            WorkOf(body)
                .QuerySelectorAll("ul")
                .FirstOrDefault(u =>
                    u.Closest("nav, footer, aside, header") is null
                    && u.QuerySelectorAll("li") is { Length: >= 3 and <= 20 } lines
                    && u.QuerySelector("a") is null
                    && lines.Average(l => Visible.Text(l).Length) > 25
                )
                ?.QuerySelectorAll("li")
                .Select(l => Visible.Text(l))
                ?? []
        );
    }

    private static IReadOnlyList<string> Tags(IElement body, JsonObject product)
    {
        var marked = body.QuerySelectorAll("a[rel~=tag]").Select(a => Visible.Text(a)).ToList();
        if (marked.Count == 0 && Headed(body, TagHead()) is { } headed)
            marked = [.. headed.QuerySelectorAll("a, li, span").Where(e => e.ChildElementCount == 0).Select(a => Visible.Text(a))];
        if (marked.Count == 0)
            marked = [.. StructuredData.Texts(product["keywords"]).SelectMany(k => k.Split(','))];
        return Few(marked.Select(m => Visible.Line(m).TrimStart('#')).Distinct(StringComparer.OrdinalIgnoreCase));
    }

    private static IReadOnlyList<string> Category(IElement body, StructuredData data, string title)
    {
        var crumbs =
            data.Crumbs.Count > 0 ? data.Crumbs
            : body.QuerySelector("nav[aria-label*=readcrumb i], [class*=breadcrumb i], ol[itemtype$=BreadcrumbList]") is { } path
                ? [.. path.QuerySelectorAll("a").Select(a => Visible.Text(a))]
            : StructuredData.Texts(data.Products.FirstOrDefault()?["category"]).SelectMany(c => c.Split('>', '/', '›')).ToList();
        return Few(crumbs.Select(c => Visible.Line(c)).Where(c => c != title && !HomeName().IsMatch(c)));
    }

    private static Dictionary<string, string> Attributes(IElement body, JsonObject product)
    {
        var all = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        foreach (var property in StructuredData.Objects(product["additionalProperty"]))
            Add(StructuredData.Text(property, "name"), StructuredData.Text(property, "value"));
        foreach (var row in WorkOf(body).QuerySelectorAll("tr").Where(r => r.Children.Length == 2))
            Add(Visible.Text(row.Children[0]), Visible.Text(row.Children[1]));
        foreach (var name in WorkOf(body).QuerySelectorAll("dt").Where(d => d.NextElementSibling?.LocalName == "dd"))
            Add(Visible.Text(name), Visible.Text(name.NextElementSibling!));
        foreach (var name in (string[])["material", "color", "size"])
            if (StructuredData.Texts(product[name]).ToList() is { Count: > 0 } values)
                Add(char.ToUpperInvariant(name[0]) + name[1..], string.Join(", ", values));
        return all;

        void Add(string? name, string? value)
        {
            if (
                all.Count < MostOfAKind
                && name?.TrimEnd(':', ' ') is { Length: > 1 and <= 80 } known
                && value is { Length: > 0 and <= 500 }
            )
                all.TryAdd(known, value);
        }
    }

    private static List<ReadImage> Images(IElement body, JsonObject product)
    {
        var shown = WorkOf(body)
            .QuerySelectorAll("img")
            .Where(i => i.Closest("nav, footer, header, aside") is null && !Visible.IsHidden(i))
            .Select(i => new ReadImage(Visible.Line(i.GetAttribute("alt")), i.GetAttribute("src")))
            .DistinctBy(i => i.Address)
            .Take(MostOfAKind)
            .ToList();
        return shown.Count > 0 ? shown : [.. StructuredData.Texts(product["image"]).Take(MostOfAKind).Select(a => new ReadImage("", a))];
    }

    private static List<ReadReview> Reviews(IElement body, JsonObject product)
    {
        var told = StructuredData
            .Objects(product["review"])
            .Concat(StructuredData.Objects(product["reviews"]))
            .Select(r => new ReadReview(
                Plain(StructuredData.Text(r, "reviewBody") ?? StructuredData.Text(r, "description")) ?? "",
                StructuredData
                    .Objects(r["reviewRating"])
                    .Select(s => PriceText.Value(StructuredData.Text(s, "ratingValue") ?? ""))
                    .FirstOrDefault()
                    is { } stars
                        and >= 1
                        and <= 5
                    ? (double)stars
                    : null,
                DayIn(StructuredData.Text(r, "datePublished"))
            ))
            .Where(r => r.Text.Length > 0)
            .Take(Bounds.Reviews)
            .ToList();
        if (told.Count > 0 || Headed(body, ReviewHead()) is not { } headed)
            return told;
        var seen = headed
            .QuerySelectorAll("li, article, section, div")
            .Where(e => e.QuerySelector("p, blockquote, q") is not null && e.QuerySelector("li, article") is null)
            .ToList();
        return
        [
            .. seen.Where(e => !seen.Any(o => o != e && o.Contains(e)))
                .Select(e =>
                    (Element: e, Text: e.QuerySelectorAll("p, blockquote, q").Select(p => Visible.Text(p)).MaxBy(t => t.Length) ?? "")
                )
                .Where(r => r.Text.Length > 2)
                .Select(r => new ReadReview(
                    r.Text,
                    RecordReader.RatingOf(new(r.Element)).Stars is { } stars and >= 1 ? stars : null,
                    DayIn(r.Element.QuerySelector("time")?.GetAttribute("datetime"))
                ))
                .Take(Bounds.Reviews),
        ];
    }

    private static DateOnly? DayIn(string? text) => text is null ? null : WrittenDates.Read(text, WrittenDates.Order.Unknown);

    private static string? Plain(string? text) => text is null ? null : Short(Visible.Line(Tag().Replace(text, " ")));

    private static string Short(string text) => text.Length <= LongestText ? text : text[..LongestText];

    private static IReadOnlyList<string> Few(IEnumerable<string> texts) => [.. texts.Where(t => t.Length > 0).Take(MostOfAKind)];

    [GeneratedRegex("<[^>]{0,500}>")]
    private static partial Regex Tag();

    [GeneratedRegex(
        @"^(item |product )?(description|about this|artikelbeschreibung|produktbeschreibung|beschreibung|description|descripción|descrizione|descrição|omschrijving|beschrijving)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex DescriptionHead();

    [GeneratedRegex(
        @"^(highlights|features|key features|details|merkmale|eigenschaften|points forts|caractéristiques|características|destacados|caratteristiche|in evidenza|destaques|kenmerken)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex BulletHead();

    [GeneratedRegex(
        @"^(tags?|keywords|schlagw(o|ö)rter|stichworte|mots-clés|étiquettes|etiquetas|palabras clave|tag|parole chiave|palavras-chave|trefwoorden)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex TagHead();

    [GeneratedRegex(
        @"(reviews?|bewertungen|rezensionen|avis|opiniones|reseñas|recensioni|avaliações|beoordelingen)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex ReviewHead();

    [GeneratedRegex(@"^(home|homepage|startseite|accueil|inicio|início)$", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex HomeName();
}
