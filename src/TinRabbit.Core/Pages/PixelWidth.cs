using System.Globalization;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>
/// How wide a text is on a results page: the sum of the advance widths of its characters in the text font that ships, Atkinson
/// Hyperlegible Next at weight 400, without kerning. Other fonts differ by some percent.
/// </summary>
public static class PixelWidth
{
    private static readonly Dictionary<int, int> Advances = [];

    static PixelWidth()
    {
        foreach (var line in WordData.Lines("advances.txt", "Pages"))
        {
            var (code, width, _) = (line.Split(' ')[0], line.Split(' ')[1], 0);
            if (code == "*")
                Usual = int.Parse(width, CultureInfo.InvariantCulture);
            else
                Advances[int.Parse(code, NumberStyles.HexNumber, CultureInfo.InvariantCulture)] = int.Parse(
                    width,
                    CultureInfo.InvariantCulture
                );
        }
    }

    /// <summary>The font that is measured with.</summary>
    public const string Font = "Atkinson Hyperlegible Next";

    /// <summary>Thousandths of the font size for a character that the font does not have.</summary>
    public static int Usual { get; }

    /// <summary>Thousandths of the font size, by code point.</summary>
    public static IReadOnlyDictionary<int, int> Table => Advances;

    /// <summary>The width of a text in pixels.</summary>
    /// <param name="text">One line.</param>
    /// <param name="size">The font size in pixels.</param>
    public static double Of(string text, double size) =>
        text.EnumerateRunes().Sum(r => Advances.TryGetValue(r.Value, out var width) ? width : Usual) * size / 1000;

    /// <summary>How many UTF-16 units of a text fit a width; the whole text where all fits.</summary>
    public static int Fitting(string text, double size, double pixels)
    {
        var (used, at) = (0.0, 0);
        foreach (var rune in text.EnumerateRunes())
        {
            used += (Advances.TryGetValue(rune.Value, out var width) ? width : Usual) * size / 1000;
            if (used > pixels)
                return at;
            at += rune.Utf16SequenceLength;
        }

        return text.Length;
    }
}
