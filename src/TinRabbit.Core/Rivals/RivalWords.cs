using MathNet.Numerics.Statistics;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Rivals;

/// <summary>Which words rivals use in a text, and how those that use one differ from those that do not.</summary>
public static class RivalWords
{
    /// <summary>The fewest rivals that a listed word is used by.</summary>
    public const int Least = 3;

    private static readonly RivalFigure[] Figures = [RivalFigure.Price, RivalFigure.Ratings, RivalFigure.Sales, RivalFigure.Occupancy];

    /// <summary>The words and pairs of words, the most used first. Stop words alone or at an end are left out.</summary>
    /// <param name="rivals">In the order of their ranks.</param>
    /// <param name="textsOf">The texts that are looked at: of a title one, of tags each. Rivals without any are left out.</param>
    public static IReadOnlyList<RivalWord> Of(IReadOnlyList<RivalListing> rivals, Func<RivalListing, IEnumerable<string>> textsOf)
    {
        var holders = new Dictionary<string, HashSet<int>>(StringComparer.Ordinal);
        var seen = rivals.Select((r, i) => (Rival: r, Rank: i + 1, Texts: textsOf(r).ToList())).Where(r => r.Texts.Count > 0).ToList();
        for (var i = 0; i < seen.Count; i++)
            foreach (var word in seen[i].Texts.SelectMany(WordsOf))
            {
                if (!holders.TryGetValue(word, out var having))
                    holders[word] = having = [];
                having.Add(i);
            }

        var shown = seen.ConvertAll(r => r.Rival);
        return
        [
            .. holders
                .Where(h => h.Value.Count >= Least)
                .OrderByDescending(h => h.Value.Count)
                .ThenBy(h => h.Key, StringComparer.Ordinal)
                .Select(h =>
                {
                    var prices = h.Value.Select(i => shown[i].Price).OfType<double>().ToList();
                    return new RivalWord(
                        h.Key,
                        h.Value.Count,
                        (double)h.Value.Count / shown.Count,
                        h.Value.Average(i => seen[i].Rank),
                        prices.Count > 0 ? prices.Median() : null,
                        FigureDifferences.Of(h.Key, h.Value, shown, Figures)
                    );
                }),
        ];
    }

    private static IEnumerable<string> WordsOf(string text)
    {
        var tokens = Tokens.Of(text);
        for (var at = 0; at < tokens.Count; at++)
        {
            if (StopWords.Has(tokens[at].Word))
                continue;
            yield return tokens[at].Word;
            // A comma between two words parts them.
            if (
                at + 1 < tokens.Count
                && !StopWords.Has(tokens[at + 1].Word)
                && string.IsNullOrWhiteSpace(text[tokens[at].End..tokens[at + 1].Start])
            )
                yield return $"{tokens[at].Word} {tokens[at + 1].Word}";
        }
    }
}
