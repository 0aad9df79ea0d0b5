namespace TinRabbit.Server.Recordings;

/// <summary>Recordings, in the database.</summary>
public static class RecordingSets
{
    extension(TinContext db)
    {
        public DbSet<RecordingRow> Recordings => db.Set<RecordingRow>();
    }
}
