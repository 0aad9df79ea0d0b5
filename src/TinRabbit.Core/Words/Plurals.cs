namespace TinRabbit.Core.Words;

/// <summary>
/// Singular and plural of English words. The stem is a key for comparing, not a word to show: two forms of one word have
/// the same stem ("cookies" and "cookie" both "cooky"), so that no list of every noun is needed.
/// </summary>
public static class Plurals
{
    private static readonly Dictionary<string, string> Irregular = new(StringComparer.Ordinal);
    private static readonly List<(string Plural, string Singular)> IrregularEndings = [];
    private static readonly HashSet<string> Singulars = new(WordData.Lines("singulars.txt"), StringComparer.Ordinal);

    // Words in -i and -u whose plural ends in -is and -us, where an ending -is or -us is otherwise no plural.
    private static readonly HashSet<string> VowelPlurals = new(
        (
            "skis bikinis taxis kiwis zucchinis safaris alibis chilis chillis rabbis salamis origamis yetis tikis paninis emojis martinis minis maxis midis khakis "
            + "samurais corgis saris tipis jacuzzis delis yogis bonsais leis wifis menus emus gnus tofus tutus haikus gurus caribous bayous plateaus bureaus gateaus chateaus "
            + "beaus tableaus flus ecus tiramisus kudus cockatoos"
        ).Split(' '),
        StringComparer.Ordinal
    );

    static Plurals()
    {
        foreach (var line in WordData.Lines("plurals.txt"))
        {
            var parts = line.Split(' ');
            var plural = parts[0].TrimStart('*');
            Irregular[plural] = parts[1];
            if (parts[0][0] == '*')
                IrregularEndings.Add((plural, parts[1]));
        }
    }

    /// <summary>The stem that a normalised word shares with its other number.</summary>
    public static string Stem(string word) => Even(Singular(word));

    /// <summary>Whether a normalised word is a plural.</summary>
    public static bool IsPlural(string word) => Singular(word) != word;

    /// <summary>The singular of a normalised word; the word itself where it is none, or not known to be one.</summary>
    public static string SingularOf(string word) => Singular(word);

    private static string Singular(string word)
    {
        if (word.Length < 3 || Singulars.Contains(word) || word.Contains('\''))
            return word;
        if (FromIrregular(word) is { } singular)
            return singular;
        if (word[^1] != 's' || !TakesOffS(word))
            return word;
        var shorter = word.EndsWith("ies", StringComparison.Ordinal) && word.Length > 4 ? word[..^3] + "y" : word[..^1];
        // "womens" and "childrens" are what a possessive leaves behind: their owner has a singular of its own.
        return FromIrregular(shorter) ?? shorter;
    }

    private static string? FromIrregular(string word)
    {
        if (Irregular.TryGetValue(word, out var singular))
            return singular;
        if (Singulars.Contains(word) || word.Length < 6)
            return null;
        foreach (var (plural, single) in IrregularEndings)
            if (word.Length >= plural.Length + 3 && word.EndsWith(plural, StringComparison.Ordinal))
                return string.Concat(word.AsSpan(0, word.Length - plural.Length), single);
        return null;
    }

    private static bool TakesOffS(string word) =>
        word[^2] switch
        {
            's' => false,
            'u' or 'i' => VowelPlurals.Contains(word),
            _ => true,
        };

    // Makes the stems of a plural in -es and of its singular the same (box or boxe, bus or buse, hero or heroe, cookie or cooky).
    private static string Even(string word)
    {
        if (word.Length >= 4 && word[^1] == 'e')
        {
            if (word[^2] is 'x' or 's' or 'z')
                return word[..^1];
            if (word[^2] == 'h' && word[^3] is ('c' or 's'))
                return word[..^1];
            if (word[^2] == 'o' && word.Length >= 5)
                return word[..^1];
            if (word[^2] == 'i' && word.Length >= 5)
                return word[..^2] + "y";
        }

        return word;
    }
}
