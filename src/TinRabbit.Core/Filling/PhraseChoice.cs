using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>Chooses phrases for slots so that Σ worth·grip is greatest: greedily, then by exchanges as long as they help.</summary>
internal sealed class PhraseChoice
{
    // Elementary steps of the search, about 25 ms of work.
    private const long Effort = 600_000;
    private const int Most = 900;
    private const int Likely = 200;
    private const double Hopeful = 0.985;
    private const double Near = 1e-9;

    private readonly string[] _texts;
    private readonly int _standing;
    private readonly Others _others;
    private readonly IReadOnlyList<WantedTerm> _terms;
    private readonly List<(int Term, double Strength)>[] _holds;
    private readonly List<int>[] _words;
    private readonly string[] _signatures;

    // The state: how firmly what is chosen holds each term, how often it has each word, and what that is worth.
    private readonly double[] _strengths;
    private readonly int[] _has;
    private readonly double[] _values;
    private readonly int[] _lacks;
    private readonly double _weight;
    private readonly int[] _seen;
    private int _mark;
    private long _steps;

    /// <param name="platform">Its folds.</param>
    /// <param name="field">The field that is filled.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="standing">What stands in the field and stays.</param>
    /// <param name="candidates">What may be added.</param>
    /// <param name="terms">The terms wanted.</param>
    public PhraseChoice(
        Platform platform, Field field, IReadOnlyDictionary<string, FieldValue> copy, string[] standing, IReadOnlyList<string> candidates, IReadOnlyList<WantedTerm> terms)
    {
        (_terms, _standing, _texts) = (terms, standing.Length, [.. standing, .. candidates]);
        var ready = TermSet.For(platform, [.. terms.Select(t => t.Text)]);
        _others = new(field, copy, ready, terms);
        var index = ListingIndex.Of(platform with { Fields = [field] }, new Dictionary<string, FieldValue> { [field.Key] = new FieldValue.Items(_texts) });
        var matcher = new Matcher(ready, index);
        _holds = [.. _texts.Select(_ => new List<(int, double)>())];
        for (var t = 0; t < terms.Count; t++)
            foreach (var (unit, strength) in matcher.Holding(t))
                _holds[unit].Add((t, strength));
        _words = [.. _texts.Select(_ => new List<int>())];
        foreach (var (key, word) in ready.Folded.Select((k, i) => (k, i)))
            if (index.FindFolded(key) is >= 0 and var folded)
                foreach (var unit in index.FoldPlaces(folded).Select(p => index.UnitAt(p >> 1)).Distinct())
                    _words[unit].Add(word);
        _signatures = [.. _texts.Select(t => string.Join(' ', Tokens.Of(t).Select(w => Fold.Key(w.Word, platform.Search.Folds)).Order(StringComparer.Ordinal)))];
        (_strengths, _values, _seen, _lacks) = (new double[terms.Count], new double[terms.Count], new int[terms.Count], new int[terms.Count]);
        (_has, _weight) = (new int[ready.Folded.Count], field.Weight);
    }

    /// <summary>The phrases to add, the lead first, then those that hold most.</summary>
    public List<string> Choose(int slots, string? lead)
    {
        var taken = _signatures.Take(_standing).ToHashSet(StringComparer.Ordinal);
        var free = Enumerable.Range(_standing, _texts.Length - _standing).Where(c => !taken.Contains(_signatures[c])).ToArray();
        Set([]);
        // What brings most by itself leads one way, what promises most together with others another.
        int[] byGain = [.. free.Select(c => (c, Gain: Gain(c))).Where(c => c.Gain > 0).OrderByDescending(c => c.Gain).Take(Most).Select(c => c.c)];
        int[] byPromise = [.. free.Select(c => (c, Promise: Promise(c))).OrderByDescending(c => c.Promise).Take(Most).Select(c => c.c)];
        var leads = LeadOf(lead, slots, free);
        var chosen = Searched(leads, slots, byGain);
        var most = _values.Sum();
        if (Searched(leads, slots, byPromise) is var other && _values.Sum() > most)
            chosen = other;
        Unpack(chosen, leads.Count, slots, taken);
        Set(chosen);
        AddUnknown(chosen, slots);
        return [.. chosen.Take(leads.Count).Concat(chosen.Skip(leads.Count).OrderByDescending(Weight)).Select(c => _texts[c])];
    }

