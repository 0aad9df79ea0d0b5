namespace TinRabbit.Server.Rivals;

/// <summary>Rivals and reviews, in the database.</summary>
public static class RivalSets
{
    extension(TinContext db)
    {
        public DbSet<RivalRow> Rivals => db.Set<RivalRow>();
        public DbSet<ReviewRow> Reviews => db.Set<ReviewRow>();
    }
}
