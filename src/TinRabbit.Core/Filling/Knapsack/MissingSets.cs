using System.Runtime.InteropServices;

namespace TinRabbit.Core.Filling.Knapsack;

/// <summary>
/// The value of incomplete bundles by the set of items that each lacks, so that the gain of completing a bundle is a sum over the
/// subsets of what it lacks. Sets are compared by a 64-bit hash (Zobrist 1970): the XOR of one random number for each item.
/// </summary>
internal sealed class MissingSets
{
    // A bundle lacking more items has too many subsets.
    private const int MaxMissing = 8;

    private readonly SetUnionKnapsack _problem;
    private readonly ulong[] _hashOfItem;
    private readonly Dictionary<ulong, double> _valueOf = [];

    public MissingSets(SetUnionKnapsack problem)
    {
        _problem = problem;
        var random = new DeterministicRandom(1);
        _hashOfItem = [.. problem.Costs.Select((_, i) => random.For(i).Bits)];
    }

    /// <summary>Reads what the bundles lack of a selection.</summary>
    public void Read(Selection selection)
    {
        _valueOf.Clear();
        for (var b = 0; b < _problem.Bundles.Length; b++)
        {
            if (selection.MissingItems[b] == 0 || selection.CompleteBundles[_problem.Bundles[b].Term] > 0)
                continue;
            var hash = 0UL;
            foreach (var i in _problem.Bundles[b].Items)
                if (!selection.Chosen[i])
                    hash ^= _hashOfItem[i];
            CollectionsMarshal.GetValueRefOrAddDefault(_valueOf, hash, out _) += _problem.Bundles[b].Value;
        }
    }

    /// <summary>The value gained by adding all items that a bundle lacks, other bundles that these complete included; for very many items its own value.</summary>
    public double GainOf(Selection selection, int bundle)
    {
        if (selection.MissingItems[bundle] > MaxMissing)
            return _problem.Bundles[bundle].Value;
        Span<ulong> hashes = stackalloc ulong[MaxMissing];
        var missing = 0;
        foreach (var i in _problem.Bundles[bundle].Items)
            if (!selection.Chosen[i])
                hashes[missing++] = _hashOfItem[i];
        var (gain, subset) = (0.0, 0UL);
        // Every subset but the empty one, in Gray code order.
        for (var code = 1; code < 1 << missing; code++)
        {
            subset ^= hashes[System.Numerics.BitOperations.TrailingZeroCount(code)];
            if (_valueOf.TryGetValue(subset, out var value))
                gain += value;
        }

        return gain;
    }
}
