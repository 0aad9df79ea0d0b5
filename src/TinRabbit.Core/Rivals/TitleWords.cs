using TinRabbit.Core.Words;

namespace TinRabbit.Core.Rivals;

/// <summary>Which words rivals use in their titles, and how those that use one differ from those that do not.</summary>
public static class TitleWords
{
    /// <summary>The fewest titles that a listed word is in.</summary>
    public const int LeastTitles = 3;

    private static readonly RivalFigure[] Figures = [RivalFigure.Price, RivalFigure.Ratings, RivalFigure.Sales, RivalFigure.Occupancy];

    /// <summary>The words and pairs of words of the titles, the most used first. Stop words alone or at an end are left out.</summary>
    public static IReadOnlyList<TitleWord> Of(IReadOnlyList<RivalListing> rivals)
    {
        var holders = new Dictionary<string, HashSet<int>>(StringComparer.Ordinal);
        for (var i = 0; i < rivals.Count; i++)
        {
            var tokens = Tokens.Of(rivals[i].Title);
            for (var at = 0; at < tokens.Count; at++)
            {
                if (StopWords.Has(tokens[at].Word))
                    continue;
                Add(tokens[at].Word, i);
                // A comma between two words parts them.
                if (
                    at + 1 < tokens.Count
                    && !StopWords.Has(tokens[at + 1].Word)
                    && string.IsNullOrWhiteSpace(rivals[i].Title[tokens[at].End..tokens[at + 1].Start])
                )
                    Add($"{tokens[at].Word} {tokens[at + 1].Word}", i);
            }
        }

        return
        [
            .. holders
                .Where(h => h.Value.Count >= LeastTitles)
                .OrderByDescending(h => h.Value.Count)
                .ThenBy(h => h.Key, StringComparer.Ordinal)
                .Select(h => new TitleWord(
                    h.Key,
                    h.Value.Count,
                    (double)h.Value.Count / rivals.Count,
                    FigureDifferences.Of(h.Key, h.Value, rivals, Figures)
                )),
        ];

        void Add(string word, int rival)
        {
            if (!holders.TryGetValue(word, out var titles))
                holders[word] = titles = [];
            titles.Add(rival);
        }
    }
}
