using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Titles;

/// <summary>
/// A title made of phrases, which are pushed to its end and popped, with Σ worth·grip of the listing that has it. A phrase is a term, by its
/// number, or a fragment: one or two words of a term.
/// </summary>
internal sealed class TitleState
{
    private readonly Field _field;
    private readonly Unit _unit;
    private readonly CapitalStyle _capitals;
    private readonly int _capacity;
    private readonly int _separatorSize;
    private readonly int _spaceSize;
    private readonly OtherFields _otherFields;
    private readonly bool _combine;

    private readonly PhraseTable _table;
    private readonly bool[][] _ignored;

    // Terms by the rarest of their words: a title without it leaves them the grip that the other fields give. Terms whose rarest word is
    // in another field are always evaluated.
    private readonly List<int>[] _termsByRarestWord;
    private readonly int[] _alwaysEvaluated;
    private readonly double[] _gripWithoutTitle;

    private readonly List<int> _phrases = [];
    private readonly List<(int Phrase, int Word, bool AfterSeparator)> _title = [];
    private readonly List<int> _titleKeys = [];
    private readonly List<int> _titleLetters = [];
    private readonly List<(int Words, int Size)> _undo = [];
    private readonly List<int>[] _places;
    private readonly int[] _wordCounts;

    /// <param name="field">The field that is filled.</param>
    /// <param name="input">The listing.</param>
    /// <param name="prepared">The terms, prepared for the platform.</param>
    /// <param name="terms">The same terms with their numbers.</param>
    /// <param name="avoided">What no title may say.</param>
    public TitleState(Field field, FillInput input, TermSet prepared, IReadOnlyList<WantedTerm> terms, AvoidedTerms avoided)
    {
        (_field, _unit, _capitals) = (field, field.Limit?.Unit ?? Unit.Characters, input.Platform.Capitals);
        _capacity = Math.Min(
            field.Limit?.Max ?? int.MaxValue,
            _unit == Unit.Characters ? field.IndexedFirst ?? int.MaxValue : int.MaxValue
        );
        (_separatorSize, _spaceSize) = (TextLength.Of(field.Separator, _unit), TextLength.Of(" ", _unit));
        (_otherFields, _combine) = (new(field, input.Copy, prepared, terms), input.Platform.Search.WordsCombine);
        _table = new(_unit, _capitals == CapitalStyle.AsIs, prepared, terms, avoided);
        _ignored = [.. prepared.Terms.Select(t => t.Variants[0].Ignored)];
        _places = [.. Enumerable.Range(0, prepared.Folded.Count).Select(_ => new List<int>())];
        _wordCounts = new int[prepared.Folded.Count];
        _gripWithoutTitle = [.. Enumerable.Range(0, terms.Count).Select(t => _otherFields.WeightedGrip(t, 0, _wordCounts))];
        _termsByRarestWord = [.. _places.Select(_ => new List<int>())];
        var always = new List<int>();
        for (var t = 0; t < terms.Count; t++)
        {
            if (_otherFields.WorthByTerm[t] <= 0)
                continue;
            var rarest = _table
                .Keys[t]
                .Where((_, i) => !_ignored[t][i])
                .DefaultIfEmpty(_table.Keys[t][0])
                .MinBy(w => _otherFields.TermsOfWord[w].Length);
            if (_otherFields.WeightByWord[rarest] >= 0)
                always.Add(t);
            else
                _termsByRarestWord[rarest].Add(t);
        }

        _alwaysEvaluated = [.. always];
    }

    /// <summary>The room that a title has, in the field's unit.</summary>
    public int Capacity => _capacity;

    /// <summary>The room that the title uses, in the field's unit.</summary>
    public int Size { get; private set; }

    /// <summary>The phrases of the title, in order: numbers of terms, and of fragments after those.</summary>
    public IReadOnlyList<int> Phrases => _phrases;

    /// <summary>How often one word may come, small words aside; 1 or more.</summary>
    public int WordUses { get; set; } = 1;

    /// <summary>Elementary steps that are left to the search.</summary>
    public long StepsLeft { get; set; }

    public IReadOnlyList<double> WorthByTerm => _otherFields.WorthByTerm;

    /// <summary>The phrases that it can be made of.</summary>
    public PhraseTable Table => _table;

