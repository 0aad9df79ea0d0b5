namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>
/// The set-union knapsack problem (Goldschmidt, Nehme and Yu 1994): choose items within a capacity so that the terms with a complete
/// bundle are worth most. An item costs once, however many bundles need it. Small problems are enumerated; others get a Lagrangian
/// bound, a local search, and branch and bound to close the gap. The same problem always has the same solution.
/// </summary>
internal sealed class SetUnionKnapsack
{
    /// <summary>Relative difference below which two values are taken as equal.</summary>
    public const double Tolerance = 1e-9;

    // With so few items every choice is tried.
    private const int MaxEnumerated = 20;

    // Elementary steps of the local search, about 20 ms of work.
    private const long StepBudget = 1_000_000;

    private readonly CancellationToken _stop;

    /// <param name="costs">What each item costs, more than 0.</param>
    /// <param name="bundles">What is worth something; bundles that cost more than the capacity are left out.</param>
    /// <param name="capacity">What may be spent.</param>
    /// <param name="stop">Stops the search.</param>
    public SetUnionKnapsack(int[] costs, IEnumerable<Bundle> bundles, long capacity, CancellationToken stop = default)
    {
        _stop = stop;
        (Costs, Capacity) = (costs, capacity);
        Bundles = [.. bundles.Where(b => b.Items.Sum(i => (long)costs[i]) <= capacity)];
        TermCount = Bundles.Length == 0 ? 0 : Bundles.Max(b => b.Term) + 1;
        BundlesOfItem = BundlesBy(costs.Length, b => b.Items);
        BundlesOfTerm = BundlesBy(TermCount, b => [b.Term]);
    }

    public int[] Costs { get; }

    public Bundle[] Bundles { get; }

    public long Capacity { get; }

    /// <summary>How much the local search may do: 1 is the usual number of steps.</summary>
    public double Budget { get; init; } = 1;

    /// <summary>One more than the highest term number.</summary>
    public int TermCount { get; }

    /// <summary>By item: the bundles that need it.</summary>
    public int[][] BundlesOfItem { get; }

    /// <summary>By term: its bundles.</summary>
    public int[][] BundlesOfTerm { get; }

    /// <summary>Chooses items.</summary>
    public Packing Solve()
    {
        var all = Selection.Of(this, Everything());
        if (all.Cost <= Capacity)
            return new(all.Chosen, all.Value, all.Value);
        int[] useful = [.. Enumerable.Range(0, Costs.Length).Where(i => BundlesOfItem[i].Length > 0)];
        if (useful.Length <= MaxEnumerated)
            return Enumerate(useful);
        var lagrange = new LagrangianBound(this, _stop);
        var (bound, below, above) = lagrange.Solve(null);
        var search = new LocalSearch(this, (long)(StepBudget * Budget) * Math.Clamp(300 / (Costs.Length + Bundles.Length), 1, 6), _stop);
        var best = search.Improve(search.GreedyFill(below));
        if (IsOptimal(best.Value, bound))
            return new(best.Chosen, best.Value, bound);
        foreach (var start in (Selection[])[search.GreedyFill(search.DropUntilFeasible(above)), search.GreedyFill(new(this))])
            if (search.Improve(start) is var other && other.Value > best.Value)
                best = other;
        (best, bound) = new BranchAndBound(this, lagrange, search, _stop).Close(best, bound);
        if (!IsOptimal(best.Value, bound))
            best = search.Perturb(best, below, above);
        return new(best.Chosen, best.Value, Math.Max(bound, best.Value));
    }

    /// <summary>Whether a value reaches its upper bound.</summary>
    public static bool IsOptimal(double value, double bound) => value >= bound * (1 - Tolerance);

    // Exhaustive search in Gray code order: from one choice to the next a single item comes or goes.
    private Packing Enumerate(int[] items)
    {
        var selection = new Selection(this);
        var (best, value, cost) = (new bool[Costs.Length], 0.0, 0L);
        for (var code = 1; code < 1 << items.Length; code++)
        {
            var item = items[System.Numerics.BitOperations.TrailingZeroCount(code)];
            if (selection.Chosen[item])
                selection.Remove(item);
            else
                selection.Add(item);
            if (
                selection.Cost > Capacity
                || selection.Value < value * (1 - Tolerance)
                || (selection.Value <= value * (1 + Tolerance) && selection.Cost >= cost)
            )
                continue;
            (value, cost) = (selection.Value, selection.Cost);
            selection.Chosen.CopyTo(best, 0);
        }

        return new(best, value, value);
    }

    private bool[] Everything()
    {
        var items = new bool[Costs.Length];
        foreach (var item in Bundles.SelectMany(b => b.Items))
            items[item] = true;
        return items;
    }

    private int[][] BundlesBy(int count, Func<Bundle, int[]> keysOf)
    {
        var lists = new List<int>[count];
        for (var i = 0; i < count; i++)
            lists[i] = [];
        for (var b = 0; b < Bundles.Length; b++)
            foreach (var key in keysOf(Bundles[b]))
                lists[key].Add(b);
        return [.. lists.Select(l => l.ToArray())];
    }
}
