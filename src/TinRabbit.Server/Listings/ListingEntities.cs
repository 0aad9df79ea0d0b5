using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Listings;

/// <summary>The shop, its products, listings and pages, as tables.</summary>
internal sealed class ListingEntities : IEntities
{
    public void Configure(ModelBuilder model)
    {
        model.Entity<ShopRow>().ToTable("Shops").Property(s => s.OwnWords).IsJson().HasDefaultValueSql("'[]'");
        model.Entity<ShopRow>().Property(s => s.Countries).IsJson().HasDefaultValueSql("'[]'");
        model.Entity<ShopRow>().HasMany(s => s.Products).WithOne().HasForeignKey(p => p.ShopId);
        model.Entity<ProductRow>(product =>
        {
            product.ToTable("Products");
            product.Property(p => p.Facts).IsJson();
            product.Property(p => p.Revision).IsConcurrencyToken();
            product.Property(p => p.PicturesRevision).IsConcurrencyToken();
            product.HasMany(p => p.Pictures).WithOne().HasForeignKey(p => p.ProductId);
        });
        model.Entity<PictureRow>().ToTable("PictureRow");
        model.Entity<PlatformRow>(platform =>
        {
            platform.ToTable("Platforms");
            platform.Property(p => p.Revision).IsConcurrencyToken();
            platform
                .Property(p => p.Profile)
                .HasConversion(
                    new ValueConverter<Platform, string>(p => Profiles.Write(p), s => Profiles.Read(s)),
                    new ValueComparer<Platform>((a, b) => ReferenceEquals(a, b), p => p.Id.GetHashCode(StringComparison.Ordinal), p => p)
                );
        });
        model.Entity<ListingRow>(listing =>
        {
            listing.ToTable("Listings");
            listing.HasIndex(l => new { l.ProductId, l.PlatformId }).IsUnique().HasFilter(Columns.NotDeleted);
            listing.HasOne(l => l.Product).WithMany(p => p.Listings).HasForeignKey(l => l.ProductId);
            listing.HasOne(l => l.Platform).WithMany().HasForeignKey(l => l.PlatformId);
            listing.HasMany(l => l.Versions).WithOne().HasForeignKey(v => v.ListingId);
            listing.Property(l => l.Revision).IsConcurrencyToken();
            listing.Property(l => l.Copy).IsText();
            listing.Property(l => l.Details).IsJson();
        });
        model.Entity<UploadShapeRow>(shape =>
        {
            shape.ToTable("UploadShapes");
            shape.HasIndex(s => s.PlatformId);
            shape.Property(s => s.Columns).IsJson();
        });
        model.Entity<VersionRow>(version =>
        {
            version.ToTable("Versions");
            version.Property(v => v.Copy).IsText();
            version.Property(v => v.Reason).HasConversion<string>().HasColumnName("Why");
        });
        model.Entity<TakeRow>().ToTable("Takes").HasOne<ListingRow>().WithMany().HasForeignKey(t => t.ListingId);
        model.Entity<AsideRow>(aside =>
        {
            aside.ToTable("Asides");
            aside.HasIndex(a => new { a.ListingId, a.Key }).IsUnique();
            aside.HasOne<ListingRow>().WithMany().HasForeignKey(a => a.ListingId);
        });
        model.Entity<SiteRow>().ToTable("Sites").Property(s => s.Revision).IsConcurrencyToken();
        model.Entity<PageRow>(page =>
        {
            page.ToTable("Pages");
            page.HasIndex(p => p.ListingId).IsUnique().HasFilter(Columns.NotDeleted);
            page.HasIndex(p => p.Slug);
            page.HasOne(p => p.Listing).WithMany(l => l.Pages).HasForeignKey(p => p.ListingId);
            page.Property(p => p.Kind).HasConversion<string>();
            page.Property(p => p.AlsoIn).IsJson();
            page.Property(p => p.LinksTo).IsJson();
            page.Property(p => p.Revision).IsConcurrencyToken();
        });
        model.Entity<RedirectRow>().ToTable("Redirects").HasIndex(r => r.From).IsUnique();
    }
}
