using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Titles;

/// <summary>A title made of terms, to which terms are pushed and from which they are popped, with Σ worth·grip of the listing that has it.</summary>
internal sealed class TitleState
{
    private readonly Field _field;
    private readonly Unit _unit;
    private readonly int _capacity;
    private readonly int _separatorSize;
    private readonly int _spaceSize;
    private readonly bool _repeatsPay;
    private readonly OtherFields _otherFields;

    // By term, and by word in it: the word, its size, and its numbers among the folded words, the words letter for letter, and the words
    // as avoided terms compare them.
    private readonly string[][] _words;
    private readonly int[][] _sizes;
    private readonly int[][] _keys;
    private readonly int[][] _letters;
    private readonly bool[][] _ignored;
    private readonly int[][] _looseKeys;
    private readonly int[][] _avoidedPhrases;

    // Terms by the rarest of their words: a title without it leaves them the grip that the other fields give. Terms whose rarest word is
    // in another field are always evaluated.
    private readonly List<int>[] _termsByRarestWord;
    private readonly int[] _alwaysEvaluated;
    private readonly double[] _gripWithoutTitle;

    private readonly List<int> _terms = [];
    private readonly List<(int Term, int Word, bool AfterSeparator)> _title = [];
    private readonly List<int> _titleKeys = [];
    private readonly List<int> _titleLetters = [];
    private readonly List<(int Words, int Size)> _undo = [];
    private readonly int[] _firstPlace;
    private readonly int[] _wordCounts;

    /// <param name="field">The field that is filled.</param>
    /// <param name="input">The listing.</param>
    /// <param name="prepared">The terms, prepared for the platform.</param>
    /// <param name="terms">The same terms with their numbers.</param>
    /// <param name="avoided">What no title may say.</param>
    public TitleState(Field field, FillInput input, TermSet prepared, IReadOnlyList<WantedTerm> terms, AvoidedTerms avoided)
    {
        (_field, _unit) = (field, field.Limit?.Unit ?? Unit.Characters);
        _capacity = Math.Min(
            field.Limit?.Max ?? int.MaxValue,
            _unit == Unit.Characters ? field.IndexedFirst ?? int.MaxValue : int.MaxValue
        );
        (_separatorSize, _spaceSize) = (TextLength.Of(field.Separator, _unit), TextLength.Of(" ", _unit));
        _repeatsPay = input.Platform.Checks.GetValueOrDefault(TitleFill.RepeatsPay) > 0;
        _otherFields = new(field, input.Copy, prepared, terms);
        _words = [.. prepared.Terms.Select(t => t.Tokens.Select(w => w.Word).ToArray())];
        var loose = new Dictionary<string, int>(StringComparer.Ordinal);
        _avoidedPhrases = [.. avoided.Phrases.Select(p => p.Select(LooseKey).ToArray())];
        _looseKeys = [.. _words.Select(t => avoided.Any ? t.Select(w => LooseKey(avoided.KeyOf(w))).ToArray() : [])];
        _sizes = [.. _words.Select(t => t.Select(w => TextLength.Of(w, _unit)).ToArray())];
        _keys = [.. prepared.Terms.Select(t => t.Variants[0].Folded)];
        _letters = [.. prepared.Terms.Select(t => t.Letters)];
        _ignored = [.. prepared.Terms.Select(t => t.Variants[0].Ignored)];
        (_firstPlace, _wordCounts) = (new int[prepared.Folded.Count], new int[prepared.Folded.Count]);
        Array.Fill(_firstPlace, -1);
        _gripWithoutTitle = [.. _words.Select((_, t) => _otherFields.WeightedGrip(t, 0, _wordCounts))];
        _termsByRarestWord = [.. _firstPlace.Select(_ => new List<int>())];
        var always = new List<int>();
        for (var t = 0; t < _keys.Length; t++)
        {
            if (_otherFields.WorthByTerm[t] <= 0)
                continue;
            var rarest = _keys[t]
                .Where((_, i) => !_ignored[t][i])
                .DefaultIfEmpty(_keys[t][0])
                .MinBy(w => _otherFields.TermsOfWord[w].Length);
            if (_otherFields.WeightByWord[rarest] >= 0)
                always.Add(t);
            else
                _termsByRarestWord[rarest].Add(t);
        }

        _alwaysEvaluated = [.. always];

        int LooseKey(string key) => loose.TryGetValue(key, out var number) ? number : loose[key] = loose.Count;
    }

    /// <summary>The room that a title has, in the field's unit.</summary>
    public int Capacity => _capacity;

    /// <summary>The room that the title uses, in the field's unit.</summary>
    public int Size { get; private set; }

    /// <summary>The terms of the title, in order.</summary>
    public IReadOnlyList<int> Terms => _terms;

    /// <summary>Elementary steps that are left to the search.</summary>
    public long StepsLeft { get; set; }

    public IReadOnlyList<double> WorthByTerm => _otherFields.WorthByTerm;

    /// <summary>The room that a term uses by itself.</summary>
    public int SizeOf(int term) => _sizes[term].Sum() + _spaceSize * (_sizes[term].Length - 1);

    /// <summary>The number of the term with these words; −1 when there is none.</summary>
    public int Find(string key) => Array.FindIndex(_words, t => string.Join(' ', t) == key);

    /// <summary>The title as a text with a capital first letter, where that fits.</summary>
    public string Text()
    {
        var text = new System.Text.StringBuilder();
        foreach (var (term, word, afterSeparator) in _title)
            text.Append(
                    text.Length == 0 ? ""
                    : afterSeparator ? _field.Separator
                    : " "
                )
                .Append(_words[term][word]);
        var plain = text.ToString();
        var capital = Capitals.First(plain);
        return TextLength.Of(capital, _unit) <= _capacity ? capital : plain;
    }

