namespace TinRabbit.Core.Watching;

/// <summary>What happened on one day, and where it came from; each count is null when unknown.</summary>
public readonly record struct DayMetrics(long? Views, long? Clicks, long? Sales, string Source = "")
{
    /// <summary>The count of a measure.</summary>
    public long? this[DailyMeasure measure] =>
        measure switch
        {
            DailyMeasure.Clicks => Clicks,
            DailyMeasure.Sales => Sales,
            _ => Views,
        };

    /// <summary>These counts, and where they are unknown, those that were known before.</summary>
    public DayMetrics Over(DayMetrics before) =>
        this is { Views: not null, Clicks: not null, Sales: not null }
            ? this
            : new(
                Views ?? before.Views,
                Clicks ?? before.Clicks,
                Sales ?? before.Sales,
                before.Source.StartsWith(Source, StringComparison.Ordinal) ? before.Source : $"{Source} + {before.Source}"
            );
}