    private List<int> Searched(List<int> leads, int slots, int[] free)
    {
        _steps = Effort;
        var chosen = leads.ToList();
        Set(chosen);
        while (chosen.Count < slots && Best(chosen, free) is { Phrase: >= 0 } best)
        {
            chosen.Add(best.Phrase);
            Put(best.Phrase);
        }

        Exchange(chosen, leads.Count, free);
        chosen = Shaken(chosen, leads.Count, free);
        Set(chosen);
        return chosen;
    }

    // What a phrase brings by itself, and its share in what it could bring together with others.
    private double Promise(int phrase)
    {
        var promise = Gain(phrase);
        foreach (var word in _words[phrase])
            foreach (var term in _others.TermsOfWord[word])
                if (_lacks[term] > 0)
                    promise += _others.Worth[term] * Matcher.SpreadFactor * _weight / (2 * _lacks[term]);
        return promise;
    }

    private double Weight(int phrase) => _holds[phrase].Sum(h => _others.Worth[h.Term] * h.Strength);

    // The lead itself, or where it is too long for a slot the parts of it, cut so that they hold most.
    private List<int> LeadOf(string? lead, int slots, int[] free)
    {
        if (lead is null || slots < 1)
            return [];
        var key = Tokens.Key(lead);
        if (Array.Exists(_texts[.._standing], t => Tokens.Key(t) == key))
            return [];
        if (Array.FindIndex(_texts, _standing, t => Tokens.Key(t) == key) is >= 0 and var whole)
            return [whole];
        var words = key.Split(' ');
        for (var at = words.Length - 1; at > 0; at--)
        {
            var (first, second) = (Find(words[..at]), Find(words[at..]));
            if (first >= 0)
                return second >= 0 && slots > 1 && _signatures[first] != _signatures[second] ? [first, second] : [first];
        }

        return [];

        int Find(string[] part) => free.FirstOrDefault(c => Tokens.Key(_texts[c]) == string.Join(' ', part), -1);
    }

    private (int Phrase, double Gain) Best(List<int> chosen, int[] free)
    {
        var (phrase, most) = (-1, 0.0);
        var taken = chosen.Select(c => _signatures[c]).ToHashSet(StringComparer.Ordinal);
        foreach (var candidate in free)
            if (Gain(candidate) is var gain && gain > most && !taken.Contains(_signatures[candidate]))
                (phrase, most) = (candidate, gain);
        return (phrase, most);
    }

    // Takes one out and puts the best one in, as long as that helps; what slots are left are filled.
    private void Exchange(List<int> chosen, int leads, int[] free)
    {
        for (var better = true; better && _steps > 0;)
        {
            better = false;
            for (var i = leads; i < chosen.Count && _steps > 0; i++)
            {
                var was = chosen[i];
                chosen.RemoveAt(i);
                Set(chosen);
                var (phrase, gain) = Best(chosen, free);
                var exchange = phrase >= 0 && phrase != was && gain > Gain(was) * (1 + Near);
                better |= exchange;
                chosen.Insert(i, exchange ? phrase : was);
            }
        }

        Set(chosen);
    }

    // Begins again from the best with some taken out and one forced in that is not among them, each in turn: out of where no single
    // exchange leads on.
    private List<int> Shaken(List<int> chosen, int leads, int[] free)
    {
        var (best, most) = (chosen, _values.Sum());
        int[] likely = [.. free.Take(Likely)];
        for (var turn = 0; _steps > 0 && turn < 3 * likely.Length && best.Count > leads; turn++)
        {
            var forced = likely[turn % likely.Length];
            if (best.Contains(forced))
                continue;
            var other = best.Where((c, i) => i < leads || _signatures[c] != _signatures[forced]).ToList();
            var slots = best.Count;
            for (var k = 0; k <= turn % 3 && other.Count > leads; k++)
                other.RemoveAt(leads + (turn * 7 + k * 5) % (other.Count - leads));
            if (other.Count >= slots)
                continue;
            other.Add(forced);
            Set(other);
            while (other.Count < slots && Best(other, likely) is { Phrase: >= 0 } next)
            {
                other.Add(next.Phrase);
                Put(next.Phrase);
            }

            if (_values.Sum() < most * Hopeful)
                continue;
            Exchange(other, leads, likely);
            var worth = _values.Sum();
            if (worth > most * (1 + Near))
                (best, most) = (other, worth);
        }

        return best;
    }

