using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Tags;

/// <summary>Chooses phrases for slots so that Σ worth·grip is greatest: greedily, then by exchanges as long as they help.</summary>
internal sealed class TagSearch
{
    // Elementary steps of the search, about 12 ms of work.
    private const long StepBudget = 180_000;
    private const int MaxCandidates = 900;
    private const int PerturbationPool = 200;
    private const double PruneMargin = 0.2;
    private const double Tolerance = 1e-9;
    private const int MaxRemovedTried = 5;
    private const int MaxPartsTried = 8;

    private readonly string[] _texts;
    private readonly int _fixedCount;
    private readonly OtherFields _otherFields;
    private readonly IReadOnlyList<WantedTerm> _terms;
    private readonly CancellationToken _stop;
    private readonly (int Term, double Strength)[][] _heldTerms;
    private readonly int[][] _words;
    private readonly string[] _keys;
    private readonly string[] _signatures;
    private readonly Dictionary<string, int> _byKey;
    private readonly int[][] _parts;

    // The state: which phrases stand, how firmly they hold each term, how often they have each word, and what that is worth.
    private readonly List<int> _chosen = [];
    private readonly List<double>[] _holders;
    private readonly double[] _strengths;
    private readonly int[] _wordCounts;
    private readonly double[] _values;
    // How many words a term lacks that nothing holds yet; more than any phrase has where something does.
    private readonly int[] _missingWords;
    private readonly List<int> _touched = [];
    private readonly double _weight;
    private double _worth;
    private readonly int[] _seen;
    private int _mark;
    private long _steps;

    // Where exchanging stops, better or not.
    private long _stepFloor;

    /// <param name="platform">Its folds.</param>
    /// <param name="field">The field that is filled.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="standing">What stands in the field and stays.</param>
    /// <param name="candidates">What may be added.</param>
    /// <param name="terms">The terms wanted.</param>
    /// <param name="stop">Stops the search.</param>
    public TagSearch(
        Platform platform, Field field, IReadOnlyDictionary<string, FieldValue> copy, string[] standing, IReadOnlyList<string> candidates, IReadOnlyList<WantedTerm> terms, CancellationToken stop)
    {
        (_terms, _fixedCount, _texts, _stop) = (terms, standing.Length, [.. standing, .. candidates], stop);
        var ready = TermSet.Prepare(platform, [.. terms.Select(t => t.Text)]);
        _otherFields = new(field, copy, ready, terms);
        var index = ListingIndex.Build(platform with { Fields = [field] }, new Dictionary<string, FieldValue> { [field.Key] = new FieldValue.Items(_texts) });
        var matcher = new Matcher(ready, index);
        var holds = _texts.Select(_ => new List<(int, double)>()).ToArray();
        for (var t = 0; t < terms.Count && WordsFill.Continue(stop); t++)
            foreach (var (unit, strength) in matcher.StrengthByUnit(t))
                holds[unit].Add((t, strength));
        var has = _texts.Select(_ => new List<int>()).ToArray();
        foreach (var (key, word) in ready.Folded.Select((k, i) => (k, i)))
            if (index.FindFolded(key) is >= 0 and var folded)
                foreach (var unit in index.FoldPostings(folded).Select(p => index.UnitAt(p >> 1)).Distinct())
                    has[unit].Add(word);
        _heldTerms = [.. holds.Select(h => h.ToArray())];
        _words = [.. has.Select(h => h.ToArray())];
        var keys = new Dictionary<string, string>(StringComparer.Ordinal);
        string[][] words = [.. _texts.Select(t => Tokens.Of(t).Select(w => w.Word).ToArray())];
        _keys = [.. words.Select(w => string.Join(' ', w))];
        _signatures = [.. words.Select(w => string.Join(' ', w.Select(KeyOf).Order(StringComparer.Ordinal)))];
        _byKey = [];
        for (var c = _fixedCount; c < _texts.Length; c++)
            _byKey.TryAdd(_keys[c], c);
        // What stands already is no part that is wanted; nor is one that another part of the same pick says in another order.
        var stand = _signatures.Take(_fixedCount).ToHashSet(StringComparer.Ordinal);
        _parts = [.. terms.SelectMany(t => PartsOf(t.Text)).Select(p => p.Where(c => !stand.Contains(_signatures[c])).DistinctBy(c => _signatures[c]).ToArray()).Where(p => p.Length > 1)];
        (_strengths, _values, _seen, _missingWords) = (new double[terms.Count], new double[terms.Count], new int[terms.Count], new int[terms.Count]);
        (_wordCounts, _weight) = (new int[ready.Folded.Count], field.Weight);
        _holders = [.. terms.Select(_ => new List<double>())];
        for (var t = 0; t < terms.Count; t++)
            Evaluate(t);
        for (var c = 0; c < standing.Length; c++)
            Apply(c, 1);

        string KeyOf(string word) => keys.TryGetValue(word, out var key) ? key : keys[word] = Fold.Key(word, platform.Search.Folds);
    }

