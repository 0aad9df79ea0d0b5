using System.Runtime.InteropServices;

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
    private const int MaxRounds = 3;
    private const double Tolerance = 1e-12;

    /// <summary>Fills the end of the title.</summary>
    /// <param name="terms">The terms that may be added whole.</param>
    /// <param name="fixedPhrases">So many phrases at the front stay.</param>
    /// <param name="stop">Stops the search.</param>
    public void Fill(int[] terms, int fixedPhrases, CancellationToken stop)
    {
        // What is taken out leaves room, which is used once more.
        for (var round = 0; round < MaxRounds; round++)
        {
            var left = terms.ToList();
            while (PushBest(left) || PushBest(Fragments()))
                stop.ThrowIfCancellationRequested();
            if (!RemoveIdle(fixedPhrases))
                break;
        }
    }

    /// <summary>Adds what gains most, terms, single words and pairs alike, until nothing gains.</summary>
    /// <param name="terms">The terms that may be added whole.</param>
    /// <param name="stop">Stops the search.</param>
    /// <returns>False where the steps did not last: there are too many terms for it.</returns>
    public bool FillGreedily(int[] terms, CancellationToken stop)
    {
        while (title.StepsLeft > 0)
        {
            stop.ThrowIfCancellationRequested();
            if (!PushBest([.. terms, .. Fragments()]))
                return true;
        }

        return false;
    }

    private bool PushBest(List<int> phrases)
    {
        var (best, most, value) = (-1, Tolerance, title.Evaluate());
        phrases.RemoveAll(phrase =>
        {
            if (!title.MayFitLater(phrase))
                return true;
            if (!title.Push(phrase))
                return false;
            if (title.Evaluate() - value is var gain && gain > most * (1 + Tolerance))
                (best, most) = (phrase, gain);
            title.Pop();
            return false;
        });
        return best >= 0 && title.Push(best);
    }

    // The words that terms lack in the title, or in the whole listing, where they are one or two: those that complete the most worth.
    private List<int> Fragments()
    {
        var fragments = new Dictionary<(int, int), (Fragment Fragment, double Potential)>();
        foreach (var term in usable)
        {
            var inTitle = title.Lacking(term, inListing: false);
            Offer(term, inTitle);
            if (title.Lacking(term, inListing: true) is var inListing && inListing != inTitle)
                Offer(term, inListing);
        }

        return
        [
            .. fragments
                .Values.OrderByDescending(f => f.Potential)
                .Take(MaxTried)
                .Union(fragments.Values.OrderByDescending(f => f.Potential / title.Table.SizeOf(f.Fragment)).Take(MaxTried))
                .Select(f => title.Table.Add(f.Fragment)),
        ];

        void Offer(int term, Fragment? words)
        {
            if (words is not { } fragment || !title.MayFitLater(fragment))
                return;
            ref var known = ref CollectionsMarshal.GetValueRefOrAddDefault(fragments, title.Table.KeyOf(fragment), out var isKnown);
            known = (isKnown ? known.Fragment : fragment, known.Potential + title.WorthByTerm[term]);
        }
    }

    // Takes out, from the end, each phrase without which no term has a lower grade; whether there was one.
    private bool RemoveIdle(int fixedPhrases)
    {
        var removed = false;
        for (var at = title.Phrases.Count - 1; at >= fixedPhrases; at--)
        {
            int[] all = [.. title.Phrases];
            var value = title.Evaluate();
            title.Set([.. all[..at], .. all[(at + 1)..]]);
            if (title.Phrases.Count == all.Length - 1 && title.Evaluate() >= value * (1 - 1e-6) && HoldsNoLessThan(all))
                removed = true;
            else
                title.Set(all);
        }

        return removed;
    }

    private bool HoldsNoLessThan(int[] phrases)
    {
        int[] these = [.. title.Phrases];
        var grades = title.Grades();
        title.Set(phrases);
        var before = title.Grades();
        title.Set(these);
        for (var t = 0; t < grades.Length; t++)
            if (grades[t] < before[t])
                return false;
        return true;
    }
}
