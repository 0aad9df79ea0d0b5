using System.Text;

namespace TinRabbit.Market.StandIn;

/// <summary>Simple drawings of made-up listings: what their title names, in colours of their own.</summary>
public static class Drawings
{
    private const int Woods = 5;

    private static readonly (string Word, string Shape)[] Kinds =
    [
        // A bath comes before the bat that its word begins with.
        (
            "bath",
            "<ellipse cx='50' cy='40' rx='30' ry='10' class='a'/><ellipse cx='50' cy='39' rx='24' ry='6' class='g'/><path d='M44 50h12l4 30H40Z' class='d'/>"
        ),
        (
            "bat",
            "<rect x='36' y='22' width='28' height='56' rx='2' class='a'/><path d='M36 34h28M36 46h28M36 58h28' class='l'/><rect x='40' y='74' width='20' height='4' class='d'/>"
        ),
        (
            "feeder",
            "<path d='M28 38 50 22 72 38Z' class='d'/><rect x='34' y='38' width='32' height='30' class='g'/><path d='M34 60h32v8H34z' class='b'/><rect x='26' y='68' width='48' height='6' class='a'/>"
        ),
        (
            "table",
            "<rect x='22' y='36' width='56' height='8' class='a'/><rect x='46' y='44' width='8' height='38' class='d'/><path d='M34 82h32' class='l'/>"
        ),
        (
            "shirt",
            "<path d='M34 24 20 36l8 12 6-4v34h32V44l6 4 8-12-14-12-8 4H42Z' class='a'/><path d='M44 50c4-8 12-6 12 0s-6 10-12 6' class='l'/>"
        ),
        (
            "chart",
            "<rect x='24' y='16' width='52' height='66' class='w'/><path d='M30 28h14M52 28h18M30 42h14M52 42h18M30 56h14M52 56h18M30 70h14' class='l'/>"
        ),
        (
            "print",
            "<rect x='24' y='18' width='52' height='62' class='w'/><circle cx='50' cy='44' r='14' class='b'/><path d='M34 70h32' class='l'/>"
        ),
        ("poster", "<rect x='24' y='18' width='52' height='62' class='w'/><path d='M30 62 44 40l10 12 8-8 10 18Z' class='b'/>"),
        (
            "cabin",
            "<path d='M16 50 50 22l34 28v30H16Z' class='a'/><rect x='44' y='56' width='14' height='24' class='d'/><rect x='24' y='56' width='12' height='10' class='g'/><path d='M10 82h80' class='l'/>"
        ),
        (
            "sheet",
            "<rect x='26' y='16' width='48' height='64' class='w'/><path d='M32 28h36M32 38h36M32 48h24' class='l'/><circle cx='60' cy='66' r='7' class='b'/>"
        ),
        (
            "nest",
            "<path d='M26 42 50 20l24 22v38H26Z' class='a'/><circle cx='50' cy='52' r='8' class='d'/><rect x='48' y='64' width='4' height='8' class='d'/>"
        ),
        (
            "house",
            "<path d='M24 44 50 20l26 24-4 4v32H28V48Z' class='a'/><circle cx='50' cy='56' r='8' class='d'/><path d='M24 44 50 20l26 24' class='l'/>"
        ),
        (
            "box",
            "<rect x='28' y='30' width='44' height='50' class='a'/><path d='M24 30h52l-6-10H30Z' class='d'/><circle cx='50' cy='50' r='8' class='d'/>"
        ),
    ];

    /// <summary>Draws a listing.</summary>
    /// <param name="title">Its title: the same drawing for the same title.</param>
    /// <returns>SVG.</returns>
    public static string Of(string title)
    {
        var hash = HashOf(title);
        var (ground, wood, bright) = (hash % 360, 18 + hash / 7 % Woods * 6, hash / 31 % 360);
        var lower = title.ToLowerInvariant();
        var shape = Kinds.FirstOrDefault(k => lower.Contains(k.Word, StringComparison.Ordinal)).Shape ?? Kinds[^1].Shape;
        // Colours as attributes: a picture has no style sheet.
        shape = shape
            .Replace("class='a'", Fill($"hsl({wood},42%,56%)"), StringComparison.Ordinal)
            .Replace("class='d'", Fill($"hsl({wood},38%,30%)"), StringComparison.Ordinal)
            .Replace("class='b'", Fill($"hsl({bright},52%,52%)"), StringComparison.Ordinal)
            .Replace("class='g'", Fill("hsl(200,40%,86%)"), StringComparison.Ordinal)
            .Replace("class='w'", $"{Fill("#fbf8f0")} {Stroke(wood)}", StringComparison.Ordinal)
            .Replace("class='l'", $"{Fill("none")} {Stroke(wood)}", StringComparison.Ordinal);
        return $"<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 100 100'><rect width='100' height='100' {Fill($"hsl({ground},24%,90%)")}/>{shape}</svg>";
    }

    private static string Fill(string colour) => $"fill='{colour}'";

    private static string Stroke(uint wood) => $"stroke='hsl({wood},38%,30%)' stroke-width='2'";

    // FNV-1a.
    private static uint HashOf(string text)
    {
        var hash = 2_166_136_261u;
        foreach (var letter in Encoding.UTF8.GetBytes(text))
            hash = unchecked((hash ^ letter) * 16_777_619u);
        return hash;
    }
}
