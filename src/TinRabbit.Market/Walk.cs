using System.Runtime.CompilerServices;

namespace TinRabbit.Market;

/// <summary>Asking a market's search box more than it offers at once.</summary>
public static class Walk
{
    private const int MostPerPrefix = 14;
    private const string Letters = "abcdefghijklmnopqrstuvwxyz";

    /// <summary>How many times the box is asked: for the head, for the head and a space, and for each letter after it.</summary>
    public const int Steps = 28;

    /// <summary>What is typed after the head in a step, from 0; nothing in the first two.</summary>
    public static string Letter(int step) => step < 2 ? "" : Letters[step - 2].ToString();

    /// <summary>What the box offers in each step, without what an earlier step offered.</summary>
    public static async IAsyncEnumerable<IReadOnlyList<string>> WalkAlphabet(
        this IMarket market,
        string marketId,
        string head,
        [EnumeratorCancellation] CancellationToken stop
    )
    {
        var seen = new HashSet<string>();
        for (var step = 0; step < Steps; step++)
        {
            var offered = await market.Suggest(marketId, step == 0 ? head : $"{head} {Letter(step)}", MostPerPrefix, stop);
            yield return [.. (offered ?? []).Where(seen.Add)];
        }
    }

    /// <summary>All of it at once.</summary>
    public static async Task<IReadOnlyList<string>> Suggestions(this IMarket market, string marketId, string head, CancellationToken stop)
    {
        var all = new List<string>();
        await foreach (var offered in market.WalkAlphabet(marketId, head, stop))
            all.AddRange(offered);
        return all;
    }
}
