namespace TinRabbit.Server.Files.Tables;

/// <summary>What somebody found for a term.</summary>
/// <param name="Day">The day; null where it is not known.</param>
public sealed record ObservedRow(string Term, bool Found, int? Rank, long? Results, DateOnly? Day);
