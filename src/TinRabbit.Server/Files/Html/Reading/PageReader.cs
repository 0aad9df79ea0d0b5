using AngleSharp.Dom;
using AngleSharp.Html.Parser;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>Reads a page that a seller saved, or what they copied from one. Nothing of the page is run, and nothing is fetched.</summary>
public static class PageReader
{
    /// <summary>The most characters of a page.</summary>
    public const int MostCharacters = 20 << 20;

    /// <summary>The most elements of a page.</summary>
    public const int MostElements = 200_000;

    /// <summary>The most listings of a page that are read.</summary>
    internal const int MostResults = 2_000;

    private const int MostRelated = 100;
    private const int FewestSuggestions = 2;
    private const int LongestSuggestion = 80;

    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(10);
    private static readonly string[] QueryNames =
    [
        "q",
        "query",
        "search",
        "keyword",
        "keywords",
        "k",
        "s",
        "term",
        "search_query",
        "searchterm",
        "text",
    ];

    /// <summary>Reads a page.</summary>
    /// <param name="html">The page; null where only text was copied.</param>
    /// <param name="text">The text; it is read where there is no page.</param>
    /// <param name="shop">The seller's own shop, by which their listings are known; null where it is not known.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">It is beyond a bound.</exception>
    public static ReadPage Read(string? html, string? text, string? shop, CancellationToken stop)
    {
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limited.CancelAfter(Longest);
        try
        {
            if (html is null or "")
            {
                if (text is null or "")
                    throw Wrong("text", "Give a page as html, or what was copied as text.");
                ThrowIfTooLong(text, "text");
                return TextLines.Read(text, shop, limited.Token);
            }

            ThrowIfTooLong(html, "html");
            if (HtmlBounds.Problem(html, MostElements) is { } why)
                throw Wrong("html", why);
            return Read(new HtmlParser().ParseDocument(html), shop, limited.Token);
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            throw Wrong("html", $"Reading this page took more than {Longest.TotalSeconds:0} seconds. Save only the part that you need.");
        }
    }

    /// <summary>Whether two shops have one name, but for capitals, marks and spaces.</summary>
    internal static bool IsSame(string? one, string? other) =>
        one is not null && other is not null && Tokens.Key(one) is { Length: > 0 } key && key == Tokens.Key(other);

    private static ReadPage Read(IDocument document, string? shop, CancellationToken stop)
    {
        if (document.Body is not { } body)
            return Other([]);
        var data = StructuredData.Of(document);
        var region = new RecordRegions(stop).Results(body);
        var total = Total(body, region);
        var query = QueryOf(document, body);
        if (IsListing(document, body, data, region, total))
            return new(ReadKind.Listing, null, null, [], RelatedOf(body), ListingReader.Read(document, body, data), [], []);
        var unread = new List<string>();
        var results = Results(region, data, total?.First ?? 1, shop, unread, stop);
        var related = RelatedOf(body);
        if (results.Count > 0)
            return new(ReadKind.Results, query, total?.Total, results, related, null, [], unread);
        return SuggestionsOf(body) is { Count: >= FewestSuggestions } suggestions
            ? new(ReadKind.Suggestions, query, null, [], [], null, suggestions, [])
            : Other(related, query, total?.Total);

        static ReadPage Other(IReadOnlyList<string> related, string? query = null, long? total = null) =>
            new(
                ReadKind.Other,
                query,
                total,
                [],
                related,
                null,
                [],
                ["No list of listings, no listing and no suggestions were found on this page."]
            );
    }

    private static List<ReadResult> Results(
        RecordRegions.Region? region,
        StructuredData data,
        int first,
        string? shop,
        List<string> unread,
        CancellationToken stop
    )
    {
        var visible = new List<ReadResult>();
        if (region?.Records.Count > MostResults)
            unread.Add($"This page has more than {MostResults:#,0} listings; the first {MostResults:#,0} are read.");
        foreach (var record in (region?.Records ?? []).Take(MostResults))
        {
            stop.ThrowIfCancellationRequested();
            visible.Add(Result(record, first + visible.Count, shop, unread));
        }

        if (!data.IsList || data.Products.Count < 2)
            return visible;
        // Titles of the list are whole; what it lacks, and what it does not have, such as ads, is on the page.
        var told = data.Products.Take(MostResults).Select(p => FromData(p, shop)).ToList();
        if (visible.Count < told.Count)
            return
            [
                .. told.Select(
                    (t, i) =>
                        Merged(t, visible.FirstOrDefault(v => HasAddressOf(v, t)) ?? visible.FirstOrDefault(v => IsNamed(v, t))) with
                        {
                            Position = first + i,
                        }
                ),
            ];
        return
        [
            .. visible.Select(v =>
                (told.FirstOrDefault(t => HasAddressOf(v, t)) ?? told.FirstOrDefault(t => IsNamed(v, t))) is { } t
                    ? Merged(t, v) with
                    {
                        Position = v.Position,
                    }
                    : v
            ),
        ];
    }

