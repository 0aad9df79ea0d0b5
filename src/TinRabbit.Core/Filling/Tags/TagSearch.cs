using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Tags;

/// <summary>
/// Chooses phrases for slots so that Σ worth·grip is greatest: greedy construction, a local search that swaps phrases, and perturbation
/// (iterated local search; Lourenço, Martin and Stützle 2003). It ends after a number of elementary steps, so that the same question has
/// the same answer on every machine.
/// </summary>
internal sealed class TagSearch
{
    // About 12 ms of work.
    private const long StepBudget = 180_000;
    private const int MaxCandidates = 900;
    private const int PerturbationPool = 200;

    // A perturbed choice is given up when it is worse by more than this share of an average slot.
    private const double PruneMargin = 0.2;
    private const double Tolerance = 1e-9;
    private const int MaxRemovedTried = 5;
    private const int MaxPartsRanked = 200;
    private const int MaxPartsTried = 8;

    private readonly TagPhrases _phrases;
    private readonly TagState _state;
    private readonly OtherFields _otherFields;
    private readonly IReadOnlyList<WantedTerm> _terms;
    private readonly int _slots;
    private readonly double _fieldWeight;
    private readonly string? _lead;
    private readonly long _budget;
    private readonly CancellationToken _stop;

    // Swapping ends here, improved or not.
    private long _stepFloor;

    /// <param name="phrases">What may be added, and what stands.</param>
    /// <param name="field">The field that is filled.</param>
    /// <param name="input">The listing, the lead and the budget.</param>
    /// <param name="terms">The terms wanted.</param>
    /// <param name="slots">How many phrases may be added.</param>
    /// <param name="stop">Stops the search.</param>
    public TagSearch(TagPhrases phrases, Field field, FillInput input, IReadOnlyList<WantedTerm> terms, int slots, CancellationToken stop)
    {
        (_phrases, _terms, _slots, _stop, _fieldWeight) = (phrases, terms, slots, stop, field.Weight);
        (_lead, _budget) = (input.Lead, (long)(StepBudget * input.Budget));
        _otherFields = new(field, input.Copy, phrases.Prepared, terms);
        _state = new(phrases, _otherFields, field.Weight);
    }

    /// <summary>The phrases to add, the lead first, then those that hold most.</summary>
    public List<string> Choose()
    {
        int[] free =
        [
            .. Enumerable.Range(_phrases.FixedCount, _phrases.Texts.Length - _phrases.FixedCount).Where(c => IsFree(c) && AddsSomething(c)),
        ];
        _state.SetChosen([]);
        // What gains most alone leads to one optimum, what could gain most together with others to another.
        var gains = free.Select(c => (Phrase: c, Gain: _state.GainOf(c))).ToList();
        int[] byGain = [.. gains.Where(c => c.Gain > 0).OrderByDescending(c => c.Gain).Take(MaxCandidates).Select(c => c.Phrase)];
        int[] byPotential =
        [
            .. gains.OrderByDescending(c => c.Gain + _state.PotentialOf(c.Phrase)).Take(MaxCandidates).Select(c => c.Phrase),
        ];
        var leads = LeadPhrases();
        _state.SetChosen(leads);
        var (best, worth) = (leads, _state.Worth);
        (_state.StepsLeft, _stepFloor) = (_budget, -_budget);
        KeepIfBetter(Perturb(Construct(leads, leads.Count, byGain), leads.Count, byGain));
        _state.StepsLeft = _budget;
        KeepIfBetter(Perturb(Construct(leads, leads.Count, byPotential), leads.Count, byPotential));
        // A third construction of whole picks only, as a seller would do it by hand.
        _state.StepsLeft = _budget / 4;
        int[] picks = [.. byPotential.Union(byGain).Intersect(_terms.Select(t => _phrases.Find(Tokens.Key(t.Text))))];
        KeepIfBetter(Construct(leads, leads.Count, picks));
        // And some that begin with the parts of a pick that no single slot holds.
        int[][] parts =
        [
            .. _phrases
                .Parts.Take(MaxPartsRanked)
                .Where(p => p.Length + leads.Count <= _slots && p.All(AddsSomething))
                .OrderByDescending(WorthTogether)
                .Take(MaxPartsTried),
        ];
        (_state.StepsLeft, _stepFloor) = (_budget / 4, -_budget / 2);
        foreach (var together in parts)
            if (_state.StepsLeft > 0)
                KeepIfBetter(Construct([.. leads, .. together.Where(p => !HasSignature(leads, p))], leads.Count, byGain));
        SplitWhereSlotsAllow(best, leads.Count);
        _state.SetChosen(best);
        return [.. best.Take(leads.Count).Concat(best.Skip(leads.Count).OrderByDescending(HeldWorth)).Select(c => _phrases.Texts[c])];

        void KeepIfBetter(List<int> other)
        {
            _state.SetChosen(other);
            if (_state.Worth > worth)
                (best, worth) = (other, _state.Worth);
        }
    }

