using Microsoft.Data.Sqlite;
using SQLitePCL;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Shelf;

/// <summary>
/// Puts many terms on a shelf: all of them or none. They are staged row by row in a temporary table, then written in portions, so that
/// other writers wait for one portion at the most. An <see cref="ImportRow"/> names what was written; until the import is done, that is
/// removed again when it is stopped or fails, or at the next start after a crash. It works below EF Core, because a million rows do not
/// go through objects.
/// </summary>
public sealed class TermImport : IDisposable
{
    // About 150 ms of writing.
    internal const int Portion = 20_000;
    private const string TimeFormat = "yyyy-MM-dd HH:mm:ss.FFFFFFF";
    private const string ReadingColumns =
        "INSERT INTO Readings(Id, TermId, Volume, VolumeBelow, Competition, TitlesHolding, ClickCost, Popularity, Clicks, Orders, Sales, Months, [From], Source, TakenAt, Kept) ";

    // Of a known term: what the row has, and where it has nothing, what is known (ReadingRow.Keep). "r" is the reading so far.
    private const string NoVolume = "a.Volume IS NULL AND a.Below IS NULL";
    private const string Merged =
        $"CASE WHEN {NoVolume} THEN r.Volume ELSE a.Volume END, CASE WHEN {NoVolume} THEN r.VolumeBelow ELSE a.Below END, "
        + "COALESCE(a.Competition, r.Competition), COALESCE(a.Titles, r.TitlesHolding), COALESCE(a.Cost, r.ClickCost), COALESCE(a.Popularity, r.Popularity), "
        + "COALESCE(a.Clicks, r.Clicks), COALESCE(a.Orders, r.Orders), COALESCE(a.Sales, r.Sales), COALESCE(a.Months, r.Months)";
    private const string SameAsMerged =
        $"r.Volume IS CASE WHEN {NoVolume} THEN r.Volume ELSE a.Volume END AND r.VolumeBelow IS CASE WHEN {NoVolume} THEN r.VolumeBelow ELSE a.Below END "
        + "AND r.Competition IS COALESCE(a.Competition, r.Competition) AND r.TitlesHolding IS COALESCE(a.Titles, r.TitlesHolding) "
        + "AND r.ClickCost IS COALESCE(a.Cost, r.ClickCost) AND r.Popularity IS COALESCE(a.Popularity, r.Popularity) "
        + "AND r.Clicks IS COALESCE(a.Clicks, r.Clicks) AND r.Orders IS COALESCE(a.Orders, r.Orders) AND r.Sales IS COALESCE(a.Sales, r.Sales) AND r.Months IS COALESCE(a.Months, r.Months)";
    private static readonly string Kept =
        "NULLIF((SELECT json_group_array(json(one)) FROM ("
        + string.Join(
            " UNION ALL ",
            KeptOne("volume", $"{NoVolume} AND (r.Volume IS NOT NULL OR r.VolumeBelow IS NOT NULL)"),
            KeptOne("competition", "a.Competition IS NULL AND r.Competition IS NOT NULL"),
            KeptOne("titlesHolding", "a.Titles IS NULL AND r.TitlesHolding IS NOT NULL"),
            KeptOne("clickCost", "a.Cost IS NULL AND r.ClickCost IS NOT NULL"),
            KeptOne("popularity", "a.Popularity IS NULL AND r.Popularity IS NOT NULL"),
            KeptOne("clicks", "a.Clicks IS NULL AND r.Clicks IS NOT NULL"),
            KeptOne("orders", "a.Orders IS NULL AND r.Orders IS NOT NULL"),
            KeptOne("sales", "a.Sales IS NULL AND r.Sales IS NOT NULL"),
            KeptOne("months", "a.Months IS NULL AND r.Months IS NOT NULL")
        )
        + ")), '[]')";
    private static readonly TimeSpan FilesKept = TimeSpan.FromDays(1);

    private readonly ImportConnection _connection;
    private readonly sqlite3_stmt _stage;
    private int _rows;

    // A number that stays, with where it came from: what the reading so far had kept itself is of still an earlier one.
    private static string KeptOne(string field, string when)
    {
        string Earlier(string part) =>
            $"(SELECT json_extract(k.value, '$.{part}') FROM json_each(r.Kept) k WHERE json_extract(k.value, '$.field') = '{field}')";
        return $"SELECT json_object('field', '{field}', 'source', COALESCE({Earlier("source")}, r.Source), "
            + $"'takenAt', COALESCE({Earlier("takenAt")}, replace(r.TakenAt, ' ', 'T') || 'Z')) AS one WHERE {when}";
    }

