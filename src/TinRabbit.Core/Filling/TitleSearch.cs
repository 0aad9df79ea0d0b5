using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>
/// Looks for the order of terms that makes the best title. A plan is an order in which terms are offered; each is said if it fits, shares
/// its beginning with what stands before it or says nothing twice. Plans are bettered by offering a term earlier, as long as that helps.
/// </summary>
internal sealed class TitleSearch
{
    // Title evaluations times terms: about 25 ms of work for the first take, and as much for all the others.
    private const long Effort = 700_000;
    private const int Offered = 90;
    private const int Patience = 300;
    private const double Near = 1e-9;

    private readonly Field _field;
    private readonly Unit _unit;
    private readonly int _max;
    private readonly int _step;
    private readonly int _gap;
    private readonly bool _repeat;
    private readonly Others _others;
    private readonly int[][] _avoidedPhrases;
    private readonly int[][] _looseKeys;
    private readonly string[][] _words;
    private readonly int[][] _sizes;
    private readonly int[][] _keys;
    private readonly int[][] _letters;
    private readonly bool[][] _ignored;
    private readonly int _lead;
    private readonly int[] _offered;

    // Terms by the rarest of their words: a title without it gives them what the other fields give. Where the word stands elsewhere too,
    // they are looked at whatever the title has.
    private readonly List<int>[] _byRarest;
    private readonly int[] _always;
    private readonly double[] _without;

    // The title at hand: its terms, its words, how often it has each word of the terms and where it has it first, and the room used.
    private readonly List<int> _said = [];
    private readonly CancellationToken _stop;
    private readonly List<(int Term, int Word, bool Breaks)> _title = [];
    private readonly List<int> _titleKeys = [];
    private readonly List<int> _titleLetters = [];
    private readonly List<(int Words, int Size)> _marks = [];
    private readonly int[] _at;
    private readonly int[] _has;
    private int _size;
    private long _steps;

    public TitleSearch(Field field, Platform platform, IReadOnlyDictionary<string, FieldValue> copy, TermSet ready, IReadOnlyList<WantedTerm> terms, AvoidedTerms avoided, string? lead, IReadOnlySet<string>? notHere, CancellationToken stop)
    {
        _stop = stop;
        (_field, _unit) = (field, field.Limit?.Unit ?? Unit.Characters);
        _max = Math.Min(field.Limit?.Max ?? int.MaxValue, _unit == Unit.Characters ? field.IndexedFirst ?? int.MaxValue : int.MaxValue);
        (_step, _gap) = (Room.Measure(field.Separator, _unit), Room.Measure(" ", _unit));
        _repeat = platform.Checks.GetValueOrDefault(TitleFill.RepeatsPay) > 0;
        _others = new(field, copy, ready, terms);
        _words = [.. ready.Terms.Select(t => t.Tokens.Select(w => w.Word).ToArray())];
        var loose = new Dictionary<string, int>(StringComparer.Ordinal);
        int Loose(string key) => loose.TryGetValue(key, out var number) ? number : loose[key] = loose.Count;
        _avoidedPhrases = [.. avoided.Phrases.Select(p => p.Select(Loose).ToArray())];
        _looseKeys = [.. _words.Select(t => avoided.Any ? t.Select(w => Loose(avoided.KeyOf(w))).ToArray() : [])];
        _sizes = [.. _words.Select(t => t.Select(w => Room.Measure(w, _unit)).ToArray())];
        _keys = [.. ready.Terms.Select(t => t.Variants[0].Folded)];
        _letters = [.. ready.Terms.Select(t => t.Letters)];
        _ignored = [.. ready.Terms.Select(t => t.Variants[0].Ignored)];
        (_at, _has) = (new int[ready.Folded.Count], new int[ready.Folded.Count]);
        Array.Fill(_at, -1);
        _without = [.. _words.Select((_, t) => _others.Gripped(t, 0, _has))];
        _byRarest = [.. _at.Select(_ => new List<int>())];
        var always = new List<int>();
        for (var t = 0; t < _keys.Length; t++)
        {
            if (_others.Worth[t] <= 0)
                continue;
            var rarest = _keys[t].Where((_, i) => !_ignored[t][i]).DefaultIfEmpty(_keys[t][0]).MinBy(w => _others.TermsOfWord[w].Length);
            if (_others.Weights[rarest] >= 0)
                always.Add(t);
            else
                _byRarest[rarest].Add(t);
        }

        _always = [.. always];
        _lead = lead is null ? -1 : Array.FindIndex(_words, t => string.Join(' ', t) == Tokens.Key(lead));
        // The worthiest, those worth most for their room, and what is not known to be worth nothing.
        var fitting = Enumerable.Range(0, _words.Length).Where(t => SizeAlone(t) <= _max && t != _lead && notHere?.Contains(terms[t].Text) != true).ToList();
        _offered = [.. fitting.OrderByDescending(t => _others.Worth[t]).Take(Offered * 2 / 3)
            .Union(fitting.OrderByDescending(t => _others.Worth[t] / SizeAlone(t)).Take(Offered * 2 / 3))
            .Union(fitting.Where(t => terms[t].Volume is null).Take(10))];
    }

