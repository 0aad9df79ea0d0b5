namespace TinRabbit.Server.Features.Weigh;

/// <summary>The market's first results for a term.</summary>
/// <param name="Term">The term; empty where there is no pick to search for.</param>
/// <param name="Found">How many listings the market finds.</param>
public sealed record FoundRivals(string Term, long Found, IReadOnlyList<FoundRival> Results);
