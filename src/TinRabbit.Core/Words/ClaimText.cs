namespace TinRabbit.Core.Words;

/// <summary>A text cut into words, with those of the vocabulary found in it.</summary>
internal sealed class ClaimText
{
    private static readonly HashSet<string> Purity = ["pure", "100", "solid", "all", "entirely"];

    // Whom a word before these names: "cat lovers", "dog owners".
    private static readonly HashSet<string> LoversOf =
    [
        .. "lover owner fan enthusiast collector keeper walker watcher parent teacher player addict fanatic maker"
            .Split(' ')
            .Select(Vocabulary.KeyOfWord),
    ];

    private static readonly string[] Numbers = "two three four five six seven eight nine ten eleven twelve".Split(' ');
    private static readonly HashSet<string> Sets = [.. "set pack bundle packet".Split(' ').Select(Vocabulary.KeyOfWord)];
    private static readonly HashSet<string> Packs = [.. "pack piece pc pcs".Split(' ').Select(Vocabulary.KeyOfWord)];

    private const string CountKey = "set of ";

    private readonly int[] _foundAt;

    private ClaimText(string text, List<Token> tokens)
    {
        (Text, Tokens, Keys) = (text, tokens, [.. tokens.Select(t => Vocabulary.KeyOfWord(t.Word))]);
        Breaks = new char[tokens.Count + 1];
        for (var i = 0; i <= tokens.Count; i++)
            Breaks[i] = BreakIn(
                text.AsSpan(
                    i == 0 ? 0 : tokens[i - 1].End,
                    (i == tokens.Count ? text.Length : tokens[i].Start) - (i == 0 ? 0 : tokens[i - 1].End)
                ),
                i == 0 || i == tokens.Count
            );
        _foundAt = new int[tokens.Count];
        Array.Fill(_foundAt, -1);
    }

    public string Text { get; }

    public IReadOnlyList<Token> Tokens { get; }

    /// <summary>By token: its key.</summary>
    public string[] Keys { get; }

    /// <summary>By token, and at the end of the text: what stands before it. '.' ends a sentence, ',' a phrase, ' ' nothing.</summary>
    public char[] Breaks { get; }

    public List<FoundWord> Found { get; } = [];

    /// <summary>The word of the vocabulary that a token belongs to; null where it is none.</summary>
    public FoundWord? FoundAt(int token) => _foundAt[token] < 0 ? null : Found[_foundAt[token]];

    /// <summary>Whether a material is called pure: "100% cotton", "solid oak".</summary>
    public bool IsCalledPure(FoundWord found) =>
        found.First > 0 && Breaks[found.First] == ' ' && Purity.Contains(Tokens[found.First - 1].Word);

    /// <summary>Reads a text; the longest phrase counts wherever several begin.</summary>
    /// <param name="text">The text.</param>
    /// <param name="own">The seller's own words, which come first: by key, what each is about; null where it claims nothing.</param>
    public static ClaimText Read(string text, IReadOnlyDictionary<string, Facet?> own)
    {
        var read = new ClaimText(text, Words.Tokens.Of(text));
        var measures = Measure.In(text);
        var next = 0;
        for (var i = 0; i < read.Tokens.Count; i++)
        {
            while (next < measures.Count && measures[next].Start + measures[next].Length <= read.Tokens[i].Start)
                next++;
            if (next < measures.Count && measures[next].Start <= read.Tokens[i].Start)
            {
                var (first, end) = (i, measures[next].Start + measures[next].Length);
                while (i + 1 < read.Tokens.Count && read.Tokens[i + 1].Start < end)
                    i++;
                read.Add(new("", first, i, measures[next].Start, end) { Measure = measures[next] });
                continue;
            }

            if ((read.CountAt(i) ?? read.PhraseAt(i, own)) is { } found)
            {
                read.Add(found);
                i = found.Last;
            }
        }

        return read;
    }

    private void Add(FoundWord found)
    {
        for (var i = found.First; i <= found.Last; i++)
            _foundAt[i] = Found.Count;
        Found.Add(found);
    }

    /// <summary>Whether what was found says how many there are.</summary>
    public static bool IsCount(FoundWord found) => found.Key.StartsWith(CountKey, StringComparison.Ordinal);

    // "set of 3", "pack of six", "3 pack": how many there are.
    private FoundWord? CountAt(int at)
    {
        if (at + 2 < Tokens.Count && Sets.Contains(Keys[at]) && Tokens[at + 1].Word == "of" && NumberOf(Tokens[at + 2].Word) is { } of)
            return Count(at, at + 2, of);
        return at + 1 < Tokens.Count && NumberOf(Tokens[at].Word) is { } number && Packs.Contains(Keys[at + 1]) && Breaks[at + 1] == ' '
            ? Count(at, at + 1, number)
            : null;

        FoundWord Count(int first, int last, int number) =>
            new($"{CountKey}{number}", first, last, Tokens[first].Start, Tokens[last].End)
            {
                Entry = new(
                    Facet.Property,
                    new HashSet<string>(
                        [.. Sets.Select(s => $"{s} of {number}"), .. Packs.Select(p => $"{number} {p}"), $"{number}"],
                        StringComparer.Ordinal
                    )
                ),
            };
    }

    private static int? NumberOf(string word) =>
        int.TryParse(word, out var number) ? number
        : Array.IndexOf(Numbers, word) is >= 0 and var named ? named + 2
        : null;

    private FoundWord? PhraseAt(int at, IReadOnlyDictionary<string, Facet?> own)
    {
        var longest = own.Count > 0 ? Vocabulary.Longest : Vocabulary.LongestFrom(Keys[at]);
        for (var count = Math.Min(longest, Tokens.Count - at); count > 0; count--)
        {
            var within = true;
            for (var i = at + 1; i < at + count && within; i++)
                within = Breaks[i] == ' ';
            if (!within)
                continue;
            var key = count == 1 ? Keys[at] : string.Join(' ', Keys, at, count);
            var entry = own.TryGetValue(key, out var facet)
                ? new(facet, new HashSet<string>(StringComparer.Ordinal) { key })
                : Vocabulary.Find(key);
            if (entry is null)
                continue;
            // "cat lovers" are not lovers of anything else.
            if (
                count == 1
                && entry.Facet == Facet.Audience
                && at > 0
                && Breaks[at] == ' '
                && LoversOf.Contains(key)
                && IsContent(at - 1)
                && FoundAt(at - 1) is null
            )
                return new($"{Keys[at - 1]} {key}", at - 1, at, Tokens[at - 1].Start, Tokens[at].End)
                {
                    Entry = entry with { Backing = new HashSet<string>(StringComparer.Ordinal) { $"{Keys[at - 1]} {key}" } },
                };
            return new(key, at, at + count - 1, Tokens[at].Start, Tokens[at + count - 1].End) { Entry = entry };
        }

        return null;
    }

    /// <summary>Whether a token is a word of content: neither a small word nor one of grammar.</summary>
    public bool IsContent(int token) => !ClaimGrammar.IsFunctionWord(Tokens[token].Word);

    private static char BreakIn(ReadOnlySpan<char> between, bool isEnd)
    {
        var kind = isEnd ? '.' : ' ';
        foreach (var c in between)
            if (c is '.' or '!' or '?' or ';' or ':' or '\n' or '•' or '|' or '–' or '—' or '…')
                return '.';
            else if (c is ',' or '(' or ')' or '/' or '"' or '“' or '”' or '+')
                kind = kind == '.' ? kind : ',';
        return kind;
    }
}
