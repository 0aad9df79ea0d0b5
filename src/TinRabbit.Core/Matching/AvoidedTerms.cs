using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Matching;

/// <summary>
/// Finds what must never be said: in any field, searched or not, and in any form of its words (accents, owner, number), whatever the
/// platform's search takes as the same.
/// </summary>
public sealed class AvoidedTerms
{
    private const Folds AnyForm = Folds.Diacritics | Folds.Possessive | Folds.Plural;
    private readonly TermSet _terms;
    private readonly Platform _oneText;
    private readonly int _count;

    /// <summary>Makes terms ready to be looked for in a platform's listings.</summary>
    /// <exception cref="InvalidInputException">A term has no word; the path names it.</exception>
    public AvoidedTerms(Platform platform, IReadOnlyList<string> texts)
    {
        _count = texts.Count;
        _terms = TermSet.Prepare(
            platform with
            {
                Search = platform.Search with { Folds = platform.Search.Folds | AnyForm, IgnoredWords = [], WordsCombine = false },
                Fields = [.. platform.Fields.Select(f => f with { Indexed = true, IndexedFirst = null })],
            },
            texts
        );
        _oneText = _terms.Platform.OfOneText();
    }

    /// <summary>Whether there is any.</summary>
    public bool Any => _count > 0;

    /// <summary>Each of them as the keys of its words: for a quick look on the way; <see cref="FindIn"/> has the last word.</summary>
    internal IEnumerable<string[]> Phrases => _terms.Terms.Select(t => t.Tokens.Select(w => KeyOf(w.Word)).ToArray());

    internal string KeyOf(string word) => Fold.Key(word, _terms.Platform.Search.Folds);

    /// <summary>Which of them stand as a phrase in a listing, by number, and where.</summary>
    public IEnumerable<(int Number, IReadOnlyList<Span> Spans)> FindIn(IReadOnlyDictionary<string, FieldValue> copy) =>
        FindWith(_terms.Platform, copy);

    /// <summary>How often any of them stands in one text.</summary>
    public int UsesIn(string text) => _count == 0 ? 0 : FindWith(_oneText, Platform.CopyOf(text)).Sum(u => u.Spans.Count);

    /// <summary>The numbers of the texts in which any of them stands.</summary>
    public IReadOnlySet<int> NumbersIn(IReadOnlyList<string> texts) =>
        _count == 0
            ? new HashSet<int>()
            : FindWith(_oneText, Platform.CopyOf(texts)).SelectMany(u => u.Spans).Select(s => s.Item).ToHashSet();

    private IEnumerable<(int Number, IReadOnlyList<Span> Spans)> FindWith(Platform platform, IReadOnlyDictionary<string, FieldValue> copy)
    {
        if (_count == 0)
            yield break;
        var matcher = new Matcher(_terms, ListingIndex.Build(platform, copy));
        for (var i = 0; i < _count; i++)
            if (matcher.PhraseSpans(i) is { Count: > 0 } spans)
                yield return (i, spans);
    }
}
