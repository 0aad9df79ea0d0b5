namespace TinRabbit.Server.Features.Weigh;

/// <summary>The market's first results for a term.</summary>
/// <param name="Term">The term; empty where there is no pick to search for.</param>
/// <param name="Found">How many listings the market finds; null where that is unknown.</param>
/// <param name="Results">The results; null where they are unknown.</param>
/// <param name="Seen">When the seller saw them; null where the market answered just now.</param>
public sealed record FoundRivals(string Term, long? Found, IReadOnlyList<FoundRival>? Results, SeenAt? Seen = null);