    /// <summary>Opens a database beside whoever else has it open.</summary>
    public TermImport(string connectionString, WriteGate writes)
    {
        _connection = new(connectionString, writes);
        // Stages the key only where it differs from the text.
        _connection.Run(
            "PRAGMA temp_store=FILE; PRAGMA cache_size=-65536; PRAGMA temp.cache_size=-32768; "
                + "CREATE TEMP TABLE Aside(Row INTEGER PRIMARY KEY, Text TEXT, OtherKey TEXT, Volume INTEGER, Below INTEGER, Competition INTEGER, Titles INTEGER, Cost TEXT, Popularity INTEGER, Clicks INTEGER, Orders INTEGER, Sales TEXT, Months TEXT, "
                + "Key TEXT AS (IFNULL(OtherKey, Text)), Measured INTEGER AS (COALESCE(Volume, Below, Competition, Titles, Cost, Popularity, Clicks, Orders, Sales, Months) IS NOT NULL)); BEGIN"
        );
        Check(
            raw.sqlite3_prepare_v2(
                _connection.Handle,
                "INSERT INTO Aside(Row, Text, OtherKey, Volume, Below, Competition, Titles, Cost, Months, Popularity, Clicks, Orders, Sales) VALUES(?1,?2,?3,?4,?5,?6,?7,?8,?9,?10,?11,?12,?13)",
                out _stage
            )
        );
    }

    /// <summary>Stages one term.</summary>
    public void Add(in TableTerm term)
    {
        var stage = _stage.DangerousGetHandle();
        Sqlite.Bind(stage, 1, ++_rows);
        Sqlite.Bind(stage, 2, term.Text);
        Sqlite.Bind(stage, 3, term.Key == term.Text ? null : term.Key);
        Sqlite.Bind(stage, 4, term.Volume);
        Sqlite.Bind(stage, 5, term.VolumeBelow);
        Sqlite.Bind(stage, 6, term.Competition);
        Sqlite.Bind(stage, 7, term.TitlesHolding);
        Sqlite.Bind(stage, 8, Written(term.ClickCost));
        Sqlite.Bind(stage, 9, term.Months is null ? null : JsonSerializer.Serialize(term.Months));
        Sqlite.Bind(stage, 10, term.Popularity);
        Sqlite.Bind(stage, 11, term.Clicks);
        Sqlite.Bind(stage, 12, term.Orders);
        Sqlite.Bind(stage, 13, Written(term.Sales));
        if (Sqlite.Step(stage) != raw.SQLITE_DONE)
            throw new SqliteException(raw.sqlite3_errmsg(_connection.Handle).utf8_to_string(), raw.sqlite3_errcode(_connection.Handle));
        _ = Sqlite.Reset(stage); // what went wrong is told by the step
    }

    /// <summary>Writes everything staged onto a market's shelf. Stopped, it leaves the shelf as it was.</summary>
    /// <param name="marketId">The market.</param>
    /// <param name="source">What the readings are said to come from.</param>
    /// <param name="from">The month that histories begin with.</param>
    /// <param name="now">When they were taken.</param>
    /// <param name="progress">Is told the share that is written, 0–1.</param>
    /// <param name="stop">Stops it.</param>
    public async Task<ImportCount> Finish(
        string marketId,
        string source,
        DateOnly? from,
        DateTime now,
        Action<double> progress,
        CancellationToken stop
    )
    {
        _connection.Run("COMMIT");
        var import = await Begin(marketId, source, now, stop);
        try
        {
            int added,
                changed,
                known;
            using (stop.Register(() => raw.sqlite3_interrupt(_connection.Handle)))
            {
                added = await AddNew(import, from, now, progress, stop);
                (changed, known) = added < _rows ? await ChangeKnown(import, from, now, stop) : (0, 0);
            }

            await _connection.Write(() => _connection.Run("UPDATE Imports SET Done = 1 WHERE Id = $id", ("$id", import.Id)), stop);
            return new(added, changed, known - changed, _rows - added - known, import.Id);
        }
        catch (Exception e)
        {
            await Remove(_connection, import);
            if (stop.IsCancellationRequested && e is not OperationCanceledException)
                throw new OperationCanceledException("The import was stopped.", e, stop);
            throw;
        }
    }

    /// <summary>Removes what an import that was not done when the program ended has written.</summary>
    public static async Task RemoveUnfinished(TinContext db, WriteGate writes)
    {
        var unfinished = await db.Imports.IgnoreQueryFilters().AsNoTracking().Where(i => !i.Done).ToListAsync();
        if (unfinished.Count == 0)
            return;
        using var connection = new ImportConnection(db.Database.GetConnectionString()!, writes);
        foreach (var import in unfinished)
            await Remove(connection, import);
    }

