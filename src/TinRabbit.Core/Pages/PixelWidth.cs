using System.Globalization;
using System.Text;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>
/// How wide a text is on a results page: the sum of the advance widths of its characters in the text font that ships, Atkinson
/// Hyperlegible Next at weight 400, without kerning. Other fonts differ by some percent.
/// </summary>
public static class PixelWidth
{
    private const string Ellipsis = " …";
    private static readonly Dictionary<int, int> Advances = [];

    static PixelWidth()
    {
        foreach (var parts in WordData.Lines("advances.txt", "Pages").Select(l => l.Split(' ')))
        {
            var width = int.Parse(parts[1], CultureInfo.InvariantCulture);
            if (parts[0] == "*")
                Usual = width;
            else
                Advances[int.Parse(parts[0], NumberStyles.HexNumber, CultureInfo.InvariantCulture)] = width;
        }
    }

    /// <summary>Thousandths of the font size for a character that the font does not have.</summary>
    public static int Usual { get; }

    /// <summary>The width of a text in pixels.</summary>
    /// <param name="text">One line.</param>
    /// <param name="size">The font size in pixels.</param>
    public static double Of(string text, double size) => text.EnumerateRunes().Sum(r => Of(r, size));

    /// <summary>How many UTF-16 units of a text show in a width: all of it, or its last whole word that leaves room for “ …”.</summary>
    /// <param name="text">One line.</param>
    /// <param name="size">The font size in pixels.</param>
    /// <param name="pixels">The width.</param>
    public static int Cut(string text, double size, double pixels)
    {
        if (Of(text, size) <= pixels)
            return text.Length;
        var (used, at, word) = (Of(Ellipsis, size), 0, 0);
        foreach (var rune in text.EnumerateRunes())
        {
            if (rune.Value == ' ')
                word = at;
            if ((used += Of(rune, size)) > pixels)
                break;
            at += rune.Utf16SequenceLength;
        }

        return word > 0 ? word : at;
    }

    private static double Of(Rune rune, double size) => (Advances.TryGetValue(rune.Value, out var width) ? width : Usual) * size / 1000;
}
