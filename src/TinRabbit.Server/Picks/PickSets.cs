namespace TinRabbit.Server.Picks;

/// <summary>The picks, in the database.</summary>
public static class PickSets
{
    extension(TinContext db)
    {
        public DbSet<PickRow> Picks => db.Set<PickRow>();

        public DbSet<LikenessRow> Likenesses => db.Set<LikenessRow>();
    }
}