    /// <summary>Removes files that were uploaded for an import and left for a day.</summary>
    public static void RemoveOldFiles(string folder, DateTime now)
    {
        if (!Directory.Exists(folder))
            return;
        foreach (var old in new DirectoryInfo(folder).EnumerateFiles().Where(f => f.LastWriteTimeUtc < now - FilesKept))
            old.Delete();
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        raw.sqlite3_finalize(_stage);
        _connection.Dispose();
    }

    // Reserves ids, so that what the import adds can be told from what others add meanwhile.
    private async Task<ImportRow> Begin(string marketId, string source, DateTime now, CancellationToken stop)
    {
        var import = new ImportRow
        {
            MarketId = marketId,
            Source = source,
            At = now,
            Rows = _rows,
        };
        await _connection.Write(
            () =>
            {
                import.FirstTerm = Reserve("Terms");
                import.FirstReading = Reserve("Readings");
                import.Id = (int)
                    _connection.Ask(
                        "INSERT INTO Imports(MarketId, Source, At, Done, FirstTerm, FirstReading, Rows) VALUES($market, $source, $at, 0, $term, $reading, $rows) RETURNING Id",
                        ("$market", marketId),
                        ("$source", source),
                        ("$at", Written(now)),
                        ("$term", import.FirstTerm),
                        ("$reading", import.FirstReading),
                        ("$rows", _rows)
                    );
            },
            stop
        );
        return import;
    }

    private long Reserve(string table)
    {
        var first =
            1
            + Math.Max(
                _connection.Ask($"SELECT COALESCE(MAX(Id), 0) FROM {table}"),
                _connection.Ask($"SELECT COALESCE((SELECT seq FROM sqlite_sequence WHERE name='{table}'), 0)")
            );
        if (_connection.Run($"UPDATE sqlite_sequence SET seq = $last WHERE name = '{table}'", ("$last", first + _rows - 1)) == 0)
            _connection.Run($"INSERT INTO sqlite_sequence(name, seq) VALUES('{table}', $last)", ("$last", first + _rows - 1));
        return first;
    }

    // Numbers terms and readings by the row's position among those staged, and skips keys that exist.
    private async Task<int> AddNew(ImportRow import, DateOnly? from, DateTime now, Action<double> progress, CancellationToken stop)
    {
        var added = 0;
        for (var first = 1; first <= _rows; first += Portion)
        {
            (string, object)[] about = [.. About(import, from, now), ("$first", first), ("$last", first + Portion - 1)];
            await _connection.Write(
                () =>
                {
                    added += _connection.Run(
                        "INSERT OR IGNORE INTO Terms(Id, MarketId, Text, Key, ReadingId) SELECT $terms + Row, $market, Text, Key, CASE WHEN Measured THEN $readings + Row END "
                            + "FROM Aside WHERE Row BETWEEN $first AND $last ORDER BY Row",
                        about
                    );
                    _connection.Run(
                        ReadingColumns
                            + "SELECT $readings + a.Row, $terms + a.Row, a.Volume, a.Below, a.Competition, a.Titles, a.Cost, a.Popularity, a.Clicks, a.Orders, a.Sales, a.Months, CASE WHEN a.Months IS NOT NULL THEN $from END, $source, $now, NULL "
                            + "FROM Aside a JOIN Terms t ON t.Id = $terms + a.Row WHERE a.Measured AND a.Row BETWEEN $first AND $last ORDER BY a.Row",
                        about
                    );
                },
                stop
            );
            progress((double)Math.Min(_rows, first + Portion - 1) / _rows);
        }

        return added;
    }

