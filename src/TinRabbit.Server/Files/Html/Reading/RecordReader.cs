using AngleSharp.Dom;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>Reads one record: its title, price, rating, shop, and whether it is an ad.</summary>
internal static class RecordReader
{
    private const int LongestTitle = 400;

    /// <summary>The price that is paid, of those that stand in a record.</summary>
    public readonly record struct Paid(PriceText.Found Price, bool IsSure);

    /// <summary>Its longest heading or link text; in full where the visible one is cut off. Empty where it has none.</summary>
    public static string TitleOf(PageRecord record)
    {
        var (best, source) = ("", (IElement?)null);
        var headings = Visible
            .Under(record.Roots)
            .Where(e => e.LocalName is ['h', >= '1' and <= '6'] or "dt" || e.GetAttribute("role") == "heading");
        foreach (var heading in headings)
            Take(Visible.Text(heading), heading);
        if (best.Length < 3)
            foreach (var link in Visible.Under(record.Roots).Where(e => e.LocalName == "a" && e.HasAttribute("href")))
            foreach (var (text, element) in TextsOf(link))
                Take(text, element);
        if (best.Length < 3)
            foreach (var image in Visible.Under(record.Roots).Where(e => e.LocalName == "img"))
                Take(Visible.Line(image.GetAttribute("alt")), image);
        return source is null ? best : InFull(best, source, record);

        void Take(string text, IElement element)
        {
            if (text.Length > best.Length && text.Length <= LongestTitle && IsTitle(text))
                (best, source) = (text, element);
        }
    }

    /// <summary>The address of the listing: of the link that its title is in, or is.</summary>
    public static string? UrlOf(PageRecord record)
    {
        var links = Visible
            .Under(record.Roots)
            .Where(e => e.LocalName == "a" && e.GetAttribute("href") is { Length: > 0 } href && href[0] != '#')
            .ToList();
        var title = record.Title;
        return (
            links.FirstOrDefault(l =>
                title.StartsWith(Beginning(Visible.Text(l)), StringComparison.OrdinalIgnoreCase) && Visible.Text(l).Length > 2
            ) ?? links.FirstOrDefault()
        )?.GetAttribute("href");

        static string Beginning(string text) => text.TrimEnd('.', '…', ' ') is var plain && plain.Length > 24 ? plain[..24] : plain;
    }

    /// <summary>The price that is paid: none that is crossed out, of an instalment, of a unit or of shipping. Null where there is none.</summary>
    public static Paid? PriceOf(PageRecord record)
    {
        var found = new List<PriceText.Found>();
        var before = "";
        foreach (var root in record.Roots)
            Look(root, isStruck: false);
        return found.Count switch
        {
            0 => null,
            1 => new(found[0], !found[0].IsRange),
            // The same price twice: once for the eye and once for the ear.
            _ when found.DistinctBy(f => f.Value).Count() == 1 => new(found[0], !found[0].IsRange),
            // Of two that nothing tells apart, the lower one is paid.
            _ => new(found.Take(2).MinBy(f => f.Value), false),
        };

        void Look(IElement element, bool isStruck)
        {
            if (Visible.IsHidden(element))
                return;
            isStruck |= IsStruck(element);
            var whole = Visible.Text(element);
            if (whole.Length == 0)
                return;
            if (whole.Length <= 60 && PriceText.Is(Joined(element, whole)))
            {
                var (price, behind) = (PriceText.In(Joined(element, whole)).First(), Behind(element));
                if (
                    !isStruck
                    && !PageWords.SaysBefore(before)
                    && !PageWords.IsAboutShipping(before)
                    && !PageWords.IsPart("", behind)
                    // A price of its own behind it is what shipping costs.
                    && (PriceText.In(behind).Any() || !PageWords.IsOfShipping("", behind))
                )
                    found.Add(price);
                before = "";
                return;
            }

            // What stands before a price is what a reader has read by then.
            var own = new StringBuilder();
            foreach (var child in element.ChildNodes)
                if (child is IText words)
                    own.Append(words.Data);
                else if (child is IElement part && Visible.IsFormat(part) && part.ChildElementCount == 0 && !IsStruck(part))
                    own.Append(Visible.Text(part));
                else if (child is IElement inner)
                {
                    Read(own, isStruck);
                    Look(inner, isStruck);
                }

            Read(own, isStruck);
        }

        void Read(StringBuilder text, bool isStruck)
        {
            var own = Visible.Line(text.ToString());
            text.Clear();
            if (own.Length == 0)
                return;
            var prices = isStruck ? [] : PriceText.In(own).ToList();
            for (var i = 0; i < prices.Count; i++)
            {
                // What stands between two prices is of one of them.
                var price = prices[i];
                var left = own[(i > 0 ? prices[i - 1].Start + prices[i - 1].Length : 0)..price.Start];
                var right = own[(price.Start + price.Length)..(i + 1 < prices.Count ? prices[i + 1].Start : own.Length)];
                if (
                    !PageWords.SaysBefore(left.Length > 0 ? left : before)
                    && !PageWords.IsPart(left, right)
                    && !PageWords.IsOfShipping(left, right)
                )
                    found.Add(price);
            }

            before = own;
        }
    }

    /// <summary>Mean stars of a record, and how many rated; null where they are not said.</summary>
    public static (double? Stars, int? Count) RatingOf(PageRecord record)
    {
        double? stars = null;
        int? count = null;
        foreach (var element in Visible.Under(record.Roots))
        {
            foreach (
                var text in (string?[])
                    [
                        element.GetAttribute("aria-label"),
                        element.GetAttribute("title"),
                        Visible.Own(element),
                        element.ChildElementCount <= 4 ? Visible.Text(element) : null,
                    ]
            )
                if (text is { Length: > 0 and <= 120 } && text != record.Title)
                {
                    stars ??= RatingText.Stars(text);
                    count ??= RatingText.Count(text);
                }

            if (stars is not null && count is not null)
                break;
        }

        return (stars, count);
    }

