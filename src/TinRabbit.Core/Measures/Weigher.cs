using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Measures;

/// <summary>Weighs listings (docs/model.md, "Reach" and "Grip").</summary>
public static class Weigher
{
    /// <summary>Weighs a listing for some terms.</summary>
    /// <exception cref="InvalidInputException">A term has no word.</exception>
    public static Weighing Weigh(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        IReadOnlyList<WantedTerm> terms,
        CancellationToken stop = default
    ) => Weigh(TermSet.Prepare(platform, [.. terms.Select(t => t.Text)]), copy, terms, stop);

    /// <summary>Weighs a listing for terms that were made ready before.</summary>
    /// <param name="ready">The same terms, ready for the platform.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="terms">The terms with their numbers.</param>
    /// <param name="stop">Stops the weighing.</param>
    public static Weighing Weigh(
        TermSet ready,
        IReadOnlyDictionary<string, FieldValue> copy,
        IReadOnlyList<WantedTerm> terms,
        CancellationToken stop = default
    )
    {
        terms = PickDemand.Assume(terms);
        var index = ListingIndex.Build(ready.Platform, copy);
        var matcher = new Matcher(ready, index);
        var near = new NearMisses(index);
        var (grades, grips) = (new Grade[terms.Count], new double[terms.Count]);
        var (held, wanted, gripped, worth, volume, total) = (0.0, 0.0, 0.0, 0.0, 0.0, 0.0);
        var (eligible, counted, unknown) = (0, 0, 0);
        for (var i = 0; i < grades.Length; i++)
        {
            stop.ThrowIfCancellationRequested();
            var term = terms[i];
            (grades[i], grips[i]) = matcher.Grade(i);
            if (!term.Counts)
                continue;
            counted++;
            var demand = term.Demand();
            wanted += demand;
            var worthOfTerm = term.Worth();
            worth += worthOfTerm;
            gripped += worthOfTerm * grips[i];
            total += term.Volume ?? 0;
            if (term.Volume is null)
                unknown++;
            if (grades[i] == Grade.Missing)
                continue;
            eligible++;
            held += demand;
            volume += term.Volume ?? 0;
        }

        return new(
            Share(held, wanted),
            Share(gripped, worth),
            eligible,
            volume,
            unknown,
            new WeighedTerms(terms, grades, grips, matcher, near)
        )
        {
            Counted = counted,
            TotalVolume = total,
            Demand = (held, wanted),
            Worth = (gripped, worth),
        };
    }

    private static double Share(double part, double all) => all > 0 ? part / all * 100 : 0;
}
