using Microsoft.Data.Sqlite;

namespace TinRabbit.Server.Storage;

/// <summary>
/// Makes the database, or brings it up to date, before the server starts. A new or changed database is written to a file beside the real
/// one and takes its place in one step, so a start that is interrupted at any moment leaves the shop as it was.
/// </summary>
internal static class DatabaseSetup
{
    /// <summary>Makes the database where there is none, checks the one that is there, and applies what a newer program needs.</summary>
    /// <param name="folder">The data folder, locked for this program.</param>
    /// <param name="fill">Puts into a new database what a first start shows.</param>
    /// <param name="unfinished">Whether a database is what an interrupted first start left behind, with nothing in it to keep.</param>
    /// <param name="tell">Is told what takes a while.</param>
    /// <param name="stop">Stops the set-up; the database stays as it was.</param>
    /// <exception cref="StartProblem">The file is damaged, from a newer program, or no database of this program.</exception>
    public static async Task Prepare(
        DataFolder folder,
        Func<TinContext, Task> fill,
        Func<TinContext, Task<bool>> unfinished,
        Action<string> tell,
        CancellationToken stop
    )
    {
        var file = folder.Database;
        try
        {
            if (await Exists(file, unfinished, stop))
                await Update(folder, file, tell, stop);
            else
                await Create(file, fill, tell, stop);
        }
        catch (Exception e) when (Explain(e, folder) is { } why)
        {
            throw new StartProblem(why, e);
        }
        finally
        {
            Delete(NextOf(file));
        }
    }

    /// <summary>Applies pending migrations to a copy of a database of this or an older program.</summary>
    /// <returns>Whether there was anything to apply.</returns>
    /// <exception cref="StartProblem">The database is from a newer program, or not one of this program.</exception>
    public static async Task<bool> Migrate(string file, CancellationToken stop)
    {
        await using var db = TinContext.Open(file);
        if ((await Pending(db, file, stop)).Count == 0)
            return false;
        await RemoveStaleLock(db, stop);
        await db.Database.MigrateAsync(stop);
        return true;
    }

    /// <summary>Checks that a database has every table of this program.</summary>
    /// <exception cref="InvalidDataException">One is missing.</exception>
    public static async Task CheckTables(string file, CancellationToken stop)
    {
        await using var db = TinContext.Open(file);
        var there = await db.Database.SqlQuery<string>($"SELECT name AS Value FROM sqlite_master WHERE type = 'table'").ToListAsync(stop);
        if (db.Model.GetEntityTypes().Select(e => e.GetTableName()).FirstOrDefault(t => t is not null && !there.Contains(t)) is { } missing)
            throw new InvalidDataException($"{Path.GetFileName(file)} has no table {missing}.");
    }

    private static async Task<bool> Exists(string file, Func<TinContext, Task<bool>> unfinished, CancellationToken stop)
    {
        if (Directory.Exists(file))
            throw new StartProblem(
                $"{file} is a folder, but the shop's database belongs there. Move the folder away, or choose another folder with --data DIR."
            );
        if (!File.Exists(file))
            return false;
        if (File.GetAttributes(file).HasFlag(FileAttributes.ReadOnly))
            throw new StartProblem($"{file} is read-only. Make it writable, or choose another folder with --data DIR.");
        await using var db = TinContext.Open(file);
        if (await Count(db, "sqlite_master", "1", stop) == 0)
            return false;
        return (await Pending(db, file, stop)).Count > 0 || !await unfinished(db);
    }

    private static async Task Create(string file, Func<TinContext, Task> fill, Action<string> tell, CancellationToken stop)
    {
        tell("Making a new shop…");
        var next = NextOf(file);
        Delete(next);
        await using (var db = TinContext.Open(next))
        {
            await db.Database.MigrateAsync(stop);
            await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL", stop);
            await fill(db);
        }

        Delete(file);
        File.Move(next, file, overwrite: true);
    }

