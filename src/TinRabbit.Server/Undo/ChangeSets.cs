namespace TinRabbit.Server.Undo;

/// <summary>The changes that can be undone, in the database.</summary>
public static class ChangeSets
{
    extension(TinContext db)
    {
        public DbSet<ChangeRow> Changes => db.Set<ChangeRow>();
    }
}