    private static bool HasAddressOf(ReadResult seen, ReadResult told) =>
        seen.Url is not null && told.Url is not null && Path(seen.Url) == Path(told.Url);

    private static bool IsNamed(ReadResult seen, ReadResult told) =>
        told.Title.StartsWith(seen.Title.TrimEnd('.', '…', ' '), StringComparison.OrdinalIgnoreCase);

    private static string Path(string url) =>
        Uri.TryCreate(url, UriKind.Absolute, out var whole) ? whole.AbsolutePath.TrimEnd('/') : url.Split('?', '#')[0].TrimEnd('/');

    private static ReadResult Merged(ReadResult told, ReadResult? seen) =>
        seen is null
            ? told
            : told with
            {
                Url = told.Url ?? seen.Url,
                Shop = told.Shop ?? seen.Shop,
                Price = told.Price ?? seen.Price,
                Currency = told.Currency ?? seen.Currency,
                FreeShipping = seen.FreeShipping,
                Rating = told.Rating ?? seen.Rating,
                Ratings = told.Ratings ?? seen.Ratings,
                Sponsored = seen.Sponsored,
                Image = seen.Image ?? told.Image,
                Mine = told.Mine || seen.Mine,
            };

    private static ReadResult FromData(JsonObject product, string? shop)
    {
        var offer = StructuredData.OfferOf(product);
        var (stars, count) = StructuredData.RatingOf(product);
        var seller = StructuredData
            .Objects(product["offers"])
            .Select(o => StructuredData.Texts(o["seller"]).FirstOrDefault())
            .FirstOrDefault(s => s is not null);
        return new(
            0,
            StructuredData.Text(product, "name") ?? "",
            StructuredData.Text(product, "url"),
            seller,
            offer?.Price,
            offer?.Currency,
            Rating: stars,
            Ratings: count,
            Image: StructuredData.Texts(product["image"]).FirstOrDefault() is { } address ? new("", address) : null,
            Mine: IsSame(seller, shop)
        );
    }

    private static ReadResult Result(PageRecord record, int position, string? shop, List<string> unread)
    {
        var paid = RecordReader.PriceOf(record);
        if (paid is { Price.IsRange: true })
            unread.Add($"“{Short(record.Title)}” has a range of prices; the lower one counts.");
        else if (paid is { IsSure: false })
            unread.Add($"“{Short(record.Title)}” shows two prices; the lower one counts.");
        var (stars, count) = RecordReader.RatingOf(record);
        var named = RecordReader.ShopOf(record);
        return new(
            position,
            record.Title,
            RecordReader.UrlOf(record),
            named,
            paid?.Price.Value,
            paid?.Price.Currency,
            PageWords.SaysFreeShipping(record.Text.Length > 120 ? ShippingPart(record) : record.Text),
            stars,
            count,
            RecordReader.IsAd(record),
            RecordReader.ImageOf(record),
            IsSame(named, shop)
        );
    }

    private static string ShippingPart(PageRecord record) =>
        Visible.Under(record.Roots).Select(Visible.Own).FirstOrDefault(PageWords.SaysFreeShipping) ?? "";

    // One product in its structured data, or a heading with a price and a basket; what is alike below it is by the way.
    private static bool IsListing(IDocument document, IElement body, StructuredData data, RecordRegions.Region? region, (long, int)? total)
    {
        if (data.IsList || total is not null)
            return false;
        if (
            data.Products.Count == 1
            || document
                .QuerySelector("meta[property='og:type' i]")
                ?.GetAttribute("content")
                ?.Contains("product", StringComparison.OrdinalIgnoreCase) == true
        )
            return true;
        return body.QuerySelector("h1") is { } heading
            && body.QuerySelectorAll("button, input[type=submit], a[role=button]")
                .Any(b =>
                    PageWords.SaysBuy(Visible.Text(b) is { Length: > 0 } text ? text : b.GetAttribute("value") ?? "")
                    && region?.Records.Any(r => r.Roots.Any(e => e.Contains(b))) != true
                )
            && Visible.Text(heading).Length > 2;
    }

