namespace TinRabbit.Server.Listings;

/// <summary>How a field differs between two states.</summary>
public sealed record FieldChange(string Field, string Label, IReadOnlyList<DiffRun> Words);
