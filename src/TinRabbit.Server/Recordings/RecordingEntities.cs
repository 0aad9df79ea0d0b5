namespace TinRabbit.Server.Recordings;

/// <summary>Recordings, as a table.</summary>
internal sealed class RecordingEntities : IEntities
{
    public void Configure(ModelBuilder model) =>
        model.Entity<RecordingRow>(recording =>
        {
            recording.ToTable("Recordings");
            recording.HasIndex(r => new { r.MarketId, r.Key });
            recording.Property(r => r.Page).IsJson();
        });
}
