using TinRabbit.Core.Words;

namespace TinRabbit.Core.Reviews;

/// <summary>
/// Finds the phrases that tell two sets of reviews apart: log-odds with an informative Dirichlet prior (Monroe, Colaresi and Quinn, "Fightin'
/// Words", Political Analysis 16, 2008). A phrase counts once in each review.
/// </summary>
public static class BuyerPhrases
{
    /// <summary>The words of the longest phrase.</summary>
    public const int MostWords = 4;

    /// <summary>The size of the prior, in phrases.</summary>
    public const double PriorSize = 500;

    /// <summary>The least |z| that is shown: 95 % of a normal distribution lie within.</summary>
    public const double LeastZ = 1.96;

    /// <summary>The fewest reviews that a phrase is shown for, of both sets together.</summary>
    public const int LeastReviews = 3;

    private const int SentencesShown = 3;

    private static readonly HashSet<string> FunctionWords = WordData
        .Lines("function-words.txt")
        .SelectMany(l => l.Split(' '))
        .ToHashSet(StringComparer.Ordinal);

    /// <summary>The phrases of one to four words that one set has more often than the other, the most telling first.</summary>
    /// <param name="mine">The first set.</param>
    /// <param name="theirs">The other.</param>
    /// <param name="market">All reviews of the market, whose counts are the prior; null takes those of both sets.</param>
    /// <param name="stop">Stops the search.</param>
    public static IReadOnlyList<BuyerPhrase> Of(
        IReadOnlyList<Review> mine,
        IReadOnlyList<Review> theirs,
        IReadOnlyList<Review>? market = null,
        CancellationToken stop = default
    )
    {
        var phrases = new Dictionary<string, Counts>(StringComparer.Ordinal);
        Count(mine, c => c.Mine++, phrases, stop);
        Count(theirs, c => c.Theirs++, phrases, stop);
        var occurrences = phrases.ToDictionary(p => p.Key, p => p.Value.Occurrences, StringComparer.Ordinal);
        Count(market ?? [], c => c.Market++, phrases, stop);
        var (all, ofMine, ofTheirs) = (0.0, 0.0, 0.0);
        foreach (var counts in phrases.Values)
        {
            ofMine += counts.Mine;
            ofTheirs += counts.Theirs;
            all += Prior(counts);
        }

        var shown = phrases
            .Where(p => p.Value.Mine + p.Value.Theirs >= LeastReviews)
            .Select(p => (p.Key, p.Value, Z: ZOf(p.Value.Mine, ofMine, p.Value.Theirs, ofTheirs, PriorSize * Prior(p.Value) / all)))
            .Where(p => Math.Abs(p.Z) >= LeastZ)
            .OrderByDescending(p => Math.Abs(p.Z))
            .ThenBy(p => p.Key, StringComparer.Ordinal)
            .ToList();
        var parts = PartsOfLonger(shown.ToDictionary(s => s.Key, s => occurrences[s.Key], StringComparer.Ordinal));
        var uses = shown.Where(s => !parts.Contains(s.Key)).ToDictionary(s => s.Key, s => new Uses(s.Z > 0), StringComparer.Ordinal);
        Collect(mine, true, uses, stop);
        Collect(theirs, false, uses, stop);
        return [.. shown.Where(s => uses.ContainsKey(s.Key)).Select(s => Phrase(s.Key, s.Z, s.Value.Mine, s.Value.Theirs, uses[s.Key]))];

        // With the market's reviews, a phrase that only the two sets have still has a prior of its own.
        double Prior(Counts counts) => market is null ? counts.Mine + counts.Theirs : Math.Max(counts.Market, counts.Mine + counts.Theirs);
    }

    /// <summary>
    /// The phrases of one to four words that most reviews of one seller have, where there are none of another to tell them from. Each is praise or
    /// a complaint by its stars, and its <see cref="BuyerPhrase.Z"/> is 0.
    /// </summary>
    /// <param name="reviews">The reviews.</param>
    /// <param name="areMine">Whether they are counted as the first set, otherwise as the other.</param>
    /// <param name="most">The most phrases to return.</param>
    /// <param name="stop">Stops the search.</param>
    public static IReadOnlyList<BuyerPhrase> Frequent(
        IReadOnlyList<Review> reviews,
        bool areMine,
        int most,
        CancellationToken stop = default
    )
    {
        var phrases = new Dictionary<string, Counts>(StringComparer.Ordinal);
        Count(reviews, c => c.Mine++, phrases, stop);
        var shown = phrases
            .Where(p => p.Value.Mine >= LeastReviews)
            .ToDictionary(p => p.Key, p => p.Value.Occurrences, StringComparer.Ordinal);
        var parts = PartsOfLonger(shown);
        var uses = shown
            .Keys.Where(p => !parts.Contains(p))
            .OrderByDescending(p => phrases[p].Mine)
            .ThenByDescending(p => p.Count(c => c == ' '))
            .ThenBy(p => p, StringComparer.Ordinal)
            .Take(most)
            .ToDictionary(p => p, _ => new Uses(true), StringComparer.Ordinal);
        Collect(reviews, true, uses, stop);
        return [.. uses.Select(u => Phrase(u.Key, 0, areMine ? phrases[u.Key].Mine : 0, areMine ? 0 : phrases[u.Key].Mine, u.Value))];
    }

