namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>Items that are worth something together.</summary>
/// <param name="Term">The term that they serve. It is worth its value once, however many of its bundles are complete.</param>
/// <param name="Value">What the term is worth; more than 0.</param>
/// <param name="Items">Numbers of the items needed, each once.</param>
internal sealed record Bundle(int Term, double Value, int[] Items);
