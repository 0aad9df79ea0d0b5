using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Moves;

/// <summary>
/// What a pick can gain at most when its words are added to a field, so that a search among very many picks can pass over most of them.
/// It leaves out what other terms gain by what is taken out of the field at the same time.
/// </summary>
internal sealed class GainBounds
{
    private readonly TermSet _terms;
    private readonly double[] _unheld;
    private readonly bool[] _inListing;
    private readonly bool[] _inField;
    private readonly double _together;
    private readonly double _spread;
    private readonly int[][] _byRarestWord;

    public GainBounds(MovesInput input, TermSet terms, Weighing before, Field field)
    {
        _terms = terms;
        _unheld = [.. Enumerable.Range(0, input.Terms.Count).Select(i => input.Terms[i].Worth() * (1 - before.Terms[i].Grip))];
        (_inListing, _inField) = (WordsIn(input.Platform), WordsIn(input.Platform with { Fields = [field] }));
        _together = field.Weight * Matcher.TogetherFactor;
        _spread = input.Platform.Search.WordsCombine ? Matcher.SpreadFactor : 0;
        var rarest = Enumerable.Range(0, terms.Folded.Count).Select(_ => new List<int>()).ToArray();
        for (var i = 0; i < terms.Terms.Length; i++)
            rarest[WordsOf(i).MinBy(w => terms.TermsOf(w).Length)].Add(i);
        _byRarestWord = [.. rarest.Select(r => r.ToArray())];

        bool[] WordsIn(Platform platform)
        {
            var index = ListingIndex.Build(platform, input.Copy);
            return [.. terms.Folded.Select(w => index.FindFolded(w) >= 0)];
        }
    }

    /// <summary>Σ worth·grip that can be gained at most.</summary>
    public double Of(int pick)
    {
        var words = WordsOf(pick);
        var bound = 0.0;
        foreach (var word in words)
        foreach (var term in _byRarestWord[word])
            if (Array.TrueForAll(WordsOf(term), w => words.Contains(w)))
                bound += _unheld[term];
        foreach (var word in words)
        {
            if (_inField[word])
                continue;
            foreach (var term in _terms.TermsOf(word))
                if (Array.TrueForAll(WordsOf(term), w => _inField[w] || words.Contains(w)))
                    bound += _unheld[term] * _together;
                else if (_spread > 0 && !_inListing[word] && Array.TrueForAll(WordsOf(term), w => _inListing[w] || words.Contains(w)))
                    bound += _unheld[term] * _spread;
        }

        return bound;
    }

    private int[] WordsOf(int term) => _terms.Terms[term].Variants[0].Folded;
}
