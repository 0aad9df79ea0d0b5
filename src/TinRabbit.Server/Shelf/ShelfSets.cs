namespace TinRabbit.Server.Shelf;

/// <summary>The shelves: terms, readings and what brought them, in the database.</summary>
public static class ShelfSets
{
    extension(TinContext db)
    {
        public DbSet<MarketRow> Markets => db.Set<MarketRow>();
        public DbSet<TermRow> Terms => db.Set<TermRow>();
        public DbSet<ReadingRow> Readings => db.Set<ReadingRow>();
        public DbSet<UnknownTermRow> UnknownTerms => db.Set<UnknownTermRow>();
        public DbSet<FilterRow> Filters => db.Set<FilterRow>();
        public DbSet<DigRow> Digs => db.Set<DigRow>();
        public DbSet<ImportRow> Imports => db.Set<ImportRow>();
        public DbSet<ImportChangeRow> ImportChanges => db.Set<ImportChangeRow>();
    }
}
