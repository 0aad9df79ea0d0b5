namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>
/// Best-first branch and bound (Land and Doig 1960): the subproblem with the highest bound is split on an item, until the highest
/// bound is no more than the best selection found. Used for problems of few items, to prove a selection the best or to find a better one.
/// </summary>
internal sealed class BranchAndBound(SetUnionKnapsack problem, LagrangianBound lagrange, LocalSearch search, CancellationToken stop)
{
    private const int MaxItems = 40;

    // What all subproblems together may cost, each as much as it has items and bundles.
    private const int SubproblemBudget = 24_000;

    /// <summary>The best selection found, and the lowest upper bound proven.</summary>
    public (Selection Best, double Bound) Close(Selection best, double bound)
    {
        if (SetUnionKnapsack.IsOptimal(best.Value, bound) || problem.Costs.Length > MaxItems)
            return (best, bound);
        var open = new PriorityQueue<(sbyte[] Fixed, double Bound), double>();
        open.Enqueue((new sbyte[problem.Costs.Length], bound), -bound);
        for (var left = SubproblemBudget; left > 0 && open.Count > 0; left -= 2 * (problem.Costs.Length + problem.Bundles.Length))
        {
            stop.ThrowIfCancellationRequested();
            var (fixedItems, parentBound) = open.Peek();
            if (SetUnionKnapsack.IsOptimal(best.Value, parentBound))
                return (best, best.Value);
            var split = SplitItem(fixedItems);
            if (split < 0)
                return (best, parentBound);
            open.Dequeue();
            foreach (var side in (sbyte[])[1, -1])
            {
                var child = (sbyte[])fixedItems.Clone();
                child[split] = side;
                if (FixedCost(child) > problem.Capacity)
                    continue;
                var (childBound, below, _) = lagrange.Solve(child);
                if (below.Value > best.Value)
                    best = search.GreedyFill(below);
                if (childBound > best.Value * (1 + SetUnionKnapsack.Tolerance))
                    open.Enqueue((child, Math.Min(childBound, parentBound)), -Math.Min(childBound, parentBound));
            }
        }

        return (best, open.Count == 0 ? best.Value : open.Peek().Bound);
    }

    private long FixedCost(sbyte[] fixedItems)
    {
        var cost = 0L;
        for (var i = 0; i < fixedItems.Length; i++)
            if (fixedItems[i] == 1)
                cost += problem.Costs[i];
        return cost;
    }

    // The free item with the most value in bundles that are still possible; −1 when there is none.
    private int SplitItem(sbyte[] fixedItems)
    {
        var (split, most) = (-1, 0.0);
        for (var i = 0; i < fixedItems.Length; i++)
        {
            if (fixedItems[i] != 0)
                continue;
            var value = 0.0;
            foreach (var b in problem.BundlesOfItem[i])
                if (!Array.Exists(problem.Bundles[b].Items, k => fixedItems[k] < 0))
                    value += problem.Bundles[b].Value;
            if (value > most)
                (split, most) = (i, value);
        }

        return split;
    }
}
