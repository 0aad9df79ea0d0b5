using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Filling;

/// <summary>What the other fields of a listing give to each term while one field is filled.</summary>
internal sealed class OtherFields
{
    private readonly double _weight;
    private readonly bool _combine;
    private readonly int[][][] _requiredWords;

    // Terms with no word in any other field: their spread strength is the weight of this field.
    private readonly bool[] _onlyInThisField;

    /// <param name="field">The field that is filled; what stands in it does not count here.</param>
    /// <param name="copy">The listing.</param>
    /// <param name="ready">The terms, ready for the platform.</param>
    /// <param name="terms">The same terms with their numbers.</param>
    public OtherFields(Field field, IReadOnlyDictionary<string, FieldValue> copy, TermSet ready, IReadOnlyList<WantedTerm> terms)
    {
        (Prepared, _weight, _combine) = (ready, field.Weight, ready.Platform.Search.WordsCombine);
        var matcher = new Matcher(ready, ListingIndex.Build(ready.Platform, copy.Where(f => f.Key != field.Key).ToDictionary()));
        WorthByTerm = [.. terms.Select(t => t.Worth())];
        (Slack, Held) = (new double[terms.Count], new bool[terms.Count]);
        for (var t = 0; t < terms.Count; t++)
        {
            var match = matcher.Explain(t);
            Slack[t] = match.Strengths.Aggregate(1.0, (loose, s) => loose * (1 - s));
            Held[t] = match.Fields.Any(g => g > Grade.Missing);
        }

        _requiredWords =
        [
            .. ready.Terms.Select(t => t.Variants.Select(v => v.Folded.Where((_, i) => !v.Ignored[i]).Distinct().ToArray()).ToArray()),
        ];
        WeightByWord = [.. Enumerable.Range(0, ready.Folded.Count).Select(matcher.WeightOf)];
        var termsOfWord = WeightByWord.Select(_ => new List<int>()).ToArray();
        for (var t = 0; t < terms.Count; t++)
            foreach (var word in ready.Terms[t].Variants.SelectMany(v => v.Folded).Distinct())
                termsOfWord[word].Add(t);
        TermsOfWord = [.. termsOfWord.Select(t => t.ToArray())];
        _onlyInThisField =
        [
            .. _requiredWords.Select(ways => ways.Length == 1 && ways[0].Length > 0 && ways[0].All(w => WeightByWord[w] < 0)),
        ];
    }

    public TermSet Prepared { get; }

    public double[] WorthByTerm { get; }

    /// <summary>By term: Π(1 − strength) over the other fields.</summary>
    public double[] Slack { get; }

    /// <summary>By term: whether another field holds it by itself.</summary>
    public bool[] Held { get; }

    /// <summary>By word of the terms: the highest weight of another field holding it; −1 where none does.</summary>
    public double[] WeightByWord { get; }

    /// <summary>By word of the terms: the terms that it is in.</summary>
    public int[][] TermsOfWord { get; }

    /// <summary>Worth·grip of a term, when the field holds it with this strength (0 when it does not) and has these words.</summary>
    /// <param name="term">Its number.</param>
    /// <param name="strength">Strength of the field, 0–1.</param>
    /// <param name="has">By word of the terms: more than 0 where the field has it.</param>
    public double WeightedGrip(int term, double strength, int[] has) =>
        strength > 0 || Held[term] ? WorthByTerm[term] * (1 - Slack[term] * (1 - strength))
        : _combine ? WorthByTerm[term] * Matcher.SpreadFactor * SpreadStrength(term, has)
        : 0;

    /// <summary>How many words of a term stand neither in the field nor elsewhere, in the way of writing it that lacks fewest.</summary>
    public int MissingWordCount(int term, int[] has)
    {
        var fewest = int.MaxValue;
        foreach (var words in _requiredWords[term])
        {
            var lacks = 0;
            foreach (var word in words)
                if (has[word] == 0 && WeightByWord[word] < 0)
                    lacks++;
            fewest = Math.Min(fewest, lacks);
        }

        return fewest;
    }

    private double SpreadStrength(int term, int[] has)
    {
        if (_onlyInThisField[term])
            return AllPresent(_requiredWords[term][0], has) ? _weight : 0;
        var best = 0.0;
        foreach (var variant in Prepared.Terms[term].Variants)
        {
            var (sum, words) = (0.0, 0);
            for (var i = 0; i < variant.Folded.Length && sum >= 0; i++)
            {
                if (variant.Ignored[i])
                    continue;
                var word = variant.Folded[i];
                var weight = has[word] > 0 ? Math.Max(_weight, WeightByWord[word]) : WeightByWord[word];
                var width = variant.Widths?[i] ?? 1;
                (sum, words) = weight < 0 ? (-1, words) : (sum + width * weight, words + width);
            }

            if (words > 0 && sum / words > best)
                best = sum / words;
        }

        return best;
    }

    private static bool AllPresent(int[] words, int[] has)
    {
        foreach (var word in words)
            if (has[word] == 0)
                return false;
        return true;
    }
}
