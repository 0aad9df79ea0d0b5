using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Matching;

/// <summary>
/// A million known terms, ready to be found in a text: each lies under the rarest of its words, so that a text asks only for the terms
/// whose rarest word it has. Terms are added at any time; not safe for two threads at once.
/// </summary>
public sealed class KnownTerms
{
    private readonly Platform _platform;
    private readonly HashSet<string> _ignored;
    private readonly Dictionary<string, int> _words = new(StringComparer.Ordinal);
    private readonly Dictionary<string, int> _numbers = new(StringComparer.Ordinal);
    private readonly List<int> _counts = [];
    private readonly List<List<int>> _byRarestWord = [];
    private readonly List<int> _starts = [0];
    private readonly List<int> _wordsOfTerms = [];

    /// <summary>Terms for a platform: its folds and ignored words are applied.</summary>
    public KnownTerms(Platform platform)
    {
        _platform = platform.OfOneText();
        _ignored = [.. platform.Search.IgnoredWords.SelectMany(Tokens.Of).Select(t => t.Word)];
    }

    /// <summary>How many were added.</summary>
    public int Count => _starts.Count - 1;

    /// <summary>Adds terms, each as its words joined by single spaces (<see cref="Tokens.Key"/>).</summary>
    public void Add(IEnumerable<string> keys)
    {
        var first = Count;
        foreach (var key in keys)
        {
            var from = _wordsOfTerms.Count;
            for (var at = 0; at <= key.Length; )
            {
                var end = key.IndexOf(' ', at) is >= 0 and var space ? space : key.Length;
                var word = NumberOf(key[at..end]);
                if (word >= 0 && _wordsOfTerms.IndexOf(word, from) < 0)
                {
                    _wordsOfTerms.Add(word);
                    _counts[word]++;
                }

                at = end + 1;
            }

            _starts.Add(_wordsOfTerms.Count);
        }

        // A term of ignored words only is not indexed, because no word would find it.
        for (var term = first; term < Count; term++)
        {
            var rarest = -1;
            for (var i = _starts[term]; i < _starts[term + 1]; i++)
                if (rarest < 0 || _counts[_wordsOfTerms[i]] < _counts[rarest])
                    rarest = _wordsOfTerms[i];
            if (rarest >= 0)
                _byRarestWord[rarest].Add(term);
        }
    }

    /// <summary>Every known term that a text has the words of, with how firmly it holds it.</summary>
    /// <param name="text">A title, say.</param>
    /// <param name="keyOf">The key of a term by its number.</param>
    public IReadOnlyList<KnownTerm> FindIn(string text, Func<int, string> keyOf)
    {
        var has = new HashSet<int>();
        var tokens = Tokens.Of(text);
        for (var i = 0; i < tokens.Count; i++)
        {
            Have(tokens[i].Word);
            if (!_platform.Search.Folds.HasFlag(Folds.Compound))
                continue;
            if (i > 0 && Fold.Join(tokens[i - 1], tokens[i]) is { } joined)
                Have(joined);
            if (Fold.Split(tokens[i].Word) is { } halves)
            {
                Have(halves.First);
                Have(halves.Second);
            }
        }

        var found = new List<int>();
        foreach (var word in has)
        foreach (var term in _byRarestWord[word])
        {
            var all = true;
            for (var i = _starts[term]; i < _starts[term + 1] && all; i++)
                all = has.Contains(_wordsOfTerms[i]);
            if (all)
                found.Add(term);
        }

        var ready = TermSet.Prepare(_platform, [.. found.Select(keyOf)]);
        var matcher = new Matcher(ready, ListingIndex.Build(_platform, Platform.CopyOf(text)));
        return [.. found.Select((term, i) => new KnownTerm(term, matcher.Grade(i).Grade)).Where(t => t.Grade > Grade.Missing)];

        void Have(string word)
        {
            if (_words.TryGetValue(KeyOf(word), out var number))
                has.Add(number);
        }
    }

    // Ignores accents, because an exact phrase does; the matcher then grades what is found.
    private string KeyOf(string word) => Fold.Letters(Fold.Key(word, _platform.Search.Folds));

    private int NumberOf(string word)
    {
        if (_numbers.TryGetValue(word, out var number))
            return number;
        if (_ignored.Contains(word))
            return _numbers[word] = -1;
        var key = KeyOf(word);
        if (!_words.TryGetValue(key, out number))
        {
            _words[key] = number = _counts.Count;
            _counts.Add(0);
            _byRarestWord.Add([]);
        }

        return _numbers[word] = number;
    }
}
