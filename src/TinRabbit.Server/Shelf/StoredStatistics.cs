namespace TinRabbit.Server.Shelf;

/// <summary>The statistics of markets as they were computed last.</summary>
internal static class StoredStatistics
{
    /// <summary>Statistics of a market's shelf.</summary>
    public static async Task<MarketStatistics> StatisticsOf(this TinContext db, string marketId, CancellationToken stop) =>
        (await db.Markets.AsNoTracking().FirstOrDefaultAsync(m => m.Id == marketId, stop))?.Norm ?? MarketStatistics.Unknown;
}