    private static async Task Update(DataFolder folder, string file, Action<string> tell, CancellationToken stop)
    {
        await using (var db = TinContext.Open(file))
        {
            var pending = await Pending(db, file, stop);
            await RemoveStaleLock(db, stop);
            await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL", stop);
            if (pending.Count == 0)
                return;
            tell("Backing up the shop before updating it…");
            Backups.Write(folder, file, BackupKind.Update, db.Now);
            // Empties the old file's write-ahead log, which would otherwise be applied to the new file.
            await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)", stop);
        }

        tell("Updating the shop…");
        var next = NextOf(file);
        Delete(next);
        Backups.Copy(file, next);
        await Migrate(next, stop);
        await using (var db = TinContext.Open(next))
            await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL", stop);
        Replace(file, next);
    }

    private static void Replace(string file, string next)
    {
        File.Delete(file + "-wal");
        File.Delete(file + "-shm");
        File.Move(next, file, overwrite: true);
    }

    private static async Task<List<string>> Pending(TinContext db, string file, CancellationToken stop)
    {
        if (await Count(db, "sqlite_master", "name = '__EFMigrationsHistory'", stop) == 0)
            throw new StartProblem($"{file} is not a Tin Rabbit database. Move it away, or choose another folder with --data DIR.");
        var applied = (await db.Database.GetAppliedMigrationsAsync(stop)).ToList();
        var known = db.Database.GetMigrations().ToList();
        if (applied.Except(known).Any())
            throw new StartProblem(
                $"{file} was made by a newer version of Tin Rabbit. Start that version, or choose another folder with --data DIR."
            );
        return [.. known.Except(applied)];
    }

    // EF Core marks a migration under way by a row, which an interrupted start leaves behind. This program alone has the folder, so the row is stale.
    private static async Task RemoveStaleLock(TinContext db, CancellationToken stop)
    {
        if (await Count(db, "sqlite_master", "name = '__EFMigrationsLock'", stop) > 0)
            await db.Database.ExecuteSqlRawAsync("DELETE FROM __EFMigrationsLock", stop);
    }

    private static async Task<int> Count(TinContext db, string table, string where, CancellationToken stop)
    {
        await db.Database.OpenConnectionAsync(stop);
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = $"SELECT COUNT(*) FROM {table} WHERE {where}";
        return Convert.ToInt32(await command.ExecuteScalarAsync(stop), System.Globalization.CultureInfo.InvariantCulture);
    }

    /// <summary>What the database or the disk refused, and what to do, in one line; null for any other exception.</summary>
    public static string? Explain(Exception exception, DataFolder folder) =>
        exception switch
        {
            SqliteException e => Explain(e, folder.Database, folder),
            DbUpdateException { InnerException: SqliteException e } => Explain(e, folder.Database, folder),
            InvalidDataException =>
                $"{folder.Database} could not be backed up before the update: its copy was damaged. Check the disk; nothing was changed.",
            IOException e when e.Message.Contains("No space left", StringComparison.OrdinalIgnoreCase) => Full(folder.Database),
            IOException => $"{folder.Database} could not be written. Check the disk, or choose another folder with --data DIR.",
            _ => null,
        };

    private static string Full(string file) => $"The disk that holds {file} is full. Free some space and start again; nothing was lost.";

    private static string Explain(SqliteException e, string file, DataFolder folder) =>
        e.SqliteErrorCode switch
        {
            5 or 6 => $"{file} is open in another program. Close that program and start again.",
            8 => $"{file} cannot be written. Make it writable, or choose another folder with --data DIR.",
            13 => Full(file),
            11 or 26 =>
                $"{file} is damaged, or is not a Tin Rabbit database. Put a copy from {folder.Backups} in its place, or choose another folder with --data DIR.",
            _ =>
                $"{file} could not be opened (SQLite error {e.SqliteErrorCode}). Check the disk, or choose another folder with --data DIR.",
        };

    private static string NextOf(string file) => file + ".new";

    private static void Delete(string file)
    {
        foreach (var part in new[] { "", "-wal", "-shm", "-journal" })
            File.Delete(file + part);
    }
}
