namespace TinRabbit.Market;

/// <summary>What a shopper sees who searches for a term.</summary>
/// <param name="Found">How many listings the search finds.</param>
/// <param name="Results">The first of them, in the market's order.</param>
public sealed record SearchPage(long Found, IReadOnlyList<Result> Results)
{
    /// <summary>For a web search: the first pages, in its order. A market of listings has none.</summary>
    public IReadOnlyList<WebResult> Pages { get; init; } = [];
}