    /// <summary>Makes the title anew of these terms; those that cannot be pushed are left out.</summary>
    public void Set(IReadOnlyList<int> terms)
    {
        while (_terms.Count > 0)
            Pop();
        foreach (var term in terms)
            Push(term);
    }

    /// <summary>Adds a term to the end, merged with what the title ends with.</summary>
    /// <returns>False, and nothing changes, where it does not fit, is held already, repeats a word without gain, or makes something avoided.</returns>
    public bool Push(int term)
    {
        var keys = _keys[term];
        var overlap = OverlapWith(term);
        if (overlap == keys.Length)
            return false;
        var size = Size;
        for (var i = overlap; i < keys.Length; i++)
        {
            size +=
                _sizes[term][i]
                + (
                    i > 0 ? _spaceSize
                    : _title.Count > 0 ? _separatorSize
                    : 0
                );
            if (size > _capacity || (!_repeatsPay && (_wordCounts[keys[i]] > 0 || Array.IndexOf(keys, keys[i], 0, i) >= 0)))
                return false;
        }

        if (_repeatsPay && StrengthOf(term) > Matcher.TogetherFactor * _field.Weight)
            return false;
        _undo.Add((_title.Count, Size));
        for (var i = overlap; i < keys.Length; i++)
        {
            if (_wordCounts[keys[i]]++ == 0)
                _firstPlace[keys[i]] = _title.Count;
            _title.Add((term, i, i == 0));
            _titleKeys.Add(keys[i]);
            _titleLetters.Add(_letters[term][i]);
        }

        Size = size;
        _terms.Add(term);
        if (!EndsWithAvoided())
            return true;
        Pop();
        return false;
    }

    /// <summary>Removes the last term.</summary>
    public void Pop()
    {
        (var words, Size) = _undo[^1];
        for (var i = words; i < _titleKeys.Count; i++)
            if (--_wordCounts[_titleKeys[i]] == 0)
                _firstPlace[_titleKeys[i]] = -1;
        _title.RemoveRange(words, _title.Count - words);
        _titleKeys.RemoveRange(words, _titleKeys.Count - words);
        _titleLetters.RemoveRange(words, _titleLetters.Count - words);
        _undo.RemoveAt(_undo.Count - 1);
        _terms.RemoveAt(_terms.Count - 1);
    }

    /// <summary>Σ worth·grip of the listing with the title, less that without a title.</summary>
    public double Evaluate()
    {
        var value = 0.0;
        foreach (var t in _alwaysEvaluated)
            value += _otherFields.WeightedGrip(t, StrengthOf(t), _wordCounts) - _gripWithoutTitle[t];
        for (var place = 0; place < _titleKeys.Count; place++)
        {
            if (_firstPlace[_titleKeys[place]] != place)
                continue;
            var terms = _termsByRarestWord[_titleKeys[place]];
            StepsLeft -= terms.Count + 1;
            foreach (var t in terms)
                value += _otherFields.WeightedGrip(t, StrengthOf(t), _wordCounts) - _gripWithoutTitle[t];
        }

        StepsLeft -= _alwaysEvaluated.Length + 10;
        return value;
    }

    // Whether the words of the last term make an avoided phrase, with those before them or alone.
    private bool EndsWithAvoided()
    {
        var added = _undo[^1].Words;
        foreach (var phrase in _avoidedPhrases)
            for (var start = Math.Max(0, added - phrase.Length + 1); start + phrase.Length <= _title.Count; start++)
            {
                var same = true;
                for (var i = 0; i < phrase.Length && same; i++)
                    same = _looseKeys[_title[start + i].Term][_title[start + i].Word] == phrase[i];
                if (same)
                    return true;
            }

        return false;
    }

    // How many words the end of the title and the beginning of a term have in common.
    private int OverlapWith(int term)
    {
        var letters = _letters[term];
        for (var overlap = Math.Min(letters.Length, _titleLetters.Count); overlap > 0; overlap--)
        {
            var same = true;
            for (var i = 0; i < overlap && same; i++)
                same = _titleLetters[_titleLetters.Count - overlap + i] == letters[i];
            if (same)
                return overlap;
        }

        return 0;
    }

    // The strength that the title lends the field for a term, as the matcher computes it: 0 where a word is missing.
    private double StrengthOf(int term)
    {
        var (keys, ignored) = (_keys[term], _ignored[term]);
        var (all, any) = (true, false);
        for (var i = 0; i < keys.Length; i++)
        {
            if (_wordCounts[keys[i]] > 0)
                any |= !ignored[i];
            else if (ignored[i])
                all = false;
            else
                return 0;
        }

        var best = any ? Matcher.TogetherFactor : 0;
        if (!all)
            return _field.Weight * best;
        for (
            var start = _firstPlace[keys[0]];
            start >= 0 && start + keys.Length <= _titleKeys.Count;
            start = _repeatsPay ? _titleKeys.IndexOf(keys[0], start + 1) : -1
        )
        {
            var (phrase, whole) = (true, true);
            for (var i = 0; i < keys.Length && phrase; i++)
            {
                phrase = _titleKeys[start + i] == keys[i];
                whole &= _titleLetters[start + i] == _letters[term][i];
            }

            if (phrase)
                best = Math.Max(
                    best,
                    (whole ? 1 : Matcher.InflectedFactor) * (_field.Front ? 1 - Matcher.FrontShare * start / _titleKeys.Count : 1)
                );
        }

        return _field.Weight * best;
    }
}
