using System.Globalization;
using System.Text;

namespace TinRabbit.Core.Words;

/// <summary>What a word is compared by.</summary>
public static class Fold
{
    /// <summary>Every fold there is, in the order of engine and docs.</summary>
    public static readonly IReadOnlyList<Folds> All = [Folds.Diacritics, Folds.Possessive, Folds.Plural, Folds.Compound, Folds.Spelling];

    /// <summary>The folds by which a reader takes two words for forms of one: all but one word or two.</summary>
    public const Folds AnyForm = Folds.Diacritics | Folds.Possessive | Folds.Plural | Folds.Spelling;

    private static readonly HashSet<string> Compounds = new(WordData.Lines("compounds.txt").Select(Plurals.Stem), StringComparer.Ordinal);

    // The number of known compounds with each beginning and each ending.
    private static readonly Lazy<(Dictionary<string, int> Starts, Dictionary<string, int> Ends)> Halves = new(() =>
    {
        var (starts, ends) = (new Dictionary<string, int>(StringComparer.Ordinal), new Dictionary<string, int>(StringComparer.Ordinal));
        foreach (var word in Compounds)
            for (var at = 2; at <= word.Length - 2; at++)
            {
                starts[word[..at]] = starts.GetValueOrDefault(word[..at]) + 1;
                ends[word[at..]] = ends.GetValueOrDefault(word[at..]) + 1;
            }

        return (starts, ends);
    });

    /// <summary>The word's letters, case and diacritics aside: what <c>whole</c> compares.</summary>
    public static string Letters(string word)
    {
        if (Ascii.IsValid(word))
            return word;
        var bare = new StringBuilder(word.Length);
        foreach (var c in word.Normalize(NormalizationForm.FormD))
            if (CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
                bare.Append(c == 'ς' ? 'σ' : c);
        return bare.ToString().Normalize(NormalizationForm.FormC).ToLowerInvariant();
    }

    /// <summary>The key that all forms of a word share under some folds. <see cref="Folds.Compound"/> is about neighbours and does not change it.</summary>
    public static string Key(string word, Folds folds)
    {
        if (folds.HasFlag(Folds.Diacritics))
            word = Letters(word);
        // Applies the spelling table before and after the apostrophe is removed, because it has possessives too.
        if (folds.HasFlag(Folds.Spelling))
            word = Spelling.ToAmerican(word);
        if (folds.HasFlag(Folds.Possessive) && word.Length > 2 && word.EndsWith("'s", StringComparison.Ordinal))
        {
            word = string.Concat(word.AsSpan(0, word.Length - 2), "s");
            if (folds.HasFlag(Folds.Spelling))
                word = Spelling.ToAmerican(word);
        }

        if (folds.HasFlag(Folds.Plural))
            word = Plurals.Stem(word);
        return word;
    }

    /// <summary>
    /// The one word that two neighbours make, when a hyphen between them or the list of known words says that they are one;
    /// otherwise null.
    /// </summary>
    public static string? Join(Token first, Token second)
    {
        if (first.Word.Length + second.Word.Length > 40)
            return null;
        var joined = first.Word + second.Word;
        return second.Joined || Compounds.Contains(Plurals.Stem(joined)) ? joined : null;
    }

    /// <summary>The two words that a known compound is made of, cut where each half is the commonest among compounds; null for other words.</summary>
    public static (string First, string Second)? Split(string word)
    {
        if (!Compounds.Contains(Plurals.Stem(word)))
            return null;
        var (best, score) = (0, 1);
        for (var at = 2; at <= word.Length - 2; at++)
        {
            var common = Math.Min(
                Halves.Value.Starts.GetValueOrDefault(word[..at]),
                Halves.Value.Ends.GetValueOrDefault(Plurals.Stem(word[at..]))
            );
            if (common > score)
                (best, score) = (at, common);
        }

        return best == 0 ? null : (word[..best], word[best..]);
    }

    /// <summary>The name of a fold in a profile: <c>plural</c>.</summary>
    public static string Name(Folds fold) => string.Join('+', All.Where(f => fold.HasFlag(f)).Select(f => f.ToString().ToLowerInvariant()));
}
