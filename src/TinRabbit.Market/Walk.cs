namespace TinRabbit.Market;

/// <summary>Asking a market's search box more than it offers at once.</summary>
public static class Walk
{
    private const int MostPerPrefix = 14;

    /// <summary>What the box offers for the head, then for the head and each letter of the alphabet after it; each once, in that order.</summary>
    public static IEnumerable<string> Suggestions(this IMarket market, string marketId, string head) =>
        "abcdefghijklmnopqrstuvwxyz".Select(letter => $"{head} {letter}").Prepend(head + " ").Prepend(head)
            .SelectMany(typed => market.Suggest(marketId, typed, MostPerPrefix)).Distinct();
}
