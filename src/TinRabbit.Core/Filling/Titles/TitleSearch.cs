using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Titles;

/// <summary>
/// Searches for the order of terms that makes the best title: greedy construction, a local search that moves a term forward or removes
/// one, and perturbation (iterated local search; Lourenço, Martin and Stützle 2003); then the end is filled with single words and pairs. It
/// ends after a number of elementary steps, so that the same question has the same answer on every machine.
/// </summary>
internal sealed class TitleSearch
{
    // Title evaluations times terms: about 15 ms of work for the first take.
    private const long StepBudget = 400_000;
    private const int MaxCandidates = 90;
    private const int MaxPerturbationsWithoutGain = 300;
    private const double Tolerance = 1e-9;

    private readonly TitleState _title;
    private readonly TitleEnd _end;
    private readonly int _lead;
    private readonly int[] _fitting;
    private readonly int[] _candidates;
    private readonly long _budget;
    private readonly CancellationToken _stop;

    /// <param name="title">An empty title.</param>
    /// <param name="input">The lead and the budget.</param>
    /// <param name="mayStand">By term: whether it may stand in the title.</param>
    /// <param name="stop">Stops the search.</param>
    public TitleSearch(TitleState title, FillInput input, bool[] mayStand, CancellationToken stop)
    {
        (_title, _stop, _budget) = (title, stop, (long)(StepBudget * input.Budget));
        _lead = input.Lead is null ? -1 : title.Table.Find(Tokens.Key(input.Lead));
        if (_lead >= 0 && !mayStand[_lead])
            _lead = -1;
        int[] usable = [.. Enumerable.Range(0, mayStand.Length).Where(t => mayStand[t] && title.WorthByTerm[t] > 0)];
        _end = new(title, usable);
        _fitting = [.. usable.Where(t => title.Table.SizeOf(t) <= title.Capacity && t != _lead)];
        _candidates =
        [
            .. _fitting
                .OrderByDescending(t => title.WorthByTerm[t])
                .Take(MaxCandidates * 2 / 3)
                .Union(_fitting.OrderByDescending(t => title.WorthByTerm[t] / title.Table.SizeOf(t)).Take(MaxCandidates * 2 / 3)),
        ];
    }

    /// <summary>The best title that differs from those found; null when there is none.</summary>
    /// <param name="found">The terms of the titles found before.</param>
    /// <param name="uses">How often one word may come.</param>
    /// <param name="share">The share of the steps that it may take.</param>
    /// <param name="start">The phrases of a title that it may complete.</param>
    /// <returns>Its phrases, the numbers of terms among them, in order, and the title.</returns>
    public (int[] Phrases, int[] Terms, string Text)? FindNext(IReadOnlyList<int[]> found, int uses, double share, int[]? start = null)
    {
        _title.WordUses = uses;
        // Bans one term of every earlier take, the first or second after the lead, so that the next one differs.
        var banned = new HashSet<int>();
        for (var f = 0; f < found.Count; f++)
            banned.Add(found[f].Where(t => t != _lead && !banned.Contains(t)).Skip(f % 2).FirstOrDefault(-1));
        int[] candidates = [.. _candidates.Where(t => !banned.Contains(t))];
        if (_lead < 0 && candidates.Length == 0)
            return null;
        _title.Set(_lead >= 0 ? [_lead] : []);
        int[] lead = [.. _title.Phrases];
        var (best, most) = ((int[])[], -1.0);
        var (finished, worth) = ((int[])[], -1.0);
        // The plain greedy title is one of those compared: terms in a better order can leave less room for what completes others.
        _title.StepsLeft = (long)(_budget * share);
        if (found.Count == 0 && _end.FillGreedily(candidates, _stop))
            Finish([.. _title.Phrases]);
        if (start is not null)
            Finish(start);
        _title.StepsLeft = (long)(_budget * share);
        foreach (var perRoom in (bool[])[true, false])
        {
            // Without steps nothing would be constructed, and the end would be the whole title.
            if (most >= 0 && _title.StepsLeft <= 0)
                break;
            var constructed = Construct(lead, candidates, perRoom);
            Finish([.. lead, .. constructed]);
            var (plan, value) = Improve([.. lead, .. constructed], lead.Length, candidates);
            Finish(plan);
            if (value > most * (1 + Tolerance))
                (best, most) = (plan, value);
        }

        Finish(Perturb(best, most, lead.Length, candidates));
        _title.Set(finished);
        int[] terms = [.. finished.Where(p => p < _title.WorthByTerm.Count)];
        return finished.Length == 0 || found.Any(f => f.SequenceEqual(terms)) ? null : (finished, terms, _title.Text());

        // Completes a plan by terms that are no candidates, single words and pairs; keeps it where it is the best so far.
        void Finish(int[] plan)
        {
            _title.Set(plan);
            _end.Fill(_fitting, lead.Length, _stop);
            var value = _title.Evaluate();
            if (value > worth * (1 + Tolerance))
                (finished, worth) = ([.. _title.Phrases], value);
        }
    }

