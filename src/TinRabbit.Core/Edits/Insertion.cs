using TinRabbit.Core.Filling;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Edits;

/// <summary>Puts a word that narrows what a page is about into its text.</summary>
public static class Insertion
{
    /// <summary>
    /// The page title, or else the meta description, with a word: before its first noun of that kind, otherwise at the end as a phrase or a
    /// sentence of its own. The first that has room.
    /// </summary>
    /// <param name="platform">The platform.</param>
    /// <param name="copy">The page's fields.</param>
    /// <param name="word">The word.</param>
    /// <param name="head">The noun that it narrows.</param>
    /// <returns>The field and its new text; null where neither has room.</returns>
    public static (Field Field, string Text)? Of(Platform platform, IReadOnlyDictionary<string, FieldValue> copy, string word, string head)
    {
        foreach (var role in (string[])["title", "meta"])
        {
            if (platform.Role(role) is not { } field)
                continue;
            var text = (copy.GetValueOrDefault(field.Key) as FieldValue.Text)?.Value.Trim() ?? "";
            var longer = Before(text, word, head) ?? AtEnd(field, text, Capitals.First($"{word} {head}"), $"{word} {head}");
            if (RoomUsed.Of(field, new FieldValue.Text(longer)).Fits)
                return (field, longer);
        }

        return null;
    }

    /// <summary>The text with the word before the first place of the noun, in the text's own capitals; null where it lacks the noun.</summary>
    public static string? Before(string text, string word, string head)
    {
        var (tokens, noun) = (Tokens.Of(text), Tokens.Of(head).Select(t => t.Word).ToList());
        var at = Enumerable
            .Range(0, Math.Max(0, tokens.Count - noun.Count + 1))
            .Where(i => noun.Count > 0 && tokens.Skip(i).Take(noun.Count).Select(t => t.Word).SequenceEqual(noun))
            .Cast<int?>()
            .FirstOrDefault();
        if (at is not { } first)
            return null;
        var start = tokens[first].Start;
        if (!char.IsUpper(text[start]))
            return text.Insert(start, $"{word} ");
        // In a title where each word has a capital, those inside keep theirs; otherwise only the first word of the text has one.
        var each = tokens.Count > 1 && tokens.Where(t => !StopWords.Has(t.Word)).All(t => !char.IsLower(text[t.Start]));
        var rest = first == 0 && !each ? char.ToLowerInvariant(text[start]) + text[(start + 1)..] : text[start..];
        return $"{text[..start]}{Capitals.First(word)} {rest}";
    }

    private static string AtEnd(Field field, string text, string sentence, string phrase) =>
        text.Length == 0 ? sentence
        : field.Role == "title" ? text + field.Separator + phrase
        : ClosingSentence.After(text, $"{sentence}.");
}
