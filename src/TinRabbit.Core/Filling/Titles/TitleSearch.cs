using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Titles;

/// <summary>
/// Looks for the order of terms that makes the best title. A plan is an order in which terms are offered; each is said if it fits, shares
/// its beginning with what stands before it or says nothing twice. Plans are bettered by offering a term earlier, as long as that helps.
/// </summary>
internal sealed class TitleSearch
{
    // Title evaluations times terms: about 25 ms of work for the first take, and as much for all the others.
    private const long StepBudget = 700_000;
    private const int MaxCandidates = 90;
    private const int MaxPerturbationsWithoutGain = 300;
    private const double Tolerance = 1e-9;

    private readonly Field _field;
    private readonly Unit _unit;
    private readonly int _capacity;
    private readonly int _separatorSize;
    private readonly int _spaceSize;
    private readonly bool _repeat;
    private readonly OtherFields _otherFields;
    private readonly int[][] _avoidedPhrases;
    private readonly int[][] _looseKeys;
    private readonly string[][] _words;
    private readonly int[][] _sizes;
    private readonly int[][] _keys;
    private readonly int[][] _letters;
    private readonly bool[][] _ignored;
    private readonly int _lead;
    private readonly int[] _candidates;

    // Terms by the rarest of their words: a title without it gives them what the other fields give. Where the word stands elsewhere too,
    // they are looked at whatever the title has.
    private readonly List<int>[] _byRarest;
    private readonly int[] _termsWithoutRarestWord;
    private readonly double[] _gripWithoutTitle;

    // The title at hand: its terms, its words, how often it has each word of the terms and where it has it first, and the room used.
    private readonly List<int> _plan = [];
    private readonly CancellationToken _stop;
    private readonly List<(int Term, int Word, bool Breaks)> _title = [];
    private readonly List<int> _titleKeys = [];
    private readonly List<int> _titleLetters = [];
    private readonly List<(int Words, int Size)> _marks = [];
    private readonly int[] _firstPlace;
    private readonly int[] _wordCounts;
    private int _size;
    private long _steps;

    public TitleSearch(Field field, Platform platform, IReadOnlyDictionary<string, FieldValue> copy, TermSet ready, IReadOnlyList<WantedTerm> terms, AvoidedTerms avoided, string? lead, IReadOnlySet<string>? notHere, CancellationToken stop)
    {
        _stop = stop;
        (_field, _unit) = (field, field.Limit?.Unit ?? Unit.Characters);
        _capacity = Math.Min(field.Limit?.Max ?? int.MaxValue, _unit == Unit.Characters ? field.IndexedFirst ?? int.MaxValue : int.MaxValue);
        (_separatorSize, _spaceSize) = (RoomUsed.Measure(field.Separator, _unit), RoomUsed.Measure(" ", _unit));
        _repeat = platform.Checks.GetValueOrDefault(TitleFill.RepeatsPay) > 0;
        _otherFields = new(field, copy, ready, terms);
        _words = [.. ready.Terms.Select(t => t.Tokens.Select(w => w.Word).ToArray())];
        var loose = new Dictionary<string, int>(StringComparer.Ordinal);
        int Loose(string key) => loose.TryGetValue(key, out var number) ? number : loose[key] = loose.Count;
        _avoidedPhrases = [.. avoided.Phrases.Select(p => p.Select(Loose).ToArray())];
        _looseKeys = [.. _words.Select(t => avoided.Any ? t.Select(w => Loose(avoided.KeyOf(w))).ToArray() : [])];
        _sizes = [.. _words.Select(t => t.Select(w => RoomUsed.Measure(w, _unit)).ToArray())];
        _keys = [.. ready.Terms.Select(t => t.Variants[0].Folded)];
        _letters = [.. ready.Terms.Select(t => t.Letters)];
        _ignored = [.. ready.Terms.Select(t => t.Variants[0].Ignored)];
        (_firstPlace, _wordCounts) = (new int[ready.Folded.Count], new int[ready.Folded.Count]);
        Array.Fill(_firstPlace, -1);
        _gripWithoutTitle = [.. _words.Select((_, t) => _otherFields.WeightedGrip(t, 0, _wordCounts))];
        _byRarest = [.. _firstPlace.Select(_ => new List<int>())];
        var always = new List<int>();
        for (var t = 0; t < _keys.Length; t++)
        {
            if (_otherFields.WorthByTerm[t] <= 0)
                continue;
            var rarest = _keys[t].Where((_, i) => !_ignored[t][i]).DefaultIfEmpty(_keys[t][0]).MinBy(w => _otherFields.TermsOfWord[w].Length);
            if (_otherFields.WeightByWord[rarest] >= 0)
                always.Add(t);
            else
                _byRarest[rarest].Add(t);
        }

        _termsWithoutRarestWord = [.. always];
        _lead = lead is null ? -1 : Array.FindIndex(_words, t => string.Join(' ', t) == Tokens.Key(lead));
        // The worthiest, those worth most for their room, and what is not known to be worth nothing.
        var fitting = Enumerable.Range(0, _words.Length).Where(t => SizeAlone(t) <= _capacity && t != _lead && notHere?.Contains(terms[t].Text) != true).ToList();
        _candidates = [.. fitting.OrderByDescending(t => _otherFields.WorthByTerm[t]).Take(MaxCandidates * 2 / 3)
            .Union(fitting.OrderByDescending(t => _otherFields.WorthByTerm[t] / SizeAlone(t)).Take(MaxCandidates * 2 / 3))
            .Union(fitting.Where(t => terms[t].Volume is null).Take(10))];
    }

