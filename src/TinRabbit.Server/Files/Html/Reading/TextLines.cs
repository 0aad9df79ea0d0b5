namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>Reads what was copied from a page as text: a title line, and lines of price, rating and shop after or before it.</summary>
internal static class TextLines
{
    private const int ShortestTitle = 8;
    private const int MostBetween = 8;
    private const int LongestSuggestion = 80;

    private enum Sort
    {
        Title,
        Price,
        Rating,
        Shop,
        Ad,
        Shipping,
        Total,
        Other,
    }

    /// <summary>Reads lines.</summary>
    public static ReadPage Read(string text, string? shop, CancellationToken stop)
    {
        var lines = text.Split('\n').Select(l => Visible.Line(l)).Where(l => l.Length > 0).Take(100_000).ToList();
        stop.ThrowIfCancellationRequested();
        var sorts = lines.ConvertAll(SortOf);
        var total = lines.Where((_, i) => sorts[i] == Sort.Total).Select(PageWords.TotalIn).FirstOrDefault(t => t is not null);
        var query = lines.Take(12).Select(PageWords.QueryIn).FirstOrDefault(q => q is not null);
        var related = new List<string>();
        var end = lines.Count;
        for (var i = 0; i < lines.Count; i++)
            if (PageWords.IsRelated(lines[i]))
            {
                related.AddRange(lines.Skip(i + 1).TakeWhile(l => l.Length <= LongestSuggestion && !PriceText.In(l).Any()).Take(40));
                end = Math.Min(end, i);
            }
            else if (PageWords.IsAside(lines[i]) && i > lines.Count / 3)
                end = Math.Min(end, i);

        var results = Records(lines, sorts, end, total?.First ?? 1, shop, out var unread);
        if (results.Count > 0)
            return new(ReadKind.Results, query, total?.Total, results, related, null, [], unread);
        return lines.Count > 1 && lines.TrueForAll(l => l.Length <= LongestSuggestion)
            ? new(ReadKind.Suggestions, null, null, [], [], null, [.. lines.Distinct(StringComparer.OrdinalIgnoreCase)], [])
            : new(
                ReadKind.Other,
                query,
                total?.Total,
                [],
                related,
                null,
                [],
                ["No list of listings and no list of suggestions was found in this text."]
            );
    }

    private static Sort SortOf(string line) =>
        PageWords.SaysAd(line) ? Sort.Ad
        : PageWords.SaysFreeShipping(line) || (PageWords.IsAboutShipping(line) && line.Length < 60) ? Sort.Shipping
        : PageWords.TotalIn(line) is not null && RatingText.Count(line) is null && !PriceText.In(line).Any() ? Sort.Total
        : PriceText.In(line).FirstOrDefault() is { Length: > 0 } price && line.Length - price.Length < 40 ? Sort.Price
        : RatingText.Is(line) ? Sort.Rating
        : PageWords.ShopIn(line) is not null ? Sort.Shop
        : line.Length >= ShortestTitle && line.Any(char.IsWhiteSpace) && line.Any(char.IsLetter) && !PageWords.SaysBuy(line) ? Sort.Title
        : Sort.Other;

    private static List<ReadResult> Records(List<string> lines, List<Sort> sorts, int end, int first, string? shop, out List<string> unread)
    {
        unread = [];
        var results = new List<ReadResult>();
        var starts = Starts(lines, sorts, end);
        for (var i = 0; i < starts.Count; i++)
        {
            var (from, to) = (starts[i], i + 1 < starts.Count ? starts[i + 1] : Math.Min(end, starts[i] + MostBetween + 1));
            // A label before a title is of the listing below it.
            var before = from > 0 && sorts[from - 1] == Sort.Ad ? from - 1 : from;
            var own = lines.GetRange(from, to - from);
            var mine = sorts.GetRange(from, to - from);
            if (i + 1 < starts.Count && mine.Count > 1 && mine[^1] == Sort.Ad)
                (own, mine) = (own[..^1], mine[..^1]);
            var prices = own.Where((_, j) => mine[j] == Sort.Price).SelectMany(Paid).ToList();
            if (prices.Count == 0)
                continue;
            var price = prices.Count > 1 ? prices.Take(2).MinBy(p => p.Value) : prices[0];
            var title = own[0];
            if (price.IsRange)
                unread.Add($"“{Short(title)}” has a range of prices; the lower one counts.");
            var named = own.Select(PageWords.ShopIn).FirstOrDefault(s => s is not null);
            results.Add(
                new(
                    first + results.Count,
                    title,
                    Shop: named,
                    Price: price.Value,
                    Currency: price.Currency,
                    FreeShipping: own.Exists(PageWords.SaysFreeShipping),
                    Rating: own.Skip(1).Select(RatingText.Stars).FirstOrDefault(s => s is not null),
                    Ratings: own.Skip(1).Select(RatingText.Count).FirstOrDefault(c => c is not null),
                    Sponsored: before < from || mine.Contains(Sort.Ad),
                    Mine: PageReader.IsSame(named, shop)
                )
            );
        }

        return results.Count > 1 || (results.Count == 1 && lines.Count < 8) ? results : [];
    }

    // Each title has a price of its own behind it: of several lines before a price, the longest is the title.
    private static List<int> Starts(List<string> lines, List<Sort> sorts, int end)
    {
        var starts = new List<int>();
        var last = 0;
        for (var i = 0; i < end; i++)
        {
            if (sorts[i] != Sort.Price || PageWords.IsAboutShipping(lines[i]))
                continue;
            var best = -1;
            for (var j = i - 1; j >= Math.Max(last, i - MostBetween); j--)
                if (sorts[j] == Sort.Title && (best < 0 || lines[j].Length > lines[best].Length))
                    best = j;
            if (best >= 0)
                starts.Add(best);
            if (best >= 0)
                last = i + 1;
        }

        return starts;
    }

    private static IEnumerable<PriceText.Found> Paid(string line) =>
        PriceText
            .In(line)
            .Where(p => !PageWords.SaysBefore(line[..p.Start]) && !PageWords.IsPart(line[..p.Start], line[(p.Start + p.Length)..]));

    private static string Short(string text) => text.Length <= 60 ? text : text[..59].TrimEnd() + "…";
}