    /// <summary>The phrases to add, the lead first, then those that hold most.</summary>
    public List<string> Choose(int slots, string? lead)
    {
        var taken = _signatures.Take(_fixedCount).ToHashSet(StringComparer.Ordinal);
        var free = Enumerable.Range(_fixedCount, _texts.Length - _fixedCount).Where(c => !taken.Contains(_signatures[c])).ToArray();
        SetChosen([]);
        // What brings most by itself leads one way, what promises most together with others another.
        var gains = free.Select(c => (Phrase: c, Gain: MarginalGain(c))).ToList();
        int[] byGain = [.. gains.Where(c => c.Gain > 0).OrderByDescending(c => c.Gain).Take(MaxCandidates).Select(c => c.Phrase)];
        int[] byPromise = [.. gains.OrderByDescending(c => c.Gain + PotentialWithOthers(c.Phrase)).Take(MaxCandidates).Select(c => c.Phrase)];
        var leads = LeadPhrases(lead, slots, free);
        var (chosen, most) = (leads, _worth);
        (_steps, _stepFloor) = (StepBudget, -StepBudget);
        Try(Perturb(Construct(leads, leads.Count, slots, byGain), leads.Count, byGain));
        _steps = StepBudget;
        Try(Perturb(Construct(leads, leads.Count, slots, byPromise), leads.Count, byPromise));
        // Then what a seller would do by hand, with whole picks only.
        _steps = StepBudget / 4;
        var picks = _terms.Select(t => _byKey.GetValueOrDefault(Tokens.Key(t.Text), -1)).Distinct().Where(free.Contains).ToArray();
        Try(Construct(leads, leads.Count, slots, picks));
        // And what begins with the parts of a pick that no single slot holds.
        int[][] together = [.. _parts.Where(p => p.Length + leads.Count <= slots).OrderByDescending(WorthTogether).Take(MaxPartsTried)];
        (_steps, _stepFloor) = (StepBudget / 4, -StepBudget / 2);
        foreach (var parts in together)
            if (_steps > 0)
                Try(Construct([.. leads, .. parts.Where(p => !leads.Exists(l => _signatures[l] == _signatures[p]))], leads.Count, slots, byGain));
        SplitIntoFreeSlots(chosen, leads.Count, slots, taken);
        SetChosen(chosen);
        AddUnknown(chosen, slots);
        return [.. chosen.Take(leads.Count).Concat(chosen.Skip(leads.Count).OrderByDescending(HeldWorth)).Select(c => _texts[c])];

        void Try(List<int> other)
        {
            SetChosen(other);
            if (_worth > most)
                (chosen, most) = (other, _worth);
        }
    }

    // What several phrases bring where nothing else stands.
    private double WorthTogether(int[] phrases)
    {
        SetChosen([.. phrases]);
        return _worth;
    }

    // Greedily on from a beginning, then by exchanges.
    private List<int> Construct(List<int> beginning, int leads, int slots, int[] free)
    {
        var chosen = beginning.ToList();
        SetChosen(chosen);
        while (chosen.Count < slots && BestCandidate(chosen, free) is { Phrase: >= 0 } best)
        {
            chosen.Add(best.Phrase);
            Push(best.Phrase);
        }

        // A pick too long for a slot may be worth nothing before all its parts stand.
        while (BestParts(chosen, slots) is { } parts)
        {
            chosen.AddRange(parts);
            SetChosen(chosen);
        }

        ImproveBySwaps(chosen, leads, free);
        while (SwapInParts(chosen, leads))
            ImproveBySwaps(chosen, leads, free);
        return chosen;
    }