    /// <summary>
    /// The one or two words of a term that the title lacks, or the whole listing, dropped words aside. Null where it lacks none, more, or all
    /// of its words, and where a small word would begin or end them.
    /// </summary>
    public Fragment? Lacking(int term, bool inListing)
    {
        if (inListing && !_combine)
            return null;
        var (keys, first, second) = (_table.Keys[term], -1, -1);
        for (var i = 0; i < keys.Length; i++)
        {
            var key = keys[i];
            if (_ignored[term][i] || _wordCounts[key] > 0 || (inListing && _otherFields.WeightByWord[key] >= 0))
                continue;
            if (first < 0)
                first = i;
            else if (key == keys[first] || (second >= 0 && key == keys[second]))
                continue;
            else if (second < 0)
                second = i;
            else
                return null;
        }

        var isAll = (second < 0 ? 1 : 2) == keys.Length;
        return first < 0 || isAll || _table.IsSmall(keys[first]) || (second >= 0 && _table.IsSmall(keys[second]))
            ? null
            : new(term, first, second);
    }

    /// <summary>The title as a text, with capitals by the profile's style where they fit.</summary>
    public string Text()
    {
        var text = new System.Text.StringBuilder();
        foreach (var (phrase, word, afterSeparator) in _title)
        {
            var written = _table.Written[phrase][word];
            if (_capitals == CapitalStyle.Words && !StopWords.Has(_table.Words[phrase][word]))
                written = Capitals.First(written);
            text.Append(
                    text.Length == 0 ? ""
                    : afterSeparator ? _field.Separator
                    : " "
                )
                .Append(written);
        }

        var plain = text.ToString();
        var capital = _capitals == CapitalStyle.AsIs ? plain : Capitals.First(plain);
        return TextLength.Of(capital, _unit) <= _capacity ? capital : plain;
    }

    /// <summary>Makes the title anew of these phrases; those that cannot be pushed are left out.</summary>
    public void Set(IReadOnlyList<int> phrases)
    {
        var same = 0;
        while (same < phrases.Count && same < _phrases.Count && _phrases[same] == phrases[same])
            same++;
        while (_phrases.Count > same)
            Pop();
        for (; same < phrases.Count; same++)
            Push(phrases[same]);
    }

    /// <summary>Adds a phrase to the end, merged with what the title ends with.</summary>
    /// <returns>False, and nothing changes, where it has no room, is there already, makes a word come too often, or makes something avoided.</returns>
    public bool Push(int phrase)
    {
        var keys = _table.Keys[phrase];
        var overlap = OverlapWith(phrase);
        if (overlap == keys.Length || (phrase < WorthByTerm.Count && Look(phrase).Grade == Grade.Whole))
            return false;
        var size = Size;
        for (var i = overlap; i < keys.Length; i++)
        {
            size +=
                _table.Sizes[phrase][i]
                + (
                    i > 0 ? _spaceSize
                    : _title.Count > 0 ? _separatorSize
                    : 0
                );
            if (size > _capacity || (!_table.IsSmall(keys[i]) && UsesAfter(keys, i, overlap) > WordUses))
                return false;
        }

        _undo.Add((_title.Count, Size));
        for (var i = overlap; i < keys.Length; i++)
        {
            _wordCounts[keys[i]]++;
            _places[keys[i]].Add(_title.Count);
            _title.Add((phrase, i, i == 0));
            _titleKeys.Add(keys[i]);
            _titleLetters.Add(_table.Letters[phrase][i]);
        }

        Size = size;
        _phrases.Add(phrase);
        if (!EndsWithAvoided() && !EndsWithEarlierPhrase())
            return true;
        Pop();
        return false;
    }

    /// <summary>Whether a phrase that cannot be pushed now may be pushed once the title has another end: its words fit behind another separator.</summary>
    public bool MayFitLater(int phrase) => MayFit(phrase, _table.Keys[phrase].Length - 1);

    /// <summary>The same for a fragment.</summary>
    public bool MayFitLater(Fragment fragment) => MayFit(fragment.Term, fragment.Last);

    // At best all but its last word is merged with the end of the title.
    private bool MayFit(int phrase, int last) =>
        Size + _table.Sizes[phrase][last] + (_title.Count > 0 ? _spaceSize : 0) <= _capacity && MayComeAgain(_table.Keys[phrase][last]);

    private bool MayComeAgain(int key) => _table.IsSmall(key) || _wordCounts[key] < WordUses;

    /// <summary>Removes the last phrase.</summary>
    public void Pop()
    {
        (var words, Size) = _undo[^1];
        for (var i = _titleKeys.Count - 1; i >= words; i--)
        {
            _wordCounts[_titleKeys[i]]--;
            _places[_titleKeys[i]].RemoveAt(_places[_titleKeys[i]].Count - 1);
        }

        _title.RemoveRange(words, _title.Count - words);
        _titleKeys.RemoveRange(words, _titleKeys.Count - words);
        _titleLetters.RemoveRange(words, _titleLetters.Count - words);
        _undo.RemoveAt(_undo.Count - 1);
        _phrases.RemoveAt(_phrases.Count - 1);
    }

