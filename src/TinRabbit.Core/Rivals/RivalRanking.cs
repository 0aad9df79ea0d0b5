using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Rivals;

/// <summary>A listing among its rivals, all weighed for the same picks.</summary>
/// <param name="Mine">The listing's own weighing.</param>
/// <param name="Rivals">Each rival's, in the order given.</param>
/// <param name="Order">The numbers of the rivals from the firmest grip to the loosest; among equals in the order given.</param>
/// <param name="Above">How many rivals have a firmer grip than the listing.</param>
public sealed record RivalRanking(Weighing Mine, IReadOnlyList<Weighing> Rivals, IReadOnlyList<int> Order, int Above)
{
    /// <summary>The number of the next rival above the listing; null where it has the firmest grip.</summary>
    public int? NextAbove => Above > 0 ? Order[Above - 1] : null;

    /// <summary>The grip that the listing lacks to the next rival above, in points; null where there is none.</summary>
    public double? Gap => NextAbove is { } next ? Rivals[next].Grip - Mine.Grip : null;

    /// <summary>Weighs a listing and its rivals.</summary>
    /// <param name="terms">The picks, ready for the platform.</param>
    /// <param name="wanted">The same picks with their numbers.</param>
    /// <param name="mine">The listing's fields.</param>
    /// <param name="rivals">The rivals' fields, as far as they are known.</param>
    /// <param name="stop">Stops the weighing.</param>
    public static RivalRanking Of(
        TermSet terms,
        IReadOnlyList<WantedTerm> wanted,
        IReadOnlyDictionary<string, FieldValue> mine,
        IReadOnlyList<IReadOnlyDictionary<string, FieldValue>> rivals,
        CancellationToken stop = default
    )
    {
        var own = Weigher.Weigh(terms, mine, wanted, stop);
        Weighing[] others = [.. rivals.Select(r => Weigher.Weigh(terms, r, wanted, stop))];
        int[] order = [.. Enumerable.Range(0, others.Length).OrderByDescending(i => others[i].Grip)];
        return new(own, others, order, others.Count(o => o.Grip > own.Grip));
    }

    /// <summary>The picks that a rival holds and the listing does not, or the reverse, by their numbers, the most searched first.</summary>
    /// <param name="rival">The rival's number.</param>
    /// <param name="mine">True for what only the listing holds.</param>
    public IReadOnlyList<int> HeldAlone(int rival, bool mine)
    {
        var (holder, other) = mine ? (Mine, Rivals[rival]) : (Rivals[rival], Mine);
        return
        [
            .. Enumerable
                .Range(0, Mine.Terms.Count)
                .Where(i => holder.Terms[i].Grade != Grade.Missing && other.Terms[i].Grade == Grade.Missing)
                .OrderByDescending(i => Mine.Terms[i].Term.Worth()),
        ];
    }
}