    // Takes out as many as a pick has parts and puts those in, where that helps most.
    private bool SwapInParts(List<int> chosen, int leads)
    {
        var (best, most) = ((List<int>?)null, _worth * (1 + Tolerance));
        int[] least = [.. chosen.Skip(leads).OrderBy(MarginalLoss).Take(MaxRemovedTried)];
        foreach (var parts in _parts)
        {
            _stop.ThrowIfCancellationRequested();
            if (_steps < _stepFloor)
                break;
            int[] fresh = [.. parts.Where(p => !chosen.Contains(p))];
            var others = chosen.Where(c => Array.Exists(fresh, p => _signatures[p] == _signatures[c])).ToList();
            if (fresh.Length is < 2 or > 3 || others.Count > 0)
                continue;
            foreach (var p in fresh)
                Push(p);
            Leave(0, fresh.Length);
            foreach (var p in fresh)
                Pop(p);

            // Each way to leave out as many, of those that lose least.
            void Leave(int from, int count)
            {
                if (count == 0 && _worth > most)
                    (best, most) = ([.. chosen.Where(_chosen.Contains), .. fresh], _worth);
                for (var i = from; count > 0 && i < least.Length; i++)
                {
                    Pop(least[i]);
                    Leave(i + 1, count - 1);
                    Push(least[i]);
                }
            }
        }

        if (best is null)
            return false;
        chosen.Clear();
        chosen.AddRange(best);
        SetChosen(chosen);
        return true;
    }

    private double MarginalLoss(int phrase)
    {
        var with = _worth;
        Pop(phrase);
        var loss = with - _worth;
        Push(phrase);
        return loss;
    }

    // The parts of a pick that bring most for the slots they take; null where none brings anything.
    private int[]? BestParts(List<int> chosen, int slots)
    {
        var (best, most, now) = ((int[]?)null, 0.0, _worth);
        foreach (var parts in _parts)
        {
            _stop.ThrowIfCancellationRequested();
            int[] fresh = [.. parts.Where(p => !chosen.Exists(c => _signatures[c] == _signatures[p]))];
            if (fresh.Length < 2 || chosen.Count + fresh.Length > slots)
                continue;
            foreach (var p in fresh)
                Push(p);
            var gain = (_worth - now) / fresh.Length;
            if (gain > most + Tolerance)
                (best, most) = (fresh, gain);
            foreach (var p in fresh)
                Pop(p);
        }

        return best;
    }

    // The ways to cut a term that is no candidate itself into as few runs of its words as are: as long from the front as they can be, and
    // as long from the back.
    private IEnumerable<int[]> PartsOf(string text)
    {
        var words = Tokens.Key(text).Split(' ');
        if (_byKey.ContainsKey(string.Join(' ', words)))
            yield break;
        var (fromFront, fromBack) = (new List<int>(), new List<int>());
        for (var at = 0; at < words.Length;)
        {
            var to = words.Length;
            while (to > at && !_byKey.ContainsKey(string.Join(' ', words[at..to])))
                to--;
            if (to > at)
                fromFront.Add(_byKey[string.Join(' ', words[at..to])]);
            at = Math.Max(to, at + 1); // a word that cannot be said is passed over
        }

        for (var to = words.Length; to > 0;)
        {
            var at = 0;
            while (at < to && !_byKey.ContainsKey(string.Join(' ', words[at..to])))
                at++;
            if (at < to)
                fromBack.Add(_byKey[string.Join(' ', words[at..to])]);
            to = Math.Min(at, to - 1);
        }

        fromBack.Reverse();
        yield return [.. fromFront];
        if (!fromBack.SequenceEqual(fromFront))
            yield return [.. fromBack];
    }

    // A phrase's share in what it could bring together with others.
    private double PotentialWithOthers(int phrase)
    {
        var promise = 0.0;
        foreach (var word in _words[phrase])
            foreach (var term in _otherFields.TermsOfWord[word])
                if (_missingWords[term] is > 0 and < int.MaxValue)
                    promise += _otherFields.WorthByTerm[term] * Matcher.SpreadFactor * _weight / (2 * _missingWords[term]);
        return promise;
    }

