using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;

namespace TinRabbit.Core.Filling;

/// <summary>What a filled field changes.</summary>
/// <param name="Gain">Σ demand·fit of the terms that it opens.</param>
/// <param name="Opens">Terms that were missing and are held with it, the worthiest first.</param>
/// <param name="Left">Terms that stay missing, the worthiest first.</param>
internal sealed record FillEffect(double Gain, IReadOnlyList<string> Opens, IReadOnlyList<string> Left)
{
    /// <param name="before">The listing weighed without the fill.</param>
    /// <param name="after">The listing weighed with it, for the same terms.</param>
    /// <param name="placement">Which of them may stand in the field: the others do not count as opened by it.</param>
    public static FillEffect Of(Weighing before, Weighing after, Placement placement)
    {
        var (opened, left) = (new List<WantedTerm>(), new List<WantedTerm>());
        for (var i = 0; i < after.Terms.Count; i++)
            if (after.Terms[i] is { Grade: Grade.Missing, Term: { Counts: true } missing })
                left.Add(missing);
            else if (
                before.Terms[i].Grade == Grade.Missing
                && after.Terms[i].Grade != Grade.Missing
                && placement.Allows(after.Terms[i].Term)
            )
                opened.Add(after.Terms[i].Term);
        return new(opened.Sum(t => t.Demand()), ByDemand(opened), ByDemand(left));
    }

    private static string[] ByDemand(IEnumerable<WantedTerm> terms) => [.. terms.OrderByDescending(t => t.Demand()).Select(t => t.Text)];
}
