namespace TinRabbit.Market;

/// <summary>Where a search finds a listing.</summary>
/// <param name="Found">Whether it is among the results.</param>
/// <param name="Rank">Its rank among them, from 1; null where it was not found, or where the market does not say.</param>
/// <param name="Results">How many listings the search finds; null where the market does not say.</param>
public sealed record FoundAt(bool Found, int? Rank, long? Results);
