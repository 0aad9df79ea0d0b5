namespace TinRabbit.Server.Files.Tables;

/// <summary>Daily figures as a table: one row a day.</summary>
internal static class FigureTables
{
    /// <summary>Reads a table with a column headed <c>date</c>, and views, clicks or sales under one of their usual names.</summary>
    /// <param name="file">CSV or XLSX.</param>
    /// <param name="last">The last day that a row can be of.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">There is no column of days or of counts, a day is missing or named twice, or a count cannot be.</exception>
    public static IReadOnlyList<DayFigures> Read(string file, DateOnly last, CancellationToken stop)
    {
        var days = new Dictionary<DateOnly, DayFigures>();
        foreach (var row in HeadedRow.Read(file, Bounds.Days, stop))
        {
            var day = row.DayOf(last, "date", "day") ?? throw HeadedRow.Wrong($"Row {row.Number} has no date. Head a column with “date”.");
            var figures = new DayFigures(
                day,
                row.CountOf("views", "impressions"),
                row.CountOf("clicks", "visits"),
                row.CountOf("sales", "orders", "nights", "bookings")
            );
            if (figures is { Views: null, Clicks: null, Sales: null })
                throw HeadedRow.Wrong($"Row {row.Number} has no count. Head the columns with “views”, “clicks” and “sales”.");
            if (!days.TryAdd(day, figures))
                throw HeadedRow.Wrong($"Row {row.Number}: {day:yyyy-MM-dd} is there twice.");
        }

        return [.. days.Values.OrderBy(d => d.Day)];
    }

    /// <summary>Writes figures.</summary>
    public static string Csv(IEnumerable<(DayFigures Day, string Source)> rows) =>
        CsvText.Of(
            ["date", "views", "clicks", "sales", "source"],
            rows.Select(r =>
                (IEnumerable<string>)[Written(r.Day.Day), Written(r.Day.Views), Written(r.Day.Clicks), Written(r.Day.Sales), r.Source]
            )
        );

    private static string Written(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Written(long? count) => count?.ToString(CultureInfo.InvariantCulture) ?? "";
}
