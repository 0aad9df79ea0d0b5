using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>A sentence that says phrases in a text that people read: "Also a nest box, a bird house or a wren house."</summary>
public static class ClosingSentence
{
    // By language: how the sentence begins in a list of points and in a description, what stands before the last phrase, and whether nouns
    // need an article.
    private static readonly Dictionary<string, (string Point, string Text, string Or, bool Article)> Frames = new(StringComparer.Ordinal)
    {
        ["en"] = ("Also ", "It is also ", "or", true),
        ["es"] = ("También como ", "También sirve como ", "o", false),
        ["de"] = ("Auch als ", "Auch gesucht als ", "oder", false),
        ["fr"] = ("Aussi comme ", "Convient aussi comme ", "ou", false),
        ["it"] = ("Anche come ", "Adatto anche come ", "o", false),
        ["nl"] = ("Ook als ", "Ook geschikt als ", "of", false),
        ["pt"] = ("Também como ", "Serve também como ", "ou", false),
    };

    // Words of stuff, which take no article.
    private static readonly HashSet<string> Uncountable = [.. WordData.Lines("uncountable.txt")];

    /// <summary>The sentence; null where the language has no frame.</summary>
    /// <param name="language">The platform's, as a BCP 47 tag.</param>
    /// <param name="field">The field that it goes into.</param>
    /// <param name="phrases">What it says, at least one phrase.</param>
    public static string? Of(string language, Field field, IReadOnlyList<string> phrases)
    {
        if (!Frames.TryGetValue(language.Split('-')[0].ToLowerInvariant(), out var frame) || phrases.Count == 0)
            return null;
        string[] said = [.. phrases.Select(p => frame.Article ? WithArticle(p.Trim()) : p.Trim())];
        var list = said.Length == 1 ? said[0] : $"{string.Join(", ", said[..^1])} {frame.Or} {said[^1]}";
        return $"{(field.Shape == FieldShape.Lines ? frame.Point : frame.Text)}{list}.";
    }

    /// <summary>The sentence after a text, which is ended where it has no end yet.</summary>
    public static string After(string text, string sentence) =>
        text.Trim().Length == 0 ? sentence
        : ".!?:;…".Contains(text.TrimEnd()[^1]) ? $"{text.TrimEnd()} {sentence}"
        : $"{text.TrimEnd()}. {sentence}";

    private static string WithArticle(string phrase)
    {
        string[] words = [.. Tokens.Of(phrase).Select(t => t.Word)];
        if (words.Length == 0 || StopWords.Has(words[0]))
            return phrase;
        var noun = words[StopWords.About(words)];
        if (char.IsAsciiDigit(words[0][0]) || Uncountable.Contains(noun) || Plurals.IsPlural(noun))
            return phrase;
        return $"{(IsVowel(words[0]) ? "an" : "a")} {phrase}";
    }

    // By how the word sounds, as far as its letters tell.
    private static bool IsVowel(string word) =>
        "aeiou".Contains(word[0])
            && !word.StartsWith("uni", StringComparison.Ordinal)
            && !word.StartsWith("use", StringComparison.Ordinal)
            && !word.StartsWith("eu", StringComparison.Ordinal)
            && !word.StartsWith("one", StringComparison.Ordinal)
        || word.StartsWith("hour", StringComparison.Ordinal)
        || word.StartsWith("honest", StringComparison.Ordinal);
}
