using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>Superstrings over words: phrases that contain other phrases. Words are compared letter for letter, case and diacritics aside.</summary>
internal static class Superstring
{
    /// <summary>
    /// The shortest common superstring, found exactly by dynamic programming over subsets and the phrase that each ends with (Held and Karp 1962).
    /// Of superstrings with as few words, the one with the fewest characters, then the one nearest to the given order.
    /// </summary>
    /// <param name="phrases">A few phrases; the time doubles with each.</param>
    public static string[] Shortest(IReadOnlyList<string[]> phrases)
    {
        // A phrase inside another needs no place of its own.
        var needed = phrases
            .Where((p, i) => !phrases.Where((o, k) => k != i && Contains(o, p) && (o.Length > p.Length || k < i)).Any())
            .ToList();
        var n = needed.Count;
        var best = new string[]?[1 << n, n];
        for (var i = 0; i < n; i++)
            best[1 << i, i] = needed[i];
        for (var set = 1; set < 1 << n; set++)
        // Tries later phrases as the last one first, so that of equal superstrings the one nearest to the given order stays.
        for (var last = n - 1; last >= 0; last--)
            if (best[set, last] is { } superstring)
                for (var next = 0; next < n; next++)
                    if ((set >> next & 1) == 0)
                    {
                        var longer = Join(superstring, needed[next]);
                        ref var kept = ref best[set | 1 << next, next];
                        if (kept is null || IsShorter(longer, kept))
                            kept = longer;
                    }

        var shortest = best[(1 << n) - 1, n - 1]!;
        for (var last = n - 2; last >= 0; last--)
            if (best[(1 << n) - 1, last] is { } superstring && IsShorter(superstring, shortest))
                shortest = superstring;
        return shortest;
    }

    /// <summary>The second phrase after the first, merged at their longest overlap; the first alone when it contains the second.</summary>
    public static string[] Join(string[] first, string[] second)
    {
        if (Contains(first, second))
            return first;
        for (var overlap = Math.Min(first.Length, second.Length); overlap > 0; overlap--)
            if (IsAt(second, overlap, first, first.Length - overlap))
                return [.. first, .. second[overlap..]];
        return [.. first, .. second];
    }

    /// <summary>Whether two words are the same, case and diacritics aside.</summary>
    public static bool IsSame(string one, string other) => one == other || Fold.Letters(one) == Fold.Letters(other);

    private static bool IsShorter(string[] one, string[] other) =>
        one.Length < other.Length || (one.Length == other.Length && one.Sum(w => w.Length) < other.Sum(w => w.Length));

    private static bool Contains(string[] phrase, string[] part)
    {
        for (var at = 0; at + part.Length <= phrase.Length; at++)
            if (IsAt(part, part.Length, phrase, at))
                return true;
        return false;
    }

    private static bool IsAt(string[] part, int count, string[] phrase, int at)
    {
        for (var i = 0; i < count; i++)
            if (!IsSame(phrase[at + i], part[i]))
                return false;
        return true;
    }
}
