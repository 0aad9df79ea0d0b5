using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Storage;

/// <summary>The shop's database: one SQLite file with a write-ahead log.</summary>
/// <param name="options">Where it is.</param>
/// <param name="writes">Lets one writer in at a time; null where nobody else can write.</param>
/// <param name="commits">Is told of every change to terms, picks and profiles.</param>
public sealed class TinContext(DbContextOptions<TinContext> options, WriteGate? writes = null, DataVersion? commits = null)
    : DbContext(options)
{
    private bool _inTransaction;

    /// <summary>Saves when no other writer is in between; then tells what was changed.</summary>
    public override async Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        var terms = ChangeTracker
            .Entries()
            .Any(e =>
                e.State is EntityState.Added or EntityState.Modified or EntityState.Deleted
                && e.Entity is PickRow or TermRow or ReadingRow or MarketRow or PlatformRow or ProductRow or ShopRow
            );
        using var turn = _inTransaction || writes is null ? null : await writes.Enter(cancellationToken);
        var saved = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        if (terms && !_inTransaction)
            commits?.Bump();
        return saved;
    }

    /// <summary>Runs several saves as one: all or nothing, with no other writer in between.</summary>
    public async Task InOneWrite(Func<Task> write, CancellationToken stop)
    {
        using (writes is null ? null : await writes.Enter(stop))
        {
            _inTransaction = true;
            try
            {
                await using var transaction = await Database.BeginTransactionAsync(stop);
                await write();
                await transaction.CommitAsync(stop);
            }
            finally
            {
                _inTransaction = false;
            }
        }

        commits?.Bump();
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
    public DbSet<UnknownTermRow> UnknownTerms => Set<UnknownTermRow>();
    public DbSet<LookupDayRow> LookupDays => Set<LookupDayRow>();
    public DbSet<PickRow> Picks => Set<PickRow>();
    public DbSet<ChangeRow> Changes => Set<ChangeRow>();
    public DbSet<FilterRow> Filters => Set<FilterRow>();
    public DbSet<DigRow> Digs => Set<DigRow>();
    public DbSet<SiteRow> Sites => Set<SiteRow>();
    public DbSet<PageRow> Pages => Set<PageRow>();
    public DbSet<RedirectRow> Redirects => Set<RedirectRow>();
    public DbSet<RivalRow> Rivals => Set<RivalRow>();
    public DbSet<ReviewRow> Reviews => Set<ReviewRow>();
    public DbSet<WatchRow> Watches => Set<WatchRow>();
    public DbSet<FollowedTermRow> FollowedTerms => Set<FollowedTermRow>();
    public DbSet<CheckRow> Checks => Set<CheckRow>();
    public DbSet<FindRow> Finds => Set<FindRow>();
    public DbSet<FigureRow> Figures => Set<FigureRow>();
    public DbSet<NoteRow> Notes => Set<NoteRow>();
    public DbSet<ImportRow> Imports => Set<ImportRow>();
    public DbSet<ImportChangeRow> ImportChanges => Set<ImportChangeRow>();

    /// <summary>How to connect to a database file; pooled connections stay open between uses.</summary>
    public static string Connection(string file, bool pooled = true) =>
        new Microsoft.Data.Sqlite.SqliteConnectionStringBuilder
        {
            DataSource = file,
            DefaultTimeout = 10,
            Pooling = pooled,
        }.ToString();

    /// <summary>Opens a database file by itself, outside the running server; it is closed when this is disposed.</summary>
    public static TinContext Open(string file) =>
        new(
            new DbContextOptionsBuilder<TinContext>()
                .UseSqlite(Connection(file, pooled: false), s => s.UseQuerySplittingBehavior(QuerySplittingBehavior.SplitQuery))
                .Options
        );

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        Json(modelBuilder.Entity<ShopRow>().Property(s => s.OwnWords)).HasDefaultValueSql("'[]'");
        modelBuilder.Entity<ShopRow>().HasMany(s => s.Products).WithOne().HasForeignKey(p => p.ShopId);
        modelBuilder.Entity<ProductRow>(product =>
        {
            Json(product.Property(p => p.Facts));
            product.Property(p => p.Revision).IsConcurrencyToken();
            product.Property(p => p.PicturesRevision).IsConcurrencyToken();
            product.HasMany(p => p.Pictures).WithOne().HasForeignKey(p => p.ProductId);
            product.HasMany(p => p.Picks).WithOne().HasForeignKey(p => p.ProductId);
        });
        modelBuilder.Entity<ListingRow>(listing =>
        {
            listing.HasIndex(l => new { l.ProductId, l.PlatformId }).IsUnique().HasFilter(NotDeleted);
            listing.HasOne(l => l.Product).WithMany(p => p.Listings).HasForeignKey(l => l.ProductId);
            listing.HasOne(l => l.Platform).WithMany().HasForeignKey(l => l.PlatformId);
            listing.HasMany(l => l.Versions).WithOne().HasForeignKey(v => v.ListingId);
            listing.Property(l => l.Revision).IsConcurrencyToken();
            Text(listing.Property(l => l.Copy));
        });
        modelBuilder.Entity<TakeRow>().HasOne<ListingRow>().WithMany().HasForeignKey(t => t.ListingId);
        modelBuilder.Entity<AsideRow>(aside =>
        {
            aside.HasIndex(a => new { a.ListingId, a.Key }).IsUnique();
            aside.HasOne<ListingRow>().WithMany().HasForeignKey(a => a.ListingId);
        });
        Text(modelBuilder.Entity<VersionRow>().Property(v => v.Copy));
        modelBuilder.Entity<VersionRow>().Property(v => v.Reason).HasConversion<string>().HasColumnName("Why");
        Text(modelBuilder.Entity<SentRow>().Property(s => s.Copy));
        modelBuilder.Entity<SentRow>().HasOne<ListingRow>().WithMany().HasForeignKey(s => s.ListingId);
        Json(modelBuilder.Entity<MarketRow>().Property(m => m.Norm));
        modelBuilder.Entity<TermRow>(term =>
        {
            term.HasIndex(t => new { t.MarketId, t.Key }).IsUnique();
            term.HasIndex(t => t.MarketId).HasFilter("ReadingId IS NULL");
            term.HasOne(t => t.Reading).WithMany().HasForeignKey(t => t.ReadingId);
        });
        modelBuilder.Entity<ReadingRow>(reading =>
        {
            reading.HasIndex(r => r.TermId);
            Json(reading.Property(r => r.Months));
        });
        modelBuilder.Entity<UnknownTermRow>().HasKey(t => new { t.MarketId, t.Key });
        modelBuilder.Entity<LookupDayRow>().HasKey(d => d.Day);
        modelBuilder.Entity<PickRow>(pick =>
        {
            pick.HasIndex(p => new { p.ProductId, p.Key }).IsUnique().HasFilter(NotDeleted);
            pick.Property(p => p.NoteRevision).IsConcurrencyToken();
            pick.Property(p => p.Fit).HasConversion<string>();
            pick.Property(p => p.Home).HasConversion<string>();
        });
        modelBuilder.Entity<ChangeRow>(change =>
        {
            change.HasIndex(c => c.ProductId);
            Json(change.Property(c => c.Before));
            Json(change.Property(c => c.FactsBefore));
            Json(change.Property(c => c.Reversal));
        });
        modelBuilder.Entity<SiteRow>().Property(s => s.Revision).IsConcurrencyToken();
        modelBuilder.Entity<PageRow>(page =>
        {
            page.HasIndex(p => p.ListingId).IsUnique().HasFilter(NotDeleted);
            page.HasIndex(p => p.Slug);
            page.HasOne(p => p.Listing).WithMany(l => l.Pages).HasForeignKey(p => p.ListingId);
            page.Property(p => p.Kind).HasConversion<string>();
            Json(page.Property(p => p.AlsoIn));
        });
        modelBuilder.Entity<RedirectRow>().HasIndex(r => r.From).IsUnique();
        modelBuilder.Entity<PlatformRow>().Property(p => p.Revision).IsConcurrencyToken();
        modelBuilder
            .Entity<PlatformRow>()
            .Property(p => p.Profile)
            .HasConversion(
                new ValueConverter<Platform, string>(p => Profiles.Write(p), s => Profiles.Read(s)),
                new ValueComparer<Platform>((a, b) => ReferenceEquals(a, b), p => p.Id.GetHashCode(StringComparison.Ordinal), p => p)
            );
        modelBuilder.Entity<FilterRow>().HasIndex(f => f.Name).IsUnique().HasFilter(NotDeleted);
        modelBuilder.Entity<ImportChangeRow>().HasKey(c => new { c.ImportId, c.TermId });
        modelBuilder.Entity<RivalRow>(rival =>
        {
            rival.HasIndex(r => r.ListingId);
            rival.HasOne<ListingRow>().WithMany().HasForeignKey(r => r.ListingId);
            Json(rival.Property(r => r.First));
            Json(rival.Property(r => r.Latest));
        });
        modelBuilder.Entity<ReviewRow>(review =>
        {
            review.HasIndex(r => r.ListingId);
            review.HasOne<ListingRow>().WithMany().HasForeignKey(r => r.ListingId);
        });
        modelBuilder.Entity<WatchRow>().HasIndex(w => new { w.ListingId, w.MarketId }).IsUnique();
        modelBuilder.Entity<WatchRow>().HasOne<ListingRow>().WithMany().HasForeignKey(w => w.ListingId);
        modelBuilder.Entity<FollowedTermRow>(term =>
        {
            term.HasIndex(t => new
                {
                    t.ListingId,
                    t.MarketId,
                    t.Key,
                })
                .IsUnique();
            term.HasOne<ListingRow>().WithMany().HasForeignKey(t => t.ListingId);
        });
        modelBuilder.Entity<CheckRow>(check =>
        {
            check.HasIndex(c => new { c.ListingId, c.MarketId });
            check.HasOne<ListingRow>().WithMany().HasForeignKey(c => c.ListingId);
            check.Property(c => c.State).HasConversion<string>();
        });
        modelBuilder.Entity<FindRow>(find =>
        {
            find.HasKey(f => new { f.CheckId, f.TermId });
            find.HasOne<CheckRow>().WithMany().HasForeignKey(f => f.CheckId);
            find.HasOne<FollowedTermRow>().WithMany().HasForeignKey(f => f.TermId);
        });
        modelBuilder.Entity<FigureRow>(figure =>
        {
            figure.HasIndex(f => new
            {
                f.ListingId,
                f.MarketId,
                f.Day,
            });
            figure.HasOne<ListingRow>().WithMany().HasForeignKey(f => f.ListingId);
        });
        modelBuilder.Entity<NoteRow>(note =>
        {
            note.HasIndex(n => n.ListingId);
            note.Property(n => n.Revision).IsConcurrencyToken();
            Json(note.Property(n => n.Kinds));
        });
        modelBuilder.Entity<SentRow>().HasIndex(s => s.ListingId);
        modelBuilder.Entity<DigRow>().HasIndex(d => new { d.ProductId, d.MarketId });
        Hide<ProductRow>(modelBuilder);
        Hide<PlatformRow>(modelBuilder);
        Hide<ListingRow>(modelBuilder);
        Hide<VersionRow>(modelBuilder);
        Hide<TakeRow>(modelBuilder);
        Hide<PickRow>(modelBuilder);
        Hide<FilterRow>(modelBuilder);
        Hide<DigRow>(modelBuilder);
        Hide<PageRow>(modelBuilder);
        Hide<RivalRow>(modelBuilder);
        Hide<ReviewRow>(modelBuilder);
        Hide<FollowedTermRow>(modelBuilder);
        Hide<CheckRow>(modelBuilder);
        Hide<FigureRow>(modelBuilder);
        Hide<NoteRow>(modelBuilder);
    }

    private const string NotDeleted = "DeletedAt IS NULL";

    // Hides deleted rows from every query; they stay stored, so that they can be restored.
    private static void Hide<T>(ModelBuilder model)
        where T : class, IDeletable => model.Entity<T>().HasQueryFilter(row => row.DeletedAt == null);

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTime>().HaveConversion<Utc>();

    // SQLite forgets that a time is UTC.
    private sealed class Utc() : ValueConverter<DateTime, DateTime>(t => t, t => DateTime.SpecifyKind(t, DateTimeKind.Utc));

    private static void Text(PropertyBuilder<ListingText> property) =>
        property.HasConversion(new ValueConverter<ListingText, string>(t => t.Json, s => ListingText.Of(s)));

    private static PropertyBuilder<T> Json<T>(PropertyBuilder<T> property) =>
        property.HasConversion(
            new ValueConverter<T, string>(
                v => JsonSerializer.Serialize(v, JsonSerializerOptions.Web),
                s => JsonSerializer.Deserialize<T>(s, JsonSerializerOptions.Web)!
            ),
            new ValueComparer<T>(
                (a, b) => JsonSerializer.Serialize(a, JsonSerializerOptions.Web) == JsonSerializer.Serialize(b, JsonSerializerOptions.Web),
                v => JsonSerializer.Serialize(v, JsonSerializerOptions.Web).GetHashCode()
            )
        );
}
