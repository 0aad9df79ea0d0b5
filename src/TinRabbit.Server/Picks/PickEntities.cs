namespace TinRabbit.Server.Picks;

/// <summary>The picks, as tables.</summary>
internal sealed class PickEntities : IEntities
{
    public void Configure(ModelBuilder model)
    {
        model.Entity<PickRow>(pick =>
        {
            pick.ToTable("Picks");
            pick.HasIndex(p => new { p.ProductId, p.Key }).IsUnique().HasFilter(Columns.NotDeleted);
            pick.HasOne(p => p.Product).WithMany().HasForeignKey(p => p.ProductId);
            pick.Property(p => p.NoteRevision).IsConcurrencyToken();
            pick.Property(p => p.Fit).HasConversion<string>();
            pick.Property(p => p.Home).HasConversion<string>();
        });
        model.Entity<LikenessRow>(likeness =>
        {
            likeness.ToTable("Likenesses");
            likeness
                .HasIndex(l => new
                {
                    l.ProductId,
                    l.MarketId,
                    l.Key,
                })
                .IsUnique();
            likeness.Property(l => l.Judged).IsJson();
        });
    }
}