    // Greedy construction: pushes the term that gains most, or gains most for the room it uses.
    private List<int> Construct(int[] lead, int[] candidates, bool perRoom)
    {
        var left = candidates.ToList();
        _title.Set(lead);
        var value = _title.Evaluate();
        while (left.Count > 0 && _title.StepsLeft > 0)
        {
            var (term, best) = (-1, 0.0);
            var size = _title.Size;
            // What has no room now never has later.
            left.RemoveAll(candidate =>
            {
                if (!_title.Push(candidate))
                    return !_title.MayFitLater(candidate);
                var rate = (_title.Evaluate() - value) / (perRoom ? _title.Size - size : 1);
                if (rate > best)
                    (term, best) = (candidate, rate);
                _title.Pop();
                return false;
            });
            if (term < 0)
                break;
            _title.Push(term);
            value = _title.Evaluate();
            left.Remove(term);
        }

        return [.. _title.Phrases.Skip(lead.Length)];
    }

    // Local search: puts a term further forward than it is, adds one anywhere, or removes one, while that helps.
    private (int[] Plan, double Value) Improve(int[] start, int fixedTerms, int[] candidates)
    {
        var (plan, value) = Complete(start, candidates);
        for (var improved = true; improved && _title.StepsLeft > 0; )
        {
            improved = false;
            foreach (var term in candidates)
                for (var place = fixedTerms; place <= plan.Length && _title.StepsLeft > 0; place++)
                    if (place == plan.Length || plan[place] != term)
                        improved |= KeepIfBetter([.. plan[..place].Where(t => t != term), term, .. plan[place..].Where(t => t != term)]);
            for (var place = fixedTerms; place < plan.Length && _title.StepsLeft > 0; place++)
                improved |= KeepIfBetter([.. plan[..place], .. plan[(place + 1)..]]);
        }

        return (plan, value);

        bool KeepIfBetter(int[] other)
        {
            var (terms, worth) = Complete(other, []);
            if (worth <= value * (1 + Tolerance))
                return false;
            // The room that is left is filled, unless that makes it worse.
            (plan, value) = Complete(terms, candidates);
            if (value < worth)
                (plan, value) = (terms, worth);
            return true;
        }
    }

    // Perturbation: removes up to three terms at random, inserts one or two others anywhere, and improves the result.
    private int[] Perturb(int[] best, double most, int fixedTerms, int[] candidates)
    {
        var random = new DeterministicRandom(1);
        for (var since = 0; _title.StepsLeft > 0 && since < MaxPerturbationsWithoutGain && candidates.Length > 0; since++)
        {
            var plan = best.ToList();
            for (var removals = random.Next(4); removals > 0 && plan.Count > fixedTerms; removals--)
                plan.RemoveAt(fixedTerms + random.Next(plan.Count - fixedTerms));
            for (var insertions = 1 + random.Next(2); insertions > 0; insertions--)
            {
                var term = candidates[random.Next(candidates.Length)];
                plan.Remove(term);
                plan.Insert(fixedTerms + random.Next(plan.Count - fixedTerms + 1), term);
            }

            var (other, value) = Improve([.. plan], fixedTerms, candidates);
            if (value > most * (1 + Tolerance))
                (best, most, since) = (other, value, 0);
        }

        return best;
    }

    // The title of a plan, completed by further terms that fit and do no harm.
    private (int[] Terms, double Value) Complete(IReadOnlyList<int> plan, int[] further)
    {
        _stop.ThrowIfCancellationRequested();
        _title.Set(plan);
        var value = _title.Evaluate();
        foreach (var term in further)
        {
            if (!_title.Push(term))
                continue;
            var worth = _title.Evaluate();
            if (worth > value)
                value = worth;
            else
                _title.Pop();
        }

        return ([.. _title.Phrases], value);
    }
}
