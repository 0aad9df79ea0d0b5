namespace TinRabbit.Core.Measures;

/// <summary>A product that the shop could make.</summary>
/// <param name="Text">What it would be: its best term, with what the others say before it.</param>
/// <param name="Terms">The compatible picks it would serve, the best first.</param>
/// <param name="Volume">Their searches a month, as far as they are known; null where none is.</param>
/// <param name="Headroom">Their mean headroom, as far as it is known; null where none is.</param>
public sealed record Idea(string Text, IReadOnlyList<UnservedTerm> Terms, double? Volume, double? Headroom);
