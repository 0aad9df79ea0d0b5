using TinRabbit.Core.Words;

namespace TinRabbit.Market;

/// <summary>How the sellers among the first results of a search use a term.</summary>
/// <param name="Count">Results with the phrase in their title or in a tag.</param>
/// <param name="Among">Results looked at.</param>
/// <param name="Price">Their mean price, of those whose price is known; null where none is.</param>
/// <param name="Ratings">Their mean number of ratings, as the price.</param>
/// <param name="Sales">Their mean sales a month, as the price; null where the market lets stays, too.</param>
/// <param name="Occupancy">Their mean share of nights taken, 0–1, as the price; null where the market sells things, too.</param>
/// <param name="Rank">Their mean rank; ads have none.</param>
public sealed record SellersUse(int Count, int Among, decimal? Price, double? Ratings, double? Sales, double? Occupancy, double? Rank)
{
    private const int MostWords = 3;
    private const int FewestUsers = 3;

    /// <summary>How the results use each of some terms; null where none does.</summary>
    public static IReadOnlyList<SellersUse?> Of(SearchPage page, IEnumerable<string> terms)
    {
        var ranked = page.Ranked().ToList();
        var units = ranked.Select(Units).ToList();
        return [.. terms.Select(term => ForTerm(ranked, units, $" {Tokens.Key(term)} "))];
    }

    /// <summary>Words and short phrases of titles, and whole tags, that several of the results use; the most used first, a longer one before its part when as many use it.</summary>
    public static IReadOnlyList<string> TermsOf(SearchPage page, int most)
    {
        var users = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var result in page.Ranked())
        foreach (var term in Phrases(result).ToHashSet())
            users[term] = users.GetValueOrDefault(term) + 1;
        return
        [
            .. users
                .Where(u => u.Value >= FewestUsers)
                .OrderByDescending(u => u.Value)
                .ThenByDescending(u => u.Key.Length)
                .ThenBy(u => u.Key, StringComparer.Ordinal)
                .Take(most)
                .Select(u => u.Key),
        ];
    }

    private static IEnumerable<string> Phrases(Result result)
    {
        foreach (var tag in result.Tags)
            yield return Tokens.Key(tag);
        // Splits a title at its separators.
        foreach (var part in result.Title.Split([',', '|', '–', '—', ';', ':', '('], StringSplitOptions.RemoveEmptyEntries))
        {
            var words = Tokens.Of(part).Select(t => t.Word).ToArray();
            for (var from = 0; from < words.Length; from++)
            for (var to = from; to < words.Length && to < from + MostWords; to++)
                if (!StopWords.Has(words[from]) && !StopWords.Has(words[to]))
                    yield return string.Join(' ', words[from..(to + 1)]);
        }
    }

    private static string[] Units(Result result) => [.. result.Tags.Append(result.Title).Select(t => $" {Tokens.Key(t)} ")];

    private static SellersUse? ForTerm(List<Result> results, List<string[]> units, string phrase)
    {
        List<(Result Listing, int Rank)> users =
        [
            .. results.Select((r, i) => (r, i + 1)).Where((_, i) => units[i].Any(u => u.Contains(phrase, StringComparison.Ordinal))),
        ];
        return users.Count == 0
            ? null
            : new(
                users.Count,
                results.Count,
                users.Average(u => u.Listing.Price) is { } price ? Math.Round(price, 2) : null,
                users.Average(u => u.Listing.Ratings),
                users.Average(u => u.Listing.Sales),
                users.Average(u => u.Listing.Occupancy),
                users.Average(u => u.Rank)
            );
    }
}
