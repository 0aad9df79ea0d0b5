namespace TinRabbit.Server.Shelf;

/// <summary>What a text holds of a market's known terms, and what it would in another order; the most searched first.</summary>
public sealed record TextRead(IReadOnlyList<ReadTerm> Holds, IReadOnlyList<ReadTerm> Could);
