namespace TinRabbit.Core.Platforms;

/// <summary>
/// Whether HTML may be read at all. A parser takes time with the square of the depth of nesting, and memory with each element, so both are
/// counted first, in one pass over the characters.
/// </summary>
public static class HtmlBounds
{
    /// <summary>The deepest that elements may stand in each other.</summary>
    public const int Depth = 200;

    /// <summary>The most tags.</summary>
    public const int Tags = 100_000;

    // They end by themselves where the next one begins, so they nest no deeper than what is around them; or they have no content.
    private static readonly HashSet<string> Shallow = new(StringComparer.OrdinalIgnoreCase)
    {
        "p",
        "li",
        "dt",
        "dd",
        "option",
        "tr",
        "td",
        "th",
        "thead",
        "tbody",
        "tfoot",
        "br",
        "hr",
        "img",
        "input",
        "meta",
        "link",
        "source",
        "wbr",
        "col",
        "base",
        "area",
        "embed",
        "param",
        "track",
    };

    /// <summary>What is beyond a bound, as a sentence; null where nothing is.</summary>
    public static string? Problem(string html)
    {
        var (tags, depth) = (0, 0);
        for (var i = html.IndexOf('<', StringComparison.Ordinal); i >= 0 && i + 1 < html.Length; i = html.IndexOf('<', i + 1))
        {
            var closes = html[i + 1] == '/';
            var from = closes ? i + 2 : i + 1;
            var to = from;
            while (to < html.Length && to - from < 20 && char.IsAsciiLetterOrDigit(html[to]))
                to++;
            if (to == from)
                continue;
            if (++tags > Tags)
                return $"This HTML has more than {Tags:#,0} tags. Remove what is no text, or split it.";
            if (Shallow.Contains(html[from..to]))
                continue;
            depth = closes ? Math.Max(0, depth - 1) : depth + 1;
            if (depth > Depth)
                return $"The elements of this HTML stand in each other more than {Depth} deep. Remove the nesting.";
        }

        return null;
    }
}
