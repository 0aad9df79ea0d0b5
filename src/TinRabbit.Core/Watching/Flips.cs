namespace TinRabbit.Core.Watching;

/// <summary>What changed between two checks.</summary>
public static class Flips
{
    /// <summary>How two checks of one term differ.</summary>
    /// <param name="before">Whether the earlier one found the listing; null where there was none.</param>
    /// <param name="now">Whether the later one did; null where there was none.</param>
    public static Flip Between(bool? before, bool? now) =>
        (before, now) switch
        {
            (false, true) => Flip.Appeared,
            (true, false) => Flip.Disappeared,
            _ => Flip.None,
        };

    /// <summary>How many terms appeared and disappeared; a term that only one of the checks has is neither.</summary>
    /// <param name="before">By term, whether the earlier check found the listing.</param>
    /// <param name="now">By term, whether the later one did.</param>
    public static (int Appeared, int Disappeared) Count(IReadOnlyDictionary<int, bool> before, IReadOnlyDictionary<int, bool> now)
    {
        var flips = now.Select(n => Between(before.TryGetValue(n.Key, out var was) ? was : null, n.Value)).ToList();
        return (flips.Count(f => f == Flip.Appeared), flips.Count(f => f == Flip.Disappeared));
    }
}
