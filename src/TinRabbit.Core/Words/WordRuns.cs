namespace TinRabbit.Core.Words;

/// <summary>The phrases of a text that somebody may search for: its runs of words, and other orders of a few of them.</summary>
public static class WordRuns
{
    /// <summary>Most words of a run.</summary>
    public const int Longest = 5;

    /// <summary>Most other orders of one text.</summary>
    public const int MostOrders = 500;

    // Words beyond these make no more orders: a title says first what it is about.
    private const int WordsInOrders = 24;

    /// <summary>Every run of one to <see cref="Longest"/> words that neither begins nor ends with a stop word, each once, in the order of the text.</summary>
    public static IReadOnlyList<string> In(string text)
    {
        string[] words = [.. Tokens.Of(text).Select(t => t.Word)];
        var runs = new List<string>();
        for (var from = 0; from < words.Length; from++)
        for (var length = 1; length <= Longest && from + length <= words.Length; length++)
            if (!StopWords.Has(words[from]) && !StopWords.Has(words[from + length - 1]))
                runs.Add(string.Join(' ', words.AsSpan(from, length)!));
        return [.. runs.Distinct(StringComparer.Ordinal)];
    }

    /// <summary>
    /// Other orders of two and of three of its words, at most <see cref="MostOrders"/>: those of two first, words that stand near each other
    /// before others. None is a run of the text.
    /// </summary>
    public static IReadOnlyList<string> OtherOrders(string text)
    {
        string[] words =
        [
            .. Tokens.Of(text).Select(t => t.Word).Where(w => !StopWords.Has(w)).Distinct(StringComparer.Ordinal).Take(WordsInOrders),
        ];
        var runs = In(text).ToHashSet(StringComparer.Ordinal);
        var orders = new List<(int Words, int Apart, string Text)>();
        for (var a = 0; a < words.Length; a++)
        for (var b = 0; b < words.Length; b++)
        {
            if (a == b)
                continue;
            orders.Add((2, Math.Abs(a - b), $"{words[a]} {words[b]}"));
            for (var c = 0; c < words.Length; c++)
                if (c != a && c != b)
                    orders.Add((3, Math.Abs(a - b) + Math.Abs(b - c), $"{words[a]} {words[b]} {words[c]}"));
        }

        return [.. orders.OrderBy(o => o.Words).ThenBy(o => o.Apart).Select(o => o.Text).Where(t => !runs.Contains(t)).Take(MostOrders)];
    }
}
