using System.Collections.Concurrent;
using Humanizer;

namespace TinRabbit.Core.Words;

/// <summary>The spellings and forms of one term: singular and plural, joined and split, regional spellings, ways to write a number.</summary>
public static class Family
{
    private const int MostForms = 48;

    private static readonly string[] Numbers =
    [
        "zero",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
    ];
    private static readonly Dictionary<string, string> Digits = Numbers
        .Select((word, i) => (word, i))
        .ToDictionary(n => n.word, n => n.i.ToString(System.Globalization.CultureInfo.InvariantCulture));
    private static readonly ILookup<string, string> British = Spelling.Pairs.ToLookup(p => p.American, p => p.British);

    private static readonly Func<string[], IEnumerable<string[]>>[] Changes =
    [
        JoinedOrSplit,
        NumbersWritten,
        RespelledForms,
        InOtherNumber,
    ];

    // Caches: these are slow to compute, and the words of a trade are few.
    private static readonly Memory<string> Folded = new(word =>
        string.Join(' ', Parts(word).Select(w => Fold.Key(Digits.GetValueOrDefault(w, w), Fold.AnyForm)))
    );
    private static readonly Memory<string[]> OtherNumbers = new(word =>
        [
            .. new[] { word.Pluralize(false), word.Singularize(false) }
                .Select(w => w.ToLowerInvariant())
                .Where(w => w != word && Plurals.Stem(w) == Plurals.Stem(word))
                .Distinct(),
        ]
    );

    /// <summary>What all members of a family share, and no other term.</summary>
    public static string Key(string text)
    {
        var tokens = Tokens.Of(text);
        var words = new List<string>(tokens.Count);
        for (var i = 0; i < tokens.Count; i++)
            if (i + 1 < tokens.Count && Fold.Join(tokens[i], tokens[i + 1]) is { } joined)
            {
                words.Add(Folded.Of(joined));
                i++;
            }
            else
                words.Add(Folded.Of(tokens[i].Word));
        return string.Join(' ', words);
    }

    /// <summary>The forms that people may type, the term itself first. Whether anyone does is for a market to say.</summary>
    public static IReadOnlyList<string> Forms(string text)
    {
        var forms = new List<string> { Written(text) };
        if (IsTooLong(forms[0]))
            return forms;
        foreach (var change in (Func<string[], IEnumerable<string[]>>[])[.. Changes, InOtherNumber])
        foreach (var form in forms.ToArray())
        foreach (var other in change(form.Split(' ')).Select(w => string.Join(' ', w)))
            if (forms.Count < MostForms && !forms.Contains(other))
                forms.Add(other);
        return KeepSameFamily(forms);
    }

    /// <summary>The forms that are one change away, the term itself first: enough to see whether a source counts a family together.</summary>
    public static IReadOnlyList<string> OneChangeForms(string text)
    {
        var written = Written(text);
        if (IsTooLong(written))
            return [written];
        var words = written.Split(' ');
        return KeepSameFamily([
            written,
            .. Changes.SelectMany(change => change(words)).Select(w => string.Join(' ', w)).Distinct().Where(f => f != written),
        ]);
    }

    // Nobody types that many words, and the number of forms grows with them.
    private static bool IsTooLong(string written) => written.Count(c => c == ' ') >= Bounds.TermWords;

    private static string Written(string text) => string.Join(' ', Tokens.Of(text).Select(t => t.Word));

    private static List<string> KeepSameFamily(List<string> forms)
    {
        var key = Key(forms[0]);
        return [.. forms.Where((f, i) => i == 0 || Key(f) == key)];
    }

    private static IEnumerable<string[]> JoinedOrSplit(string[] words)
    {
        for (var i = 0; i + 1 < words.Length; i++)
            if (Tokens.Of($"{words[i]} {words[i + 1]}") is [var one, var two] && Fold.Join(one, two) is { } joined)
                yield return [.. words[..i], joined, .. words[(i + 2)..]];
        for (var i = 0; i < words.Length; i++)
            if (Fold.Split(words[i]) is { } halves)
                yield return [.. words[..i], halves.First, halves.Second, .. words[(i + 1)..]];
    }