    /// <summary>Σ worth·grip of the listing with the title, less that without a title.</summary>
    public double Evaluate()
    {
        var value = 0.0;
        foreach (var t in _alwaysEvaluated)
            value += _otherFields.WeightedGrip(t, Look(t).Strength, _wordCounts) - _gripWithoutTitle[t];
        for (var place = 0; place < _titleKeys.Count; place++)
        {
            if (_places[_titleKeys[place]][0] != place)
                continue;
            var terms = _termsByRarestWord[_titleKeys[place]];
            StepsLeft -= terms.Count + 1;
            foreach (var t in terms)
                value += _otherFields.WeightedGrip(t, Look(t).Strength, _wordCounts) - _gripWithoutTitle[t];
        }

        StepsLeft -= _alwaysEvaluated.Length + 10;
        return value;
    }

    /// <summary>By term: its grade in the title, or where that does not hold it, whether the words of all fields do. Terms that count nothing have none.</summary>
    public Grade[] Grades()
    {
        var grades = new Grade[WorthByTerm.Count];
        for (var t = 0; t < grades.Length; t++)
            if (WorthByTerm[t] > 0)
                grades[t] =
                    Look(t).Grade is > Grade.Missing and var grade ? grade
                    : _combine && _otherFields.MissingWordCount(t, _wordCounts) == 0 ? Grade.Spread
                    : Grade.Missing;
        return grades;
    }

    private int UsesAfter(int[] keys, int at, int from)
    {
        var uses = _wordCounts[keys[at]];
        for (var i = from; i <= at; i++)
            if (keys[i] == keys[at])
                uses++;
        return uses;
    }

    // Whether the words of the last phrase make an avoided one, with those before them or alone.
    private bool EndsWithAvoided()
    {
        var added = _undo[^1].Words;
        foreach (var phrase in _table.AvoidedPhrases)
            for (var start = Math.Max(0, added - phrase.Length + 1); start + phrase.Length <= _title.Count; start++)
            {
                var same = true;
                for (var i = 0; i < phrase.Length && same; i++)
                    same = _table.LooseKeys[_title[start + i].Phrase][_title[start + i].Word] == phrase[i];
                if (same)
                    return true;
            }

        return false;
    }

    // Whether the last phrase between separators is one that stands further forward.
    private bool EndsWithEarlierPhrase()
    {
        var start = _title.Count - 1;
        while (start > 0 && !_title[start].AfterSeparator)
            start--;
        var length = _title.Count - start;
        for (var at = 0; at + length <= start; at++)
        {
            if ((at > 0 && !_title[at].AfterSeparator) || !_title[at + length].AfterSeparator)
                continue;
            var same = true;
            for (var i = 0; i < length && same; i++)
                same = _titleKeys[at + i] == _titleKeys[start + i] && (i == 0 || !_title[at + i].AfterSeparator);
            if (same)
                return true;
        }

        return false;
    }

    // How many words the end of the title and the beginning of a phrase have in common.
    private int OverlapWith(int phrase)
    {
        var letters = _table.Letters[phrase];
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

    // The grade and the strength that the title lends the field for a term, as the matcher computes them: 0 where a word is missing.
    private (Grade Grade, double Strength) Look(int term)
    {
        var (keys, ignored) = (_table.Keys[term], _ignored[term]);
        var (all, any) = (true, false);
        for (var i = 0; i < keys.Length; i++)
        {
            if (_wordCounts[keys[i]] > 0)
                any |= !ignored[i];
            else if (ignored[i])
                all = false;
            else
                return (Grade.Missing, 0);
        }

        var (grade, best) = any ? (Grade.Together, Matcher.TogetherFactor) : (Grade.Missing, 0);
        if (!all)
            return (grade, _field.Weight * best);
        foreach (var start in _places[keys[0]])
        {
            if (start + keys.Length > _titleKeys.Count)
                break;
            var (phrase, whole) = (true, true);
            for (var i = 0; i < keys.Length && phrase; i++)
            {
                phrase = _titleKeys[start + i] == keys[i];
                whole &= _titleLetters[start + i] == _table.Letters[term][i];
            }

            if (!phrase)
                continue;
            if (whole || grade < Grade.Inflected)
                grade = whole ? Grade.Whole : Grade.Inflected;
            best = Math.Max(best, (whole ? 1 : Matcher.InflectedFactor) * Matcher.FrontAt(_field, start));
        }

        return (grade, _field.Weight * best);
    }
}