    private static BuyerPhrase Phrase(string text, double z, int mine, int theirs, Uses uses) =>
        new(text, z, mine, theirs, uses.Stars.Count > 0 ? uses.Stars.Average() : null, uses.Sentences);

    /// <summary>The phrases within one text, each time that they occur: within a sentence, with no small word at either end.</summary>
    public static IEnumerable<string> In(string text)
    {
        foreach (var sentence in Sentences.Of(text))
        {
            var words = Tokens.Of(sentence);
            for (var from = 0; from < words.Count; from++)
            {
                if (IsSmall(words[from].Word))
                    continue;
                var phrase = words[from].Word;
                yield return phrase;
                for (var to = from + 1; to < Math.Min(words.Count, from + MostWords); to++)
                {
                    phrase = $"{phrase} {words[to].Word}";
                    if (!IsSmall(words[to].Word))
                        yield return phrase;
                }
            }
        }
    }

    /// <summary>Whether a word says nothing at the end of a phrase.</summary>
    public static bool IsSmall(string word) => StopWords.Has(word) || FunctionWords.Contains(word);

    private sealed class Counts
    {
        public int Mine;
        public int Theirs;
        public int Market;
        public int Occurrences;
    }

    private static void Count(IReadOnlyList<Review> reviews, Action<Counts> one, Dictionary<string, Counts> phrases, CancellationToken stop)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var review in reviews)
        {
            stop.ThrowIfCancellationRequested();
            seen.Clear();
            foreach (var phrase in In(review.Text))
            {
                if (!phrases.TryGetValue(phrase, out var counts))
                    phrases[phrase] = counts = new();
                counts.Occurrences++;
                if (seen.Add(phrase))
                    one(counts);
            }
        }
    }

    private static double ZOf(double mine, double ofMine, double theirs, double ofTheirs, double prior)
    {
        double LogOdds(double count, double of) => Math.Log((count + prior) / (of + PriorSize - count - prior));
        var difference = LogOdds(mine, ofMine) - LogOdds(theirs, ofTheirs);
        return difference / Math.Sqrt(1 / (mine + prior) + 1 / (theirs + prior));
    }

    // Phrases that occur nowhere but inside a longer one.
    private static HashSet<string> PartsOfLonger(Dictionary<string, int> shown)
    {
        var parts = new HashSet<string>(StringComparer.Ordinal);
        foreach (var (longer, times) in shown)
        {
            var words = longer.Split(' ');
            var inside = new Dictionary<string, int>(StringComparer.Ordinal);
            for (var from = 0; from < words.Length; from++)
            for (var to = from + 1; to <= words.Length; to++)
                if (to - from < words.Length && string.Join(' ', words[from..to]) is var part)
                    inside[part] = inside.GetValueOrDefault(part) + 1;
            foreach (var (part, within) in inside)
                if (shown.TryGetValue(part, out var own) && own == times * within)
                    parts.Add(part);
        }

        return parts;
    }

    private sealed record Uses(bool OfMine)
    {
        public List<double> Stars { get; } = [];

        public List<string> Sentences { get; } = [];
    }

    // The stars of the reviews that have each phrase, and sentences of those that it marks.
    private static void Collect(IReadOnlyList<Review> reviews, bool ofMine, Dictionary<string, Uses> phrases, CancellationToken stop)
    {
        foreach (var review in reviews)
        {
            stop.ThrowIfCancellationRequested();
            foreach (var phrase in In(review.Text).Where(phrases.ContainsKey).Distinct(StringComparer.Ordinal))
                if (review.Stars is { } stars)
                    phrases[phrase].Stars.Add(stars);
            foreach (var sentence in Sentences.Of(review.Text))
            foreach (var phrase in In(sentence).Where(phrases.ContainsKey).Distinct(StringComparer.Ordinal))
                if (
                    phrases[phrase] is var uses
                    && uses.OfMine == ofMine
                    && uses.Sentences.Count < SentencesShown
                    && !uses.Sentences.Contains(sentence)
                )
                    uses.Sentences.Add(sentence);
        }
    }
}
