namespace TinRabbit.Market;

/// <summary>What a shopper sees who searches for a term.</summary>
/// <param name="Found">How many listings the search finds.</param>
/// <param name="Results">The first of them, in the market's order.</param>
public sealed record SearchPage(long Found, IReadOnlyList<Result> Results);
