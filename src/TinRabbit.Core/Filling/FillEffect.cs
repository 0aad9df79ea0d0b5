using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;

namespace TinRabbit.Core.Filling;

/// <summary>What a filled field changes.</summary>
/// <param name="Gain">Σ volume·fit of the terms that it opens, unknown volumes counted as 0.</param>
/// <param name="Opens">Terms that were missing and are held with it, the worthiest first.</param>
/// <param name="Left">Terms that stay missing, the worthiest first.</param>
internal sealed record FillEffect(double Gain, IReadOnlyList<string> Opens, IReadOnlyList<string> Left)
{
    /// <param name="before">The listing weighed without the fill.</param>
    /// <param name="after">The listing weighed with it, for the same terms.</param>
    /// <param name="terms">All terms; those that were not weighed stay missing.</param>
    public static FillEffect Of(Weighing before, Weighing after, IReadOnlyList<WantedTerm> terms)
    {
        var (opened, held) = (new List<WantedTerm>(), new HashSet<WantedTerm>(ReferenceEqualityComparer.Instance));
        for (var i = 0; i < after.Terms.Count; i++)
        {
            if (after.Terms[i].Grade == Grade.Missing)
                continue;
            held.Add(after.Terms[i].Term);
            if (before.Terms[i].Grade == Grade.Missing)
                opened.Add(after.Terms[i].Term);
        }

        return new(opened.Sum(t => t.Demand()), ByDemand(opened), ByDemand(terms.Where(t => !held.Contains(t))));
    }

    private static string[] ByDemand(IEnumerable<WantedTerm> terms) => [.. terms.OrderByDescending(t => t.Demand()).Select(t => t.Text)];
}
