using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Calibrating;

/// <summary>A search whose listings' grips can be worked out for any weights of the fields without reading the texts again.</summary>
internal sealed class WeighedSearch
{
    // In the market's order: what each field would be as strong as at a weight of 1, or the fields that have each word of a term in several.
    private readonly (double[] Shares, int[][]? Words)[] _listings;

    private WeighedSearch((double[], int[][]?)[] listings) => _listings = listings;

    /// <summary>Whether weights can make a difference: some listings differ.</summary>
    public bool HasOrder =>
        _listings
            .Skip(1)
            .Any(l =>
                l.Words is null != _listings[0].Words is null
                || !l.Shares.SequenceEqual(_listings[0].Shares)
                || (l.Words is not null && l.Words.Zip(_listings[0].Words!).Any(w => !w.First.SequenceEqual(w.Second)))
            );

    /// <summary>Reads the listings of a search.</summary>
    /// <exception cref="InvalidInputException">The term has no word.</exception>
    public static WeighedSearch Of(Platform platform, RankedSearch search, CancellationToken stop)
    {
        var fields = platform.IndexedFields;
        var numbers = fields.Index().ToDictionary(f => f.Item.Key, f => f.Index);
        var ignored = platform.Search.IgnoredWords.ToHashSet(StringComparer.OrdinalIgnoreCase);
        WantedTerm[] terms =
        [
            new(search.Term),
            .. Tokens.Of(search.Term).Select(t => t.Word).Where(w => !ignored.Contains(w)).Distinct().Select(w => new WantedTerm(w)),
        ];
        var ready = TermSet.Prepare(platform, [.. terms.Select(t => t.Text)]);
        return new([
            .. search.Listings.Select(copy =>
            {
                var weighed = Weigher.Weigh(ready, copy, terms, stop).Terms;
                var shares = new double[fields.Count];
                if (weighed[0].Grade == Grade.Spread)
                    return (
                        shares,
                        (int[][]?)
                            [
                                .. weighed
                                    .Skip(1)
                                    .Select(word =>
                                        word.Explain().Fields.Index().Where(f => f.Item != Grade.Missing).Select(f => f.Index).ToArray()
                                    ),
                            ]
                    );
                foreach (var strength in weighed[0].Strengths())
                    shares[numbers[strength.Field]] = strength.Factor * strength.Front;
                return (shares, null);
            }),
        ]);
    }

    /// <summary>The grip of a listing with some weights, 0–1.</summary>
    public double Grip(int listing, double[] weights)
    {
        var (shares, words) = _listings[listing];
        if (words is not null)
            return Matcher.SpreadFactor * words.Average(fields => fields.Length == 0 ? 0 : fields.Max(f => weights[f]));
        var loose = 1.0;
        for (var field = 0; field < shares.Length; field++)
            loose *= 1 - weights[field] * shares[field];
        return 1 - loose;
    }

    /// <summary>Kendall's τ-b of grip and the market's order, −1 to 1; 0 where all grips are equal.</summary>
    public double Tau(double[] weights)
    {
        var grips = new double[_listings.Length];
        for (var i = 0; i < grips.Length; i++)
            grips[i] = Grip(i, weights);
        var (agree, tied, pairs) = (0, 0, grips.Length * (grips.Length - 1) / 2);
        for (var above = 0; above < grips.Length; above++)
        for (var below = above + 1; below < grips.Length; below++)
            if (grips[above] == grips[below])
                tied++;
            else
                agree += grips[above] > grips[below] ? 1 : -1;
        return tied == pairs ? 0 : agree / Math.Sqrt((double)pairs * (pairs - tied));
    }
}
