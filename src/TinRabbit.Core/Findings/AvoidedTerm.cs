namespace TinRabbit.Core.Findings;

/// <summary>A term that must not be said.</summary>
/// <param name="Text">The term.</param>
/// <param name="Reason">Why; empty where nobody said.</param>
public sealed record AvoidedTerm(string Text, string Reason = "");