    /// <summary>The best plan that differs from those found; null when there is none.</summary>
    public int[]? Next(IReadOnlyList<int[]> found)
    {
        _steps = found.Count == 0 ? Effort : Effort / 5;
        // Another take leaves out what each earlier one gave most room to after the lead.
        var banned = new HashSet<int>();
        for (var f = 0; f < found.Count; f++)
            banned.Add(found[f].Where(t => t != _lead && !banned.Contains(t)).Skip(f % 2).FirstOrDefault(-1));
        int[] offered = [.. _offered.Where(t => !banned.Contains(t))];
        if (_lead < 0 && offered.Length == 0)
            return null;
        Say(_lead >= 0 ? [_lead] : []);
        int[] lead = [.. _said];
        int[] best = [];
        var most = -1.0;
        foreach (var start in Starts(lead, offered))
        {
            var (plan, value) = Bettered(start, lead.Length, offered);
            if (value > most * (1 + Near))
                (best, most) = (plan, value);
        }

        best = Shaken(best, most, lead.Length, offered);
        Say(best);
        int[] said = [.. _said];
        return said.Length == 0 || found.Any(f => TextOf(f) == TextOf(said)) ? null : said;
    }

    /// <summary>The title that a plan makes.</summary>
    public string TextOf(int[] plan)
    {
        Say(plan);
        var text = new System.Text.StringBuilder();
        foreach (var (term, word, breaks) in _title)
            text.Append(text.Length == 0 ? "" : breaks ? _field.Separator : " ").Append(_words[term][word]);
        var plain = text.ToString();
        var capital = plain.Length == 0 ? plain : char.ToUpperInvariant(plain[0]) + plain[1..];
        return Room.Measure(capital, _unit) <= _max ? capital : plain;
    }

    private int SizeAlone(int term) => _sizes[term].Sum() + _gap * (_sizes[term].Length - 1);

    private IEnumerable<int[]> Starts(int[] lead, int[] offered)
    {
        yield return [.. lead, .. Greedy(lead, offered, byRoom: true)];
        yield return [.. lead, .. Greedy(lead, offered, byRoom: false)];
    }

    // Offers one more term at a time, the one that adds most (for the room it takes).
    private List<int> Greedy(int[] lead, int[] offered, bool byRoom)
    {
        var left = offered.ToList();
        Say(lead);
        var value = Value();
        while (left.Count > 0 && _steps > 0)
        {
            var (pick, best) = (-1, 0.0);
            var size = _size;
            // What can no longer be said is not offered again.
            left.RemoveAll(term =>
            {
                if (!Add(term))
                    return true;
                var rate = (Value() - value) / (byRoom ? _size - size : 1);
                if (rate > best)
                    (pick, best) = (term, rate);
                Back();
                return false;
            });
            if (pick < 0)
                break;
            Add(pick);
            value = Value();
            left.Remove(pick);
        }

        return [.. _said.Skip(lead.Length)];
    }