    /// <summary>The best plan that differs from those found; null when there is none.</summary>
    public int[]? FindNext(IReadOnlyList<int[]> found)
    {
        _steps = found.Count == 0 ? StepBudget : StepBudget / 5;
        // Another take leaves out what each earlier one gave most room to after the lead.
        var banned = new HashSet<int>();
        for (var f = 0; f < found.Count; f++)
            banned.Add(found[f].Where(t => t != _lead && !banned.Contains(t)).Skip(f % 2).FirstOrDefault(-1));
        int[] offered = [.. _candidates.Where(t => !banned.Contains(t))];
        if (_lead < 0 && offered.Length == 0)
            return null;
        SetPlan(_lead >= 0 ? [_lead] : []);
        int[] lead = [.. _plan];
        int[] best = [];
        var most = -1.0;
        foreach (var start in Starts(lead, offered))
        {
            var (plan, value) = Improve(start, lead.Length, offered);
            if (value > most * (1 + Tolerance))
                (best, most) = (plan, value);
        }

        best = Perturb(best, most, lead.Length, offered);
        SetPlan(best);
        int[] said = [.. _plan];
        return said.Length == 0 || found.Any(f => TextOf(f) == TextOf(said)) ? null : said;
    }

    /// <summary>The title that a plan makes.</summary>
    public string TextOf(int[] plan)
    {
        SetPlan(plan);
        var text = new System.Text.StringBuilder();
        foreach (var (term, word, breaks) in _title)
            text.Append(text.Length == 0 ? "" : breaks ? _field.Separator : " ").Append(_words[term][word]);
        var plain = text.ToString();
        var capital = plain.Length == 0 ? plain : char.ToUpperInvariant(plain[0]) + plain[1..];
        return RoomUsed.Measure(capital, _unit) <= _capacity ? capital : plain;
    }

    private int SizeAlone(int term) => _sizes[term].Sum() + _spaceSize * (_sizes[term].Length - 1);

    private IEnumerable<int[]> Starts(int[] lead, int[] offered)
    {
        yield return [.. lead, .. Greedy(lead, offered, byRoom: true)];
        yield return [.. lead, .. Greedy(lead, offered, byRoom: false)];
    }