    // 28mm and 28 mm; 5x7 and 5 x 7; three and 3.
    private static IEnumerable<string[]> NumbersWritten(string[] words)
    {
        for (var i = 0; i < words.Length; i++)
        {
            if (Parts(words[i]) is { Count: > 1 } parts)
                yield return [.. words[..i], .. parts, .. words[(i + 1)..]];
            if (
                i + 1 < words.Length
                && char.IsAsciiDigit(words[i][^1])
                && (words[i + 1] is "mm" or "cm" or "in" or "inch" or "ft" or "oz" or "lb" or "ml" or "pack" || IsTimes(words, i))
            )
                yield return IsTimes(words, i)
                    ? [.. words[..i], words[i] + "x" + words[i + 2], .. words[(i + 3)..]]
                    : [.. words[..i], words[i] + words[i + 1], .. words[(i + 2)..]];
            if (Digits.TryGetValue(words[i], out var digits))
                yield return [.. words[..i], digits, .. words[(i + 1)..]];
            if (int.TryParse(words[i], out var number) && number is > 0 && number < Numbers.Length && words[i][0] != '0')
                yield return [.. words[..i], Numbers[number], .. words[(i + 1)..]];
        }

        static bool IsTimes(string[] words, int i) =>
            i + 2 < words.Length && words[i + 1] == "x" && char.IsAsciiDigit(words[i][^1]) && char.IsAsciiDigit(words[i + 2][0]);
    }

    private static IEnumerable<string[]> RespelledForms(string[] words)
    {
        for (var i = 0; i < words.Length; i++)
        {
            string[] With(string word) => [.. words[..i], word, .. words[(i + 1)..]];
            if (Spelling.ToAmerican(words[i]) is var american && american != words[i])
                yield return With(american);
            foreach (var british in British[words[i]].Where(b => !b.EndsWith("'s", StringComparison.Ordinal)))
                yield return With(british);
            if (Fold.Letters(words[i]) is var bare && bare != words[i])
                yield return With(bare);
            if (words[i].EndsWith("'s", StringComparison.Ordinal))
                yield return With(words[i][..^2] + "s");
            else if (words[i] is "womens" or "mens" or "kids" or "childrens" or "mothers" or "fathers" or "birders")
                yield return With(words[i][..^1] + "'s");
        }
    }

    // What the term is about, and its last word.
    private static IEnumerable<string[]> InOtherNumber(string[] words)
    {
        foreach (var i in new[] { StopWords.About(words), words.Length - 1 }.Distinct())
        {
            if (words[i].Length < 3 || !words[i].All(char.IsLetter))
                continue;
            foreach (var other in OtherNumbers.Of(words[i]))
                yield return [.. words[..i], other, .. words[(i + 1)..]];
        }
    }

    // Digits and letters apart: 28mm, 5x7.
    private static List<string> Parts(string word)
    {
        if (!word.Any(char.IsAsciiDigit) || word.All(c => char.IsAsciiDigit(c) || c is '.' or ','))
            return [word];
        var parts = new List<string>();
        var start = 0;
        for (var i = 1; i <= word.Length; i++)
            if (i == word.Length || (char.IsLetter(word[i]) != char.IsLetter(word[i - 1])))
            {
                parts.Add(word[start..i]);
                start = i;
            }

        return parts;
    }

    // A bounded cache by word.
    private sealed class Memory<T>(Func<string, T> find)
    {
        private const int Most = 50_000;
        private readonly ConcurrentDictionary<string, T> _known = new(StringComparer.Ordinal);

        public T Of(string word)
        {
            if (_known.TryGetValue(word, out var known))
                return known;
            if (_known.Count > Most)
                _known.Clear();
            return _known[word] = find(word);
        }
    }
}
