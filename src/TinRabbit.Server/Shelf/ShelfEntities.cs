namespace TinRabbit.Server.Shelf;

/// <summary>The shelves: terms, readings and what brought them, as tables.</summary>
internal sealed class ShelfEntities : IEntities
{
    public void Configure(ModelBuilder model)
    {
        model.Entity<MarketRow>().ToTable("Markets").Property(m => m.Norm).IsJson();
        model.Entity<TermRow>(term =>
        {
            term.ToTable("Terms");
            term.HasIndex(t => new { t.MarketId, t.Key }).IsUnique();
            term.HasIndex(t => t.MarketId).HasFilter("ReadingId IS NULL");
            term.HasOne(t => t.Reading).WithMany().HasForeignKey(t => t.ReadingId);
        });
        model.Entity<ReadingRow>(reading =>
        {
            reading.ToTable("Readings");
            reading.HasIndex(r => r.TermId);
            reading.Property(r => r.Months).IsJson();
            reading.Property(r => r.Kept).IsJson();
        });
        model.Entity<UnknownTermRow>().ToTable("UnknownTerms").HasKey(t => new { t.MarketId, t.Key });
        model.Entity<FilterRow>().ToTable("Filters").HasIndex(f => f.Name).IsUnique().HasFilter(Columns.NotDeleted);
        model.Entity<DigRow>().ToTable("Digs").HasIndex(d => new { d.ProductId, d.MarketId });
        model.Entity<ImportRow>().ToTable("Imports");
        model.Entity<ImportChangeRow>().ToTable("ImportChanges").HasKey(c => new { c.ImportId, c.TermId });
    }
}
