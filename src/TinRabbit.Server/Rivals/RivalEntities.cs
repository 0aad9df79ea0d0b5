using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Rivals;

/// <summary>Rivals and reviews, as tables.</summary>
internal sealed class RivalEntities : IEntities
{
    public void Configure(ModelBuilder model)
    {
        model.Entity<RivalRow>(rival =>
        {
            rival.ToTable("Rivals");
            rival.HasIndex(r => r.ListingId);
            rival.HasOne<ListingRow>().WithMany().HasForeignKey(r => r.ListingId);
            rival.Property(r => r.First).IsJson();
            rival.Property(r => r.Latest).IsJson();
        });
        model.Entity<ReviewRow>(review =>
        {
            review.ToTable("Reviews");
            review.HasIndex(r => r.ListingId);
            review.HasOne<ListingRow>().WithMany().HasForeignKey(r => r.ListingId);
        });
    }
}
