namespace TinRabbit.Core.Watching;

/// <summary>What is counted by day.</summary>
public enum DailyMeasure
{
    /// <summary>How often the listing was opened.</summary>
    Views,

    /// <summary>How often it was opened from search results.</summary>
    Clicks,

    /// <summary>How many were sold, or nights booked.</summary>
    Sales,
}
