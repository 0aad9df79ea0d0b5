using CsvHelper;
using MiniExcelLibs;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Shelf;

/// <summary>Terms with their numbers as a file that anyone can open: CSV (RFC 4180, UTF-8 with a mark) or XLSX.</summary>
public static class TermFiles
{
    private static readonly string[] Heads =
    [
        "Term",
        "Searches/mo",
        "Competing listings",
        "Exact-title matches",
        "CPC",
        "Clicks",
        "Orders",
        "Sales",
        "Headroom",
        "Competition",
        "Source",
        "Measured on",
        "First month",
        "History",
    ];

    /// <summary>An answer that downloads them. A cell that a spreadsheet would take for a formula begins with an apostrophe.</summary>
    public static IResult Download(IAsyncEnumerable<(string Text, Measured Numbers)> rows, string format, string name) =>
        format == "csv"
            ? Results.Stream(async stream => await Csv(rows, stream), "text/csv; charset=utf-8", $"{name}.csv")
            : Results.Stream(
                async stream => await Xlsx(rows, stream),
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                $"{name}.xlsx"
            );

    /// <summary>The heading of a file of rows that an import could not take.</summary>
    public static string BadHead => Line(["Row", "Reason", "Content"]);

    /// <summary>One of its rows: number, reason, and the cells as they stand.</summary>
    public static string BadLine(BadRow row) => Line([row.Row.ToString(CultureInfo.InvariantCulture), row.Reason, .. row.Cells]);

    private static string Line(string[] cells)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { Injection = CsvInjection.Escape }, true))
            csv.WriteRecord(cells);
        return text.ToString();
    }

    private static async Task Csv(IAsyncEnumerable<(string Text, Measured Numbers)> rows, Stream stream)
    {
        await using var text = new StreamWriter(stream, new UTF8Encoding(true), leaveOpen: true);
        var part = new StringWriter(CultureInfo.InvariantCulture);
        using var csv = CsvWriter.Create(part, new CsvWriterOptions { Injection = CsvInjection.Escape }, true);
        csv.WriteRecord(Heads);
        await foreach (var (term, numbers) in rows)
        {
            csv.WriteRecord([.. Cells(term, numbers).Select(c => Convert.ToString(c, CultureInfo.InvariantCulture) ?? "")]);
            if (part.GetStringBuilder().Length > 1 << 16)
                await Send();
        }

        csv.Flush();
        await Send();

        async Task Send()
        {
            await text.WriteAsync(part.ToString());
            part.GetStringBuilder().Clear();
        }
    }

    private static async Task Xlsx(IAsyncEnumerable<(string Text, Measured Numbers)> rows, Stream stream)
    {
        // Writes to a file first, because a workbook is not written from start to end.
        await using var file = new FileStream(
            Path.GetTempFileName(),
            FileMode.Open,
            FileAccess.ReadWrite,
            FileShare.None,
            1 << 16,
            FileOptions.DeleteOnClose
        );
        await file.SaveAsAsync(
            rows.ToBlockingEnumerable()
                .Select(r => Heads.Zip(Cells(CsvText.Harmless(r.Text), r.Numbers)).ToDictionary(c => c.First, c => c.Second))
        );
        file.Position = 0;
        await file.CopyToAsync(stream);
    }

    private static object?[] Cells(string term, Measured n) =>
        [
            term,
            n.Volume,
            n.Competition,
            n.TitlesHolding,
            n.ClickCost,
            n.Clicks,
            n.Orders,
            n.Sales,
            n.Headroom is { } h ? Math.Round(h, 1) : null,
            n.Band?.ToString().ToLowerInvariant(),
            n.Source,
            n.TakenAt?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            n.From?.ToString("yyyy-MM", CultureInfo.InvariantCulture),
            n.Months is { } m ? string.Join(' ', m) : null,
        ];
}
