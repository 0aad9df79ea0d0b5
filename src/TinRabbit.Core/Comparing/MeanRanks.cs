namespace TinRabbit.Core.Comparing;

/// <summary>Ranks of numbers from the lowest, from 1; equal numbers share the mean of the ranks that they take.</summary>
internal static class MeanRanks
{
    /// <summary>The rank of each number, in the order of the numbers.</summary>
    public static double[] Of(IReadOnlyList<double> numbers)
    {
        var order = Enumerable.Range(0, numbers.Count).OrderBy(i => numbers[i]).ToArray();
        var ranks = new double[numbers.Count];
        for (var from = 0; from < order.Length; )
        {
            var to = from;
            while (to + 1 < order.Length && numbers[order[to + 1]] == numbers[order[from]])
                to++;
            for (var i = from; i <= to; i++)
                ranks[order[i]] = (from + to) / 2.0 + 1;
            from = to + 1;
        }

        return ranks;
    }
}