    // Of existing terms, the first row of each that differs from the current reading.
    private async Task<(int Changed, int Known)> ChangeKnown(ImportRow import, DateOnly? from, DateTime now, CancellationToken stop)
    {
        var about = About(import, from, now);
        _connection.Run(
            "CREATE TEMP TABLE Known AS SELECT MIN(a.Row) AS Row, t.Id AS TermId FROM Aside a JOIN Terms t ON t.MarketId = $market AND t.Key = a.Key "
                + "WHERE t.Id NOT BETWEEN $terms + 1 AND $terms + $rows GROUP BY t.Id",
            about
        );
        var known = (int)_connection.Ask("SELECT COUNT(*) FROM Known");
        _connection.Run(
            "CREATE TEMP TABLE Other AS SELECT k.Row, k.TermId FROM Known k JOIN Aside a ON a.Row = k.Row JOIN Terms t ON t.Id = k.TermId LEFT JOIN Readings r ON r.Id = t.ReadingId WHERE a.Measured AND NOT "
                + $"(r.Id IS NOT NULL AND r.Source IS $source AND {SameAsMerged})",
            about
        );
        var others = (int)_connection.Ask("SELECT COALESCE(MAX(rowid), 0) FROM Other");
        var changed = 0;
        for (var first = 1; first <= others; first += Portion)
        {
            (string, object)[] some = [.. about, ("$first", first), ("$last", first + Portion - 1)];
            await _connection.Write(
                () =>
                {
                    _connection.Run(
                        "INSERT INTO ImportChanges(ImportId, TermId, ReadingId) SELECT $id, o.TermId, t.ReadingId FROM Other o JOIN Terms t ON t.Id = o.TermId WHERE o.rowid BETWEEN $first AND $last",
                        some
                    );
                    changed += _connection.Run(
                        ReadingColumns
                            + $"SELECT $readings + a.Row, o.TermId, {Merged}, CASE WHEN a.Months IS NOT NULL THEN $from ELSE r.[From] END, $source, $now, {Kept} "
                            + "FROM Other o JOIN Aside a ON a.Row = o.Row JOIN Terms t ON t.Id = o.TermId LEFT JOIN Readings r ON r.Id = t.ReadingId WHERE o.rowid BETWEEN $first AND $last",
                        some
                    );
                    _connection.Run(
                        "UPDATE Terms SET ReadingId = $readings + o.Row FROM Other o WHERE Terms.Id = o.TermId AND o.rowid BETWEEN $first AND $last",
                        some
                    );
                },
                stop
            );
        }

        return (changed, known);
    }

    // Keeps terms that were measured by somebody else in the meantime.
    private static async Task Remove(ImportConnection connection, ImportRow import)
    {
        (string, object)[] about = [("$id", import.Id), ("$r1", import.FirstReading), ("$r2", import.FirstReading + import.Rows - 1)];
        await connection.Write(
            () =>
            {
                connection.Run(
                    "UPDATE Terms SET ReadingId = c.ReadingId FROM ImportChanges c WHERE c.ImportId = $id AND Terms.Id = c.TermId AND Terms.ReadingId BETWEEN $r1 AND $r2",
                    about
                );
                connection.Run("DELETE FROM ImportChanges WHERE ImportId = $id", about);
            },
            CancellationToken.None
        );
        for (var first = 0L; first < import.Rows; first += Portion)
        {
            var last = Math.Min(import.Rows, first + Portion) - 1;
            (string, object)[] some =
            [
                .. about,
                ("$t1", import.FirstTerm + first),
                ("$t2", import.FirstTerm + last),
                ("$p1", import.FirstReading + first),
                ("$p2", import.FirstReading + last),
            ];
            await connection.Write(
                () =>
                {
                    connection.Run(
                        "UPDATE Terms SET ReadingId = (SELECT MAX(r.Id) FROM Readings r WHERE r.TermId = Terms.Id AND r.Id NOT BETWEEN $r1 AND $r2) WHERE Id BETWEEN $t1 AND $t2 AND ReadingId BETWEEN $r1 AND $r2",
                        some
                    );
                    connection.Run("DELETE FROM Terms WHERE Id BETWEEN $t1 AND $t2 AND ReadingId IS NULL", some);
                    connection.Run("DELETE FROM Readings WHERE Id BETWEEN $p1 AND $p2", some);
                },
                CancellationToken.None
            );
        }

        await connection.Write(() => connection.Run("DELETE FROM Imports WHERE Id = $id", about), CancellationToken.None);
    }

    private static (string, object)[] About(ImportRow import, DateOnly? from, DateTime now) =>
        [
            ("$id", import.Id),
            ("$terms", import.FirstTerm - 1),
            ("$readings", import.FirstReading - 1),
            ("$rows", import.Rows),
            ("$market", import.MarketId),
            ("$source", import.Source),
            ("$from", (object?)from?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? DBNull.Value),
            ("$now", Written(now)),
        ];

    // As EF Core writes a decimal: with one digit behind the point at least.
    private static string? Written(decimal? number) => number?.ToString("0.0###########################", CultureInfo.InvariantCulture);

    private static string Written(DateTime at) => at.ToString(TimeFormat, CultureInfo.InvariantCulture);

    private void Check(int result)
    {
        if (result != raw.SQLITE_OK)
            throw new SqliteException(raw.sqlite3_errmsg(_connection.Handle).utf8_to_string(), result);
    }
}
