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

    private const int LongestName = 20;

    // They end by themselves where the next one begins, so they nest no deeper than what is around them; or they have no content.
    private static readonly HashSet<string>.AlternateLookup<ReadOnlySpan<char>> Shallow = Names(
        "p li dt dd option tr td th thead tbody tfoot br hr img input meta link source wbr col base area embed param track"
    );

    // What may stand in an SVG picture or a formula without ending it; there, and only there, "/>" ends an element.
    private static readonly HashSet<string>.AlternateLookup<ReadOnlySpan<char>> Drawn = Names(
        "svg g path circle ellipse rect line polyline polygon use defs symbol text tspan textpath image stop lineargradient radialgradient "
            + "pattern mask clippath marker filter animate animatetransform animatemotion set mpath switch view style script a metadata title "
            + "desc math mi mn mo ms mrow mfrac msup msub msubsup msqrt mroot mover munder munderover mtable mtr mtd mtext mspace mstyle mpadded "
            + "mphantom menclose semantics annotation"
    );

    // In these, HTML begins again.
    private static readonly HashSet<string>.AlternateLookup<ReadOnlySpan<char>> Captions = Names("title desc foreignobject");

    /// <summary>What is beyond a bound, as a sentence; null where nothing is.</summary>
    /// <param name="html">The HTML.</param>
    /// <param name="most">The most tags.</param>
    public static string? Problem(string html, int most = Tags)
    {
        var (tags, depth, isDrawing, inCaption) = (0, 0, false, false);
        for (var i = html.IndexOf('<', StringComparison.Ordinal); i >= 0 && i + 1 < html.Length; i = html.IndexOf('<', i + 1))
        {
            var closes = html[i + 1] == '/';
            var name = NameAt(html, closes ? i + 2 : i + 1);
            if (name.Length == 0)
                continue;
            if (++tags > most)
                return $"This HTML has more than {most:#,0} tags. Remove what is no text, or split it.";
            if (isDrawing && Captions.Contains(name))
                inCaption = !closes;
            else if (isDrawing && !inCaption)
                isDrawing = Drawn.Contains(name);
            isDrawing |=
                !closes
                && (name.Equals("svg", StringComparison.OrdinalIgnoreCase) || name.Equals("math", StringComparison.OrdinalIgnoreCase));
            if (Shallow.Contains(name) || (isDrawing && !inCaption && EndsItself(html, i)))
                continue;
            depth = closes ? Math.Max(0, depth - 1) : depth + 1;
            if (depth > Depth)
                return $"The elements of this HTML stand in each other more than {Depth} deep. Remove the nesting.";
        }

        return null;
    }

    private static ReadOnlySpan<char> NameAt(string html, int from)
    {
        var to = from;
        while (to < html.Length && to - from < LongestName && char.IsAsciiLetterOrDigit(html[to]))
            to++;
        return html.AsSpan(from, to - from);
    }

    private static bool EndsItself(string html, int start) => html.IndexOf('>', start) is > 0 and var end && html[end - 1] == '/';

    private static HashSet<string>.AlternateLookup<ReadOnlySpan<char>> Names(string names) =>
        new HashSet<string>(names.Split(' '), StringComparer.OrdinalIgnoreCase).GetAlternateLookup<ReadOnlySpan<char>>();
}
