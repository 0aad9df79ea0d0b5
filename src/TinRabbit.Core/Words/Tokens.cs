using System.Globalization;

namespace TinRabbit.Core.Words;

/// <summary>
/// Cuts text into words. A word is a maximal run of letters, marks and digits; an apostrophe between two letters,
/// or a full stop or comma between two digits, stays inside; everything else separates.
/// </summary>
public static class Tokens
{
    /// <summary>The words of a text, in order.</summary>
    public static List<Token> Of(string text)
    {
        var words = new List<Token>(text.Length / 5 + 1);
        var normal = Normalised.Of(text);
        var chars = normal.Text;
        var at = 0;
        var endOfLast = -1;
        while (at < chars.Length)
        {
            var width = WordWidth(chars, at);
            if (width == 0)
            {
                at++;
                continue;
            }

            var start = at;
            at += width;
            while (at < chars.Length)
            {
                width = WordWidth(chars, at);
                if (width > 0)
                    at += width;
                else if (StaysInside(chars, at))
                    at++;
                else
                    break;
            }

            var joined = endOfLast > 0 && start == endOfLast + 1 && chars[endOfLast] is ('-' or '\u2010');
            var from = normal.StartOf(start);
            words.Add(new Token(chars[start..at], from, normal.EndOf(at - 1) - from, joined));
            endOfLast = at;
        }

        return words;
    }

    /// <summary>Whether a text has the words of a phrase side by side and in order.</summary>
    public static bool HasPhrase(string text, string phrase) => $" {Key(text)} ".Contains($" {Key(phrase)} ", StringComparison.Ordinal);

    /// <summary>The words of a text joined by single spaces: two spellings with the same key are one term.</summary>
    public static string Key(string text) => string.Join(' ', Of(text).Select(t => t.Word));

    private static int WordWidth(string chars, int at)
    {
        var c = chars[at];
        if (c < 128)
            return char.IsAsciiLetterOrDigit(c) ? 1 : 0;
        var wide = char.IsHighSurrogate(c) && at + 1 < chars.Length && char.IsLowSurrogate(chars[at + 1]);
        var category = wide
            ? CharUnicodeInfo.GetUnicodeCategory(char.ConvertToUtf32(c, chars[at + 1]))
            : CharUnicodeInfo.GetUnicodeCategory(c);
        return IsLetter(category) || IsMark(category) || category == UnicodeCategory.DecimalDigitNumber
            ? wide
                ? 2
                : 1
            : 0;
    }

    private static bool StaysInside(string chars, int at)
    {
        if (at == 0 || at + 1 >= chars.Length)
            return false;
        return chars[at] switch
        {
            '\'' => IsLetter(CategoryBefore(chars, at)) && IsLetter(CategoryAt(chars, at + 1)),
            '.' or ',' => CategoryBefore(chars, at) == UnicodeCategory.DecimalDigitNumber
                && CategoryAt(chars, at + 1) == UnicodeCategory.DecimalDigitNumber,
            _ => false,
        };
    }

    private static UnicodeCategory CategoryAt(string chars, int at) =>
        char.IsHighSurrogate(chars[at]) && at + 1 < chars.Length && char.IsLowSurrogate(chars[at + 1])
            ? CharUnicodeInfo.GetUnicodeCategory(char.ConvertToUtf32(chars[at], chars[at + 1]))
            : CharUnicodeInfo.GetUnicodeCategory(chars[at]);

    private static UnicodeCategory CategoryBefore(string chars, int at) =>
        CategoryAt(chars, at >= 2 && char.IsLowSurrogate(chars[at - 1]) && char.IsHighSurrogate(chars[at - 2]) ? at - 2 : at - 1);

    private static bool IsLetter(UnicodeCategory category) => category <= UnicodeCategory.OtherLetter;

    internal static bool IsMark(UnicodeCategory category) =>
        category is UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark or UnicodeCategory.EnclosingMark;
}
