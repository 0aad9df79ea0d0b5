using System.IO.Compression;

namespace TinRabbit.Core.Words;

/// <summary>
/// Which words can claim something of a product: the hand-kept Data/facets.txt and, below it, a digest of WordNet for any trade, made at build
/// (Data/NOTICE.md). All keys are words in any form, joined by spaces.
/// </summary>
internal static class Vocabulary
{
    private static readonly Dictionary<string, VocabularyEntry> ByKey = new(StringComparer.Ordinal);
    private static readonly List<(Facet Facet, string Usual)> Usual = [];
    private static readonly Dictionary<string, string[]> ImpliedByKey = new(StringComparer.Ordinal);

    static Vocabulary()
    {
        ReadFacets();
        ReadDigest();
        Longest = ByKey.Keys.Max(k => k.Count(c => c == ' ') + 1);
    }

    /// <summary>The most words that a phrase of the vocabulary has.</summary>
    public static int Longest { get; }

    /// <summary>The usual words of a facet, in the order of the data.</summary>
    public static IEnumerable<string> UsualOf(Facet facet) => Usual.Where(u => u.Facet == facet).Select(u => u.Usual);

    /// <summary>The entry of a key; null for words that claim nothing.</summary>
    public static VocabularyEntry? Find(string key) => ByKey.GetValueOrDefault(key);

    /// <summary>What a word implies, by its hypernyms: a product of oak is wooden.</summary>
    public static IReadOnlyList<string> ImpliedBy(string key) => ImpliedByKey.GetValueOrDefault(key, []);

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
                ByKey.TryAdd(key, entry);
            narrower.AddRange(below.Select(b => (KeyOf(b), facet)));
        }

        // A narrower word without a line of its own is a value of the facet too.
        foreach (var (key, facet) in narrower)
            ByKey.TryAdd(key, new(facet, new HashSet<string>(StringComparer.Ordinal) { key }));
    }

    private static void ReadDigest()
    {
        using var stream = typeof(Vocabulary).Assembly.GetManifestResourceStream("TinRabbit.Core.Words.Data.vocabulary.gz");
        if (stream is null)
            return;
        using var reader = new StreamReader(new GZipStream(stream, CompressionMode.Decompress));
        while (reader.ReadLine() is { } line)
        {
            var parts = line.Split('\t');
            var (facet, key) = (Enum.Parse<Facet>(parts[0], ignoreCase: true), KeyOf(parts[1]));
            if (parts[3].Length > 0)
                ImpliedByKey.TryAdd(key, [.. parts[3].Split(',').Select(KeyOf)]);
            ByKey.TryAdd(
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
