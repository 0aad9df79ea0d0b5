namespace TinRabbit.Server.Files.Tables;

/// <summary>Daily figures as a table: one row a day.</summary>
internal static class FigureTables
{
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
