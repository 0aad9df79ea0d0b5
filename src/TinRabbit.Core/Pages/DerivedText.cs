using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>What a shop system shows in the place of a page title or a meta description that is empty.</summary>
public static class DerivedText
{
    /// <summary>The most characters of a derived meta description.</summary>
    public const int LongestDescription = 155;

    /// <summary>The name. The site's suffix comes after it, as after any page title.</summary>
    public static string PageTitle(string name) => name.Trim();

    /// <summary>The body's text up to the last sentence that fits; where not even one fits, up to the last word.</summary>
    public static string MetaDescription(RichBody body)
    {
        var text = string.Join(' ', body.Blocks.Where(b => b.Level == 0).Select(b => b.Text));
        if (Scalars(text) <= LongestDescription)
            return text;
        var sentence = 0;
        for (var i = 0; i < text.Length; i++)
            if (
                text[i] is '.' or '!' or '?'
                && (i + 1 == text.Length || text[i + 1] == ' ')
                && Scalars(text[..(i + 1)]) <= LongestDescription
            )
                sentence = i + 1;
        if (sentence > 0)
            return text[..sentence];
        var word = Tokens.Of(text).LastOrDefault(t => Scalars(text[..t.End]) <= LongestDescription);
        return word is { End: > 0 } ? text[..word.End] : "";
    }

    private static int Scalars(string text) => text.EnumerateRunes().Count();
}
