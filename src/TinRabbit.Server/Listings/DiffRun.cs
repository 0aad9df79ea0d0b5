namespace TinRabbit.Server.Listings;

/// <summary>A run of words that are in both states, or only in one.</summary>
public sealed record DiffRun(string Text, DiffKind Are);
