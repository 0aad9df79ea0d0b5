using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Matching;

/// <summary>A listing's indexed words, each with the places where it stands. Built once, asked by any number of terms.</summary>
public sealed class ListingIndex
{
    private readonly Dictionary<string, int> _letters = new(StringComparer.Ordinal);
    private readonly Dictionary<string, int> _folded = new(StringComparer.Ordinal);
    private readonly List<List<int>> _letterPostings = [];
    private readonly List<List<int>> _foldPostings = [];
    private Token[] _tokens = [];
    private int[] _letterAt = [];
    private int[] _foldAt = [];
    private int[] _joinAt = [];
    private int[] _unitAt = [];

    private ListingIndex(Platform platform)
    {
        Platform = platform;
        Fields = platform.IndexedFields;
    }

    /// <summary>The platform whose fields and folds were applied.</summary>
    public Platform Platform { get; }

    internal IReadOnlyList<Field> Fields { get; }

    internal List<IndexedUnit> Units { get; } = [];

    /// <summary>Whether some neighbours may be read as one word.</summary>
    internal bool HasJoins { get; private set; }

    /// <summary>Places of a joined pair are marked by this bit; the rest is the place of its first word.</summary>
    internal const int Pair = 1;

    /// <summary>Indexes the fields of a listing that the platform's search reads.</summary>
    public static ListingIndex Build(Platform platform, IReadOnlyDictionary<string, FieldValue> copy) =>
        Build(platform, copy, new(platform.Search.Folds));

    /// <summary>Indexes a listing most of whose texts were indexed before.</summary>
    internal static ListingIndex Build(Platform platform, IReadOnlyDictionary<string, FieldValue> copy, WordCache words)
    {
        var index = new ListingIndex(platform);
        var cut = new List<List<Token>>();
        for (var f = 0; f < index.Fields.Count; f++)
        {
            var field = index.Fields[f];
            if (!copy.TryGetValue(field.Key, out var value))
                continue;
            var item = 0;
            foreach (var text in value.Units(field.Shape))
            {
                var tokens = ReadTokens(text, field, words);
                index.Units.Add(new(f, item++, index.Places, tokens.Count));
                index.Places += tokens.Count + 1; // and a gap, so that no phrase runs from one unit into the next
                cut.Add(tokens);
            }
        }

        index.Fill(cut, words);
        return index;
    }

    internal int FindFolded(string key) => _folded.GetValueOrDefault(key, -1);

    /// <summary>Its distinct words by their letters, each with its number.</summary>
    internal Dictionary<string, int> LetterWords => _letters;

    /// <summary>Its distinct words as the platform folds them, each with its number.</summary>
    internal Dictionary<string, int> FoldedWords => _folded;

    internal List<int> LetterPostings(int letters) => _letterPostings[letters];

    internal List<int> FoldPostings(int folded) => _foldPostings[folded];

    internal int FoldCount => _foldPostings.Count;

    internal int LetterAt(int place) => _letterAt[place];

    internal int FoldAt(int place) => _foldAt[place];

    internal int JoinAt(int place) => _joinAt[place];

    internal int UnitAt(int place) => _unitAt[place];

    internal Token TokenAt(int place) => _tokens[place];

    internal int Places { get; private set; }

    /// <summary>Whether a word stands at a place, rather than the gap between two units.</summary>
    internal bool IsWord(int place) => _letterAt[place] >= 0;

    private static List<Token> ReadTokens(string text, Field field, WordCache words)
    {
        var tokens = words.TokensOf(text);
        if (field.IndexedFirst is not { } first)
            return tokens;
        var cut = TextLength.OffsetOf(text, first);
        return [.. tokens.Where(t => t.End <= cut)];
    }

    private void Fill(List<List<Token>> cut, WordCache words)
    {
        var most = cut.Sum(c => c.Count);
        _letters.EnsureCapacity(most);
        _folded.EnsureCapacity(most);
        _tokens = new Token[Places];
        (_letterAt, _foldAt, _joinAt, _unitAt) = (new int[Places], new int[Places], new int[Places], new int[Places]);
        Array.Fill(_letterAt, -1);
        Array.Fill(_foldAt, -1);
        Array.Fill(_joinAt, -1);
        var seen = new Dictionary<string, (int Letters, int Folded)>(most, StringComparer.Ordinal);
        var place = 0;
        for (var unit = 0; unit < cut.Count; unit++, place++)
            foreach (var token in cut[unit])
            {
                if (!seen.TryGetValue(token.Word, out var keys))
                {
                    var (letters, folded) = words.KeysOf(token.Word);
                    seen[token.Word] = keys = (Number(_letters, _letterPostings, letters), Number(_folded, _foldPostings, folded));
                }

                _letterPostings[keys.Letters].Add(place);
                _foldPostings[keys.Folded].Add(place << 1);
                (_tokens[place], _letterAt[place], _foldAt[place], _unitAt[place]) = (token, keys.Letters, keys.Folded, unit);
                place++;
            }

        if (Platform.Search.Folds.HasFlag(Folds.Compound))
            AddJoins();
    }

    private void AddJoins()
    {
        for (var place = 1; place < Places; place++)
            if (IsWord(place - 1) && IsWord(place) && Fold.Join(_tokens[place - 1], _tokens[place]) is { } joined)
            {
                var folded = Number(_folded, _foldPostings, Fold.Key(joined, Platform.Search.Folds));
                _joinAt[place - 1] = folded;
                _foldPostings[folded].Add((place - 1) << 1 | Pair);
                HasJoins = true;
            }

        if (HasJoins)
            _foldPostings.ForEach(p => p.Sort());
    }

    private static int Number(Dictionary<string, int> numbers, List<List<int>> places, string key)
    {
        if (numbers.TryGetValue(key, out var number))
            return number;
        places.Add([]);
        return numbers[key] = numbers.Count;
    }

    /// <param name="Field">Number of the indexed field.</param>
    /// <param name="Item">Item within the field.</param>
    /// <param name="Start">Place of its first word.</param>
    /// <param name="Count">Its words.</param>
    internal readonly record struct IndexedUnit(int Field, int Item, int Start, int Count);
}
