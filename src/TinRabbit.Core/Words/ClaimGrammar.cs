namespace TinRabbit.Core.Words;

/// <summary>What can be told of the words of a text without a parser: lists of words that lead somewhere (Data/claim-words.txt), and WordNet's parts of speech.</summary>
internal static class ClaimGrammar
{
    private static readonly HashSet<string> FunctionWords = [.. WordData.Lines("function-words.txt")];

    /// <summary>Lists of words by their names.</summary>
    public static readonly IReadOnlyDictionary<string, HashSet<string>> Lists = Read();

    /// <summary>Whether a word is one of grammar.</summary>
    public static bool IsFunctionWord(string word) => FunctionWords.Contains(word) || StopWords.Has(word);

    // Whether a word is a verb that agrees with the noun before it: "wick crackles", "pages suit".
    public static bool IsVerb(ClaimText text, int at, int noun)
    {
        var word = text.Tokens[at].Word;
        if (Lists["verb"].Contains(word) || Lists["being"].Contains(word))
            return true;
        var plural = Plurals.IsPlural(text.Tokens[noun].Word);
        return plural
            ? Thesaurus.IsVerb(word) && !Plurals.IsPlural(word)
            : Plurals.IsPlural(word) && Thesaurus.IsVerb(Plurals.SingularOf(word));
    }

    // A word between a claim and its noun: an adjective, a participle, or the first half of a compound such as "serving board".
    public static bool CanDescribe(ClaimText text, int at)
    {
        var word = text.Tokens[at].Word;
        if (
            text.FoundAt(at) is not null
            || Thesaurus.IsAdjective(word)
            || word.EndsWith("ed", StringComparison.Ordinal)
            || word.EndsWith("ing", StringComparison.Ordinal)
        )
            return true;
        return at + 1 < text.Tokens.Count && text.Breaks[at + 1] == ' ' && text.IsContent(at + 1) && !Lists["verb"].Contains(word);
    }

    public static string Joined(ClaimText text, int at) =>
        at > 0 && text.Breaks[at] == ' ' ? Vocabulary.KeyOfWord(text.Tokens[at - 1].Word + text.Tokens[at].Word) : "";

    // No other noun follows: "made of oak." or "made of oak wood".
    public static bool IsAlone(ClaimText text, FoundWord found)
    {
        for (var at = found.Last + 1; at < text.Tokens.Count; at++)
        {
            if (text.Breaks[at] != ' ')
                return true;
            var word = text.Tokens[at].Word;
            if (IsFunctionWord(word) || Lists["verb"].Contains(word))
                return true;
            if (text.FoundAt(at) is { Facet: not null } || Lists["stuff"].Contains(text.Keys[at]))
                continue;
            return word.EndsWith("ly", StringComparison.Ordinal) || (!Thesaurus.IsNoun(word) && !Thesaurus.IsAdjective(word));
        }

        return true;
    }

    public static int StartOfSentence(ClaimText text, int at)
    {
        while (at > 0 && text.Breaks[at] != '.')
            at--;
        return at;
    }

    // Where the claims and words of degree begin that lead up to a claim, with nothing between: "very soft organic cotton".
    public static int FirstOfRun(ClaimText text, FoundWord found, params ReadOnlySpan<string> joining)
    {
        var at = found.First;
        while (
            at > 0
            && text.Breaks[at] == ' '
            && (
                text.FoundAt(at - 1) is { Facet: not null }
                || Lists["degree"].Contains(text.Tokens[at - 1].Word)
                || joining.Contains(text.Tokens[at - 1].Word)
            )
        )
            at--;
        return at;
    }

    // The last token before a place that is no word of degree, adjective, article or other claim.
    public static int Back(ClaimText text, int from)
    {
        for (var i = from; i >= 0 && i > from - 7; i--)
        {
            if (text.Breaks[i + 1] == '.')
                return -1;
            var word = text.Tokens[i].Word;
            // "and the lid" begins anew.
            if (word == "and" && i + 1 <= from && text.Tokens[i + 1].Word is "the" or "its")
                return -1;
            if (
                (text.FoundAt(i) is { Facet: not null } && !Lists["making"].Contains(word))
                || Lists["degree"].Contains(word)
                || word is "a" or "an" or "the" or "and" or "or"
                || (
                    !IsFunctionWord(word)
                    && !Lists["being"].Contains(word)
                    && Thesaurus.IsAdjective(word)
                    && !Lists["making"].Contains(word)
                )
            )
                continue;
            return i;
        }

        return -1;
    }

    public static int? Next(ClaimText text, int last) => last + 1 < text.Tokens.Count && text.Breaks[last + 1] == ' ' ? last + 1 : null;

    private static Dictionary<string, HashSet<string>> Read()
    {
        var lists = new Dictionary<string, HashSet<string>>(StringComparer.Ordinal);
        foreach (var line in WordData.Lines("claim-words.txt"))
        {
            var parts = line.Split(" ; ");
            var words = parts[1].Split(", ");
            lists[parts[0]] =
            [
                .. parts[0] is "part" or "colour-part" or "stuff" or "occasion-thing" ? words.Select(Vocabulary.KeyOf) : words,
            ];
        }

        return lists;
    }
}
