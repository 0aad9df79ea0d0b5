using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Journal;

/// <summary>What was sent and what came of it, as tables.</summary>
internal sealed class JournalEntities : IEntities
{
    public void Configure(ModelBuilder model)
    {
        model.Entity<SentRow>(sent =>
        {
            sent.ToTable("Sent");
            sent.HasIndex(s => s.ListingId);
            sent.HasOne<ListingRow>().WithMany().HasForeignKey(s => s.ListingId);
            sent.Property(s => s.Copy).IsText();
        });
        model.Entity<OutboxRow>(waiting =>
        {
            waiting.ToTable("Outbox");
            waiting.HasOne<ListingRow>().WithMany().HasForeignKey(o => o.ListingId);
            waiting.Property(o => o.Copy).IsText();
        });
        model.Entity<WatchRow>(watch =>
        {
            watch.ToTable("Watches");
            watch.HasIndex(w => new { w.ListingId, w.MarketId }).IsUnique();
            watch.HasOne<ListingRow>().WithMany().HasForeignKey(w => w.ListingId);
        });
        model.Entity<FollowedTermRow>(term =>
        {
            term.ToTable("FollowedTerms");
            term.HasIndex(t => new
                {
                    t.ListingId,
                    t.MarketId,
                    t.Key,
                })
                .IsUnique();
            term.HasOne<ListingRow>().WithMany().HasForeignKey(t => t.ListingId);
        });
        model.Entity<CheckRow>(check =>
        {
            check.ToTable("Checks");
            check.HasIndex(c => new { c.ListingId, c.MarketId });
            check.HasOne<ListingRow>().WithMany().HasForeignKey(c => c.ListingId);
            check.Property(c => c.State).HasConversion<string>();
        });
        model.Entity<FindRow>(find =>
        {
            find.ToTable("Finds");
            find.HasKey(f => new { f.CheckId, f.TermId });
            find.HasOne<CheckRow>().WithMany().HasForeignKey(f => f.CheckId);
            find.HasOne<FollowedTermRow>().WithMany().HasForeignKey(f => f.TermId);
        });
        model.Entity<FigureRow>(figure =>
        {
            figure.ToTable("Figures");
            figure.HasIndex(f => new
            {
                f.ListingId,
                f.MarketId,
                f.Day,
            });
            figure.HasOne<ListingRow>().WithMany().HasForeignKey(f => f.ListingId);
        });
        model.Entity<NoteRow>(note =>
        {
            note.ToTable("Notes");
            note.HasIndex(n => n.ListingId);
            note.Property(n => n.Revision).IsConcurrencyToken();
            note.Property(n => n.Kinds).IsJson();
        });
    }
}
