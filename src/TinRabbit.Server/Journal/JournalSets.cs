namespace TinRabbit.Server.Journal;

/// <summary>What was sent and what came of it, in the database.</summary>
public static class JournalSets
{
    extension(TinContext db)
    {
        public DbSet<SentRow> Sent => db.Set<SentRow>();
        public DbSet<OutboxRow> Outbox => db.Set<OutboxRow>();
        public DbSet<WatchRow> Watches => db.Set<WatchRow>();
        public DbSet<FollowedTermRow> FollowedTerms => db.Set<FollowedTermRow>();
        public DbSet<CheckRow> Checks => db.Set<CheckRow>();
        public DbSet<FindRow> Finds => db.Set<FindRow>();
        public DbSet<FigureRow> Figures => db.Set<FigureRow>();
        public DbSet<NoteRow> Notes => db.Set<NoteRow>();
    }
}
