using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Tags;

/// <summary>Phrases that could stand in a slot: picks, weaves of picks, and the parts of a pick that is too long for one.</summary>
internal sealed class TagCandidates
{
    private const int MaxTerms = 1000;
    private const int MaxPairs = 1500;
    private const int MaxLonger = 500;
    private const int MaxPairsExtended = 300;
    private const int MaxExtensions = 120;

    private readonly Unit _unit;
    private readonly int _max;
    private readonly List<string> _texts = [];
    private readonly HashSet<string> _keys = new(StringComparer.Ordinal);

    private TagCandidates(Field field) => (_unit, _max) = (field.Limit?.Unit ?? Unit.Characters, field.Limit?.Max ?? int.MaxValue);

    /// <summary>All that fit one slot and contain nothing avoided, each once. Of very many terms only the worthiest are considered.</summary>
    public static TagCandidates Build(Field field, IReadOnlyList<WantedTerm> terms, AvoidedTerms avoided, CancellationToken stop)
    {
        var candidates = new TagCandidates(field);
        candidates.AddTerms(terms.Count <= MaxTerms ? terms : [.. terms.OrderByDescending(t => t.Worth()).Take(MaxTerms)], stop);
        var texts = candidates._texts;
        candidates.TooLong = [.. terms.Where(t => !candidates.Holds(t))];
        var banned = avoided
            .FindIn(new Dictionary<string, FieldValue> { [field.Key] = new FieldValue.Items(texts) })
            .SelectMany(u => u.Spans)
            .Select(s => s.Item)
            .ToHashSet();
        candidates.Texts = banned.Count == 0 ? texts : [.. texts.Where((_, i) => !banned.Contains(i))];
        return candidates;
    }

    /// <summary>The phrases.</summary>
    public IReadOnlyList<string> Texts { get; private set; } = [];

    /// <summary>Terms that fit no slot, neither whole nor in parts that a person would type.</summary>
    public IReadOnlyList<WantedTerm> TooLong { get; private set; } = [];

    private bool Holds(WantedTerm term) => Fits(AsTyped(term.Text)) || Fits(Tokens.Key(term.Text)) || Parts(term).Any();

    private sealed record Phrase(string[] Words, int Size, double Worth);

    private void AddTerms(IReadOnlyList<WantedTerm> terms, CancellationToken stop)
    {
        var whole = new List<Phrase>();
        foreach (var term in terms)
        {
            string[] words = [.. Tokens.Of(term.Text).Select(t => t.Word)];
            var text = AsTyped(term.Text);
            if (Fits(text) || Fits(text = string.Join(' ', words)))
            {
                Add(words, text);
                whole.Add(PhraseOf(words, term.Worth()));
            }
            else
                foreach (var part in Parts(term))
                    Add(part, string.Join(' ', part));
        }

        Phrase[] byWorth = [.. whole.OrderByDescending(w => w.Worth)];
        var pairs = Weaves(byWorth, byWorth, MaxPairs, stop);
        var longer = Weaves([.. pairs.Take(MaxPairsExtended)], [.. byWorth.Take(MaxExtensions)], MaxLonger, stop);
        foreach (var phrase in pairs.Concat(longer))
            Add(phrase.Words, string.Join(' ', phrase.Words));
    }

    // The runs of a long term's words that a person would type as a tag: no small word at either end, and the head noun or two words of
    // content in it.
    private IEnumerable<string[]> Parts(WantedTerm term)
    {
        string[] words = [.. Tokens.Of(term.Text).Select(t => t.Word)];
        var head = HeadNoun.IndexIn(words);
        for (var from = 0; from < words.Length; from++)
        for (var to = from + 1; to <= words.Length; to++)
            if (
                to - from < words.Length
                && !StopWords.Has(words[from])
                && !StopWords.Has(words[to - 1])
                && ((from <= head && head < to) || words[from..to].Count(w => !StopWords.Has(w)) >= 2)
                && Fits(string.Join(' ', words[from..to]))
            )
                yield return words[from..to];
    }

    // The weaves of two phrases that are worth most together. Both lists are in order of worth, so once enough are found, what follows
    // a pair that is worth too little is worth too little as well.
    private List<Phrase> Weaves(IReadOnlyList<Phrase> firsts, IReadOnlyList<Phrase> seconds, int most, CancellationToken stop)
    {
        var found = new PriorityQueue<Phrase, double>();
        foreach (var first in firsts)
        {
            stop.ThrowIfCancellationRequested();
            foreach (var second in seconds)
            {
                var worth = first.Worth + second.Worth;
                if (found.Count == most && found.TryPeek(out _, out var least) && worth <= least)
                    break;
                // Without an overlap both have to fit; with one, the last word of the first is in the second.
                if (first.Size + second.Size + 1 > _max && Array.IndexOf(second.Words, first.Words[^1]) < 0)
                    continue;
                var joined = Superstring.Join(first.Words, second.Words);
                if (joined.Length <= first.Words.Length || joined.Length <= second.Words.Length || !Fits(string.Join(' ', joined)))
                    continue;
                found.Enqueue(PhraseOf(joined, worth), worth);
                if (found.Count > most)
                    found.Dequeue();
            }
        }

        return
        [
            .. found
                .UnorderedItems.Select(i => i.Element)
                .OrderByDescending(p => p.Worth)
                .ThenBy(p => string.Join(' ', p.Words), StringComparer.Ordinal),
        ];
    }

    private Phrase PhraseOf(string[] words, double worth) => new(words, TextLength.Of(string.Join(' ', words), _unit), worth);

    private bool Fits(string text) => TextLength.Of(text, _unit) <= _max;

    private void Add(string[] words, string text)
    {
        if (Fits(text) && _keys.Add(string.Join(' ', words)))
            _texts.Add(text);
    }

    // As the seller typed it, unless it contains what would cut a tag in two.
    private static string AsTyped(string text)
    {
        text = text.Trim();
        return text.AsSpan().IndexOfAny(",;\n\t") < 0 ? text : string.Join(' ', Tokens.Of(text).Select(t => t.Word));
    }
}
