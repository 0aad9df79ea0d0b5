using Microsoft.Data.Sqlite;

namespace TinRabbit.Server.Storage;

/// <summary>Writes, lists and verifies copies of the database in the data folder's <c>backups</c>.</summary>
internal static class Backups
{
    /// <summary>How many backups of each kind are kept; the oldest go first.</summary>
    public const int Kept = 14;

    private const string NameFormat = "yyyyMMdd-HHmmssfff";

    /// <summary>All backups, the newest first.</summary>
    public static IReadOnlyList<BackupView> All(DataFolder folder) =>
        !Directory.Exists(folder.Backups)
            ? []
            : [.. new DirectoryInfo(folder.Backups).EnumerateFiles("*.db").Select(Read).OfType<BackupView>().OrderByDescending(b => b.At)];

    /// <summary>Writes a backup, verifies it, and removes those beyond <see cref="Kept"/> of its kind.</summary>
    /// <exception cref="InvalidDataException">The copy did not pass SQLite's integrity check; it was removed.</exception>
    public static BackupView Write(DataFolder folder, string database, BackupKind kind, DateTime now)
    {
        Directory.CreateDirectory(folder.Backups);
        var file = Path.Combine(
            folder.Backups,
            $"{now.ToString(NameFormat, CultureInfo.InvariantCulture)}-{kind.ToString().ToLowerInvariant()}.db"
        );
        var part = file + ".part";
        File.Delete(part);
        try
        {
            Copy(database, part);
            Verify(part);
            File.Move(part, file, overwrite: true);
        }
        finally
        {
            File.Delete(part);
        }

        foreach (var old in All(folder).Where(b => b.Kind == kind).Skip(Kept))
            File.Delete(Path.Combine(folder.Backups, old.Name));
        return Read(new(file))!;
    }

    /// <summary>Removes what a program that was killed while it backed up has left.</summary>
    public static void RemoveParts(DataFolder folder)
    {
        if (Directory.Exists(folder.Backups))
            foreach (var part in Directory.GetFiles(folder.Backups, "*.part*"))
                File.Delete(part);
    }

    /// <summary>Copies a database as it is at this moment into a file of its own, without its free pages.</summary>
    public static void Copy(string database, string file)
    {
        using var connection = Open(database);
        using var command = connection.CreateCommand();
        command.CommandText = "VACUUM INTO $file";
        command.CommandTimeout = 0;
        command.Parameters.AddWithValue("$file", file);
        command.ExecuteNonQuery();
    }

    /// <summary>Reads a whole database and checks that every page and index is sound.</summary>
    /// <exception cref="InvalidDataException">It is not.</exception>
    public static void Verify(string database)
    {
        using var connection = Open(database);
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA integrity_check(1)";
        command.CommandTimeout = 0;
        if (command.ExecuteScalar() is not "ok")
            throw new InvalidDataException($"{Path.GetFileName(database)} is damaged.");
    }

    /// <summary>A backup's file; null where there is none by that name.</summary>
    public static string? Find(DataFolder folder, string name) =>
        All(folder).Any(b => b.Name == name) ? Path.Combine(folder.Backups, name) : null;

    private static BackupView? Read(FileInfo file)
    {
        var name = Path.GetFileNameWithoutExtension(file.Name);
        return
            name.Length > NameFormat.Length
            && DateTime.TryParseExact(
                name[..NameFormat.Length],
                NameFormat,
                CultureInfo.InvariantCulture,
                DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal,
                out var at
            )
            && Enum.TryParse<BackupKind>(name[(NameFormat.Length + 1)..], ignoreCase: true, out var kind)
            ? new(file.Name, at, kind, file.Length)
            : null;
    }

    private static SqliteConnection Open(string database)
    {
        var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = database,
                Pooling = false,
                DefaultTimeout = 30,
            }.ToString()
        );
        connection.Open();
        return connection;
    }
}