    private double HeldWorth(int phrase) => _phrases.HeldTerms[phrase].Sum(h => _otherFields.WorthByTerm[h.Term] * h.Strength);

    // A tag repeats words of other fields only where it makes a pick exact.
    private bool AddsSomething(int phrase) =>
        !_phrases.Prepared.Platform.Search.WordsCombine
        || Array.Exists(_phrases.HeldTerms[phrase], h => h.Strength > _fieldWeight * Matcher.TogetherFactor)
        || Array.Exists(_phrases.Words[phrase], w => _otherFields.WeightByWord[w] < 0);

    private bool HasSignature(List<int> chosen, int phrase) => chosen.Exists(c => _phrases.SignatureOf(c) == _phrases.SignatureOf(phrase));

    private double WorthTogether(int[] phrases)
    {
        _state.SetChosen(phrases);
        return _state.Worth;
    }

    // The lead itself, or where it is too long for a slot, its parts, cut so that the first is as long as possible.
    private List<int> LeadPhrases()
    {
        if (_lead is null || _slots < 1)
            return [];
        var key = Tokens.Key(_lead);
        // Where it stands already, nothing comes first.
        for (var c = 0; c < _phrases.FixedCount; c++)
            if (_phrases.KeyOf(c) == key)
                return [];
        if (_phrases.Find(key) is >= 0 and var whole)
            return IsFree(whole) ? [whole] : [];
        return
        [
            .. _phrases.Cover(key.Split(' '), fromBack: false).Where(IsFree).DistinctBy(_phrases.SignatureOf).Take(Math.Min(2, _slots)),
        ];
    }

    // Greedy construction from a beginning, then local search.
    private List<int> Construct(List<int> beginning, int leads, int[] candidates)
    {
        var chosen = beginning.ToList();
        _state.SetChosen(chosen);
        while (chosen.Count < _slots && BestCandidate(chosen, candidates) is { Phrase: >= 0 } best)
        {
            chosen.Add(best.Phrase);
            _state.Add(best.Phrase);
        }

        // A pick too long for a slot may be worth nothing before all its parts stand.
        while (BestParts(chosen) is { } parts)
        {
            chosen.AddRange(parts);
            _state.SetChosen(chosen);
        }

        ImproveBySwaps(chosen, leads, candidates);
        while (SwapInParts(chosen, leads))
            ImproveBySwaps(chosen, leads, candidates);
        return chosen;
    }

    private (int Phrase, double Gain) BestCandidate(List<int> chosen, int[] candidates)
    {
        _stop.ThrowIfCancellationRequested();
        var (phrase, most) = (-1, 0.0);
        var taken = chosen.Select(_phrases.SignatureOf).ToHashSet(StringComparer.Ordinal);
        foreach (var candidate in candidates)
            if (_state.GainOf(candidate) is var gain && gain > most && !taken.Contains(_phrases.SignatureOf(candidate)))
                (phrase, most) = (candidate, gain);
        return (phrase, most);
    }

    // The parts of a pick that gain most for the slots they need; null where none gains anything.
    private int[]? BestParts(List<int> chosen)
    {
        var (best, most, now) = ((int[]?)null, 0.0, _state.Worth);
        foreach (var parts in _phrases.Parts)
        {
            _stop.ThrowIfCancellationRequested();
            int[] missing = [.. parts.Where(p => !HasSignature(chosen, p) && AddsSomething(p))];
            if (missing.Length < 2 || chosen.Count + missing.Length > _slots)
                continue;
            foreach (var p in missing)
                _state.Add(p);
            var gain = (_state.Worth - now) / missing.Length;
            if (gain > most + Tolerance)
                (best, most) = (missing, gain);
            foreach (var p in missing)
                _state.Remove(p);
        }

        return best;
    }

    // Local search: removes one phrase and adds the best one, while that helps.
    private void ImproveBySwaps(List<int> chosen, int leads, int[] candidates)
    {
        for (var improved = true; improved && _state.StepsLeft > _stepFloor; )
        {
            improved = false;
            for (var i = leads; i < chosen.Count && _state.StepsLeft > _stepFloor; i++)
            {
                var removed = chosen[i];
                chosen.RemoveAt(i);
                _state.Remove(removed);
                var (phrase, gain) = BestCandidate(chosen, candidates);
                var swap = phrase >= 0 && phrase != removed && gain > _state.GainOf(removed) * (1 + Tolerance);
                improved |= swap;
                chosen.Insert(i, swap ? phrase : removed);
                _state.Add(chosen[i]);
            }
        }
    }

