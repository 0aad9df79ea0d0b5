using AnyAscii;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>The last part of a page's address: lower-case words, joined by hyphens (docs/model.md, "Pages").</summary>
public static class Slugs
{
    /// <summary>The most characters that a slug has.</summary>
    public const int Longest = 75;

    /// <summary>The slug of a text: its words in ASCII, as many as fit; -2, -3 … where it is taken. Empty where the text has no word.</summary>
    /// <param name="text">Usually the page's lead.</param>
    /// <param name="isTaken">Whether another page of the shop has a slug.</param>
    public static string Of(string text, Func<string, bool> isTaken)
    {
        var slug = Join(text, Longest);
        if (slug.Length == 0 || !isTaken(slug))
            return slug;
        for (var number = 2; ; number++)
        {
            var end = $"-{number}";
            var next = Join(text, Longest - end.Length) + end;
            if (!isTaken(next))
                return next;
        }
    }

    /// <summary>Whether a text is a slug: lower-case letters and digits in words joined by single hyphens, within <see cref="Longest"/>.</summary>
    public static bool IsSlug(string text) =>
        text.Length is > 0 and <= Longest
        && text[0] != '-'
        && text[^1] != '-'
        && !text.Contains("--", StringComparison.Ordinal)
        && text.All(c => char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c == '-');

    private static string Join(string text, int most)
    {
        var slug = "";
        foreach (var word in Tokens.Of(text).Select(t => Ascii(t.Word)).Where(w => w.Length > 0))
        {
            var longer = slug.Length == 0 ? word : $"{slug}-{word}";
            if (longer.Length > most)
                return slug.Length == 0 ? word[..most] : slug;
            slug = longer;
        }

        return slug;
    }

    // An apostrophe joins, and so do the marks inside a number: "women's" becomes "womens", "1,300" becomes "1300".
    private static string Ascii(string word) => new([.. word.Transliterate().ToLowerInvariant().Where(char.IsAsciiLetterOrDigit)]);
}
