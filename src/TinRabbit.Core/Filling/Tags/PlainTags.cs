using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Tags;

/// <summary>
/// Tags that a person would type. A weave of two picks that share no word ("boho ring promise ring") is worth a slot only where slots are
/// scarce; otherwise its picks take its place.
/// </summary>
internal static class PlainTags
{
    private const double Tolerance = 1e-9;

    /// <summary>The tags, with picks in the place of such weaves wherever the slots allow it and the grip is no less.</summary>
    /// <param name="tags">What was chosen.</param>
    /// <param name="picks">The picks that may be tags, each fitting one slot.</param>
    /// <param name="slots">How many tags there may be.</param>
    /// <param name="grip">The grip of the listing with these tags.</param>
    public static List<string> Of(List<string> tags, IReadOnlyList<string> picks, int slots, Func<List<string>, double> grip)
    {
        var byKey = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var pick in picks)
            byKey.TryAdd(Tokens.Key(pick), pick);
        double? now = null;
        for (var at = tags.Count - 1; at >= 0; at--)
        {
            if (JoinedFrom(tags[at], byKey) is not var (first, second))
                continue;
            var keys = tags.Select(Tokens.Key).ToHashSet(StringComparer.Ordinal);
            string[] missing = [.. new[] { first, second }.Where(p => !keys.Contains(Tokens.Key(p)))];
            var others = tags.Where((_, i) => i != at).Select(Signature).ToHashSet(StringComparer.Ordinal);
            if (tags.Count - 1 + missing.Length > slots || missing.Any(p => !others.Add(Signature(p))))
                continue;
            List<string> plain = [.. tags[..at], .. missing, .. tags[(at + 1)..]];
            if (grip(plain) is var worth && worth >= (now ??= grip(tags)) - Tolerance)
                (tags, now) = (plain, worth);
        }

        return tags;
    }

    // The same for tags that differ only in the order of their words.
    private static string Signature(string tag) => string.Join(' ', Tokens.Key(tag).Split(' ').Order(StringComparer.Ordinal));

    // The two picks that a tag says one after the other; null where it is a pick itself, or says no two picks so.
    private static (string First, string Second)? JoinedFrom(string tag, Dictionary<string, string> byKey)
    {
        var words = Tokens.Key(tag).Split(' ');
        if (!byKey.ContainsKey(string.Join(' ', words)))
            for (var cut = 1; cut < words.Length; cut++)
                if (
                    byKey.TryGetValue(string.Join(' ', words[..cut]), out var first)
                    && byKey.TryGetValue(string.Join(' ', words[cut..]), out var second)
                )
                    return (first, second);
        return null;
    }
}
