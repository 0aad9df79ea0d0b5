using System.Text;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Platforms;

/// <summary>The length of a text in the units that platforms count.</summary>
public static class TextLength
{
    /// <summary>The length of a text in a unit.</summary>
    public static int Of(string text, Unit unit) =>
        unit switch
        {
            Unit.Bytes => Encoding.UTF8.GetByteCount(text),
            Unit.Words => Tokens.Of(text).Count,
            _ => Characters(text),
        };

    /// <summary>The number of Unicode scalar values of a text.</summary>
    public static int Characters(ReadOnlySpan<char> text)
    {
        var count = text.Length;
        for (var i = 0; i + 1 < text.Length; i++)
            if (char.IsSurrogatePair(text[i], text[i + 1]))
            {
                count--;
                i++;
            }

        return count;
    }

    /// <summary>The UTF-16 offset at which the first <paramref name="characters"/> scalar values of a text end.</summary>
    public static int OffsetOf(string text, int characters)
    {
        var at = 0;
        for (var n = 0; n < characters && at < text.Length; n++)
            at += at + 1 < text.Length && char.IsSurrogatePair(text[at], text[at + 1]) ? 2 : 1;
        return at;
    }
}
