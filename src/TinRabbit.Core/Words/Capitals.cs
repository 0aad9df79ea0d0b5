namespace TinRabbit.Core.Words;

/// <summary>Capital letters.</summary>
public static class Capitals
{
    /// <summary>A text with its first character as a capital.</summary>
    public static string First(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];

    /// <summary>A text with each word that is no small word as a capital.</summary>
    public static string Each(string text)
    {
        var letters = text.ToCharArray();
        foreach (var token in Tokens.Of(text))
            if (!StopWords.Has(token.Word))
                letters[token.Start] = char.ToUpperInvariant(letters[token.Start]);
        return new(letters);
    }

    /// <summary>
    /// A phrase with capitals as its neighbours have them: each word, where all of theirs inside a phrase have one; its first letter, where all
    /// of several begin with one; otherwise as it is.
    /// </summary>
    /// <param name="phrase">The phrase.</param>
    /// <param name="neighbours">The phrases beside it.</param>
    public static string Like(string phrase, IReadOnlyList<string> neighbours)
    {
        var (inside, inner) = (true, 0);
        foreach (var text in neighbours)
        foreach (var token in Tokens.Of(text).Skip(1))
            if (!StopWords.Has(token.Word) && char.IsLetter(text[token.Start]))
            {
                inner++;
                inside &= char.IsUpper(text[token.Start]);
            }

        return inside && inner > 1 ? Each(phrase)
            : neighbours.Count > 1 && neighbours.All(n => char.IsUpper(n.FirstOrDefault(char.IsLetter))) ? First(phrase)
            : phrase;
    }
}
