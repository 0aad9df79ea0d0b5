namespace TinRabbit.Core.Words;

/// <summary>Words that join others and are nothing by themselves, in English and Spanish.</summary>
public static class StopWords
{
    private static readonly HashSet<string> All = new(
        "a an and at by for from in of on or the to with de para con y".Split(' '),
        StringComparer.Ordinal
    );
    private static readonly HashSet<string> Joining = new("for with of to in de para con".Split(' '), StringComparer.Ordinal);

    /// <summary>Whether a normalised word is one of them.</summary>
    public static bool Has(string word) => All.Contains(word);

    /// <summary>Where the word stands that a term is about: before its first "for", "with" or "of", otherwise at its end.</summary>
    public static int About(IReadOnlyList<string> words)
    {
        for (var i = 1; i < words.Count; i++)
            if (Joining.Contains(words[i]))
                return i - 1;
        return words.Count - 1;
    }
}
