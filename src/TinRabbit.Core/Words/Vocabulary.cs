namespace TinRabbit.Core.Words;

/// <summary>
/// Which words can claim something of a product: the hand-kept Data/facets.txt and, below it, a digest of WordNet for any trade, made at build
/// (Data/NOTICE.md). All keys are words in any form, joined by spaces.
/// </summary>
internal static class Vocabulary
{
    private static readonly Dictionary<string, VocabularyEntry> ByKey = new(StringComparer.Ordinal);
    private static readonly List<(Facet Facet, string Usual)> Usual = [];

    // As it stands in the digest: few are ever asked for.
    private static readonly Dictionary<string, string> ImpliedByKey = new(StringComparer.Ordinal);
    private static readonly Dictionary<string, int> LongestByFirst = new(StringComparer.Ordinal);

    static Vocabulary()
    {
        ReadFacets();
        ReadDigest();
        foreach (var key in ByKey.Keys)
        {
            var first = key.Split(' ', 2)[0];
            LongestByFirst[first] = Math.Max(LongestByFirst.GetValueOrDefault(first), key.Count(c => c == ' ') + 1);
        }

        Longest = LongestByFirst.Values.Max();
    }

    /// <summary>The most words that a phrase of the vocabulary has.</summary>
    public static int Longest { get; }

    /// <summary>The most words of a phrase that begins with a word, by its key; 0 where none does.</summary>
    public static int LongestFrom(string first) => LongestByFirst.GetValueOrDefault(first);

    /// <summary>The usual words of a facet, in the order of the data.</summary>
    public static IEnumerable<string> UsualOf(Facet facet) => Usual.Where(u => u.Facet == facet).Select(u => u.Usual);

    /// <summary>The entry of a key; null for words that claim nothing.</summary>
    public static VocabularyEntry? Find(string key) => ByKey.GetValueOrDefault(key);

    /// <summary>What a word implies, by its hypernyms: a product of oak is wooden.</summary>
    public static IEnumerable<string> ImpliedBy(string key) =>
        ImpliedByKey.TryGetValue(key, out var implied) ? implied.Split(',').Select(KeyOf) : [];

    /// <summary>The key of a phrase.</summary>
    public static string KeyOf(string phrase) => string.Join(' ', Tokens.Of(phrase).Select(t => KeyOfWord(t.Word)));

    /// <summary>The key of a normalised word.</summary>
    public static string KeyOfWord(string word) => Fold.Key(word, Fold.AnyForm);

    private static void ReadFacets()
    {
        var narrower = new List<(string Key, Facet? Facet)>();
        foreach (var line in WordData.Lines("facets.txt"))
        {
            var parts = line.Split(" ; ");
            Facet? facet = Enum.TryParse<Facet>(parts[0], ignoreCase: true, out var known) ? known : null;
            // A sign says that a word is ambiguous, or that it needs context.
            var (ambiguous, needsContext) = (parts[1][0] == '~', parts[1][0] == '^');
            var same = parts[1].TrimStart('~', '^').Split(", ");
            string[] below = parts.Length > 2 ? parts[2].Split(", ") : [];
            var entry = new VocabularyEntry(facet, same.Concat(below).Select(KeyOf).ToHashSet(StringComparer.Ordinal))
            {
                IsAmbiguous = ambiguous,
                NeedsContext = needsContext,
            };
            if (facet is { } about && !needsContext)
                Usual.Add((about, same[0]));
            foreach (var key in same.Select(KeyOf).Distinct())
                Add(key, entry);
            narrower.AddRange(below.Select(b => (KeyOf(b), facet)));
        }

        // A narrower word without a line of its own is a value of the facet too.
        foreach (var (key, facet) in narrower)
            Add(key, new(facet, new HashSet<string>(StringComparer.Ordinal) { key }));
    }

    // The first line of a word says what it claims; another facet that it is listed in can back it as well.
    private static void Add(string key, VocabularyEntry entry)
    {
        if (!ByKey.TryAdd(key, entry) && entry.Facet is { } facet && ByKey[key] is { Facet: { } known } first && facet != known)
            ByKey[key] = first with { OtherFacet = first.OtherFacet ?? facet };
    }

    private static void ReadDigest()
    {
        foreach (var line in WordData.Digest("vocabulary.gz"))
        {
            var parts = line.Split('\t');
            var (facet, key) = (Enum.Parse<Facet>(parts[0], ignoreCase: true), KeyOf(parts[1]));
            if (parts[3].Length > 0)
                ImpliedByKey.TryAdd(key, parts[3]);
            Add(
                key,
                new(facet, new HashSet<string>(StringComparer.Ordinal) { key })
                {
                    IsAmbiguous = parts[2] == "1",
                    NeedsContext = facet == Facet.Audience,
                }
            );
        }
    }
}