    private static (long Total, int First)? Total(IElement body, RecordRegions.Region? region)
    {
        var records = region?.Records.SelectMany(r => r.Roots).ToHashSet();
        (long Total, int First)? only = null;
        foreach (var element in Visible.Under([body]))
        {
            if (records?.Contains(element) == true || element.Closest("footer, aside") is not null)
                continue;
            var text = element.ChildElementCount <= 6 ? Visible.Text(element) : Visible.Own(element);
            if (text.Length is 0 or > 200 || PageWords.TotalIn(text) is not { } found || InRecord(element))
                continue;
            if (found.First > 1 || RangeLike(text))
                return found;
            only ??= found;
        }

        return only;

        bool InRecord(IElement element)
        {
            for (var at = element; at is not null; at = at.ParentElement)
                if (records?.Contains(at) == true)
                    return true;
            return false;
        }

        static bool RangeLike(string text) => text.Any(c => c is '–' or '—' or '-');
    }

    private static string? QueryOf(IDocument document, IElement body)
    {
        foreach (var input in body.QuerySelectorAll("input"))
            if (
                (
                    input.GetAttribute("type") == "search"
                    || QueryNames.Contains(input.GetAttribute("name")?.ToLowerInvariant())
                    || input.GetAttribute("role") is "searchbox" or "combobox"
                ) && Visible.Line(input.GetAttribute("value")) is { Length: > 0 and <= Bounds.TermLength } typed
            )
                return typed;
        foreach (
            var heading in body.QuerySelectorAll("h1, h2, [role=status]")
                .Take(6)
                .Select(h => Visible.Text(h))
                .Append(Visible.Line(document.Title))
        )
            if (PageWords.QueryIn(heading) is { } quoted)
                return quoted;
        foreach (
            var address in document
                .QuerySelectorAll("link[rel=canonical], meta[property='og:url']")
                .Select(e => e.GetAttribute("href") ?? e.GetAttribute("content") ?? "")
        )
            if (Uri.TryCreate(address, UriKind.Absolute, out var uri))
                foreach (var part in uri.Query.TrimStart('?').Split('&'))
                    if (part.Split('=', 2) is [var name, { Length: > 0 } value] && QueryNames.Contains(name.ToLowerInvariant()))
                        return Visible.Line(System.Net.WebUtility.UrlDecode(value));
        return null;
    }

    private static List<string> RelatedOf(IElement body)
    {
        foreach (
            var heading in body.QuerySelectorAll("h1, h2, h3, h4, h5, h6, p, span, div, strong, legend")
                .Where(h => h.ChildElementCount <= 1)
        )
        {
            if (!PageWords.IsRelated(Visible.Text(heading)))
                continue;
            for (var at = heading; at is not null && at != body; at = at.ParentElement)
                if (Links(at.ParentElement!, heading) is { Count: > 1 } links)
                    return links;
        }

        return body.QuerySelectorAll("[aria-label]").FirstOrDefault(e => PageWords.IsRelated(e.GetAttribute("aria-label")!)) is { } labelled
            ? Links(labelled, null)
            : [];

        static List<string> Links(IElement around, IElement? heading) =>
            [
                .. around
                    .QuerySelectorAll("a")
                    .Where(a => heading is null || (a.CompareDocumentPosition(heading) & DocumentPositions.Preceding) != 0)
                    .Select(a => Visible.Text(a))
                    .Where(t => t.Length is > 1 and <= LongestSuggestion && !PriceText.In(t).Any())
                    .Distinct(StringComparer.OrdinalIgnoreCase)
                    .Take(MostRelated),
            ];
    }

    // A list of short texts without prices: options of a box that one types in.
    private static List<string> SuggestionsOf(IElement body)
    {
        var options = body.QuerySelectorAll("[role=option], datalist option")
            .Select(o => Visible.Line(o.TextContent) is { Length: > 0 } shown ? shown : Visible.Line(o.GetAttribute("value")))
            .ToList();
        if (options.Count < FewestSuggestions)
            options =
                body.QuerySelectorAll("ul, ol, [role=listbox]")
                    .Where(l => l.Closest("nav, footer, header") is null)
                    .Select(l => l.Children.Select(c => Visible.Text(c)).Where(t => t.Length > 0).ToList())
                    .Where(l => l.Count >= FewestSuggestions && l.TrueForAll(t => t.Length <= LongestSuggestion && !PriceText.In(t).Any()))
                    .MaxBy(l => l.Count)
                ?? [];
        return
        [
            .. options.Where(o => o.Length is > 1 and <= LongestSuggestion).Distinct(StringComparer.OrdinalIgnoreCase).Take(MostRelated),
        ];
    }

    private static void ThrowIfTooLong(string text, string field)
    {
        if (text.Length > MostCharacters)
            throw Wrong(
                field,
                $"This page has {text.Length / 1_000_000.0:0} million characters; the most is {MostCharacters >> 20} million. Save only the part that you need."
            );
    }

    private static InvalidInputException Wrong(string field, string why) => new([new(field, why)]);

    private static string Short(string text) => text.Length <= 60 ? text : text[..59].TrimEnd() + "…";
}
