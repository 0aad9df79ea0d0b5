using TinRabbit.Core.Words;

namespace TinRabbit.Core.Matching;

/// <summary>Remembers the words of texts and the keys of words, for listings that differ by little and are indexed one after another. One thread at a time.</summary>
internal sealed class WordCache(Folds folds)
{
    private const int MostTexts = 50_000;

    private readonly Dictionary<string, List<Token>> _tokens = new(StringComparer.Ordinal);
    private readonly Dictionary<string, (string Letters, string Folded)> _keys = new(StringComparer.Ordinal);

    /// <summary>The words of a text; not to be changed.</summary>
    public List<Token> TokensOf(string text)
    {
        if (_tokens.TryGetValue(text, out var tokens))
            return tokens;
        tokens = Tokens.Of(text);
        if (_tokens.Count < MostTexts)
            _tokens[text] = tokens;
        return tokens;
    }

    /// <summary>A word letter for letter, and as the platform folds it.</summary>
    public (string Letters, string Folded) KeysOf(string word)
    {
        if (!_keys.TryGetValue(word, out var keys))
            _keys[word] = keys = (Fold.Letters(word), Fold.Key(word, folds));
        return keys;
    }
}