    private double HeldWorth(int phrase) => _heldTerms[phrase].Sum(h => _otherFields.WorthByTerm[h.Term] * h.Strength);

    // The lead itself, or where it is too long for a slot the parts of it, cut so that they hold most.
    private List<int> LeadPhrases(string? lead, int slots, int[] free)
    {
        if (lead is null || slots < 1)
            return [];
        var key = Tokens.Key(lead);
        // Where it stands already, be it in another order, nothing comes first.
        if (_keys.AsSpan(0, _fixedCount).Contains(key))
            return [];
        if (_byKey.TryGetValue(key, out var whole))
            return free.Contains(whole) ? [whole] : [];
        var words = key.Split(' ');
        for (var at = words.Length - 1; at > 0; at--)
        {
            var (first, second) = (Find(words[..at]), Find(words[at..]));
            if (first >= 0)
                return second >= 0 && slots > 1 && _signatures[first] != _signatures[second] ? [first, second] : [first];
        }

        return [];

        int Find(string[] part) => _byKey.TryGetValue(string.Join(' ', part), out var found) && free.Contains(found) ? found : -1;
    }

    private (int Phrase, double Gain) BestCandidate(List<int> chosen, int[] free)
    {
        _stop.ThrowIfCancellationRequested();
        var (phrase, most) = (-1, 0.0);
        var taken = chosen.Select(c => _signatures[c]).ToHashSet(StringComparer.Ordinal);
        foreach (var candidate in free)
            if (MarginalGain(candidate) is var gain && gain > most && !taken.Contains(_signatures[candidate]))
                (phrase, most) = (candidate, gain);
        return (phrase, most);
    }

    // Takes one out and puts the best one in, as long as that helps; what slots are left are filled.
    private void ImproveBySwaps(List<int> chosen, int leads, int[] free)
    {
        for (var better = true; better && _steps > _stepFloor;)
        {
            better = false;
            for (var i = leads; i < chosen.Count && _steps > _stepFloor; i++)
            {
                var was = chosen[i];
                chosen.RemoveAt(i);
                Pop(was);
                var (phrase, gain) = BestCandidate(chosen, free);
                var exchange = phrase >= 0 && phrase != was && gain > MarginalGain(was) * (1 + Tolerance);
                better |= exchange;
                chosen.Insert(i, exchange ? phrase : was);
                Push(chosen[i]);
            }
        }
    }

    // Begins again from the best with some taken out and one forced in that is not among them, each in turn: out of where no single
    // exchange leads on. What is still far behind when the slots are full again is given up: by so much of one slot's share.
    private List<int> Perturb(List<int> chosen, int leads, int[] free)
    {
        var (best, most) = (chosen, _worth);
        int[] likely = [.. free.Take(PerturbationPool)];
        var random = new DeterministicRandom(1);
        for (var turn = 0; _steps > 0 && turn < 3 * likely.Length && best.Count > leads; turn++)
        {
            var forced = likely[turn % likely.Length];
            if (best.Contains(forced) || best.Take(leads).Any(l => _signatures[l] == _signatures[forced]))
                continue;
            var other = best.Where((c, i) => i < leads || _signatures[c] != _signatures[forced]).ToList();
            var slots = best.Count;
            for (var k = 0; k <= turn / likely.Length && other.Count > leads; k++)
                other.RemoveAt(leads + random.Next(other.Count - leads));
            if (other.Count >= slots)
                continue;
            other.Add(forced);
            SetChosen(other);
            while (other.Count < slots && BestCandidate(other, likely) is { Phrase: >= 0 } next)
            {
                other.Add(next.Phrase);
                Push(next.Phrase);
            }

            if (_worth < most * (1 - PruneMargin / slots))
                continue;
            ImproveBySwaps(other, leads, likely);
            var worth = _worth;
            if (worth > most * (1 + Tolerance))
                (best, most) = (other, worth);
        }

        return best;
    }