    private (int[] Plan, double Value) Bettered(int[] start, int kept, int[] offered)
    {
        var (plan, value) = Said(start, offered);
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
            var (said, worth) = Said(other, []);
            if (worth <= value * (1 + Near))
                return false;
            // What room that leaves is filled.
            (plan, value) = Said(said, offered);
            if (value < worth)
                (plan, value) = (said, worth);
            return true;
        }
    }

    // Takes up to three terms out, puts one or two others anywhere, and betters what comes of it.
    private int[] Shaken(int[] best, double most, int kept, int[] offered)
    {
        var dice = new Dice();
        for (var since = 0; _steps > 0 && since < Patience && offered.Length > 0; since++)
        {
            var plan = best.ToList();
            for (var leave = dice.Throw(4); leave > 0 && plan.Count > kept; leave--)
                plan.RemoveAt(kept + dice.Throw(plan.Count - kept));
            for (var put = 1 + dice.Throw(2); put > 0; put--)
            {
                var term = offered[dice.Throw(offered.Length)];
                plan.Remove(term);
                plan.Insert(kept + dice.Throw(plan.Count - kept + 1), term);
            }

            var (other, value) = Bettered([.. plan], kept, offered);
            if (value > most * (1 + Near))
                (best, most, since) = (other, value, 0);
        }

        return best;
    }

    // What is said of a plan, with the terms that still fit after it, as long as they help.
    private (int[] Plan, double Value) Said(IReadOnlyList<int> plan, int[] then)
    {
        _stop.ThrowIfCancellationRequested();
        Say(plan);
        var value = Value();
        foreach (var term in then)
        {
            if (!Add(term))
                continue;
            var worth = Value();
            if (worth >= value)
                value = worth;
            else
                Back();
        }

        return ([.. _said], value);
    }

    // Puts the title together; what does not fit, says a word twice or makes something avoided is passed over.
    private void Say(IReadOnlyList<int> plan)
    {
        while (_said.Count > 0)
            Back();
        foreach (var term in plan)
            Add(term);
    }

    private bool Add(int term)
    {
        var keys = _keys[term];
        var shared = Shared(term);
        if (shared == keys.Length)
            return false;
        var size = _size;
        for (var i = shared; i < keys.Length; i++)
        {
            size += _sizes[term][i] + (i > 0 ? _gap : _title.Count > 0 ? _step : 0);
            if (size > _max || (!_repeat && (_has[keys[i]] > 0 || Array.IndexOf(keys, keys[i], 0, i) >= 0)))
                return false;
        }

        if (_repeat && Strength(term) > Matcher.TogetherFactor * _field.Weight)
            return false;
        _marks.Add((_title.Count, _size));
        for (var i = shared; i < keys.Length; i++)
        {
            if (_has[keys[i]]++ == 0)
                _at[keys[i]] = _title.Count;
            _title.Add((term, i, i == 0));
            _titleKeys.Add(keys[i]);
            _titleLetters.Add(_letters[term][i]);
        }

        _size = size;
        _said.Add(term);
        if (!SaysAvoided())
            return true;
        Back();
        return false;
    }

    // Whether the end of the title makes something avoided: what was said before did not.
    private bool SaysAvoided()
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
    private void Back()
    {
        (var words, _size) = _marks[^1];
        for (var i = words; i < _titleKeys.Count; i++)
            if (--_has[_titleKeys[i]] == 0)
                _at[_titleKeys[i]] = -1;
        _title.RemoveRange(words, _title.Count - words);
        _titleKeys.RemoveRange(words, _titleKeys.Count - words);
        _titleLetters.RemoveRange(words, _titleLetters.Count - words);
        _marks.RemoveAt(_marks.Count - 1);
        _said.RemoveAt(_said.Count - 1);
    }

    // How many words the end of the title shares with the beginning of a term.
    private int Shared(int term)
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
    private double Value()
    {
        var value = 0.0;
        foreach (var t in _always)
            value += _others.Gripped(t, Strength(t), _has) - _without[t];
        for (var i = 0; i < _titleKeys.Count; i++)
        {
            if (_at[_titleKeys[i]] != i)
                continue;
            var terms = _byRarest[_titleKeys[i]];
            _steps -= terms.Count + 1;
            foreach (var t in terms)
                value += _others.Gripped(t, Strength(t), _has) - _without[t];
        }

        _steps -= _always.Length + 10;
        return value;
    }

    private double Strength(int t)
    {
        var keys = _keys[t];
        var ignored = _ignored[t];
        var (all, any) = (true, false);
        for (var i = 0; i < keys.Length; i++)
        {
            if (_has[keys[i]] > 0)
                any |= !ignored[i];
            else if (ignored[i])
                all = false;
            else
                return 0;
        }

        var best = any ? Matcher.TogetherFactor : 0;
        if (all)
            for (var start = _at[keys[0]]; start >= 0 && start + keys.Length <= _titleKeys.Count; start = _repeat ? _titleKeys.IndexOf(keys[0], start + 1) : -1)
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
