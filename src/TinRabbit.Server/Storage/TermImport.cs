using System.Globalization;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using SQLitePCL;

namespace TinRabbit.Server.Storage;

/// <summary>A term to import, in the columns of the tables.</summary>
public readonly record struct ImportedTerm(string Text, string Key, long? Volume, long? Competition, long? TitlesHolding, decimal? ClickCost, int[]? Months);

/// <summary>What an import did.</summary>
/// <param name="New">Terms that the shelf did not know.</param>
/// <param name="Changed">Known terms that got another reading; the old one is kept.</param>
/// <param name="Same">Known terms about which the file says nothing new.</param>
/// <param name="Repeated">Rows whose term an earlier row has: the first counts.</param>
public sealed record ImportCount(int New, int Changed, int Same, int Repeated);

/// <summary>
/// Puts many terms on a shelf at once. They are laid aside row by row, then moved in one transaction: all or nothing, and what
/// memory it takes does not grow with the file. It works on a connection of its own, below EF Core, because a million rows do not go through objects.
/// </summary>
public sealed class TermImport : IDisposable
{
    private const string NowFormat = "yyyy-MM-dd HH:mm:ss.FFFFFFF";

    private readonly SqliteConnection _connection;
    private readonly sqlite3_stmt _put;
    private int _rows;

    /// <summary>Opens a database beside whoever else has it open.</summary>
    public TermImport(string connectionString)
    {
        // Rows refer to each other before both are there; what is written is consistent as a whole.
        _connection = new(new SqliteConnectionStringBuilder(connectionString) { ForeignKeys = false, Pooling = false }.ToString());
        _connection.Open();
        // A key is laid aside only where it is not the text itself.
        Run("PRAGMA temp_store=FILE; PRAGMA cache_size=-65536; PRAGMA temp.cache_size=-32768; "
            + "CREATE TEMP TABLE Aside(Row INTEGER PRIMARY KEY, Text TEXT, OtherKey TEXT, Volume INTEGER, Competition INTEGER, Titles INTEGER, Cost TEXT, Months TEXT, "
            + "Key TEXT AS (IFNULL(OtherKey, Text)), Measured INTEGER AS (COALESCE(Volume, Competition, Titles, Cost, Months) IS NOT NULL)); BEGIN");
        Check(raw.sqlite3_prepare_v2(_connection.Handle, "INSERT INTO Aside(Row, Text, OtherKey, Volume, Competition, Titles, Cost, Months) VALUES(?1,?2,?3,?4,?5,?6,?7,?8)", out _put));
    }

    /// <summary>Lays one term aside.</summary>
    public void Add(in ImportedTerm term)
    {
        var put = _put.DangerousGetHandle();
        Sqlite.Bind(put, 1, ++_rows);
        Sqlite.Bind(put, 2, term.Text);
        Sqlite.Bind(put, 3, term.Key == term.Text ? null : term.Key);
        Sqlite.Bind(put, 4, term.Volume);
        Sqlite.Bind(put, 5, term.Competition);
        Sqlite.Bind(put, 6, term.TitlesHolding);
        Sqlite.Bind(put, 7, term.ClickCost?.ToString(CultureInfo.InvariantCulture));
        Sqlite.Bind(put, 8, term.Months is null ? null : JsonSerializer.Serialize(term.Months));
        if (Sqlite.Step(put) != raw.SQLITE_DONE)
            throw new SqliteException(raw.sqlite3_errmsg(_connection.Handle).utf8_to_string(), raw.sqlite3_errcode(_connection.Handle));
        Sqlite.Reset(put);
    }