    // While slots are left, two phrases that share nothing read better in a slot each.
    private void Unpack(List<int> chosen, int leads, int slots, HashSet<string> taken)
    {
        var byKey = Enumerable.Range(_standing, _texts.Length - _standing).GroupBy(c => Tokens.Key(_texts[c])).ToDictionary(g => g.Key, g => g.First());
        for (var i = leads; i < chosen.Count && chosen.Count < slots; i++)
        {
            Set(chosen);
            var before = _values.Sum();
            var words = Tokens.Key(_texts[chosen[i]]).Split(' ');
            for (var at = 1; at < words.Length; at++)
            {
                if (!byKey.TryGetValue(string.Join(' ', words[..at]), out var first) || !byKey.TryGetValue(string.Join(' ', words[at..]), out var second))
                    continue;
                List<int> apart = [.. chosen[..i], first, second, .. chosen[(i + 1)..]];
                Set(apart);
                if (_values.Sum() < before * (1 - Near) || apart.Select(c => _signatures[c]).Distinct().Count() < apart.Count || apart.Any(c => taken.Contains(_signatures[c])))
                    continue;
                chosen.RemoveAt(i);
                chosen.InsertRange(i--, [first, second]);
                break;
            }
        }
    }

    // Terms of unknown volume take what slots are left.
    private void AddUnknown(List<int> chosen, int slots)
    {
        var whole = Enumerable.Range(_standing, _texts.Length - _standing).GroupBy(c => Tokens.Key(_texts[c])).ToDictionary(g => g.Key, g => g.First());
        for (var t = 0; t < _terms.Count && chosen.Count < slots; t++)
            if (_terms[t].Volume is null && _strengths[t] <= 0 && whole.TryGetValue(Tokens.Key(_terms[t].Text), out var own)
                && !chosen.Exists(c => _signatures[c] == _signatures[own]) && !_signatures.Take(_standing).Contains(_signatures[own]))
            {
                chosen.Add(own);
                Put(own);
            }
    }

    private void Set(List<int> chosen)
    {
        Array.Clear(_strengths);
        Array.Clear(_has);
        for (var c = 0; c < _standing; c++)
            Hold(c);
        foreach (var c in chosen)
            Hold(c);
        Value();
    }

    private void Value()
    {
        _steps -= _values.Length;
        for (var t = 0; t < _values.Length; t++)
        {
            _lacks[t] = _others.Lacks(t, _has);
            _values[t] = _lacks[t] > 0 && _strengths[t] <= 0 && !_others.Held[t] ? 0 : _others.Gripped(t, _strengths[t], _has);
        }
    }

    private void Hold(int phrase)
    {
        foreach (var (term, strength) in _holds[phrase])
            _strengths[term] = Math.Max(_strengths[term], strength);
        foreach (var word in _words[phrase])
            _has[word]++;
    }

    private void Put(int phrase)
    {
        Hold(phrase);
        Value();
    }

    // What a phrase adds to Σ worth·grip.
    private double Gain(int phrase)
    {
        _mark++;
        _steps -= _holds[phrase].Count + _words[phrase].Count;
        var gain = 0.0;
        foreach (var (term, strength) in _holds[phrase])
        {
            _seen[term] = _mark;
            if (strength > _strengths[term])
                gain += _others.Gripped(term, strength, _has) - _values[term];
        }

        var fresh = 0;
        foreach (var word in _words[phrase])
            if (_has[word]++ == 0)
                fresh++;
        foreach (var word in _words[phrase])
        {
            // A word that is new to the field can complete a term, or weigh more than where it stands.
            if (_has[word] > 1)
                continue;
            var terms = _others.TermsOfWord[word];
            _steps -= terms.Count / 8;
            foreach (var term in terms)
                if (_lacks[term] <= fresh && _seen[term] != _mark && _strengths[term] <= 0)
                {
                    _seen[term] = _mark;
                    gain += _others.Gripped(term, 0, _has) - _values[term];
                }
        }

        foreach (var word in _words[phrase])
            _has[word]--;
        return gain;
    }
}
