namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>
/// Greedy fill and iterated local search (Lourenço, Martin and Stützle 2003) for the set-union knapsack. It ends after a number of
/// elementary steps rather than at a time, so that the same problem has the same solution on every machine.
/// </summary>
internal sealed class LocalSearch(SetUnionKnapsack problem, long stepBudget, CancellationToken stop)
{
    private const int MaxPerturbations = 4000;

    // What looking at one bundle counts in a greedy fill.
    private const int GreedySteps = 16;
    private const double Tolerance = SetUnionKnapsack.Tolerance;

    private readonly int[] _costs = problem.Costs;
    private readonly Bundle[] _bundles = problem.Bundles;
    private readonly MissingSets _missing = new(problem);
    private long _stepsLeft = stepBudget;

    /// <summary>Greedy fill: completes bundles while they fit, the one with the most value for its remaining cost first.</summary>
    /// <param name="selection">Where to begin; it is changed.</param>
    /// <param name="without">An item that must not be added; −1 for none.</param>
    public Selection GreedyFill(Selection selection, int without = -1)
    {
        while (true)
        {
            stop.ThrowIfCancellationRequested();
            var (best, bestDensity) = (-1, 0.0);
            _missing.Read(selection);
            for (var b = 0; b < _bundles.Length; b++)
            {
                if (selection.MissingItems[b] == 0 || selection.CompleteBundles[_bundles[b].Term] > 0)
                    continue;
                var cost = 0;
                foreach (var i in _bundles[b].Items)
                    if (!selection.Chosen[i])
                        cost = i == without ? int.MaxValue / 2 : cost + _costs[i];
                if (cost > problem.Capacity - selection.Cost)
                    continue;
                var gain = _missing.GainOf(selection, b);
                if (gain > bestDensity * cost)
                    (best, bestDensity) = (b, gain / cost);
            }

            _stepsLeft -= _bundles.Length * GreedySteps;
            if (best < 0)
                return selection;
            foreach (var i in _bundles[best].Items)
                Add(selection, i);
        }
    }

    /// <summary>Drops the items with the least marginal value for their cost until the selection fits, and items that no bundle needs any more.</summary>
    /// <param name="selection">It is changed.</param>
    /// <param name="keep">By item: whether it must stay; null when all may go.</param>
    public Selection DropUntilFeasible(Selection selection, bool[]? keep = null)
    {
        for (var first = true; selection.Cost > problem.Capacity; first = false)
        {
            var (worst, least) = (-1, double.PositiveInfinity);
            for (var i = 0; i < _costs.Length; i++)
                if (selection.Chosen[i] && keep?[i] != true && MarginalValue(selection, i) / _costs[i] is var density && density < least)
                    (worst, least) = (i, density);
            if (worst < 0)
                return selection;
            Remove(selection, worst);
            if (first)
                RemoveUnneeded(selection, keep);
            else
                foreach (var b in problem.BundlesOfItem[worst])
                foreach (var i in _bundles[b].Items)
                    RemoveIfUnneeded(selection, i, keep);
        }

        return selection;
    }

    /// <summary>Local search: removes one item and fills again without it, or forces one bundle in and drops the least valuable items, while that helps.</summary>
    public Selection Improve(Selection best)
    {
        for (var improved = true; improved && _stepsLeft > 0; )
        {
            improved = false;
            for (var i = 0; i < _costs.Length && _stepsLeft > 0; i++)
            {
                if (!best.Chosen[i])
                    continue;
                var other = Copy(best);
                Remove(other, i);
                RemoveUnneeded(other, null);
                improved |= KeepIfBetter(GreedyFill(other, i));
            }

            for (var b = 0; b < _bundles.Length && _stepsLeft > 0; b++)
                if (best.MissingItems[b] > 0 && best.CompleteBundles[_bundles[b].Term] == 0)
                    improved |= KeepIfBetter(ForceIn(best, b));
        }

        return best;

        // Of two selections of the same value the cheaper one is kept, but only a gain in value counts as an improvement.
        bool KeepIfBetter(Selection other)
        {
            if (other.Value <= best.Value * (1 + Tolerance) && (other.Value < best.Value || other.Cost >= best.Cost))
                return false;
            var gained = other.Value > best.Value * (1 + Tolerance);
            best = other;
            return gained;
        }
    }

    /// <summary>
    /// Iterated local search: forces several bundles in or out of the best selection and improves the result. Only bundles in doubt are
    /// tried: those with an item between the two closures, and those of a term that has several.
    /// </summary>
    /// <param name="best">Where to begin.</param>
    /// <param name="below">The closure that fits.</param>
    /// <param name="above">The closure that does not fit.</param>
    public Selection Perturb(Selection best, Selection below, Selection above)
    {
        int[] doubtful =
        [
            .. Enumerable
                .Range(0, _bundles.Length)
                .Where(b =>
                    problem.BundlesOfTerm[_bundles[b].Term].Length > 1 || _bundles[b].Items.Any(i => above.Chosen[i] && !below.Chosen[i])
                ),
        ];
        if (doubtful.Length == 0)
            return best;
        var random = new DeterministicRandom(1);
        for (var turn = 0; _stepsLeft > 0 && turn < MaxPerturbations; turn++)
        {
            var selection = Copy(best);
            for (var k = 0; k < 2 + turn % 3; k++)
            {
                var b = doubtful[random.Next(doubtful.Length)];
                selection = selection.MissingItems[b] > 0 ? ForceIn(selection, b) : ForceOut(selection, b);
            }

            selection = Improve(selection);
            if (selection.Value > best.Value * (1 + Tolerance))
                best = selection;
        }

        return best;
    }

    private Selection ForceIn(Selection from, int bundle)
    {
        var selection = Copy(from);
        var keep = new bool[_costs.Length];
        foreach (var i in _bundles[bundle].Items)
        {
            keep[i] = true;
            Add(selection, i);
        }

        return GreedyFill(DropUntilFeasible(selection, keep));
    }

    private Selection ForceOut(Selection selection, int bundle)
    {
        var item = _bundles[bundle].Items.MinBy(i => MarginalValue(selection, i) / _costs[i]);
        Remove(selection, item);
        RemoveUnneeded(selection, null);
        return GreedyFill(selection, item);
    }

    // The value that would be lost without a chosen item.
    private double MarginalValue(Selection selection, int item)
    {
        var value = 0.0;
        foreach (var b in problem.BundlesOfItem[item])
            if (selection.MissingItems[b] == 0 && selection.CompleteBundles[_bundles[b].Term] == 1)
                value += _bundles[b].Value;
        _stepsLeft -= problem.BundlesOfItem[item].Length + 1;
        return value;
    }

    private void RemoveUnneeded(Selection selection, bool[]? keep)
    {
        for (var i = 0; i < _costs.Length; i++)
            RemoveIfUnneeded(selection, i, keep);
    }

    private void RemoveIfUnneeded(Selection selection, int item, bool[]? keep)
    {
        if (!selection.Chosen[item] || keep?[item] == true)
            return;
        foreach (var b in problem.BundlesOfItem[item])
            if (selection.MissingItems[b] == 0)
                return;
        Remove(selection, item);
    }

    private Selection Copy(Selection selection)
    {
        _stepsLeft -= _bundles.Length / 2;
        return selection.Copy();
    }

    private void Add(Selection selection, int item)
    {
        if (!selection.Chosen[item])
            _stepsLeft -= problem.BundlesOfItem[item].Length;
        selection.Add(item);
    }

    private void Remove(Selection selection, int item)
    {
        _stepsLeft -= problem.BundlesOfItem[item].Length;
        selection.Remove(item);
    }
}