    // While slots are left, two phrases that share nothing read better in a slot each.
    private void SplitIntoFreeSlots(List<int> chosen, int leads, int slots, HashSet<string> taken)
    {
        for (var i = leads; i < chosen.Count && chosen.Count < slots; i++)
        {
            SetChosen(chosen);
            var before = _worth;
            var words = _keys[chosen[i]].Split(' ');
            for (var at = 1; at < words.Length; at++)
            {
                if (!_byKey.TryGetValue(string.Join(' ', words[..at]), out var first) || !_byKey.TryGetValue(string.Join(' ', words[at..]), out var second))
                    continue;
                List<int> apart = [.. chosen[..i], first, second, .. chosen[(i + 1)..]];
                SetChosen(apart);
                if (_worth < before * (1 - Tolerance) || apart.Select(c => _signatures[c]).Distinct().Count() < apart.Count || apart.Any(c => taken.Contains(_signatures[c])))
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
        for (var t = 0; t < _terms.Count && chosen.Count < slots; t++)
            if (_terms[t].Volume is null && _strengths[t] <= 0 && _byKey.TryGetValue(Tokens.Key(_terms[t].Text), out var own)
                && !chosen.Exists(c => _signatures[c] == _signatures[own]) && !_signatures.Take(_fixedCount).Contains(_signatures[own]))
            {
                chosen.Add(own);
                Push(own);
            }
    }

    // Makes these the phrases that stand, besides what stood before.
    private void SetChosen(List<int> chosen)
    {
        for (var i = _chosen.Count - 1; i >= 0; i--)
            if (!chosen.Contains(_chosen[i]))
                Pop(_chosen[i]);
        foreach (var phrase in chosen)
            if (!_chosen.Contains(phrase))
                Push(phrase);
    }

    private void Push(int phrase)
    {
        _chosen.Add(phrase);
        Apply(phrase, 1);
    }

    private void Pop(int phrase)
    {
        _chosen.Remove(phrase);
        Apply(phrase, -1);
    }

    // Only terms that the phrase holds, or that have a word which now stands or no longer does, can be worth something else.
    private void Apply(int phrase, int by)
    {
        _mark++;
        _touched.Clear();
        foreach (var (term, strength) in _heldTerms[phrase])
        {
            var holders = _holders[term];
            if (by > 0)
                holders.Add(strength);
            else
                holders.Remove(strength);
            _strengths[term] = holders.Count == 0 ? 0 : holders.Max();
            Touch(term);
        }

        foreach (var word in _words[phrase])
            if ((_wordCounts[word] += by) == Math.Max(by, 0))
                foreach (var term in _otherFields.TermsOfWord[word])
                    Touch(term);
        _steps -= _touched.Count;
        foreach (var term in _touched)
            Evaluate(term);

        void Touch(int term)
        {
            if (_seen[term] == _mark)
                return;
            _seen[term] = _mark;
            _touched.Add(term);
        }
    }

    private void Evaluate(int term)
    {
        _missingWords[term] = _strengths[term] > 0 || _otherFields.Held[term] ? int.MaxValue : _otherFields.MissingWordCount(term, _wordCounts);
        var value = _missingWords[term] is > 0 and < int.MaxValue ? 0 : _otherFields.WeightedGrip(term, _strengths[term], _wordCounts);
        _worth += value - _values[term];
        _values[term] = value;
    }

    // What a phrase adds to Σ worth·grip.
    private double MarginalGain(int phrase)
    {
        _mark++;
        var (holds, words, has) = (_heldTerms[phrase], _words[phrase], _wordCounts);
        _steps -= holds.Length + words.Length;
        var gain = 0.0;
        foreach (var (term, strength) in holds)
        {
            _seen[term] = _mark;
            if (strength > _strengths[term])
                gain += _otherFields.WeightedGrip(term, strength, has) - _values[term];
        }

        var fresh = 0;
        foreach (var word in words)
            if (has[word]++ == 0)
                fresh++;
        var open = _missingWords;
        foreach (var word in words)
        {
            // A word that is new to the field can complete a term, or weigh more than where it stands.
            if (has[word] > 1)
                continue;
            var terms = _otherFields.TermsOfWord[word];
            _steps -= terms.Length / 8;
            foreach (var term in terms)
                if (open[term] <= fresh && _seen[term] != _mark)
                {
                    _seen[term] = _mark;
                    gain += _otherFields.WeightedGrip(term, 0, has) - _values[term];
                }
        }

        foreach (var word in words)
            has[word]--;
        return gain;
    }
}
