using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling;

/// <summary>One short phrase that holds several terms.</summary>
/// <param name="Text">The shortest phrase in which each term is whole.</param>
/// <param name="Together">The shortest in which each has all its words, in any order; the same text where that is no shorter.</param>
/// <param name="Volume">Searches a month that it serves, unknown ones counted as 0.</param>
/// <param name="UnknownVolume">How many of the terms have no known volume.</param>
public sealed record Weave(string Text, string Together, double Volume, int UnknownVolume)
{
    /// <summary>Fewest terms to weave.</summary>
    public const int Least = 2;

    /// <summary>Most terms to weave.</summary>
    public const int Most = 6;

    /// <summary>
    /// Weaves terms: a shortest common superstring over words, found exactly by going through every set of terms and the one it
    /// ends with (Held and Karp 1962). Of phrases with as few words, the one of fewest characters, then the one nearest the given order.
    /// </summary>
    /// <exception cref="FormatProblems">There are fewer than two terms, more than six, or one has no word.</exception>
    public static Weave Of(IReadOnlyList<WantedTerm> terms)
    {
        if (terms.Count is < Least or > Most)
            throw new FormatProblems([new("terms", $"Weave {Least} to {Most} terms; there are {terms.Count}.")]);
        var all = terms.Select(t => Tokens.Of(t.Text)).ToList();
        if (all.FindIndex(t => t.Count == 0) is >= 0 and var empty)
            throw new FormatProblems([new($"terms[{empty}].text", $"\"{terms[empty].Text}\" has no word in it.")]);
        var words = all.Select(t => t.Select(w => w.Word).ToArray()).ToList();
        // A term inside another is served by it.
        var needed = words.Where((w, i) => !words.Where((o, k) => k != i && Holds(o, w) && (o.Length > w.Length || k < i)).Any()).ToList();
        var whole = Shortest(needed);
        var together = new List<string>(whole.Length);
        foreach (var word in whole)
            if (!together.Exists(w => Same(w, word)))
                together.Add(word);
        return new(string.Join(' ', whole), string.Join(' ', together), terms.Sum(t => t.Volume ?? 0), terms.Count(t => t.Volume is null));
    }

    private static string[] Shortest(List<string[]> terms)
    {
        var n = terms.Count;
        var best = new string[]?[1 << n, n];
        for (var i = 0; i < n; i++)
            best[1 << i, i] = terms[i];
        for (var set = 1; set < 1 << n; set++)
            // Of equals the one nearest the given order: it ends with the later terms.
            for (var last = n - 1; last >= 0; last--)
                if (best[set, last] is { } phrase)
                    for (var next = 0; next < n; next++)
                        if ((set >> next & 1) == 0)
                        {
                            var longer = Join(phrase, terms[next]);
                            ref var kept = ref best[set | 1 << next, next];
                            if (kept is null || Shorter(longer, kept))
                                kept = longer;
                        }

        var shortest = best[(1 << n) - 1, n - 1]!;
        for (var last = n - 2; last >= 0; last--)
            if (best[(1 << n) - 1, last] is { } phrase && Shorter(phrase, shortest))
                shortest = phrase;
        return shortest;
    }

    private static bool Shorter(string[] one, string[] other) =>
        one.Length < other.Length || (one.Length == other.Length && one.Sum(w => w.Length) < other.Sum(w => w.Length));

    /// <summary>The second after the first, what the end of one and the beginning of the other share said once.</summary>
    internal static string[] Join(string[] first, string[] second)
    {
        if (Holds(first, second))
            return first;
        for (var shared = Math.Min(first.Length, second.Length); shared > 0; shared--)
            if (Stands(second, shared, first, first.Length - shared))
                return [.. first, .. second[shared..]];
        return [.. first, .. second];
    }

    private static bool Holds(string[] phrase, string[] part)
    {
        for (var at = 0; at + part.Length <= phrase.Length; at++)
            if (Stands(part, part.Length, phrase, at))
                return true;
        return false;
    }

    private static bool Stands(string[] part, int count, string[] phrase, int at)
    {
        for (var i = 0; i < count; i++)
            if (!Same(phrase[at + i], part[i]))
                return false;
        return true;
    }

    private static bool Same(string one, string other) => one == other || Fold.Letters(one) == Fold.Letters(other);
}
