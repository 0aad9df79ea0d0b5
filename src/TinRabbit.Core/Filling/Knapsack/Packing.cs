namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>The solution of a knapsack.</summary>
/// <param name="Items">By item: whether it is chosen.</param>
/// <param name="Value">Value of the terms with a complete bundle.</param>
/// <param name="Bound">No choice within the capacity is worth more; at least <paramref name="Value"/>.</param>
internal sealed record Packing(bool[] Items, double Value, double Bound);
