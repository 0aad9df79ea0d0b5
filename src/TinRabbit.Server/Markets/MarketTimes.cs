namespace TinRabbit.Server.Markets;

/// <summary>Times of days in a market.</summary>
internal static class MarketTimes
{
    /// <summary>The time that something of a day is stored with: what is of today is of now, what is of another day of its noon.</summary>
    public static DateTime TimeOf(this IMarket market, DateOnly day) =>
        day == market.Today ? market.Now : day.ToDateTime(new(12, 0), DateTimeKind.Utc);
}
