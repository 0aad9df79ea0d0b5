namespace TinRabbit.Market;

/// <summary>What a shopper sees who searches for a term.</summary>
/// <param name="Found">How many listings the search finds; null where the market does not say it.</param>
/// <param name="Results">The first of them, in the market's order.</param>
public sealed record SearchPage(long? Found, IReadOnlyList<Result> Results)
{
    /// <summary>For a web search: the first pages, in its order. A market of listings has none.</summary>
    public IReadOnlyList<WebResult> Pages { get; init; } = [];

    /// <summary>Related searches that the page offers, in their order.</summary>
    public IReadOnlyList<string> Related { get; init; } = [];

    /// <summary>When the seller saw it, and where it came from; null where the source answered just now.</summary>
    public SeenAt? Seen { get; init; }

    /// <summary>The results without the ads: what has a rank.</summary>
    public IEnumerable<Result> Ranked() => Results.Where(r => !r.IsAd);
}