    /// <summary>The shop that a record names; null where it names none.</summary>
    public static string? ShopOf(PageRecord record)
    {
        foreach (var element in Visible.Under(record.Roots))
            if (Visible.Text(element) is { Length: > 2 and <= 80 } text && text != record.Title && PageWords.ShopIn(text) is { } shop)
                return shop;
        // A link of its own, to somewhere else than the listing.
        var url = UrlOf(record);
        return Visible
            .Under(record.Roots)
            .Where(e => e.LocalName == "a" && e.GetAttribute("href") is { Length: > 1 } href && href != url && href[0] != '#')
            .Select(e => Visible.Text(e))
            .FirstOrDefault(t =>
                t.Length is > 1 and <= 50
                && t != record.Title
                && !PriceText.Is(t)
                && !RatingText.Is(t)
                && !PageWords.SaysAd(t)
                && !PageWords.SaysBuy(t)
                && !record.Title.StartsWith(t.TrimEnd('.', '…'), StringComparison.Ordinal)
            );
    }

    /// <summary>Whether a record says that it is an ad.</summary>
    public static bool IsAd(PageRecord record) =>
        Visible
            .Under(record.Roots)
            .Any(e =>
                (Visible.Own(e) is { Length: > 0 } own && PageWords.SaysAd(own))
                || (e.GetAttribute("aria-label") is { } label && PageWords.SaysAd(label))
                || (e.ChildElementCount is > 0 and <= 3 && Visible.Text(e) is { Length: > 0 and <= 40 } text && PageWords.SaysAd(text))
            );

    /// <summary>The first picture of a record; null where it has none.</summary>
    public static ReadImage? ImageOf(PageRecord record) =>
        Visible.Under(record.Roots).FirstOrDefault(e => e.LocalName == "img") is { } image
            ? new(Visible.Line(image.GetAttribute("alt")), image.GetAttribute("src") ?? image.GetAttribute("data-src"))
            : null;

    private static bool IsTitle(string text) =>
        text.Any(char.IsLetter)
        && !PriceText.Is(text)
        && !RatingText.Is(text)
        && !PageWords.SaysAd(text)
        && !PageWords.SaysBuy(text)
        && !PageWords.SaysFreeShipping(text)
        && PageWords.ShopIn(text) is null;

    // A link around a whole card has many texts.
    private static IEnumerable<(string Text, IElement Element)> TextsOf(IElement link)
    {
        var whole = Visible.Text(link);
        if (!PriceText.In(whole).Any() && link.Children.All(c => Visible.IsFormat(c) || c.LocalName is "span" or "img"))
            yield return (whole, link);
        foreach (var element in Visible.Under([link]))
            if (Visible.Own(element) is { Length: > 2 } own)
                yield return (own, element);
    }

    // The whole title stands in another attribute where the visible one is cut off.
    private static string InFull(string title, IElement source, PageRecord record)
    {
        if (!title.EndsWith('…') && !title.EndsWith("...", StringComparison.Ordinal))
            return title;
        var shown = title.TrimEnd('.', '…', ' ');
        return Around(source)
                .Concat(Visible.Under(record.Roots))
                .SelectMany(e => (string?[])[e.GetAttribute("aria-label"), e.GetAttribute("title"), e.GetAttribute("alt")])
                .OfType<string>()
                .Select(t => Visible.Line(t))
                .FirstOrDefault(t => t.Length > shown.Length && t.StartsWith(shown, StringComparison.OrdinalIgnoreCase))
            ?? title;

        static IEnumerable<IElement> Around(IElement element)
        {
            for (var at = element; at is not null; at = at.ParentElement)
                yield return at;
        }
    }

    private static bool IsStruck(IElement element) =>
        element.LocalName is "del" or "s" or "strike"
        || element.GetAttribute("style")?.Contains("line-through", StringComparison.OrdinalIgnoreCase) == true
        || (
            element.GetAttribute("aria-label") is { } label
            && PriceText.In(label).FirstOrDefault() is { Length: > 0 } price
            && PageWords.SaysBefore(label[..price.Start])
        );

    // 38 and a small 00 are 38.00.
    private static string Joined(IElement element, string whole)
    {
        if (element.QuerySelector("sup") is { } raised && Visible.Text(raised) is [>= '0' and <= '9', >= '0' and <= '9'] cents)
        {
            var rest = Visible.Text(element, without: e => e == raised);
            var last = rest.LastIndexOfAny(['0', '1', '2', '3', '4', '5', '6', '7', '8', '9']);
            // The marks between thousands are none of decimals.
            var sign = rest.Contains('.') ? ',' : '.';
            return last < 0 ? whole : rest[..(last + 1)] + sign + cents + rest[(last + 1)..];
        }

        // Parts of a price have no space in them, but between the sign and the number.
        return element.ChildElementCount > 1 && whole.Length <= 24 && whole.Any(char.IsAsciiDigit) && !whole.Any(c => c is '–' or '-')
            ? string.Concat(whole.Where(c => c != ' '))
            : whole;
    }

    private static string Behind(IElement element) =>
        element.NextSibling is IText text ? Visible.Line(text.Data)
        : element.NextElementSibling is { } next && Visible.Text(next) is { Length: <= 30 } behind ? behind
        : "";
}
