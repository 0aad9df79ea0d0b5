namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>
/// An upper bound by Lagrangian relaxation (Fisher 1981): with a price on each unit of capacity, capacity × price + the value of the
/// maximum closure at that price is never below the optimum. The lowest bound lies where a closure that fits meets one that does not;
/// each closure found brings the two closer.
/// </summary>
internal sealed class LagrangianBound(SetUnionKnapsack problem, CancellationToken stop)
{
    private const int MaxRounds = 40;

    private readonly MaxClosure _closure = new(problem);

    /// <summary>The bound, with the closures next to the capacity: the largest found that fits, and the smallest found that does not.</summary>
    /// <param name="fixedItems">By item: 0 free, 1 in, −1 out; null when all are free.</param>
    public (double Bound, Selection Below, Selection Above) Solve(sbyte[]? fixedItems)
    {
        var (free, chosen) = (problem.Capacity, new bool[problem.Costs.Length]);
        for (var i = 0; fixedItems is not null && i < chosen.Length; i++)
            if (fixedItems[i] == 1)
                (chosen[i], free) = (true, free - problem.Costs[i]);
        var below = Selection.Of(problem, chosen);
        var above = Selection.Of(problem, _closure.Solve(0, fixedItems).Items);
        var bound = BundleSum(above.Chosen);
        if (above.Cost <= problem.Capacity)
            return (bound, above, above);
        for (var round = 0; round < MaxRounds; round++)
        {
            stop.ThrowIfCancellationRequested();
            var (low, high) = (BundleSum(below.Chosen), BundleSum(above.Chosen));
            var price = (high - low) / (above.Cost - below.Cost);
            if (price <= 0)
                break;
            var (items, closureValue) = _closure.Solve(price, fixedItems);
            var relaxed = free * price + closureValue;
            bound = Math.Min(bound, relaxed);
            var found = Selection.Of(problem, items);
            var crossing = low + price * (problem.Capacity - below.Cost);
            if (relaxed <= crossing * (1 + SetUnionKnapsack.Tolerance) || found.Cost == below.Cost || found.Cost == above.Cost)
                break;
            if (found.Cost <= problem.Capacity)
                below = found;
            else
                above = found;
        }

        return (bound, below, above);
    }

    // Each bundle counts by itself here, as in the closure.
    private double BundleSum(bool[] items) => problem.Bundles.Where(b => Array.TrueForAll(b.Items, i => items[i])).Sum(b => b.Value);
}
