namespace TinRabbit.Core.Calibrating;

/// <summary>A term that a market was asked for, and whether the listing was among the results.</summary>
/// <param name="Text">The term.</param>
/// <param name="Found">Whether the listing was found.</param>
/// <param name="Rank">Its rank among the results, from 1; null where it was not found, or where it is not known.</param>
public sealed record ObservedTerm(string Text, bool Found, int? Rank = null);
