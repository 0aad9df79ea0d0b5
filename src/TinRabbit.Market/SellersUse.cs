using TinRabbit.Core.Words;

namespace TinRabbit.Market;

/// <summary>How the sellers among the first results of a search use a term.</summary>
/// <param name="Count">Results with the phrase in their title or in a tag.</param>
/// <param name="Among">Results looked at.</param>
/// <param name="Price">Their mean price.</param>
/// <param name="Ratings">Their mean number of ratings.</param>
/// <param name="Sales">Their mean sales a month; null where the market lets stays.</param>
/// <param name="Occupancy">Their mean share of nights taken, 0–1; null where the market sells things.</param>
public sealed record SellersUse(int Count, int Among, decimal Price, double Ratings, double? Sales, double? Occupancy)
{
    private const int MostWords = 3;
    private const int FewestUsers = 3;

    /// <summary>How the results use each of some terms; null where none does.</summary>
    public static IReadOnlyList<SellersUse?> Of(SearchPage page, IEnumerable<string> terms)
    {
        var units = page.Results.Select(Units).ToList();
        return [.. terms.Select(term => ForTerm(page.Results, units, $" {Tokens.Key(term)} "))];
    }

    /// <summary>Words and short phrases of titles, and whole tags, that several of the results use; the most used first, a longer one before its part when as many use it.</summary>
    public static IReadOnlyList<string> TermsOf(SearchPage page, int most)
    {
        var users = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var result in page.Results)
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

    private static SellersUse? ForTerm(IReadOnlyList<Result> results, List<string[]> units, string phrase)
    {
        var users = results.Where((_, i) => units[i].Any(u => u.Contains(phrase, StringComparison.Ordinal))).ToList();
        return users.Count == 0
            ? null
            : new(
                users.Count,
                results.Count,
                Math.Round(users.Average(u => u.Price), 2),
                users.Average(u => u.Ratings),
                users.Average(u => u.Sales),
                users.Average(u => u.Occupancy)
            );
    }
}
