using CsvHelper;

namespace TinRabbit.Server.Files.Tables;

/// <summary>Reads the rows of a file: CSV with any common delimiter and encoding, or the first sheet of XLSX. Only the current row is held.</summary>
public static class TableRows
{
    private static readonly TimeSpan CountingTakes = TimeSpan.FromSeconds(4);

    // The longest CSV row that is read, in bytes.
    private const int LongestRow = 1 << 20;

    static TableRows() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>The rows in order, numbered from 1. The same cells are given for every row; copy them to keep them.</summary>
    /// <param name="file">The file.</param>
    /// <param name="encoding">The encoding of CSV; empty for XLSX.</param>
    /// <param name="separator">The delimiter of CSV; empty for XLSX.</param>
    /// <param name="read">Is told from time to time how many bytes of CSV have been read.</param>
    /// <param name="stop">Ends the reading.</param>
    /// <exception cref="InvalidInputException">A row cannot be read, or there are too many rows or columns.</exception>
    public static IEnumerable<(int Row, TableCells Cells)> Read(
        string file,
        string encoding,
        string separator,
        Action<long>? read = null,
        CancellationToken stop = default
    ) => separator.Length == 0 ? XlsxCells(file, stop) : CsvCells(file, encoding, separator[0], read, stop);

    /// <summary>The first rows as they stand, the head included.</summary>
    public static List<string[]> First(string file, TableLook look, int count) =>
        [.. Read(file, look.Encoding, look.Separator).Take(count).Select(r => r.Cells.ToArray())];

    /// <summary>How many rows a file has, with its header; counting ends after a few seconds.</summary>
    /// <returns>The rows counted, and whether there are more.</returns>
    public static (int Rows, bool More) Count(string file, TableLook look, CancellationToken stop)
    {
        var clock = System.Diagnostics.Stopwatch.StartNew();
        var rows = 0;
        foreach (var (row, _) in Read(file, look.Encoding, look.Separator, stop: stop))
        {
            rows = row;
            if ((rows & 0xFFF) == 0 && clock.Elapsed > CountingTakes)
                return (rows, true);
        }

        return (rows, false);
    }

    /// <summary>Whether a file is a workbook, by its first bytes.</summary>
    public static bool IsXlsx(string file)
    {
        using var stream = File.OpenRead(file);
        Span<byte> first = stackalloc byte[4];
        return stream.ReadAtLeast(first, 4, throwOnEndOfStream: false) == 4 && first.SequenceEqual((ReadOnlySpan<byte>)[0x50, 0x4B, 3, 4]);
    }

    private static IEnumerable<(int Row, TableCells Cells)> XlsxCells(string file, CancellationToken stop)
    {
        List<string> cells = [];
        var view = new TableCells(() => cells.Count, i => cells[i]);
        foreach (var (row, found) in XlsxRows.Read(file, stop))
        {
            cells = found;
            yield return (row, view);
        }
    }

    private static IEnumerable<(int Row, TableCells Cells)> CsvCells(
        string file,
        string encoding,
        char separator,
        Action<long>? read,
        CancellationToken stop
    )
    {
        using var stream = File.OpenRead(file);
        using var text = new StreamReader(
            stream,
            Encoding.GetEncoding(encoding),
            detectEncodingFromByteOrderMarks: true,
            bufferSize: 1 << 16
        );
        var unclosed = false;
        using var csv = CsvReader.Create(
            text,
            new CsvReaderOptions
            {
                HasHeader = false,
                Separator = separator,
                SkipEmptyLines = false,
                MaxRecordSize = LongestRow,
                OnMalformedRecord = malformed => unclosed |= malformed.Reason == CsvMalformedReason.UnterminatedQuote,
            }
        );
        var cell = new char[256];
        var view = new TableCells(() => csv.FieldCount, Cell);
        var row = 0;
        while (Next())
        {
            if (++row > Bounds.ImportRows)
                throw new InvalidInputException([
                    new("file", $"This file has more than {Bounds.ImportRows:#,0} rows, the limit. Import it in parts."),
                ]);
            if (csv.FieldCount > Bounds.ImportColumns)
                throw new InvalidInputException([
                    new("file", $"Row {row} has {csv.FieldCount:#,0} columns; the limit is {Bounds.ImportColumns}."),
                ]);
            if ((row & 0xFFF) == 0)
                read?.Invoke(stream.Position);
            if ((row & 0xFF) == 0)
                stop.ThrowIfCancellationRequested();
            yield return (row, view);
        }

        ReadOnlySpan<char> Cell(int column)
        {
            // A byte of UTF-8 is never more than one char.
            var most = csv.GetSpan(column).Length;
            if (most > cell.Length)
                cell = new char[most * 2];
            return cell.AsSpan(0, csv.GetChars(column, cell));
        }

        bool Next()
        {
            try
            {
                return csv.Read() && !unclosed ? true
                    : unclosed ? throw Unclosed()
                    : false;
            }
            catch (CsvFormatException)
            {
                throw Invalid(
                    $"Row {row + 1} is longer than {LongestRow >> 10:#,0} KB, the limit. A quotation mark may open a cell and not close it."
                );
            }
        }

        InvalidInputException Unclosed() => Invalid($"Row {row + 1} cannot be read: a quotation mark opens a cell and does not close it.");

        static InvalidInputException Invalid(string message) => new([new("file", message)]);
    }
}
