namespace TinRabbit.Core.Watching;

/// <summary>Ranks and the pages of results that they are on.</summary>
public static class FirstPage
{
    /// <summary>The page that a rank is on, from 1; null without a rank.</summary>
    /// <param name="rank">From 1; null when unknown.</param>
    /// <param name="pageSize">Results of one page, 1 or more.</param>
    public static int? PageOf(int? rank, int pageSize) => rank is { } known ? (known - 1) / pageSize + 1 : null;

    /// <summary>By day, the share of the checked terms that were on the first page.</summary>
    /// <param name="ranks">A term each, a day each: null where it was not checked or found without a rank, 0 where it was not found.</param>
    /// <param name="days">How many days each has.</param>
    /// <param name="pageSize">Results of one page, 1 or more.</param>
    /// <returns>0–1; null on days without a check.</returns>
    public static IReadOnlyList<double?> Shares(IEnumerable<IReadOnlyList<int?>> ranks, int days, int pageSize)
    {
        var (onFirst, checkedTerms) = (new int[days], new int[days]);
        foreach (var term in ranks)
            for (var day = 0; day < days; day++)
                if (term[day] is { } rank)
                {
                    checkedTerms[day]++;
                    onFirst[day] += rank > 0 && PageOf(rank, pageSize) == 1 ? 1 : 0;
                }

        return [.. checkedTerms.Zip(onFirst, (all, some) => all == 0 ? (double?)null : (double)some / all)];
    }
}
