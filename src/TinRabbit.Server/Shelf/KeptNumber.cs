namespace TinRabbit.Server.Shelf;

/// <summary>A number that a newer reading did not have: the older one stays in force, with where it came from.</summary>
/// <param name="Field">Which number.</param>
/// <param name="Source">The source that gave it.</param>
/// <param name="TakenAt">When.</param>
public sealed record KeptNumber(NumberField Field, string Source, DateTime TakenAt);
