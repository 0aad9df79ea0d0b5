using System.Runtime.CompilerServices;

namespace TinRabbit.Core.Words;

/// <summary>A product's facts, ready for claims to be compared with them.</summary>
internal sealed class FactIndex
{
    private static readonly ConditionalWeakTable<FactWords, FactIndex> Made = [];

    // Words that stand for the product itself: "the blue one".
    private static readonly string[] Generic = ["piece", "item", "product", "version", "design", "one", "model", "edition", "option"];

    // Values that are only partly of what they name.
    private static readonly HashSet<string> Blending = ["half", "blend", "mix", "mixed", "part", "partly", "blended", "mixture", "plated"];

    // Words of what the product is and whole values of any list back a claim of any facet; parts of a value only one of their own: western red
    // cedar is not red.
    private readonly HashSet<string> _ofAny = new(StringComparer.Ordinal);
    private readonly Dictionary<Facet, HashSet<string>> _ofFacet = [];
    private readonly List<(HashSet<string> Words, bool IsBlend)> _values = [];
    private readonly List<Measure> _measures = [];

    private FactIndex(FactWords facts)
    {
        AddAll(_ofAny, facts.What);
        foreach (var (facet, values) in facts.ByFacet)
        {
            var keys = _ofFacet[facet] = new(StringComparer.Ordinal);
            foreach (var value in values)
            {
                AddAll(keys, value);
                _ofAny.Add(Vocabulary.KeyOf(value));
            }
        }

        var what = Tokens.Of(facts.What).Select(t => t.Word).ToList();
        NameWords.UnionWith(what.Select(Vocabulary.KeyOfWord));
        if (what.Count > 0)
        {
            var noun = what[HeadNoun.IndexIn(what)];
            Nouns.Add(Vocabulary.KeyOfWord(noun));
            if (Fold.Split(noun) is { } halves)
                Nouns.Add(Vocabulary.KeyOfWord(halves.Second));
        }

        Nouns.UnionWith(Generic.Select(Vocabulary.KeyOfWord));
    }

    /// <summary>The product's noun, and words that stand for it, by their keys.</summary>
    public HashSet<string> Nouns { get; } = new(StringComparer.Ordinal);

    /// <summary>Every word of what the product is, by its key.</summary>
    public HashSet<string> NameWords { get; } = new(StringComparer.Ordinal);

    /// <summary>The index of some facts, made once.</summary>
    public static FactIndex Of(FactWords facts) => Made.GetValue(facts, static f => new(f));

    /// <summary>Whether the facts say what an entry claims: the word itself, one of the same meaning, or one that implies it.</summary>
    public bool Backs(string key, VocabularyEntry entry) =>
        Says(_ofAny, key, entry) || SaysIn(entry.Facet, key, entry) || SaysIn(entry.OtherFacet, key, entry);

    /// <summary>Whether the facts say a measure.</summary>
    public bool Backs(Measure measure) => _measures.Exists(measure.IsBackedBy);

    /// <summary>Whether a material is said only as part of a blend: half wool is not pure wool.</summary>
    public bool SaysOnlyAsBlend(string key)
    {
        var said = _values.FindAll(v => v.Words.Contains(key));
        return said.Count > 0 && said.TrueForAll(v => v.IsBlend);
    }

    private bool SaysIn(Facet? facet, string key, VocabularyEntry entry) =>
        facet is { } known && _ofFacet.TryGetValue(known, out var keys) && Says(keys, key, entry);

    private static bool Says(HashSet<string> keys, string key, VocabularyEntry entry) => keys.Contains(key) || entry.Backing.Overlaps(keys);

    // Every run of a value's words with what it implies.
    private void AddAll(HashSet<string> keys, string value)
    {
        string[] words = [.. Tokens.Of(value).Select(t => Vocabulary.KeyOfWord(t.Word))];
        var runs = Runs(words);
        foreach (var run in runs)
            if (keys.Add(run))
                keys.UnionWith(Vocabulary.ImpliedBy(run));
        _values.Add((runs, words.Any(Blending.Contains) || IsPart(words)));
        _measures.AddRange(Measure.In(value));
    }

    // "50% wool": a number below a hundred.
    private static bool IsPart(string[] words) =>
        words.Any(w => int.TryParse(w, out var percent) && percent is > 0 and < 100) && words.Length > 1;

    // Every run of words of a value.
    private static HashSet<string> Runs(string[] words)
    {
        var keys = new HashSet<string>(StringComparer.Ordinal);
        for (var from = 0; from < words.Length; from++)
        for (var to = from + 1; to <= words.Length && to <= from + Vocabulary.Longest; to++)
            keys.Add(string.Join(' ', words[from..to]));
        return keys;
    }
}
