namespace TinRabbit.Core.Words;

/// <summary>Words of material, style, colour, size, audience and occasion, as data (Data/facets.txt).</summary>
public static class Facets
{
    private static readonly HashSet<string> Units = new(
        ["mm", "cm", "inch", "inches", "ft", "foot", "feet", "oz", "ml", "litre", "liter"],
        StringComparer.Ordinal
    );

    // "5in" is a measure, "2 in 1" is not.
    private static readonly HashSet<string> JoinedUnits = new([.. Units, "in", "m", "l"], StringComparer.Ordinal);
    private static readonly Dictionary<string, List<Group>> Groups = [];
    private static readonly List<Group> InOrder = [];

    // Words of one meaning, and narrower words that imply it.
    private sealed record Group(Facet? Facet, string[] Same, HashSet<string> Backing);

    static Facets()
    {
        foreach (var line in WordData.Lines("facets.txt"))
        {
            var parts = line.Split(" ; ");
            var same = parts[1].Split(", ");
            var backing = same.Concat(parts.Length > 2 ? parts[2].Split(", ") : []).Select(Key).ToHashSet();
            var group = new Group(Enum.TryParse<Facet>(parts[0], ignoreCase: true, out var facet) ? facet : null, same, backing);
            InOrder.Add(group);
            foreach (var key in same.Select(Key).Distinct())
                (Groups.TryGetValue(key, out var list) ? list : Groups[key] = []).Add(group);
        }

        // A narrower word without a line of its own is a value of the facet too.
        foreach (var group in InOrder)
        foreach (var key in group.Backing)
            Groups.TryAdd(key, [group with { Same = [key], Backing = [key] }]);
        Longest = Groups.Keys.Max(k => k.Count(c => c == ' ') + 1);
    }

    private static int Longest { get; }

    /// <summary>The usual words of a facet, in the order of the data.</summary>
    public static IEnumerable<string> WordsOf(Facet facet) => InOrder.Where(g => g.Facet == facet).Select(g => g.Same[0]);

    /// <summary>What a text says of a product, the longest phrase first wherever several begin.</summary>
    public static IReadOnlyList<Claim> ClaimsOf(string text)
    {
        var claims = new List<Claim>();
        foreach (var (group, key, start, length) in Found(text))
            if (group?.Facet is { } facet)
                claims.Add(new(facet, text.Substring(start, length), start, length));
            else if (group is null && key.Length > 0)
                claims.Add(new(Facet.Size, text.Substring(start, length), start, length));
        return claims;
    }

    /// <summary>Colours, materials, sizes, audiences and occasions that a text claims and the facts lack. Style is taste, and claims nothing.</summary>
    public static IReadOnlyList<Claim> Unbacked(string text, FactWords facts)
    {
        var what = KeysIn(facts.What);
        var known = facts.ByFacet.ToDictionary(f => f.Key, f => f.Value.SelectMany(KeysIn).ToHashSet());
        var unbacked = new List<Claim>();
        foreach (var (group, key, start, length) in Found(text))
        {
            var facet = group is null ? Facet.Size : group.Facet;
            if (facet is not { } about || about == Facet.Style)
                continue;
            HashSet<string> backing = group?.Backing ?? [key];
            if (!backing.Overlaps(what) && !(known.TryGetValue(about, out var values) && backing.Overlaps(values)))
                unbacked.Add(new(about, text.Substring(start, length), start, length));
        }

        return unbacked;
    }

    // Every run of words of a text, as keys, measures joined.
    private static HashSet<string> KeysIn(string text)
    {
        var words = Measured(text);
        var keys = new HashSet<string>();
        for (var from = 0; from < words.Count; from++)
        for (var to = from; to < words.Count && to < from + Longest; to++)
            keys.Add(string.Join(' ', words.Skip(from).Take(to - from + 1).Select(w => w.Key)));
        return keys;
    }

    private static IEnumerable<(Group? Group, string Key, int Start, int Length)> Found(string text)
    {
        var words = Measured(text);
        for (var from = 0; from < words.Count; from++)
        {
            if (words[from].IsMeasure)
            {
                yield return (null, words[from].Key, words[from].Start, words[from].End - words[from].Start);
                continue;
            }

            for (var count = Math.Min(Longest, words.Count - from); count > 0; count--)
            {
                var key = string.Join(' ', words.Skip(from).Take(count).Select(w => w.Key));
                if (!Groups.TryGetValue(key, out var groups))
                    continue;
                yield return (groups[0], key, words[from].Start, words[from + count - 1].End - words[from].Start);
                from += count - 1;
                break;
            }
        }
    }

    private static string Key(string phrase) => string.Join(' ', Tokens.Of(phrase).Select(t => Fold.Key(t.Word, Fold.AnyForm)));

    // The words with measures joined: "28 mm" and "28mm" are one.
    private static List<(string Key, int Start, int End, bool IsMeasure)> Measured(string text)
    {
        var tokens = Tokens.Of(text);
        var words = new List<(string, int, int, bool)>(tokens.Count);
        for (var i = 0; i < tokens.Count; i++)
        {
            var token = tokens[i];
            var end = token.Start + token.Length;
            if (
                char.IsAsciiDigit(token.Word[0])
                && i + 1 < tokens.Count
                && token.Word.All(c => char.IsAsciiDigit(c) || c is '.' or ',')
                && Units.Contains(tokens[i + 1].Word)
            )
            {
                words.Add((token.Word + tokens[i + 1].Word, token.Start, tokens[i + 1].Start + tokens[i + 1].Length, true));
                i++;
                continue;
            }

            var unit = token.Word.AsSpan().TrimStart("0123456789.,");
            var measure = unit.Length > 0 && unit.Length < token.Word.Length && (JoinedUnits.Contains(unit.ToString()) || unit[0] == 'x');
            words.Add((measure ? token.Word : Fold.Key(token.Word, Fold.AnyForm), token.Start, end, measure));
        }

        return words;
    }
}
