using SQLitePCL;
using TinRabbit.Core.Shapes;

namespace TinRabbit.Server.Shelf;

/// <summary>Reads a shelf below EF Core: a million rows take seconds.</summary>
internal static class ShelfReader
{
    /// <summary>Reads how the terms of a market have moved.</summary>
    public static void ReadTrends(ShelfColumns shelf, sqlite3 database, string marketId, CancellationToken stop)
    {
        const string Rows =
            "SELECT t.Key, r.Months, r.[From] FROM Terms t NOT INDEXED JOIN Readings r ON r.Id = t.ReadingId WHERE t.MarketId = ?1 AND r.Months IS NOT NULL";
        if (raw.sqlite3_prepare_v2(database, Rows, out var rows) != raw.SQLITE_OK)
            throw new InvalidOperationException(raw.sqlite3_errmsg(database).utf8_to_string());
        using (rows)
        {
            raw.sqlite3_bind_text(rows, 1, marketId);
            shelf.TakeTrends(All());

            IEnumerable<(string, MonthTrend)> All()
            {
                while (raw.sqlite3_step(rows) == raw.SQLITE_ROW)
                {
                    stop.ThrowIfCancellationRequested();
                    var months = JsonSerializer.Deserialize<int[]>(raw.sqlite3_column_text(rows, 1).utf8_to_string());
                    var from = DateOnly.TryParse(
                        raw.sqlite3_column_text(rows, 2).utf8_to_string(),
                        CultureInfo.InvariantCulture,
                        out var day
                    )
                        ? day
                        : (DateOnly?)null;
                    if (MonthTrend.Of(months, from) is { } trend)
                        yield return (raw.sqlite3_column_text(rows, 0).utf8_to_string(), trend);
                }
            }
        }
    }

    /// <summary>Reads what the seller's own listings earned by the terms of a market.</summary>
    public static void ReadEarnings(ShelfColumns shelf, sqlite3 database, string marketId, CancellationToken stop)
    {
        const string Rows =
            "SELECT t.Key, r.Clicks, r.Orders, r.Sales FROM Terms t NOT INDEXED JOIN Readings r ON r.Id = t.ReadingId WHERE t.MarketId = ?1 AND COALESCE(r.Clicks, r.Orders, r.Sales) IS NOT NULL";
        if (raw.sqlite3_prepare_v2(database, Rows, out var rows) != raw.SQLITE_OK)
            throw new InvalidOperationException(raw.sqlite3_errmsg(database).utf8_to_string());
        using (rows)
        {
            raw.sqlite3_bind_text(rows, 1, marketId);
            shelf.TakeEarnings(All());

            IEnumerable<(string, double, double, double)> All()
            {
                while (raw.sqlite3_step(rows) == raw.SQLITE_ROW)
                {
                    stop.ThrowIfCancellationRequested();
                    yield return (raw.sqlite3_column_text(rows, 0).utf8_to_string(), Number(1), Number(2), Number(3));
                }
            }

            double Number(int column) =>
                raw.sqlite3_column_type(rows, column) == raw.SQLITE_NULL ? double.NaN : raw.sqlite3_column_double(rows, column);
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
