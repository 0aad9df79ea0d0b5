using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Titles;

/// <summary>
/// Fills the end of a title greedily: whole terms while one that fits gains, then single words and pairs that complete terms, until nothing
/// gains. What raises no term's grade is taken out again.
/// </summary>
/// <param name="title">The title.</param>
/// <param name="usable">The terms that may stand in it.</param>
internal sealed class TitleEnd(TitleState title, int[] usable)
{
    // Single words and pairs that are tried for each place at the end: those that complete the most worth, and the most for their size.
    private const int MaxTried = 100;
    private const double Tolerance = 1e-12;

    private sealed class Fragment
    {
        public required int Phrase { get; init; }
        public double Potential { get; set; }
    }

    /// <summary>Fills the end of the title.</summary>
    /// <param name="terms">The terms that may be added whole.</param>
    /// <param name="fixedPhrases">So many phrases at the front stay.</param>
    /// <param name="stop">Stops the search.</param>
    public void Fill(int[] terms, int fixedPhrases, CancellationToken stop)
    {
        var left = terms.ToList();
        while (true)
        {
            stop.ThrowIfCancellationRequested();
            if (PushBest(left) || PushBest(Fragments()))
                continue;
            break;
        }

        RemoveIdle(fixedPhrases);
    }

    private bool PushBest(List<int> phrases)
    {
        var (best, most, value) = (-1, Tolerance, title.Evaluate());
        phrases.RemoveAll(phrase =>
        {
            if (!title.Push(phrase))
                return !title.MayFitLater(phrase);
            if (title.Evaluate() - value is var gain && gain > most * (1 + Tolerance))
                (best, most) = (phrase, gain);
            title.Pop();
            return false;
        });
        return best >= 0 && title.Push(best);
    }

    // The words that terms lack in the title, or in the whole listing, where they are one or two.
    private List<int> Fragments()
    {
        var fragments = new Dictionary<string, Fragment>(StringComparer.Ordinal);
        foreach (var term in usable)
        {
            Offer(title.LackingInTitle(term));
            Offer(title.LackingInListing(term));

            void Offer(int[] words)
            {
                if (words.Length is < 1 or > 2 || words.Length == title.WordsOf(term).Length)
                    return;
                var texts = words.Select(w => title.WordsOf(term)[w]).ToArray();
                if (StopWords.Has(texts[0]) || StopWords.Has(texts[^1]))
                    return;
                var key = string.Join(' ', texts);
                if (!fragments.TryGetValue(key, out var fragment))
                    fragments[key] = fragment = new() { Phrase = title.AddFragment(key, term, words) };
                fragment.Potential += title.WorthByTerm[term];
            }
        }

        var fitting = fragments.Values.Where(f => title.MayFitLater(f.Phrase)).ToList();
        return
        [
            .. fitting
                .OrderByDescending(f => f.Potential)
                .Take(MaxTried)
                .Union(fitting.OrderByDescending(f => f.Potential / title.SizeOf(f.Phrase)).Take(MaxTried))
                .Select(f => f.Phrase),
        ];
    }

    // Takes out, from the end, each phrase without which no term has a lower grade.
    private void RemoveIdle(int fixedPhrases)
    {
        for (var at = title.Phrases.Count - 1; at >= fixedPhrases; at--)
        {
            int[] all = [.. title.Phrases];
            var (grades, value) = (title.Grades(), title.Evaluate());
            title.Set([.. all[..at], .. all[(at + 1)..]]);
            var without = title.Grades();
            var idle = title.Phrases.Count == all.Length - 1 && title.Evaluate() >= value * (1 - 1e-6);
            for (var t = 0; t < grades.Length && idle; t++)
                idle = without[t] >= grades[t];
            if (!idle)
                title.Set(all);
        }
    }
}