    // Swaps in all missing parts of one pick for as many of the phrases that lose least, where that helps most.
    private bool SwapInParts(List<int> chosen, int leads)
    {
        var (best, most) = ((List<int>?)null, _state.Worth * (1 + Tolerance));
        int[] removable = [.. chosen.Skip(leads).OrderBy(_state.LossOf).Take(MaxRemovedTried)];
        foreach (var parts in _phrases.Parts)
        {
            _stop.ThrowIfCancellationRequested();
            if (_state.StepsLeft < _stepFloor)
                break;
            int[] missing = [.. parts.Where(p => !chosen.Contains(p) && AddsSomething(p))];
            if (missing.Length is < 2 or > 3 || Array.Exists(missing, p => HasSignature(chosen, p)))
                continue;
            foreach (var p in missing)
                _state.Add(p);
            TryRemoving(0, missing.Length);
            foreach (var p in missing)
                _state.Remove(p);

            // Every combination of as many removable phrases.
            void TryRemoving(int from, int count)
            {
                if (count == 0 && _state.Worth > most)
                    (best, most) = ([.. chosen.Where(_state.IsChosen), .. missing], _state.Worth);
                for (var i = from; count > 0 && i < removable.Length; i++)
                {
                    _state.Remove(removable[i]);
                    TryRemoving(i + 1, count - 1);
                    _state.Add(removable[i]);
                }
            }
        }

        if (best is null)
            return false;
        chosen.Clear();
        chosen.AddRange(best);
        _state.SetChosen(chosen);
        return true;
    }

    // Perturbation: each candidate in turn is forced in for one or more phrases removed at random, and the result is filled and improved.
    private List<int> Perturb(List<int> chosen, int leads, int[] candidates)
    {
        var (best, most) = (chosen, _state.Worth);
        int[] pool = [.. candidates.Take(PerturbationPool)];
        var random = new DeterministicRandom(1);
        for (var turn = 0; _state.StepsLeft > 0 && turn < 3 * pool.Length && best.Count > leads; turn++)
        {
            var forced = pool[turn % pool.Length];
            if (best.Contains(forced) || HasSignature([.. best.Take(leads)], forced))
                continue;
            var other = best.Where((c, i) => i < leads || _phrases.SignatureOf(c) != _phrases.SignatureOf(forced)).ToList();
            var size = best.Count;
            for (var k = 0; k <= turn / pool.Length && other.Count > leads; k++)
                other.RemoveAt(leads + random.Next(other.Count - leads));
            if (other.Count >= size)
                continue;
            other.Add(forced);
            _state.SetChosen(other);
            while (other.Count < size && BestCandidate(other, pool) is { Phrase: >= 0 } next)
            {
                other.Add(next.Phrase);
                _state.Add(next.Phrase);
            }

            if (_state.Worth < most * (1 - PruneMargin / size))
                continue;
            ImproveBySwaps(other, leads, pool);
            if (_state.Worth > most * (1 + Tolerance))
                (best, most) = (other, _state.Worth);
        }

        return best;
    }

    // Two phrases in one slot that share nothing read better in a slot each, where there are as many; one that stands already needs none.
    private void SplitWhereSlotsAllow(List<int> chosen, int leads)
    {
        for (var i = leads; i < chosen.Count; i++)
        {
            _state.SetChosen(chosen);
            var before = _state.Worth;
            var words = _phrases.KeyOf(chosen[i]).Split(' ');
            for (var at = 1; at < words.Length; at++)
            {
                var (first, second) = (_phrases.Find(words[..at]), _phrases.Find(words[at..]));
                if (first < 0 || second < 0)
                    continue;
                List<int> others = [.. chosen[..i], .. chosen[(i + 1)..]];
                int[] missing = [.. new[] { first, second }.Where(p => !others.Contains(p) && IsFree(p))];
                if (others.Count + missing.Length > _slots || Array.Exists(missing, p => HasSignature(others, p)))
                    continue;
                others.InsertRange(i, missing);
                _state.SetChosen(others);
                if (_state.Worth < before * (1 - Tolerance))
                    continue;
                chosen.RemoveAt(i);
                chosen.InsertRange(i--, missing);
                break;
            }
        }
    }

    // Whether nothing with these words stands already.
    private bool IsFree(int phrase) => !_phrases.FixedSignatures.Contains(_phrases.SignatureOf(phrase));
}
