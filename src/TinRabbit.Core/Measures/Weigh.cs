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
public sealed record Weighing(double Reach, double Grip, int Eligible, double Volume, int UnknownVolume, IReadOnlyList<WeighedTerm> Terms)
{
    /// <summary>The sums that reach is made of: Σ volume·fit of the eligible terms, and of all.</summary>
    public (double Eligible, double All) Demand { get; init; }

    /// <summary>The sums that grip is made of: Σ worth·grip, and Σ worth.</summary>
    public (double Gripped, double All) Worth { get; init; }
}

/// <summary>What a listing holds of one term, and what that is worth. The explanation is worked out when it is asked for.</summary>
public readonly struct WeighedTerm
{
    private readonly Matcher _matcher;
    private readonly NearMisses _near;
    private readonly int _number;

    internal WeighedTerm(WantedTerm term, Grade grade, double grip, Matcher matcher, NearMisses near, int number) =>
        (Term, Grade, Grip, _matcher, _near, _number) = (term, grade, grip, matcher, near, number);

    /// <summary>The term.</summary>
    public WantedTerm Term { get; }

    /// <summary>How firmly the listing holds it.</summary>
    public Grade Grade { get; }

    /// <summary>0–1.</summary>
    public double Grip { get; }

    /// <summary>Where and how it is held, and what is missing.</summary>
    public Match Explain() => _matcher.Explain(_number);

    /// <summary>How the strength of each field that holds it was worked out.</summary>
    public IReadOnlyList<FieldStrength> Strengths() => _matcher.Strengths(_number);

    /// <summary>Missing words that stand in a form which the platform does not fold.</summary>
    public IReadOnlyList<NearMiss> Near(Match match) => _near.Of(_matcher.ReadyOf(_number), match.Missing);
}

/// <summary>Weighed terms, kept as their figures; each is put together when it is asked for.</summary>
internal sealed class WeighedTerms(IReadOnlyList<WantedTerm> terms, Grade[] grades, double[] grips, Matcher matcher, NearMisses near) : IReadOnlyList<WeighedTerm>
{
    public int Count => grades.Length;

    public WeighedTerm this[int number] => new(terms[number], grades[number], grips[number], matcher, near, number);

    public IEnumerator<WeighedTerm> GetEnumerator() => Enumerable.Range(0, Count).Select(i => this[i]).GetEnumerator();

    System.Collections.IEnumerator System.Collections.IEnumerable.GetEnumerator() => GetEnumerator();
}

/// <summary>Weighs listings (docs/model.md, "Reach and grip").</summary>
public static class Weigh
{
    /// <summary>Weighs a listing for some terms.</summary>
    /// <exception cref="FormatProblems">A term has no word.</exception>
    public static Weighing Listing(Platform platform, IReadOnlyDictionary<string, FieldValue> copy, IReadOnlyList<WantedTerm> terms, CancellationToken stop = default) =>
        Listing(TermSet.For(platform, [.. terms.Select(t => t.Text)]), copy, terms, stop);

    /// <summary>Weighs a listing for terms that were made ready before.</summary>
    /// <param name="ready">The same terms, ready for the platform.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="terms">The terms with their numbers.</param>
    /// <param name="stop">Stops the weighing.</param>
    public static Weighing Listing(TermSet ready, IReadOnlyDictionary<string, FieldValue> copy, IReadOnlyList<WantedTerm> terms, CancellationToken stop = default)
    {
        var index = ListingIndex.Of(ready.Platform, copy);
        var matcher = new Matcher(ready, index);
        var near = new NearMisses(index);
        var (grades, grips) = (new Grade[terms.Count], new double[terms.Count]);
        var (held, wanted, gripped, worth, volume) = (0.0, 0.0, 0.0, 0.0, 0.0);
        var (eligible, unknown) = (0, 0);
        for (var i = 0; i < grades.Length; i++)
        {
            stop.ThrowIfCancellationRequested();
            var term = terms[i];
            (grades[i], grips[i]) = matcher.Grade(i);
            var demand = (term.Volume ?? 0) * term.Fit.Weight();
            wanted += demand;
            var worthOfTerm = term.Worth();
            worth += worthOfTerm;
            gripped += worthOfTerm * grips[i];
            if (term.Volume is null)
                unknown++;
            if (grades[i] == Grade.Missing)
                continue;
            eligible++;
            held += demand;
            volume += term.Volume ?? 0;
        }

        return new(Share(held, wanted), Share(gripped, worth), eligible, volume, unknown, new WeighedTerms(terms, grades, grips, matcher, near)) { Demand = (held, wanted), Worth = (gripped, worth) };
    }

    private static double Share(double part, double all) => all > 0 ? part / all * 100 : 0;
}
