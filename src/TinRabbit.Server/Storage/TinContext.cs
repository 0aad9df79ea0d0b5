using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace TinRabbit.Server.Storage;

/// <summary>The shop's database: one SQLite file with a write-ahead log.</summary>
public sealed class TinContext(DbContextOptions<TinContext> options, Commits? commits = null) : DbContext(options)
{
    public override async Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken stop = default)
    {
        var terms = ChangeTracker.Entries().Any(e => e.State is EntityState.Added or EntityState.Modified or EntityState.Deleted
            && e.Entity is PickRow or TermRow or ReadingRow or MarketRow or PlatformRow);
        var saved = await base.SaveChangesAsync(acceptAllChangesOnSuccess, stop);
        if (terms)
            commits?.Note();
        return saved;
    }

    public DbSet<ShopRow> Shops => Set<ShopRow>();
    public DbSet<ProductRow> Products => Set<ProductRow>();
    public DbSet<PlatformRow> Platforms => Set<PlatformRow>();
    public DbSet<ListingRow> Listings => Set<ListingRow>();
    public DbSet<VersionRow> Versions => Set<VersionRow>();
    public DbSet<TakeRow> Takes => Set<TakeRow>();
    public DbSet<AsideRow> Asides => Set<AsideRow>();
    public DbSet<SentRow> Sent => Set<SentRow>();
    public DbSet<MarketRow> Markets => Set<MarketRow>();
    public DbSet<TermRow> Terms => Set<TermRow>();
    public DbSet<ReadingRow> Readings => Set<ReadingRow>();
    public DbSet<PickRow> Picks => Set<PickRow>();
    public DbSet<PickChangeRow> PickChanges => Set<PickChangeRow>();
    public DbSet<FilterRow> Filters => Set<FilterRow>();
    public DbSet<DigRow> Digs => Set<DigRow>();

    /// <summary>Where the file lies.</summary>
    public static string Connection(string folder) => $"Data Source={Path.Combine(folder, "tinrabbit.db")};Default Timeout=10";

    protected override void OnModelCreating(ModelBuilder model)
    {
        model.Entity<ShopRow>().HasMany(s => s.Products).WithOne().HasForeignKey(p => p.ShopId);
        model.Entity<ProductRow>(product =>
        {
            Json(product.Property(p => p.Facts));
            product.HasMany(p => p.Pictures).WithOne().HasForeignKey(p => p.ProductId);
            product.HasMany(p => p.Picks).WithOne().HasForeignKey(p => p.ProductId);
        });
        model.Entity<ListingRow>(listing =>
        {
            listing.HasIndex(l => new { l.ProductId, l.PlatformId }).IsUnique();
            listing.HasOne(l => l.Product).WithMany(p => p.Listings).HasForeignKey(l => l.ProductId);
            listing.HasOne(l => l.Platform).WithMany().HasForeignKey(l => l.PlatformId);
            listing.HasMany(l => l.Versions).WithOne().HasForeignKey(v => v.ListingId);
            listing.Property(l => l.Revision).IsConcurrencyToken();
        });
        model.Entity<TakeRow>().HasOne<ListingRow>().WithMany().HasForeignKey(t => t.ListingId);
        model.Entity<AsideRow>(aside =>
        {
            aside.HasIndex(a => new { a.ListingId, a.Key }).IsUnique();
            aside.HasOne<ListingRow>().WithMany().HasForeignKey(a => a.ListingId);
        });
        model.Entity<SentRow>().HasOne<ListingRow>().WithMany().HasForeignKey(s => s.ListingId);
        Json(model.Entity<MarketRow>().Property(m => m.Norm));
        model.Entity<TermRow>(term =>
        {
            term.HasIndex(t => new { t.MarketId, t.Key }).IsUnique();
            term.HasOne(t => t.Reading).WithMany().HasForeignKey(t => t.ReadingId);
        });
        model.Entity<ReadingRow>(reading =>
        {
            reading.HasIndex(r => r.TermId);
            Json(reading.Property(r => r.Months));
        });
        model.Entity<PickRow>(pick =>
        {
            pick.HasIndex(p => new { p.ProductId, p.Key }).IsUnique();
            pick.Property(p => p.Fit).HasConversion<string>();
            pick.Property(p => p.Home).HasConversion<string>();
        });
        model.Entity<PickChangeRow>(change =>
        {
            change.HasIndex(c => c.ProductId);
            Json(change.Property(c => c.Before));
            Json(change.Property(c => c.FactsBefore));
        });
        model.Entity<DigRow>().HasIndex(d => new { d.ProductId, d.MarketId });
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder conventions) => conventions.Properties<DateTime>().HaveConversion<Utc>();

    // SQLite forgets that a time is UTC.
    private sealed class Utc() : ValueConverter<DateTime, DateTime>(t => t, t => DateTime.SpecifyKind(t, DateTimeKind.Utc));

    private static void Json<T>(PropertyBuilder<T> property) => property.HasConversion(
        new ValueConverter<T, string>(v => JsonSerializer.Serialize(v, JsonSerializerOptions.Web), s => JsonSerializer.Deserialize<T>(s, JsonSerializerOptions.Web)!),
        new ValueComparer<T>(
            (a, b) => JsonSerializer.Serialize(a, JsonSerializerOptions.Web) == JsonSerializer.Serialize(b, JsonSerializerOptions.Web),
            v => JsonSerializer.Serialize(v, JsonSerializerOptions.Web).GetHashCode()));
}
