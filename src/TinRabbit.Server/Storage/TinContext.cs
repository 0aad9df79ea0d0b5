using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace TinRabbit.Server.Storage;

/// <summary>The shop's database: one SQLite file with a write-ahead log.</summary>
/// <param name="options">Where it is.</param>
/// <param name="writes">Lets one writer in at a time; null where nobody else can write.</param>
/// <param name="commits">Is told of every change to terms, picks and profiles.</param>
/// <param name="clock">Tells the time; null for the computer's own clock.</param>
public sealed class TinContext(
    DbContextOptions<TinContext> options,
    WriteGate? writes = null,
    DataVersion? commits = null,
    TimeProvider? clock = null
) : DbContext(options)
{
    private bool _inTransaction;
    private int _era = writes?.Era ?? 0;

    /// <summary>The time that rows are written with, in UTC.</summary>
    public DateTime Now => (clock ?? TimeProvider.System).GetUtcNow().UtcDateTime;

    /// <summary>Saves when no other writer is in between; then tells what was changed.</summary>
    public override async Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        // Every tracked row is compared once, and not again for each question.
        ChangeTracker.DetectChanges();
        ChangeTracker.AutoDetectChangesEnabled = false;
        try
        {
            var (isWeighed, isOfPages) = (Changes<IWeighed>(), Changes<IOfPages>());
            using var turn = _inTransaction || writes is null ? null : await Enter(writes, cancellationToken);
            var saved = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
            if (isWeighed && !_inTransaction)
                commits?.Bump();
            if (isOfPages && !_inTransaction)
                commits?.BumpPages();
            return saved;
        }
        finally
        {
            ChangeTracker.AutoDetectChangesEnabled = true;
        }

        bool Changes<T>()
            where T : class =>
            ChangeTracker.Entries<T>().Any(e => e.State is EntityState.Added or EntityState.Modified or EntityState.Deleted);
    }

    /// <summary>Runs several saves as one: all or nothing, with no other writer in between. Within another such write it is a part of that.</summary>
    public async Task InOneWrite(Func<Task> write, CancellationToken stop)
    {
        if (_inTransaction)
        {
            await write();
            return;
        }

        using (writes is null ? null : await Enter(writes, stop))
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
        commits?.BumpPages();
    }

    /// <summary>Lets go of saved rows that are not needed again: every save compares all that it holds.</summary>
    public void Release<T>()
        where T : class
    {
        foreach (var entry in ChangeTracker.Entries<T>().Where(e => e.State is EntityState.Unchanged).ToList())
            entry.State = EntityState.Detached;
    }

    /// <summary>Forgets what was read, to read it again.</summary>
    public void StartAgain()
    {
        ChangeTracker.Clear();
        _era = writes?.Era ?? 0;
    }

    // What was read before a restore is not written over what was restored.
    private async Task<IDisposable> Enter(WriteGate gate, CancellationToken stop)
    {
        var turn = await gate.Enter(stop);
        if (gate.Era == _era)
            return turn;
        turn.Dispose();
        throw new DbUpdateConcurrencyException("A backup was restored after this was read.");
    }

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
        foreach (var type in typeof(TinContext).Assembly.GetTypes().Where(t => t.IsClass && t.IsAssignableTo(typeof(IEntities))))
            ((IEntities)Activator.CreateInstance(type)!).Configure(modelBuilder);
        foreach (var row in modelBuilder.Model.GetEntityTypes().Select(e => e.ClrType).Where(t => t.IsAssignableTo(typeof(IDeletable))))
            modelBuilder.Entity(row).HasQueryFilter(NotDeleted(row));
    }

    // Hides deleted rows from every query; they stay stored, so that they can be restored.
    private static LambdaExpression NotDeleted(Type row)
    {
        var parameter = Expression.Parameter(row, "row");
        return Expression.Lambda(
            Expression.Equal(Expression.Property(parameter, nameof(IDeletable.DeletedAt)), Expression.Constant(null, typeof(DateTime?))),
            parameter
        );
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTime>().HaveConversion<Utc>();

    // SQLite forgets that a time is UTC.
    private sealed class Utc() : ValueConverter<DateTime, DateTime>(t => t, t => DateTime.SpecifyKind(t, DateTimeKind.Utc));
}
