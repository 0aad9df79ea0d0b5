namespace TinRabbit.Server.Markets;

/// <summary>What was asked of markets, as tables.</summary>
internal sealed class MarketEntities : IEntities
{
    public void Configure(ModelBuilder model) => model.Entity<LookupDayRow>().ToTable("LookupDays").HasKey(d => d.Day);
}
