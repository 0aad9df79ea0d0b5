namespace TinRabbit.Core.Words;

/// <summary>Words that mean the same or nearly so, from a digest of WordNet made at build (Data/NOTICE.md).</summary>
public static class Thesaurus
{
    private const int SensesLookedAt = 3;
    private const int MostOfAKind = 14;

    private static readonly Lazy<Digest> Words = new(Digest.Read);

    /// <summary>Words alike to a word or phrase, by its commonest meanings; none for one that is not known.</summary>
    public static IReadOnlyList<RelatedWord> Of(string word)
    {
        var key = Tokens.Key(word);
        var found = new List<RelatedWord>();
        foreach (var form in (string[])[key, Fold.Letters(key), .. Family.Forms(word)])
            if (found.Count == 0)
                found = Words.Value.Of(form);
        return
        [
            .. found
                .Where(a => a.Word != key)
                .DistinctBy(a => (a.Word, a.Part))
                .GroupBy(a => (a.Part, a.Likeness))
                .SelectMany(g => g.Take(MostOfAKind)),
        ];
    }

    /// <summary>Whether a word can be an adjective.</summary>
    public static bool IsAdjective(string word) => Words.Value.Has(word, 'a');

    /// <summary>Whether a word can be a verb.</summary>
    public static bool IsVerb(string word) => Words.Value.Has(word, 'v');

    /// <summary>Whether a word can be a noun.</summary>
    public static bool IsNoun(string word) =>
        Words.Value.Has(word, 'n') || (Plurals.IsPlural(word) && Words.Value.Has(Plurals.SingularOf(word), 'n'));

    private sealed class Digest
    {
        private readonly List<(char Part, string[] Words, int[] Above, int[] Like)> _synsets = [];
        private readonly Dictionary<(string Word, char Part), int[]> _senses = [];
        private readonly Dictionary<int, List<int>> _below = [];

        public static Digest Read()
        {
            var digest = new Digest();
            foreach (var line in WordData.Digest("alike.gz"))
            {
                var parts = line.Split('\t');
                if (parts[0] == "=")
                {
                    digest._senses[(parts[1], parts[2][0])] = Ids(parts[3]);
                    continue;
                }

                var id = digest._synsets.Count;
                digest._synsets.Add((parts[0][0], parts[1].Split(','), Ids(parts[2]), Ids(parts[3])));
                foreach (var word in digest._synsets[id].Words)
                    digest._senses.TryAdd((word, parts[0][0]), [id]);
                foreach (var above in digest._synsets[id].Above)
                    (digest._below.TryGetValue(above, out var list) ? list : digest._below[above] = []).Add(id);
            }

            return digest;
        }

        public bool Has(string word, char part) => _senses.ContainsKey((word, part));

        public List<RelatedWord> Of(string word)
        {
            var found = new List<RelatedWord>();
            foreach (var (part, name) in new[] { ('n', "noun"), ('v', "verb"), ('a', "adjective"), ('r', "adverb") })
            {
                if (!_senses.TryGetValue((word, part), out var senses))
                    continue;
                foreach (var (sense, number) in senses.Take(SensesLookedAt).Select((s, i) => (s, i)))
                {
                    Add(sense, Relation.Same, number);
                    foreach (var like in _synsets[sense].Like)
                        Add(like, Relation.Similar, number);
                    foreach (var above in _synsets[sense].Above)
                        Add(above, Relation.Broader, number);
                    foreach (var below in _below.GetValueOrDefault(sense, []))
                        Add(below, Relation.Narrower, number);
                    if (sense == senses[0])
                        foreach (var beside in _synsets[sense].Above.SelectMany(a => _below[a]).Where(b => b != sense))
                            Add(beside, Relation.Beside, number);
                }

                void Add(int synset, Relation likeness, int number) =>
                    found.AddRange(_synsets[synset].Words.Where(w => w != word).Select(w => new RelatedWord(w, name, likeness, number)));
            }

            return [.. found.OrderBy(a => a.Likeness)];
        }

        private static int[] Ids(string list) =>
            list.Length == 0 ? [] : [.. list.Split(' ').Select(i => int.Parse(i, System.Globalization.CultureInfo.InvariantCulture))];
    }
}
