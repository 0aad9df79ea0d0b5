namespace TinRabbit.Server.Files.Documents;

/// <summary>What a check found for one term.</summary>
/// <param name="IsDone">Whether the term was looked up.</param>
/// <param name="Rank">The listing's place among the results, from 1; null where it is not known or not found.</param>
/// <param name="Results">How many results there are; null where it is not known.</param>
public sealed record DocumentFind([Term] string Term, bool IsDone, bool Found, int? Rank = null, long? Results = null);