    // Offers one more term at a time, the one that adds most (for the room it takes).
    private List<int> Greedy(int[] lead, int[] offered, bool byRoom)
    {
        var left = offered.ToList();
        SetPlan(lead);
        var value = WeightedGrip();
        while (left.Count > 0 && _steps > 0)
        {
            var (pick, best) = (-1, 0.0);
            var size = _size;
            // What can no longer be said is not offered again.
            left.RemoveAll(term =>
            {
                if (!Push(term))
                    return true;
                var rate = (WeightedGrip() - value) / (byRoom ? _size - size : 1);
                if (rate > best)
                    (pick, best) = (term, rate);
                Pop();
                return false;
            });
            if (pick < 0)
                break;
            Push(pick);
            value = WeightedGrip();
            left.Remove(pick);
        }

        return [.. _plan.Skip(lead.Length)];
    }

    private (int[] Plan, double Value) Improve(int[] start, int kept, int[] offered)
    {
        var (plan, value) = Evaluate(start, offered);
        for (var better = true; better && _steps > 0;)
        {
            better = false;
            // A term earlier than it is, or one that is not said at all.
            foreach (var term in offered)
                for (var place = kept; place <= plan.Length && _steps > 0; place++)
                {
                    if (place < plan.Length && plan[place] == term)
                        continue;
                    int[] other = [.. plan[..place].Where(t => t != term), term, .. plan[place..].Where(t => t != term)];
                    better |= Keep(other);
                }

            for (var place = kept; place < plan.Length && _steps > 0; place++)
                better |= Keep([.. plan[..place], .. plan[(place + 1)..]]);
        }

        return (plan, value);

        bool Keep(int[] other)
        {
            var (said, worth) = Evaluate(other, []);
            if (worth <= value * (1 + Tolerance))
                return false;
            // What room that leaves is filled.
            (plan, value) = Evaluate(said, offered);
            if (value < worth)
                (plan, value) = (said, worth);
            return true;
        }
    }

    // Takes up to three terms out, puts one or two others anywhere, and betters what comes of it.
    private int[] Perturb(int[] best, double most, int kept, int[] offered)
    {
        var random = new DeterministicRandom(1);
        for (var since = 0; _steps > 0 && since < MaxPerturbationsWithoutGain && offered.Length > 0; since++)
        {
            var plan = best.ToList();
            for (var leave = random.Next(4); leave > 0 && plan.Count > kept; leave--)
                plan.RemoveAt(kept + random.Next(plan.Count - kept));
            for (var put = 1 + random.Next(2); put > 0; put--)
            {
                var term = offered[random.Next(offered.Length)];
                plan.Remove(term);
                plan.Insert(kept + random.Next(plan.Count - kept + 1), term);
            }

            var (other, value) = Improve([.. plan], kept, offered);
            if (value > most * (1 + Tolerance))
                (best, most, since) = (other, value, 0);
        }

        return best;
    }

    // What is said of a plan, with the terms that still fit after it, as long as they help.
    private (int[] Plan, double Value) Evaluate(IReadOnlyList<int> plan, int[] then)
    {
        _stop.ThrowIfCancellationRequested();
        SetPlan(plan);
        var value = WeightedGrip();
        foreach (var term in then)
        {
            if (!Push(term))
                continue;
            var worth = WeightedGrip();
            if (worth >= value)
                value = worth;
            else
                Pop();
        }

        return ([.. _plan], value);
    }

    // Puts the title together; what does not fit, says a word twice or makes something avoided is passed over.
    private void SetPlan(IReadOnlyList<int> plan)
    {
        while (_plan.Count > 0)
            Pop();
        foreach (var term in plan)
            Push(term);
    }

