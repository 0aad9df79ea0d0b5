using SQLitePCL;
using TinRabbit.Core.Shapes;

namespace TinRabbit.Server.Shelf;

/// <summary>Reads a shelf below EF Core: a million rows take seconds.</summary>
internal static class ShelfReader
{
    /// <summary>Reads how the terms of a market have moved.</summary>
    public static void ReadTrends(ShelfColumns shelf, sqlite3 database, string marketId, CancellationToken stop)
    {
        shelf.TakeTrends(
            Rows("r.Months, r.[From]", "r.Months IS NOT NULL", database, marketId, Trend, stop)
                .Where(t => t.Value is not null)
                .Select(t => (t.Key, t.Value!))
        );

        static MonthTrend? Trend(sqlite3_stmt row) =>
            MonthTrend.Of(
                JsonSerializer.Deserialize<int[]>(raw.sqlite3_column_text(row, 1).utf8_to_string()),
                DateOnly.TryParse(raw.sqlite3_column_text(row, 2).utf8_to_string(), CultureInfo.InvariantCulture, out var day) ? day : null
            );
    }

    /// <summary>Reads what the seller's own listings earned by the terms of a market.</summary>
    public static void ReadEarnings(ShelfColumns shelf, sqlite3 database, string marketId, CancellationToken stop)
    {
        shelf.TakeEarnings(
            Rows("r.Clicks, r.Orders, r.Sales", "COALESCE(r.Clicks, r.Orders, r.Sales) IS NOT NULL", database, marketId, Earned, stop)
                .Select(t => (t.Key, t.Value.Clicks, t.Value.Orders, t.Value.Sales))
        );

        static (double Clicks, double Orders, double Sales) Earned(sqlite3_stmt row) => (Number(row, 1), Number(row, 2), Number(row, 3));

        static double Number(sqlite3_stmt row, int column) =>
            raw.sqlite3_column_type(row, column) == raw.SQLITE_NULL ? double.NaN : raw.sqlite3_column_double(row, column);
    }

    // Of the terms of a market whose reading passes: the key, and what is made of the columns from 1.
    private static IEnumerable<(string Key, T Value)> Rows<T>(
        string columns,
        string condition,
        sqlite3 database,
        string marketId,
        Func<sqlite3_stmt, T> read,
        CancellationToken stop
    )
    {
        var sql =
            $"SELECT t.Key, {columns} FROM Terms t NOT INDEXED JOIN Readings r ON r.Id = t.ReadingId WHERE t.MarketId = ?1 AND {condition}";
        if (raw.sqlite3_prepare_v2(database, sql, out var rows) != raw.SQLITE_OK)
            throw new InvalidOperationException(raw.sqlite3_errmsg(database).utf8_to_string());
        using (rows)
        {
            raw.sqlite3_bind_text(rows, 1, marketId);
            while (raw.sqlite3_step(rows) == raw.SQLITE_ROW)
            {
                stop.ThrowIfCancellationRequested();
                yield return (raw.sqlite3_column_text(rows, 0).utf8_to_string(), read(rows));
            }
        }
    }

    /// <summary>Puts all terms of a market into columns, in the order in which they are stored.</summary>
    public static void Read(ShelfColumns shelf, sqlite3 database, string marketId, CancellationToken stop)
    {
        const string Rows =
            "SELECT t.Id, t.Key, IFNULL(r.Volume, -1), IFNULL(r.Competition, -1), IFNULL(r.TitlesHolding, -1), IFNULL(r.ClickCost, -1), r.TakenAt, r.Source, IFNULL(r.Popularity, -1) FROM Terms t NOT INDEXED LEFT JOIN Readings r ON r.Id = t.ReadingId WHERE t.MarketId = ?1";
        if (raw.sqlite3_prepare_v2(database, Rows, out var rows) != raw.SQLITE_OK)
            throw new InvalidOperationException(raw.sqlite3_errmsg(database).utf8_to_string());
        using (rows)
        {
            raw.sqlite3_bind_text(rows, 1, marketId);
            // Many rows have the date and the source of the one before.
            var (day, dayOf, source, sourceOf) = (double.NaN, Array.Empty<byte>(), "", Array.Empty<byte>());
            var statement = rows.DangerousGetHandle();
            double Number(int column) => Sqlite.Double(statement, column) is >= 0 and var known ? known : double.NaN;
            while (Sqlite.Step(statement) == raw.SQLITE_ROW)
            {
                var at = Sqlite.Text(statement, 6);
                if (!at.SequenceEqual(dayOf))
                {
                    dayOf = at.ToArray();
                    day =
                        dayOf.Length == 0
                            ? double.NaN
                            : ShelfLine.DayOf(DateTime.Parse(Encoding.UTF8.GetString(dayOf), CultureInfo.InvariantCulture));
                }

                var from = Sqlite.Text(statement, 7);
                if (!from.SequenceEqual(sourceOf))
                {
                    sourceOf = from.ToArray();
                    source = Encoding.UTF8.GetString(sourceOf);
                }

                shelf.Set(
                    Sqlite.Int(statement, 0),
                    Sqlite.Text(statement, 1),
                    Number(2),
                    Number(3),
                    Number(4),
                    Number(5),
                    day,
                    source,
                    Number(8)
                );
                if (shelf.Count % 65536 == 0)
                    stop.ThrowIfCancellationRequested();
            }
        }
    }
}
