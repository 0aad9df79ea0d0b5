namespace TinRabbit.Core.Measures;

/// <summary>What picks count for where their searches are not known (docs/model.md, "Demand").</summary>
public static class PickDemand
{
    /// <summary>What each pick counts for where no positive volume is known at all.</summary>
    public const double Same = 1;

    // The place of the assumed volume among the known ones: the ⌈n/4⌉-th smallest.
    private const int Quarter = 4;

    /// <summary>
    /// The picks, each of unknown volume with the number that it counts for: the ⌈n/4⌉-th smallest of the n known positive volumes among
    /// the picks that count, at most the bound that it is known to be below; 1 where no volume is positive. Picks that have one keep it.
    /// </summary>
    public static IReadOnlyList<WantedTerm> Assume(IReadOnlyList<WantedTerm> picks)
    {
        if (!NeedsAssuming(picks))
            return picks;
        var assumed = AssumedFor(picks);
        var complete = new WantedTerm[picks.Count];
        for (var i = 0; i < complete.Length; i++)
            complete[i] = picks[i] is { Volume: null, Assumed: null } pick
                ? pick with
                {
                    Assumed = Math.Min(assumed, pick.VolumeBelow ?? assumed),
                }
                : picks[i];
        return complete;
    }

    /// <summary>The number that a pick of unknown volume counts for beside these.</summary>
    public static double AssumedFor(IReadOnlyList<WantedTerm> picks)
    {
        var known = new List<double>();
        foreach (var pick in picks)
            if (pick.Counts && pick.Volume is > 0 and var volume)
                known.Add(volume);
        return known.Count == 0 ? Same : QuickSelect.Select(known, (known.Count + Quarter - 1) / Quarter - 1);
    }

    private static bool NeedsAssuming(IReadOnlyList<WantedTerm> picks)
    {
        for (var i = 0; i < picks.Count; i++)
            if (picks[i] is { Volume: null, Assumed: null })
                return true;
        return false;
    }
}
