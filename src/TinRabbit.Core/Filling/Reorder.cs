using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>Puts the words of a text in an order in which a term stands whole.</summary>
public static class Reorder
{
    /// <summary>
    /// The text with the term's words moved to where the first of them stands. All other words stay in their order, and phrases between
    /// separators that become empty go.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="term">The term, whose words all stand in the text in some form.</param>
    /// <param name="folds">Which forms are the same word.</param>
    /// <param name="separator">What stands between two phrases of the text.</param>
    /// <returns>Null where a word of the term does not stand in the text.</returns>
    public static string? MakeContiguous(string text, string term, Folds folds, string separator)
    {
        var tokens = Tokens.Of(text);
        var taken = new List<int>();
        foreach (var word in Tokens.Of(term))
        {
            // Prefers the word itself to another form of it.
            var free = Enumerable
                .Range(0, tokens.Count)
                .Except(taken)
                .Where(i => Fold.Key(tokens[i].Word, folds) == Fold.Key(word.Word, folds))
                .ToList();
            if (free.Count == 0)
                return null;
            taken.Add(free.FindIndex(i => tokens[i].Word == word.Word) is >= 0 and var same ? free[same] : free[0]);
        }

        var first = taken.Min();
        var phrase = string.Join(
            ' ',
            Tokens
                .Of(term)
                .Select((w, i) => KeepCapitals(text.Substring(tokens[taken[i]].Start, tokens[taken[i]].Length), w.Word, taken[i] == 0))
        );
        var moved = new System.Text.StringBuilder();
        var copied = 0;
        for (var i = 0; i < tokens.Count; i++)
        {
            if (!taken.Contains(i))
                continue;
            moved.Append(text, copied, tokens[i].Start - copied);
            if (i == first)
                moved.Append(phrase);
            copied = tokens[i].End;
        }

        moved.Append(text, copied, text.Length - copied);
        var mark = separator.Trim();
        var phrases = mark.Length == 0 ? [moved.ToString()] : moved.ToString().Split(mark);
        var tidy = string.Join(
            separator,
            phrases.Select(p => string.Join(' ', p.Split(' ', StringSplitOptions.RemoveEmptyEntries))).Where(p => Tokens.Of(p).Count > 0)
        );
        return char.IsUpper(text.FirstOrDefault(char.IsLetter)) ? Capitals.First(tidy) : tidy;
    }

    /// <summary>
    /// Whether somebody would write the new order: no two forms of one word are side by side, and each small word keeps its neighbours
    /// from the text or the term ("house for garden" never becomes "small for garden").
    /// </summary>
    /// <param name="text">The text as it was.</param>
    /// <param name="term">The term that was made an exact phrase.</param>
    /// <param name="reordered">The text in the new order.</param>
    /// <param name="separator">What separates two phrases of the text.</param>
    public static bool ReadsWell(string text, string term, string reordered, string separator)
    {
        var keys = Tokens.Of(reordered).Select(t => Fold.Key(t.Word, Fold.AnyForm)).ToList();
        if (keys.Zip(keys.Skip(1)).Any(pair => pair.First == pair.Second))
            return false;
        var known = StopWordsWithNeighbours(text, separator).Concat(StopWordsWithNeighbours(term, separator)).ToHashSet();
        return StopWordsWithNeighbours(reordered, separator).All(known.Contains);
    }

    // Each stop word with the words before and after it in its phrase.
    private static IEnumerable<(string? Before, string Word, string? After)> StopWordsWithNeighbours(string text, string separator)
    {
        var mark = separator.Trim();
        foreach (var phrase in mark.Length == 0 ? [text] : text.Split(mark))
        {
            var words = Tokens.Of(phrase).Select(t => t.Word).ToList();
            for (var i = 0; i < words.Count; i++)
                if (StopWords.Has(words[i]))
                    yield return (words.ElementAtOrDefault(i - 1), words[i], words.ElementAtOrDefault(i + 1));
        }
    }

    // Keeps the seller's capitals where the word stays the same, except the capital that begins the text.
    private static string KeepCapitals(string written, string word, bool first) =>
        Tokens.Key(written) != word || (first && written.Skip(1).All(c => !char.IsUpper(c))) ? word : written;
}
