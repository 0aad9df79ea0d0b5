namespace TinRabbit.Server.Markets;

/// <summary>What was asked of markets, in the database.</summary>
public static class MarketSets
{
    extension(TinContext db)
    {
        public DbSet<LookupDayRow> LookupDays => db.Set<LookupDayRow>();
    }
}