    private bool Push(int term)
    {
        var keys = _keys[term];
        var shared = Overlap(term);
        if (shared == keys.Length)
            return false;
        var size = _size;
        for (var i = shared; i < keys.Length; i++)
        {
            size += _sizes[term][i] + (i > 0 ? _spaceSize : _title.Count > 0 ? _separatorSize : 0);
            if (size > _capacity || (!_repeat && (_wordCounts[keys[i]] > 0 || Array.IndexOf(keys, keys[i], 0, i) >= 0)))
                return false;
        }

        if (_repeat && Strength(term) > Matcher.TogetherFactor * _field.Weight)
            return false;
        _marks.Add((_title.Count, _size));
        for (var i = shared; i < keys.Length; i++)
        {
            if (_wordCounts[keys[i]]++ == 0)
                _firstPlace[keys[i]] = _title.Count;
            _title.Add((term, i, i == 0));
            _titleKeys.Add(keys[i]);
            _titleLetters.Add(_letters[term][i]);
        }

        _size = size;
        _plan.Add(term);
        if (!MakesAvoidedPhrase())
            return true;
        Pop();
        return false;
    }

    // Whether the end of the title makes something avoided: what was said before did not.
    private bool MakesAvoidedPhrase()
    {
        var fresh = _marks[^1].Words;
        foreach (var phrase in _avoidedPhrases)
            for (var start = Math.Max(0, fresh - phrase.Length + 1); start + phrase.Length <= _title.Count; start++)
            {
                var same = true;
                for (var i = 0; i < phrase.Length && same; i++)
                    same = _looseKeys[_title[start + i].Term][_title[start + i].Word] == phrase[i];
                if (same)
                    return true;
            }

        return false;
    }

    // Takes the last term back.
    private void Pop()
    {
        (var words, _size) = _marks[^1];
        for (var i = words; i < _titleKeys.Count; i++)
            if (--_wordCounts[_titleKeys[i]] == 0)
                _firstPlace[_titleKeys[i]] = -1;
        _title.RemoveRange(words, _title.Count - words);
        _titleKeys.RemoveRange(words, _titleKeys.Count - words);
        _titleLetters.RemoveRange(words, _titleLetters.Count - words);
        _marks.RemoveAt(_marks.Count - 1);
        _plan.RemoveAt(_plan.Count - 1);
    }

    // How many words the end of the title shares with the beginning of a term.
    private int Overlap(int term)
    {
        var letters = _letters[term];
        for (var shared = Math.Min(letters.Length, _titleLetters.Count); shared > 0; shared--)
        {
            var same = true;
            for (var i = 0; i < shared && same; i++)
                same = _titleLetters[_titleLetters.Count - shared + i] == letters[i];
            if (same)
                return shared;
        }

        return 0;
    }

    // Σ worth·grip with the title at hand, less what there is without any.
    private double WeightedGrip()
    {
        var value = 0.0;
        foreach (var t in _termsWithoutRarestWord)
            value += _otherFields.WeightedGrip(t, Strength(t), _wordCounts) - _gripWithoutTitle[t];
        for (var i = 0; i < _titleKeys.Count; i++)
        {
            if (_firstPlace[_titleKeys[i]] != i)
                continue;
            var terms = _byRarest[_titleKeys[i]];
            _steps -= terms.Count + 1;
            foreach (var t in terms)
                value += _otherFields.WeightedGrip(t, Strength(t), _wordCounts) - _gripWithoutTitle[t];
        }

        _steps -= _termsWithoutRarestWord.Length + 10;
        return value;
    }

    private double Strength(int t)
    {
        var keys = _keys[t];
        var ignored = _ignored[t];
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
        if (all)
            for (var start = _firstPlace[keys[0]]; start >= 0 && start + keys.Length <= _titleKeys.Count; start = _repeat ? _titleKeys.IndexOf(keys[0], start + 1) : -1)
            {
                var (phrase, whole) = (true, true);
                for (var i = 0; i < keys.Length && phrase; i++)
                {
                    phrase = _titleKeys[start + i] == keys[i];
                    whole &= _titleLetters[start + i] == _letters[t][i];
                }

                if (phrase)
                    best = Math.Max(best, (whole ? 1 : Matcher.InflectedFactor) * (_field.Front ? 1 - Matcher.FrontShare * start / _titleKeys.Count : 1));
            }

        return _field.Weight * best;
    }
}
