using MathNet.Numerics.Statistics;
using TinRabbit.Core.Comparing;

namespace TinRabbit.Core.Watching;

/// <summary>What happened to a listing's ranks after a change (docs/model.md, "Before and after").</summary>
/// <param name="Terms">Terms that find it on both sides.</param>
/// <param name="Before">The median over those terms of their median daily rank before; null where there are none.</param>
/// <param name="After">The same after.</param>
/// <param name="Better">Terms whose rank is nearer to the front than before, by more than it moves from day to day.</param>
/// <param name="Worse">Terms whose rank is farther from it, by more than that.</param>
/// <param name="Gained">Terms that find it now and did not.</param>
/// <param name="Lost">Terms that found it and do not now.</param>
/// <param name="P">How likely chance alone moves the ranks so far; null with too few terms.</param>
/// <param name="Verdict">Up: the ranks are better.</param>
/// <param name="DaysBefore">Days before with a check.</param>
/// <param name="DaysAfter">Days after with a check.</param>
public sealed record RankEffect(
    int Terms,
    double? Before,
    double? After,
    int Better,
    int Worse,
    IReadOnlyList<string> Gained,
    IReadOnlyList<string> Lost,
    double? P,
    Verdict Verdict,
    int DaysBefore,
    int DaysAfter
)
{
    /// <summary>The fewest terms that anything is said of.</summary>
    public const int LeastTerms = 6;

    /// <summary>The fewest days with a check on each side.</summary>
    public const int LeastDays = 3;

    private const double Level = 0.05;

    /// <summary>Compares the ranks before a change with those after it.</summary>
    /// <param name="terms">By term: its ranks on the days before and after on which it was checked; null where it did not find the listing.</param>
    public static RankEffect Of(IReadOnlyDictionary<string, (IReadOnlyList<int?> Before, IReadOnlyList<int?> After)> terms)
    {
        var (days, daysAfter) = (
            terms.Values.Select(t => t.Before.Count).DefaultIfEmpty().Max(),
            terms.Values.Select(t => t.After.Count).DefaultIfEmpty().Max()
        );
        var known = terms
            .Where(t => t.Value.Before.Count > 0 && t.Value.After.Count > 0)
            .OrderBy(t => t.Key, StringComparer.Ordinal)
            .ToList();
        var both = known
            .Where(t => IsFound(t.Value.Before) && IsFound(t.Value.After))
            .Select(t => (Before: MedianOf(t.Value.Before), After: MedianOf(t.Value.After), Moved: Moved(t.Value.Before, t.Value.After)))
            .ToList();
        var canSay = both.Count >= LeastTerms && days >= LeastDays && daysAfter >= LeastDays;
        var test = SignedRankTest.Of(both.Select(t => t.Moved));
        return new(
            both.Count,
            both.Count == 0 ? null : both.Select(t => t.Before).Median(),
            both.Count == 0 ? null : both.Select(t => t.After).Median(),
            both.Count(t => t.Moved > 0),
            both.Count(t => t.Moved < 0),
            [.. known.Where(t => !IsFound(t.Value.Before) && IsFound(t.Value.After)).Select(t => t.Key)],
            [.. known.Where(t => IsFound(t.Value.Before) && !IsFound(t.Value.After)).Select(t => t.Key)],
            canSay ? test.P : null,
            !canSay || test.P > Level ? Verdict.Unclear
                : test.Positive * 4 > test.Count * (test.Count + 1.0) ? Verdict.Up
                : Verdict.Down,
            days,
            daysAfter
        );
    }

    // On most of the days: one day without it is no loss.
    private static bool IsFound(IReadOnlyList<int?> ranks) => ranks.Count(r => r is not null) * 2 > ranks.Count;

    // From 2 to 4 is as far as from 20 to 40. The ranks of a listing drift together, so that a small difference of many terms is one of chance:
    // a median inside the middle half of the days on the other side is none.
    private static double Moved(IReadOnlyList<int?> before, IReadOnlyList<int?> after)
    {
        var (one, other) = (MedianOf(before), MedianOf(after));
        return IsUsual(other, before) || IsUsual(one, after) ? 0 : Math.Log(one) - Math.Log(other);
    }

    private static bool IsUsual(double rank, IReadOnlyList<int?> days) =>
        Known(days).ToList() is var known && rank >= known.LowerQuartile() && rank <= known.UpperQuartile();

    private static double MedianOf(IReadOnlyList<int?> ranks) => Known(ranks).Median();

    private static IEnumerable<double> Known(IReadOnlyList<int?> ranks) => ranks.OfType<int>().Select(r => (double)r);
}
