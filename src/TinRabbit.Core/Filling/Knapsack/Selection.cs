namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>A choice of items that is kept up to date as items come and go: its cost, its value, and what each bundle still lacks.</summary>
internal sealed class Selection
{
    private readonly SetUnionKnapsack _problem;

    /// <summary>A selection of nothing.</summary>
    public Selection(SetUnionKnapsack problem)
    {
        _problem = problem;
        Chosen = new bool[problem.Costs.Length];
        MissingItems = [.. problem.Bundles.Select(b => b.Items.Length)];
        CompleteBundles = new int[problem.TermCount];
    }

    private Selection(Selection other)
    {
        _problem = other._problem;
        (Chosen, MissingItems, CompleteBundles) = (
            (bool[])other.Chosen.Clone(),
            (int[])other.MissingItems.Clone(),
            (int[])other.CompleteBundles.Clone()
        );
        (Cost, Value) = (other.Cost, other.Value);
    }

    /// <summary>By item: whether it is chosen.</summary>
    public bool[] Chosen { get; }

    /// <summary>By bundle: how many of its items are not chosen.</summary>
    public int[] MissingItems { get; }

    /// <summary>By term: how many of its bundles are complete.</summary>
    public int[] CompleteBundles { get; }

    /// <summary>Cost of the chosen items.</summary>
    public long Cost { get; private set; }

    /// <summary>Value of the terms with a complete bundle.</summary>
    public double Value { get; private set; }

    /// <summary>The selection of these items.</summary>
    public static Selection Of(SetUnionKnapsack problem, bool[] items)
    {
        var selection = new Selection(problem);
        for (var i = 0; i < items.Length; i++)
            if (items[i])
                selection.Add(i);
        return selection;
    }

    public Selection Copy() => new(this);

    public void Add(int item)
    {
        if (Chosen[item])
            return;
        Chosen[item] = true;
        Cost += _problem.Costs[item];
        foreach (var b in _problem.BundlesOfItem[item])
            if (--MissingItems[b] == 0 && CompleteBundles[_problem.Bundles[b].Term]++ == 0)
                Value += _problem.Bundles[b].Value;
    }

    /// <summary>Removes a chosen item.</summary>
    public void Remove(int item)
    {
        Chosen[item] = false;
        Cost -= _problem.Costs[item];
        foreach (var b in _problem.BundlesOfItem[item])
            if (MissingItems[b]++ == 0 && --CompleteBundles[_problem.Bundles[b].Term] == 0)
                Value -= _problem.Bundles[b].Value;
    }
}
