namespace TinRabbit.Core.Measures;

/// <summary>A doubt about a reading.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Why">The reason, as a sentence with its figures.</param>
public sealed record Doubt(DoubtKind Kind, string Why);
