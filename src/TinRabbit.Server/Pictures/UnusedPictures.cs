using System.Text.RegularExpressions;
using Microsoft.Data.Sqlite;

namespace TinRabbit.Server.Pictures;

/// <summary>Removes picture files that nothing names any more: no picture, text or undo of the shop, and none of a backup.</summary>
internal static partial class UnusedPictures
{
    // A picture is stored before the row that names it.
    private static readonly TimeSpan Young = TimeSpan.FromDays(1);

    // Where names of picture files stand.
    private static readonly (string Table, string Column)[] Places =
    [
        ("PictureRow", "File"),
        ("Changes", "Steps"),
        ("Listings", "Copy"),
        ("Versions", "Copy"),
        ("Sent", "Copy"),
        ("Recordings", "Page"),
    ];

    /// <summary>Removes them.</summary>
    /// <param name="folder">Whose pictures.</param>
    /// <param name="now">The time, by which young files stay.</param>
    /// <returns>How many files there were.</returns>
    public static int Remove(DataFolder folder, DateTime now)
    {
        if (!Directory.Exists(folder.Pictures))
            return 0;
        var old = Directory.GetFiles(folder.Pictures, "*.webp").Where(f => now - File.GetLastWriteTimeUtc(f) > Young).ToList();
        if (old.Count == 0)
            return 0;
        var used = new HashSet<string>(StringComparer.Ordinal);
        foreach (var database in Backups.All(folder).Select(b => Path.Combine(folder.Backups, b.Name)).Append(folder.Database))
            used.UnionWith(NamesIn(database));
        var unused = old.Where(f => !used.Contains(Path.GetFileName(f).Split('.')[0])).ToList();
        unused.ForEach(File.Delete);
        return unused.Count;
    }

    private static IEnumerable<string> NamesIn(string database)
    {
        using var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = database,
                Mode = SqliteOpenMode.ReadOnly,
                Pooling = false,
            }.ToString()
        );
        connection.Open();
        foreach (var (table, column) in Places)
        {
            using var known = connection.CreateCommand();
            known.CommandText = "SELECT COUNT(*) FROM pragma_table_info($table) WHERE name = $column";
            known.Parameters.AddWithValue("$table", table);
            known.Parameters.AddWithValue("$column", column);
            // An older backup has not all of them.
            if (known.ExecuteScalar() is 0L)
                continue;
            using var texts = connection.CreateCommand();
#pragma warning disable CA2100 // The names are constants.
            texts.CommandText =
                $"SELECT {column} FROM {table} WHERE {column} GLOB '*[0-9a-f][0-9a-f][0-9a-f][0-9a-f][0-9a-f][0-9a-f][0-9a-f][0-9a-f]*'";
#pragma warning restore CA2100
            using var reader = texts.ExecuteReader();
            while (reader.Read())
                foreach (var name in Name().Matches(reader.GetString(0)).Select(m => m.Value))
                    yield return name;
        }
    }

    [GeneratedRegex("(?<![0-9a-f])[0-9a-f]{32}(?![0-9a-f])")]
    private static partial Regex Name();
}
