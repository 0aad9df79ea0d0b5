namespace TinRabbit.Core.Watching;

/// <summary>A listing in a market day by day: of several numbers for one day, the newest of each measure.</summary>
/// <param name="ListingId">The listing.</param>
/// <param name="MarketId">The market.</param>
/// <param name="Days">By day.</param>
public sealed record DailySeries(int ListingId, string MarketId, IReadOnlyDictionary<DateOnly, DayMetrics> Days)
{
    /// <summary>Merges what was brought for a listing in a market.</summary>
    /// <param name="listingId">The listing.</param>
    /// <param name="marketId">The market.</param>
    /// <param name="brought">The oldest first; what was brought later counts, measure by measure.</param>
    public static DailySeries Merge(int listingId, string marketId, IEnumerable<(DateOnly Day, DayMetrics Metrics)> brought)
    {
        var days = new Dictionary<DateOnly, DayMetrics>();
        foreach (var (day, metrics) in brought)
            days[day] = days.TryGetValue(day, out var before) ? metrics.Over(before) : metrics;
        return new(listingId, marketId, days);
    }

    /// <summary>The sum of the days up to one that are known; null where none is.</summary>
    /// <param name="measure">What is summed.</param>
    /// <param name="last">The last day.</param>
    /// <param name="days">How many days, 1 or more.</param>
    public long? SumOfKnown(DailyMeasure measure, DateOnly last, int days)
    {
        var known = Days.Where(d => d.Key <= last && d.Key > last.AddDays(-days) && d.Value[measure] is not null).ToList();
        return known.Count == 0 ? null : known.Sum(d => d.Value[measure]);
    }

    /// <summary>The sum of the days up to one; null where a day is unknown.</summary>
    /// <param name="measure">What is summed.</param>
    /// <param name="last">The last day.</param>
    /// <param name="days">How many days, 1 or more.</param>
    public long? Sum(DailyMeasure measure, DateOnly last, int days)
    {
        var sum = 0L;
        for (var d = 0; d < days; d++)
            if (Days.TryGetValue(last.AddDays(-d), out var metrics) && metrics[measure] is { } count)
                sum += count;
            else
                return null;
        return sum;
    }
}
