namespace TinRabbit.Core.Measures;

/// <summary>A term that no listing serves, with where it was picked.</summary>
/// <param name="Term">The term with its numbers.</param>
/// <param name="Product">The product of the pick.</param>
public sealed record UnservedTerm(WantedTerm Term, string Product);
