using Microsoft.Data.Sqlite;
using TinRabbit.Server.Demo;
using TinRabbit.Server.Pictures;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Hosting;

/// <summary>Backs the shop up once a day and on demand, and restores a backup while the server runs.</summary>
internal sealed class BackupService(
    DataFolder folder,
    WriteGate writes,
    Shelves shelves,
    MarketSetup markets,
    TimeProvider clock,
    ILogger<BackupService> log
) : BackgroundService
{
    private static readonly TimeSpan AfterStart = TimeSpan.FromSeconds(20);
    private static readonly TimeSpan LookEvery = TimeSpan.FromMinutes(10);
    private readonly SemaphoreSlim _one = new(1, 1);

    /// <summary>All backups, the newest first.</summary>
    public IReadOnlyList<BackupView> All() => Backups.All(folder);

    /// <summary>Writes and verifies a backup.</summary>
    public async Task<BackupView> BackUp(BackupKind kind, CancellationToken stop)
    {
        await _one.WaitAsync(stop);
        try
        {
            return await Task.Run(() => Backups.Write(folder, folder.Database, kind, clock.GetUtcNow().UtcDateTime), stop);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>Backs up what there is, then puts a backup in its place: verified, brought up to date, and in one transaction.</summary>
    /// <returns>The backup of what there was; null where there is no such backup to restore.</returns>
    /// <exception cref="InvalidInputException">The backup is damaged, or from a newer program.</exception>
    public async Task<BackupView?> Restore(string name, CancellationToken stop)
    {
        if (Backups.Find(folder, name) is not { } backup)
            return null;
        var next = folder.Database + ".restore";
        try
        {
            File.Delete(next);
            await Task.Run(
                () =>
                {
                    Backups.Verify(backup);
                    Backups.Copy(backup, next);
                },
                stop
            );
            await DatabaseSetup.Migrate(next, stop);
            await DatabaseSetup.CheckTables(next, stop);
            var before = await BackUp(BackupKind.Restore, stop);
            using (await writes.Enter(stop))
                await Replace(next);
            return before;
        }
        catch (Exception e) when (e is StartProblem or InvalidDataException or SqliteException { SqliteErrorCode: 11 or 26 })
        {
            throw new InvalidInputException([
                new("name", $"{name} cannot be restored: it is damaged, or from a newer version of Tin Rabbit. The shop is as it was."),
            ]);
        }
        finally
        {
            foreach (var part in new[] { "", "-wal", "-shm", "-journal" })
                File.Delete(next + part);
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stop)
    {
        var wait = AfterStart;
        Backups.RemoveParts(folder);
        while (!stop.IsCancellationRequested)
        {
            try
            {
                await Task.Delay(wait, clock, stop);
                wait = LookEvery;
                var now = clock.GetUtcNow().UtcDateTime;
                // One that bears a day to come is of a clock that was wrong.
                var last = All().Where(b => b.Kind is BackupKind.Daily && b.At <= now).Select(b => b.At).FirstOrDefault();
                if (now - last >= TimeSpan.FromDays(1))
                {
                    await BackUp(BackupKind.Daily, stop);
                    log.LogInformation("The daily backup is made.");
                    if (await Task.Run(() => UnusedPictures.Remove(folder, now), stop) is > 0 and var removed)
                        log.LogInformation("{Count} picture files that nothing names any more are removed.", removed);
                }
            }
            catch (OperationCanceledException)
            {
                return;
            }
            catch (Exception e)
            {
                log.LogError(e, "The daily backup failed; it is tried again.");
            }
        }
    }

    // Every column by which two windows notice each other.
    private static IEnumerable<(string Table, string Column)> Revisions(TinContext db) =>
        from type in db.Model.GetEntityTypes()
        from property in type.GetProperties()
        where property.IsConcurrencyToken
        select (type.GetTableName()!, property.GetColumnName());

    // Raises all revisions above the highest before, so that no open window takes its old revision for the restored one.
    private async Task Replace(string next)
    {
        await using (var now = TinContext.Open(folder.Database))
        await using (var restored = TinContext.Open(next))
        {
            foreach (var (table, column) in Revisions(now))
            {
#pragma warning disable EF1002 // The names are those of the model.
                var highest = await now.Database.SqlQueryRaw<int>($"SELECT COALESCE(MAX({column}), 0) AS Value FROM {table}").SingleAsync();
                await restored.Database.ExecuteSqlRawAsync($"UPDATE {table} SET {column} = {column} + {highest + 1}");
#pragma warning restore EF1002
            }

            await restored.Database.ExecuteSqlRawAsync("DELETE FROM Imports WHERE Done = 0");
            // A found check that was under way can be resumed.
            await restored.Database.ExecuteSqlRawAsync("UPDATE Checks SET State = 'Stopped' WHERE State = 'Running'");
            await now.Database.OpenConnectionAsync();
            await restored.Database.OpenConnectionAsync();
            ((SqliteConnection)restored.Database.GetDbConnection()).BackupDatabase((SqliteConnection)now.Database.GetDbConnection());
        }

        SqliteConnection.ClearAllPools();
        writes.StartEra();
        await using var db = TinContext.Open(folder.Database);
        await ShopSeeder.AddShippedPlatforms(db);
        shelves.EvictAll();
        await markets.Remind(db, CancellationToken.None);
    }
}
