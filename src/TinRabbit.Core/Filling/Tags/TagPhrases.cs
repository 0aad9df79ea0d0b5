using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Tags;

/// <summary>The phrases that stand in a field of tags or could be added, with the terms and words that each holds. All are numbered; those that stand come first.</summary>
internal sealed class TagPhrases
{
    // Picks too long for one slot, the worthiest first, that are cut into parts.
    private const int MaxCutTerms = 200;

    private readonly string[] _keys;
    private readonly string[] _signatures;
    private readonly Dictionary<string, int> _byKey = new(StringComparer.Ordinal);

    /// <param name="platform">Its folds.</param>
    /// <param name="field">The field that is filled.</param>
    /// <param name="prepared">The terms, prepared for the platform.</param>
    /// <param name="terms">The same terms with their numbers.</param>
    /// <param name="fixedTexts">What stands in the field and stays.</param>
    /// <param name="candidates">What may be added.</param>
    /// <param name="stop">Stops the computation.</param>
    public TagPhrases(
        Platform platform,
        Field field,
        TermSet prepared,
        IReadOnlyList<WantedTerm> terms,
        string[] fixedTexts,
        IReadOnlyList<string> candidates,
        CancellationToken stop
    )
    {
        (Prepared, FixedCount, Texts) = (prepared, fixedTexts.Length, [.. fixedTexts, .. candidates]);
        var index = ListingIndex.Build(
            platform with
            {
                Fields = [field],
            },
            new Dictionary<string, FieldValue> { [field.Key] = new FieldValue.Items(Texts) }
        );
        (HeldTerms, Words) = (HeldBy(new Matcher(prepared, index), terms.Count, stop), WordsIn(index, prepared));
        string[][] words = [.. Texts.Select(t => Tokens.Of(t).Select(w => w.Word).ToArray())];
        _keys = [.. words.Select(w => string.Join(' ', w))];
        var folded = new Dictionary<string, string>(StringComparer.Ordinal);
        _signatures = [.. words.Select(w => string.Join(' ', w.Select(Folded).Order(StringComparer.Ordinal)))];
        for (var c = FixedCount; c < Texts.Length; c++)
            _byKey.TryAdd(_keys[c], c);
        FixedSignatures = _signatures.Take(FixedCount).ToHashSet(StringComparer.Ordinal);
        Parts =
        [
            .. terms
                .OrderByDescending(t => t.Worth())
                .Where(t => !_byKey.ContainsKey(Tokens.Key(t.Text)))
                .Take(MaxCutTerms)
                .SelectMany(t => CutIntoParts(Tokens.Key(t.Text).Split(' ')))
                // Leaves out parts that stand already, and parts with the words of another in another order.
                .Select(p => p.Where(c => !FixedSignatures.Contains(_signatures[c])).DistinctBy(c => _signatures[c]).ToArray())
                .Where(p => p.Length > 1),
        ];

        string Folded(string word) => folded.TryGetValue(word, out var key) ? key : folded[word] = Fold.Key(word, platform.Search.Folds);
    }

    /// <summary>The terms, prepared for the platform.</summary>
    public TermSet Prepared { get; }

    public string[] Texts { get; }

    /// <summary>How many phrases stand in the field and stay.</summary>
    public int FixedCount { get; }

    /// <summary>By phrase: the terms that it holds by itself, each with its strength, 0–1.</summary>
    public (int Term, double Strength)[][] HeldTerms { get; }

    /// <summary>By phrase: the words of the terms that it has, by their number among the prepared terms.</summary>
    public int[][] Words { get; }

    /// <summary>The parts that together hold a pick too long for one slot.</summary>
    public int[][] Parts { get; }

    /// <summary>The signatures of the phrases that stay.</summary>
    public HashSet<string> FixedSignatures { get; }

    /// <summary>A phrase's words as typed, joined by single spaces.</summary>
    public string KeyOf(int phrase) => _keys[phrase];

    /// <summary>A phrase's folded words in alphabetical order: two phrases with the same signature would be the same tag in another order.</summary>
    public string SignatureOf(int phrase) => _signatures[phrase];

    /// <summary>The candidate with this key; −1 when there is none.</summary>
    public int Find(string key) => _byKey.GetValueOrDefault(key, -1);

    /// <summary>The candidate with these words; −1 when there is none.</summary>
    public int Find(string[] words) => Find(string.Join(' ', words));

    private (int Term, double Strength)[][] HeldBy(Matcher matcher, int terms, CancellationToken stop)
    {
        var held = Texts.Select(_ => new List<(int, double)>()).ToArray();
        for (var t = 0; t < terms; t++)
        {
            stop.ThrowIfCancellationRequested();
            foreach (var (unit, strength) in matcher.StrengthByUnit(t))
                held[unit].Add((t, strength));
        }

        return [.. held.Select(h => h.ToArray())];
    }

    private int[][] WordsIn(ListingIndex index, TermSet prepared)
    {
        var words = Texts.Select(_ => new List<int>()).ToArray();
        foreach (var (key, word) in prepared.Folded.Select((k, i) => (k, i)))
            if (index.FindFolded(key) is >= 0 and var folded)
                foreach (var unit in index.FoldPostings(folded).Select(p => index.UnitAt(p >> 1)).Distinct())
                    words[unit].Add(word);
        return [.. words.Select(h => h.ToArray())];
    }

    // Covers a term's words with as few candidates as possible, each as long as possible: once from the front and once from the back. Two may
    // share a word; a word that is in no candidate is left out.
    private IEnumerable<int[]> CutIntoParts(string[] words)
    {
        var fromFront = Cover(words, fromBack: false);
        var fromBack = Cover(words, fromBack: true);
        fromBack.Reverse();
        yield return [.. fromFront];
        if (!fromBack.SequenceEqual(fromFront))
            yield return [.. fromBack];
    }

    /// <summary>The parts that cover some words from one end on.</summary>
    internal List<int> Cover(string[] words, bool fromBack)
    {
        var parts = new List<int>();
        for (var at = fromBack ? words.Length - 1 : 0; at >= 0 && at < words.Length; )
        {
            var (part, reach, shared) = (-1, 0, int.MaxValue);
            if (!StopWords.Has(words[at]))
                for (var from = 0; from <= at; from++)
                for (var to = at + 1; to <= words.Length; to++)
                {
                    var (ahead, behind) = fromBack ? (at - from + 1, to - at - 1) : (to - at, at - from);
                    if ((ahead > reach || (ahead == reach && behind < shared)) && Find(words[from..to]) is >= 0 and var found)
                        (part, reach, shared) = (found, ahead, behind);
                }

            if (part >= 0 && !parts.Contains(part))
                parts.Add(part);
            at += (fromBack ? -1 : 1) * Math.Max(1, reach);
        }

        return parts;
    }
}
