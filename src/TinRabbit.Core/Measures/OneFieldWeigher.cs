using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Measures;

/// <summary>
/// Weighs a listing again and again with other values of one of its fields. What the other fields hold of each term is worked out once:
/// grip is 1 − Π(1 − strength) over fields, so one field's factor can be exchanged. Only terms that the field held, holds now, or has other
/// words of are looked at.
/// </summary>
internal sealed class OneFieldWeigher
{
    private readonly TermSet _terms;
    private readonly Platform _ofField;
    private readonly Field _field;
    private readonly WordCache _words;
    private readonly Matcher _others;
    private readonly Matcher _before;
    private readonly double[] _loose;
    private readonly bool[] _held;
    private readonly double[] _worth;
    private readonly double[] _share;
    private readonly int[] _heldByField;
    private readonly double _sum;
    private readonly int[] _alwaysLooked;
    private readonly int[][] _byRarestWord;
    private readonly bool _itemsAreApart;
    private readonly IReadOnlyList<string> _items;
    private readonly int[] _seen;
    private int _round;

    // The weighing that is being made; one at a time.
    private Matcher _now;
    private double _gripped;
    private HashSet<int>? _changed;

    /// <param name="terms">The terms, prepared for the platform.</param>
    /// <param name="copy">The listing.</param>
    /// <param name="wanted">The same terms with their numbers.</param>
    /// <param name="field">The field that changes; the search reads it.</param>
    public OneFieldWeigher(TermSet terms, IReadOnlyDictionary<string, FieldValue> copy, IReadOnlyList<WantedTerm> wanted, Field field)
    {
        (_terms, _field) = (terms, field);
        wanted = PickDemand.Assume(wanted);
        _words = new(terms.Platform.Search.Folds);
        _ofField = terms.Platform with { Fields = [field] };
        var others = terms.Platform with { Fields = [.. terms.Platform.Fields.Where(f => f.Key != field.Key)] };
        _others = new(terms, ListingIndex.Build(others, copy));
        var value = copy.GetValueOrDefault(field.Key) ?? new FieldValue.Items([]);
        _now = _before = MatcherOf(value);
        _items = value.Units(field.Shape);
        // Each item is searched by itself, and where it stands does not count. Words that join across a space need a closer look.
        _itemsAreApart =
            field is { Front: false, Shape: FieldShape.Phrases or FieldShape.Lines }
            && !terms.Platform.Search.Folds.HasFlag(Folds.Compound);
        (_loose, _held) = (new double[wanted.Count], new bool[wanted.Count]);
        (_worth, _share, _seen) = (new double[wanted.Count], new double[wanted.Count], new int[wanted.Count]);
        var byField = new List<int>();
        for (var i = 0; i < wanted.Count; i++)
        {
            _worth[i] = wanted[i].Worth();
            (_held[i], _loose[i]) = _others.Looseness(i);
            if (_before.Looseness(i).Held)
                byField.Add(i);
            _share[i] = Share(i, _before);
            _sum += _share[i];
        }

        _heldByField = [.. byField];
        var all = Enumerable.Range(0, wanted.Count).Where(i => _worth[i] > 0).ToLookup(i => terms.RequiredOf(i).Length == 0);
        _alwaysLooked = [.. all[true]];
        var rarest = Enumerable.Range(0, terms.Folded.Count).Select(_ => new List<int>()).ToArray();
        foreach (var term in all[false])
            rarest[terms.RequiredOf(term).ToArray().MinBy(w => terms.TermsOf(w).Length)].Add(term);
        _byRarestWord = [.. rarest.Select(r => r.ToArray())];
    }

    /// <summary>Σ worth·grip of the listing with this value of the field.</summary>
    public double Gripped(FieldValue value)
    {
        var now = MatcherOf(value);
        _changed = _itemsAreApart ? WordsOfChangedItems(value) : null;
        (_now, _gripped) = (now, _sum);
        _round++;
        foreach (var term in _alwaysLooked)
            Look(term);
        foreach (var term in _heldByField)
            LookIfChanged(term);
        foreach (var word in now.FoundWords)
        foreach (var term in _byRarestWord[word])
            if (!now.LacksRequiredWord(term))
                LookIfChanged(term);
        if (_terms.Platform.Search.WordsCombine)
            foreach (var word in now.WordsThatDiffer(_before))
            foreach (var term in _terms.TermsOf(word))
                if (!_held[term])
                    Look(term);
        return _gripped;
    }

    // A term that no changed item can hold alone is held as it was.
    private void LookIfChanged(int term)
    {
        if (_changed is { } changed)
            foreach (var word in _terms.RequiredOf(term))
                if (!changed.Contains(word))
                    return;
        Look(term);
    }

    private void Look(int term)
    {
        if (_seen[term] == _round || _worth[term] == 0)
            return;
        _seen[term] = _round;
        _gripped += Share(term, _now) - _share[term];
    }

    private HashSet<int> WordsOfChangedItems(FieldValue value)
    {
        var words = new HashSet<int>();
        var items = value.Units(_field.Shape);
        foreach (var text in items.Except(_items).Concat(_items.Except(items)))
        foreach (var token in _words.TokensOf(text))
            if (_terms.FindFolded(_words.KeysOf(token.Word).Folded) is >= 0 and var word)
                words.Add(word);
        return words;
    }

    private Matcher MatcherOf(FieldValue value) =>
        new(_terms, ListingIndex.Build(_ofField, new Dictionary<string, FieldValue> { [_field.Key] = value }, _words));

    private double Share(int term, Matcher own)
    {
        var (held, loose) = own.Looseness(term);
        return held || _held[term] ? _worth[term] * (1 - loose * _loose[term])
            : _terms.Platform.Search.WordsCombine
                ? _worth[term] * Matcher.SpreadFactor * Matcher.SpreadOver(_terms.Terms[term], own, _others)
            : 0;
    }
}
