using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Matching;

/// <summary>Terms made ready for one platform, so that any number of listings can be matched against them.</summary>
public sealed class TermSet
{
    private readonly Dictionary<string, int> _letters = new(StringComparer.Ordinal);
    private int[][]? _postings;
    private readonly Dictionary<string, int> _folded = new(StringComparer.Ordinal);

    private TermSet(Platform platform, int count)
    {
        Platform = platform;
        Terms = new PreparedTerm[count];
    }

    /// <summary>The platform whose folds and ignored words were applied.</summary>
    public Platform Platform { get; }

    internal PreparedTerm[] Terms { get; }

    /// <summary>The words that a listing must have for a term to be held at all, all terms in one run: most terms fail here.</summary>
    internal int[] RequiredWords { get; private set; } = [];

    /// <summary>Where each term's run of <see cref="RequiredWords"/> begins; it is empty where a term must be looked at more closely.</summary>
    internal int[] RequiredFrom { get; private set; } = [];

    internal IReadOnlyCollection<string> Letters => _letters.Keys;

    internal IReadOnlyCollection<string> Folded => _folded.Keys;

    internal int FindLetters(string key) => _letters.GetValueOrDefault(key, -1);

    internal int FindFolded(string key) => _folded.GetValueOrDefault(key, -1);

    /// <summary>Makes terms ready.</summary>
    /// <exception cref="InvalidInputException">A term has no word; the path names it.</exception>
    public static TermSet Prepare(Platform platform, IReadOnlyList<string> texts)
    {
        var set = new TermSet(platform, texts.Count);
        var ignored = platform.Search.IgnoredWords.SelectMany(Tokens.Of).Select(t => t.Word).ToHashSet(StringComparer.Ordinal);
        var words = new Dictionary<string, Word>(StringComparer.Ordinal);
        for (var i = 0; i < texts.Count; i++)
        {
            var tokens = Tokens.Of(texts[i]);
            if (tokens.Count == 0)
                throw new InvalidInputException([new($"terms[{i}].text", $"\"{texts[i]}\" has no word in it.")]);
            set.Terms[i] = set.PrepareTerm(tokens, ignored, words);
        }

        set.CollectRequiredWords();
        return set;
    }

    /// <summary>The words without which a term is not held; none where it must be looked at more closely.</summary>
    internal ReadOnlySpan<int> RequiredOf(int term) => RequiredWords.AsSpan(RequiredFrom[term]..RequiredFrom[term + 1]);

    /// <summary>The numbers of the terms that have a word in any of their variants, by its number among <see cref="Folded"/>. Worked out once.</summary>
    internal int[] TermsOf(int word) => (_postings ??= Postings())[word];

    private int[][] Postings()
    {
        var terms = Enumerable.Range(0, _folded.Count).Select(_ => new List<int>()).ToArray();
        for (var i = 0; i < Terms.Length; i++)
            foreach (var word in Terms[i].Variants.SelectMany(v => v.Folded).Distinct())
                terms[word].Add(i);
        return [.. terms.Select(t => t.ToArray())];
    }

    private PreparedTerm PrepareTerm(List<Token> tokens, HashSet<string> ignored, Dictionary<string, Word> words)
    {
        var (letters, folded, skipped) = (new int[tokens.Count], new int[tokens.Count], new bool[tokens.Count]);
        for (var i = 0; i < letters.Length; i++)
        {
            if (!words.TryGetValue(tokens[i].Word, out var word))
                words[tokens[i].Word] = word = Intern(tokens[i].Word, ignored);
            (letters[i], folded[i], skipped[i]) = (word.Letters, word.Folded, word.Ignored);
        }

        var plain = new TermVariant(folded, skipped, null);
        return new(
            tokens,
            letters,
            Platform.Search.Folds.HasFlag(Folds.Compound) && tokens.Count is > 1 and <= Bounds.TermWords
                ? WithJoined(tokens, plain)
                : [plain]
        );
    }

    private TermVariant[] WithJoined(List<Token> tokens, TermVariant plain)
    {
        var variants = new List<TermVariant> { plain };
        AddJoined(tokens, plain, 0, [], [], [], variants);
        return [.. variants];
    }

    // Collects each term's required words. Only where diacritics fold: there an exact phrase is always a folded one too.
    private void CollectRequiredWords()
    {
        var simple = Platform.Search.Folds.HasFlag(Folds.Diacritics);
        var needed = new List<int>(Terms.Length * 3);
        RequiredFrom = new int[Terms.Length + 1];
        for (var i = 0; i < Terms.Length; i++)
        {
            RequiredFrom[i] = needed.Count;
            if (simple && Terms[i].Variants is [var only])
                for (var k = 0; k < only.Folded.Length; k++)
                    if (!only.Ignored[k])
                        needed.Add(only.Folded[k]);
        }

        RequiredFrom[^1] = needed.Count;
        RequiredWords = [.. needed];
    }

    private Word Intern(string word, HashSet<string> ignored) =>
        new(Number(_letters, Fold.Letters(word)), Number(_folded, Fold.Key(word, Platform.Search.Folds)), ignored.Contains(word));

    private static int Number(Dictionary<string, int> numbers, string key) =>
        numbers.TryGetValue(key, out var n) ? n : numbers[key] = numbers.Count;

    // Adds, recursively, up to eight ways of writing some neighbours as one word.
    private void AddJoined(
        List<Token> tokens,
        TermVariant plain,
        int at,
        List<int> folded,
        List<bool> ignored,
        List<int> widths,
        List<TermVariant> variants
    )
    {
        if (at == tokens.Count)
        {
            if (widths.Contains(2))
                variants.Add(new([.. folded], [.. ignored], [.. widths]));
            return;
        }

        Take(plain.Folded[at], plain.Ignored[at], 1);
        if (at + 1 < tokens.Count && variants.Count < 8 && Fold.Join(tokens[at], tokens[at + 1]) is { } joined)
            Take(Number(_folded, Fold.Key(joined, Platform.Search.Folds)), false, 2);

        void Take(int fold, bool skip, int width)
        {
            folded.Add(fold);
            ignored.Add(skip);
            widths.Add(width);
            AddJoined(tokens, plain, at + width, folded, ignored, widths, variants);
            folded.RemoveAt(folded.Count - 1);
            ignored.RemoveAt(ignored.Count - 1);
            widths.RemoveAt(widths.Count - 1);
        }
    }

    private readonly record struct Word(int Letters, int Folded, bool Ignored);

    /// <param name="Tokens">Its words as typed.</param>
    /// <param name="Letters">Numbers into <see cref="TermSet.Letters"/>.</param>
    /// <param name="Variants">The term itself, then the ways in which some of its words join.</param>
    internal sealed record PreparedTerm(List<Token> Tokens, int[] Letters, TermVariant[] Variants)
    {
        private string?[]? _joins;

        /// <summary>For each word but the last, what it makes as one word with the next; null where the two are not one. Worked out once.</summary>
        public string?[] Joins => _joins ??= [.. Tokens.Zip(Tokens.Skip(1), Fold.Join)];
    }

    /// <param name="Folded">Numbers into <see cref="TermSet.Folded"/>.</param>
    /// <param name="Ignored">Which of them the platform drops from a query.</param>
    /// <param name="Widths">How many of the term's words each stands for; null when all stand for one.</param>
    internal sealed record TermVariant(int[] Folded, bool[] Ignored, int[]? Widths)
    {
        /// <summary>Whether the platform drops all of it: then only the phrase itself counts.</summary>
        public bool OnlyIgnored { get; } = Array.IndexOf(Ignored, false) < 0;
    }
}