    /// <summary>Moves everything laid aside onto a market's shelf. Stopped, it leaves the shelf as it was.</summary>
    public ImportCount Finish(string marketId, string source, DateOnly? from, DateTime now, CancellationToken stop)
    {
        Run("COMMIT");
        using var interrupt = stop.Register(() => raw.sqlite3_interrupt(_connection.Handle));
        Run("BEGIN IMMEDIATE");
        try
        {
            var (terms, readings) = (Ask("SELECT COALESCE(MAX(Id),0) FROM Terms"), Ask("SELECT COALESCE((SELECT seq FROM sqlite_sequence WHERE name='Readings'), 0)"));
            terms = Math.Max(terms, Ask("SELECT COALESCE((SELECT seq FROM sqlite_sequence WHERE name='Terms'), 0)"));
            stop.ThrowIfCancellationRequested();
            // A row's place among those laid aside numbers its term and its reading; a key that is there already is passed over.
            var added = Run("INSERT OR IGNORE INTO Terms(Id, MarketId, Text, Key, ReadingId) SELECT $terms + Row, $market, Text, Key, CASE WHEN Measured THEN $readings + Row END FROM Aside ORDER BY Row",
                ("$terms", terms), ("$readings", readings), ("$market", marketId));
            stop.ThrowIfCancellationRequested();
            const string ReadingColumns = "INSERT INTO Readings(Id, TermId, Volume, Competition, TitlesHolding, ClickCost, Months, [From], Source, TakenAt) ";
            (string, object)[] about = [("$terms", terms), ("$readings", readings), ("$market", marketId), ("$from", (object?)from?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? DBNull.Value),
                ("$source", source), ("$now", now.ToString(NowFormat, CultureInfo.InvariantCulture))];
            Run(ReadingColumns + "SELECT $readings + a.Row, $terms + a.Row, a.Volume, a.Competition, a.Titles, a.Cost, a.Months, CASE WHEN a.Months IS NOT NULL THEN $from END, $source, $now "
                + "FROM Aside a JOIN Terms t ON t.Id = $terms + a.Row WHERE a.Measured ORDER BY a.Row", about);
            stop.ThrowIfCancellationRequested();
            var (changed, known) = (0, 0);
            if (added < _rows)
            {
                // Of terms that were there: the first row of each, where it says something else than the reading that counts.
                Run("CREATE TEMP TABLE Known AS SELECT MIN(a.Row) AS Row, t.Id AS TermId FROM Aside a JOIN Terms t ON t.MarketId = $market AND t.Key = a.Key WHERE t.Id <= $terms GROUP BY t.Id", ("$market", marketId), ("$terms", terms));
                known = (int)Ask("SELECT COUNT(*) FROM Known");
                Run("CREATE TEMP TABLE Other AS SELECT k.Row, k.TermId FROM Known k JOIN Aside a ON a.Row = k.Row JOIN Terms t ON t.Id = k.TermId LEFT JOIN Readings r ON r.Id = t.ReadingId WHERE a.Measured AND NOT "
                    + "(r.Id IS NOT NULL AND r.Source IS $source AND r.Volume IS a.Volume AND r.Competition IS a.Competition AND r.TitlesHolding IS a.Titles AND r.ClickCost IS a.Cost AND r.Months IS a.Months)", ("$source", source));
                changed = Run(ReadingColumns + "SELECT $readings + a.Row, o.TermId, a.Volume, a.Competition, a.Titles, a.Cost, a.Months, CASE WHEN a.Months IS NOT NULL THEN $from END, $source, $now FROM Other o JOIN Aside a ON a.Row = o.Row", about);
                Run("UPDATE Terms SET ReadingId = $readings + o.Row FROM Other o WHERE Terms.Id = o.TermId", ("$readings", readings));
            }

            stop.ThrowIfCancellationRequested();
            Run("COMMIT");
            return new(added, changed, known - changed, _rows - added - known);
        }
        catch (Exception e)
        {
            Run("ROLLBACK");
            if (stop.IsCancellationRequested && e is not OperationCanceledException)
                throw new OperationCanceledException("The import was stopped.", e, stop);
            throw;
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        raw.sqlite3_finalize(_put);
        _connection.Dispose();
    }

    private void Check(int result)
    {
        if (result != raw.SQLITE_OK)
            throw new SqliteException(raw.sqlite3_errmsg(_connection.Handle).utf8_to_string(), result);
    }

    private int Run(string sql, params (string Name, object Value)[] parameters)
    {
        using var command = Command(sql, parameters);
        return command.ExecuteNonQuery();
    }

    private long Ask(string sql)
    {
        using var command = Command(sql, []);
        return (long)command.ExecuteScalar()!;
    }

    private SqliteCommand Command(string sql, (string Name, object Value)[] parameters)
    {
        var command = _connection.CreateCommand();
        command.CommandText = sql;
        command.CommandTimeout = 0;
        foreach (var (name, value) in parameters)
            command.Parameters.AddWithValue(name, value);
        return command;
    }
}
