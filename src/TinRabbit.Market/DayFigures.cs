namespace TinRabbit.Market;

/// <summary>What happened to a listing on one day.</summary>
/// <param name="Day">The day, in UTC.</param>
/// <param name="Views">How often shoppers saw it in search results; null when unknown.</param>
/// <param name="Clicks">How often it was opened; null when unknown.</param>
/// <param name="Sales">How many were sold, or nights booked; null when unknown.</param>
public sealed record DayFigures(DateOnly Day, long? Views, long? Clicks, long? Sales);
