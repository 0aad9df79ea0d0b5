using TinRabbit.Core.Words;

namespace TinRabbit.Core.Rivals;

/// <summary>How many of the words that titles of rivals use most are in a listing's picks.</summary>
/// <param name="Held">Those that some pick has, in any form.</param>
/// <param name="All">How many there are, at most <see cref="Most"/>.</param>
public readonly record struct UsualWords(int Held, int All)
{
    /// <summary>So many of the most used words are looked at.</summary>
    public const int Most = 20;

    // Fewer listings say nothing about what is usual.
    private const int FewestListings = 10;

    // A word is usual where one listing in so many has it.
    private const int OneIn = 5;

    /// <summary>Counts them.</summary>
    /// <param name="titles">The titles of the rivals.</param>
    /// <param name="picks">The picks.</param>
    public static UsualWords Of(IReadOnlyCollection<string> titles, IEnumerable<string> picks)
    {
        if (titles.Count < FewestListings)
            return default;
        var picked = picks.SelectMany(FactWords.KeysOf).ToHashSet(StringComparer.Ordinal);
        var usual = titles
            .SelectMany(t => FactWords.KeysOf(t).Where(w => !int.TryParse(w, out _)).Distinct(StringComparer.Ordinal))
            .CountBy(w => w, StringComparer.Ordinal)
            .Where(w => w.Value * OneIn >= titles.Count)
            .OrderByDescending(w => w.Value)
            .ThenBy(w => w.Key, StringComparer.Ordinal)
            .Take(Most)
            .ToList();
        return new(usual.Count(w => picked.Contains(w.Key)), usual.Count);
    }
}
