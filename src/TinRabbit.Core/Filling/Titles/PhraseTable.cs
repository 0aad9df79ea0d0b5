using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Titles;

/// <summary>
/// The phrases that a title can be made of, by number, with what is compared of their words: first the terms, then the fragments of terms
/// that were asked for.
/// </summary>
internal sealed class PhraseTable
{
    private readonly Unit _unit;
    private readonly int _spaceSize;
    private readonly AvoidedTerms _avoided;
    private readonly Dictionary<string, int> _looseNumbers = new(StringComparer.Ordinal);
    private readonly Dictionary<(int First, int Second), int> _fragments = [];
    private readonly int _terms;

    // By phrase, and by word in it.
    private readonly List<string[]> _words = [];
    private readonly List<string[]> _written = [];
    private readonly List<int[]> _sizes = [];
    private readonly List<int[]> _keys = [];
    private readonly List<int[]> _letters = [];
    private readonly List<int[]> _looseKeys = [];
    private readonly bool[] _isSmall;

    /// <param name="unit">What room is counted in.</param>
    /// <param name="keepsCapitals">Whether words are written as in the terms; otherwise in lower case.</param>
    /// <param name="prepared">The terms, prepared for the platform.</param>
    /// <param name="terms">The same terms.</param>
    /// <param name="avoided">What no title may say.</param>
    public PhraseTable(Unit unit, bool keepsCapitals, TermSet prepared, IReadOnlyList<WantedTerm> terms, AvoidedTerms avoided)
    {
        (_unit, _spaceSize, _avoided, _terms) = (unit, TextLength.Of(" ", unit), avoided, terms.Count);
        AvoidedPhrases = [.. avoided.Phrases.Select(p => p.Select(LooseNumber).ToArray())];
        for (var t = 0; t < terms.Count; t++)
        {
            string[] words = [.. prepared.Terms[t].Tokens.Select(w => w.Word)];
            Add(
                words,
                keepsCapitals ? [.. prepared.Terms[t].Tokens.Select(w => terms[t].Text.Substring(w.Start, w.Length))] : words,
                prepared.Terms[t].Variants[0].Folded,
                prepared.Terms[t].Letters
            );
        }

        _isSmall = new bool[prepared.Folded.Count];
        for (var t = 0; t < terms.Count; t++)
        for (var i = 0; i < _keys[t].Length; i++)
            _isSmall[_keys[t][i]] |= StopWords.Has(_words[t][i]);
    }

    /// <summary>The avoided phrases, their words numbered as <see cref="LooseKeys"/> are.</summary>
    public int[][] AvoidedPhrases { get; }

    /// <summary>By phrase: its words, normalised.</summary>
    public IReadOnlyList<string[]> Words => _words;

    /// <summary>By phrase: its words as they are written.</summary>
    public IReadOnlyList<string[]> Written => _written;

    /// <summary>By phrase: the room that each of its words uses.</summary>
    public List<int[]> Sizes => _sizes;

    /// <summary>By phrase: the numbers of its words among the folded words.</summary>
    public List<int[]> Keys => _keys;

    /// <summary>By phrase: the numbers of its words letter for letter.</summary>
    public List<int[]> Letters => _letters;

    /// <summary>By phrase: the numbers of its words as avoided terms compare them; none where nothing is avoided.</summary>
    public List<int[]> LooseKeys => _looseKeys;

    /// <summary>Whether a folded word is a small one, which may come as often as it likes.</summary>
    public bool IsSmall(int key) => _isSmall[key];

    /// <summary>The number of the term with these words; −1 when there is none.</summary>
    public int Find(string key) => _words.FindIndex(0, _terms, t => string.Join(' ', t) == key);

    /// <summary>The room that a phrase uses by itself.</summary>
    public int SizeOf(int phrase) => _sizes[phrase].Sum() + _spaceSize * (_sizes[phrase].Length - 1);

    /// <summary>The room that a fragment uses by itself.</summary>
    public int SizeOf(Fragment fragment) =>
        _sizes[fragment.Term][fragment.First] + (fragment.Second < 0 ? 0 : _spaceSize + _sizes[fragment.Term][fragment.Second]);

    /// <summary>What tells a fragment from others: its words letter for letter.</summary>
    public (int First, int Second) KeyOf(Fragment fragment) =>
        (_letters[fragment.Term][fragment.First], fragment.Second < 0 ? -1 : _letters[fragment.Term][fragment.Second]);

    /// <summary>The number of the phrase that a fragment is. The same words have the same number.</summary>
    public int Add(Fragment fragment)
    {
        var key = KeyOf(fragment);
        if (_fragments.TryGetValue(key, out var number))
            return number;
        int[] places = fragment.Second < 0 ? [fragment.First] : [fragment.First, fragment.Second];
        _fragments[key] = number = _words.Count;
        Add(Of(_words), Of(_written), Of(_keys), Of(_letters));
        return number;

        T[] Of<T>(List<T[]> byPhrase) => [.. places.Select(p => byPhrase[fragment.Term][p])];
    }

    private void Add(string[] words, string[] written, int[] keys, int[] letters)
    {
        _words.Add(words);
        _written.Add(written);
        _sizes.Add([.. written.Select(w => TextLength.Of(w, _unit))]);
        _keys.Add(keys);
        _letters.Add(letters);
        _looseKeys.Add(_avoided.Any ? [.. words.Select(w => LooseNumber(_avoided.KeyOf(w)))] : []);
    }

    private int LooseNumber(string key) =>
        _looseNumbers.TryGetValue(key, out var number) ? number : _looseNumbers[key] = _looseNumbers.Count;
}
