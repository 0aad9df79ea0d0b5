using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Features.Shop;

/// <summary>A table as a screen shows it: headings, and rows of as many cells. A cell that looks like a number becomes one in a workbook.</summary>
public sealed record ShownTable(
    [Required, MaxLength(Bounds.NameLength)] string Name,
    [Required, MinLength(1), MaxLength(Bounds.ShownColumns)] IReadOnlyList<string> Heads,
    [Required, MaxLength(Bounds.List)] IReadOnlyList<IReadOnlyList<string>> Rows
);

/// <summary>What a table on a screen shows, as a file.</summary>
internal static class TablesApi
{
    public static void MapTables(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/tables/export.{format}", ExportTable).Produces<string>(200, "text/csv");

    private static IResult ExportTable(string format, ShownTable table)
    {
        if (table.Rows.FirstOrDefault(r => r.Count != table.Heads.Count) is { } wrong)
            throw new InvalidInputException([
                new("rows", $"A row has {wrong.Count:#,0} cells and the table {table.Heads.Count:#,0} headings."),
            ]);
        return format switch
        {
            "csv" => Results.File(
                Encoding.UTF8.GetPreamble().Concat(Encoding.UTF8.GetBytes(CsvText.Of(table.Heads, table.Rows))).ToArray(),
                "text/csv; charset=utf-8",
                $"{table.Name}.csv"
            ),
            "xlsx" => Results.File(
                ListingFiles.Xlsx(table.Heads, table.Rows.Select(r => r.Select(CellOf))),
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                $"{table.Name}.xlsx"
            ),
            _ => throw new NotThereException(),
        };
    }

    private static object CellOf(string cell) =>
        decimal.TryParse(cell, NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
            ? number
            : CsvText.Harmless(cell);
}
