using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Measures;

/// <summary>How much of the picks' demand a listing can be found for, and how firmly.</summary>
/// <param name="Reach">0–100: share of Σ volume·fit over the eligible terms; 0 when nothing is known of any volume.</param>
/// <param name="Grip">0–100: Σ worth·grip ÷ Σ worth; 0 when nothing is known of any volume.</param>
/// <param name="Eligible">Terms that the listing holds.</param>
/// <param name="Volume">Their searches a month, unknown ones counted as 0.</param>
/// <param name="UnknownVolume">Terms whose volume is unknown.</param>
/// <param name="Terms">Each term, in the order given.</param>
public sealed record Weighing(double Reach, double Grip, int Eligible, double Volume, int UnknownVolume, IReadOnlyList<WeighedTerm> Terms);

/// <summary>What a listing holds of one term, and what that is worth.</summary>
/// <param name="Term">The term.</param>
/// <param name="Match">Where and how it is held.</param>
/// <param name="Grip">0–1.</param>
/// <param name="Near">Missing words that stand in a form which the platform does not fold.</param>
public sealed record WeighedTerm(WantedTerm Term, Match Match, double Grip, IReadOnlyList<NearMiss> Near);

/// <summary>Weighs listings (docs/model.md, "Reach and grip").</summary>
public static class Weigh
{
    /// <summary>What a term spread over several fields keeps of its words' mean weight.</summary>
    public const double SpreadFactor = 0.35;

    /// <summary>Weighs a listing for some terms.</summary>
    /// <exception cref="FormatProblems">A term has no word.</exception>
    public static Weighing Listing(Platform platform, IReadOnlyDictionary<string, FieldValue> copy, IReadOnlyList<WantedTerm> terms) =>
        Listing(TermSet.For(platform, [.. terms.Select(t => t.Text)]), copy, terms);

    /// <summary>Weighs a listing for terms that were made ready before.</summary>
    /// <param name="ready">The same terms, ready for the platform.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="terms">The terms with their numbers.</param>
    public static Weighing Listing(TermSet ready, IReadOnlyDictionary<string, FieldValue> copy, IReadOnlyList<WantedTerm> terms)
    {
        var index = ListingIndex.Of(ready.Platform, copy);
        var matcher = new Matcher(ready, index);
        var near = new NearMisses(index);
        var weighed = new WeighedTerm[terms.Count];
        var (held, wanted, gripped, worth, volume) = (0.0, 0.0, 0.0, 0.0, 0.0);
        var (eligible, unknown) = (0, 0);
        for (var i = 0; i < weighed.Length; i++)
        {
            var term = terms[i];
            var match = matcher.One(i);
            var grip = Grip(match);
            weighed[i] = new(term, match, grip, near.Of(ready.Terms[i].Tokens, match.Missing));
            var demand = (term.Volume ?? 0) * term.Fit.Weight();
            wanted += demand;
            worth += term.Worth();
            gripped += term.Worth() * grip;
            if (term.Volume is null)
                unknown++;
            if (match.Grade == Grade.Missing)
                continue;
            eligible++;
            held += demand;
            volume += term.Volume ?? 0;
        }

        return new(Share(held, wanted), Share(gripped, worth), eligible, volume, unknown, weighed);
    }

    private static double Share(double part, double all) => all > 0 ? part / all * 100 : 0;

    private static double Grip(Match match)
    {
        if (match.Grade == Grade.Missing)
            return 0;
        if (match.Grade == Grade.Spread)
            return SpreadFactor * match.Spread;
        var loose = 1.0;
        foreach (var strength in match.Strengths)
            loose *= 1 - strength;
        return 1 - loose;
    }
}
