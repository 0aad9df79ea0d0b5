using System.IO.Compression;
using System.Xml;

namespace TinRabbit.Server.Files.Tables;

/// <summary>
/// Reads the first sheet of an XLSX workbook (ECMA-376) row by row, within bounds: a hostile or broken file is refused as soon as a bound is
/// passed, however small it is when compressed. Libraries at hand make a row as wide, and a sheet as long, as the file claims to be.
/// </summary>
internal static class XlsxRows
{
    private const int MostParts = 5_000;
    private const int MostStyles = 100_000;
    private const long MostSharedCharacters = 100_000_000;

    // One for each thread: a million rows have millions of texts.
    [ThreadStatic]
    private static char[]? _chunk;
    private static readonly XmlReaderSettings Settings = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        XmlResolver = null,
        IgnoreComments = true,
        IgnoreProcessingInstructions = true,
    };

    /// <summary>Reads all rows; gaps between rows are empty rows of no cells, which are left out.</summary>
    /// <param name="file">The workbook.</param>
    /// <param name="stop">Stops reading.</param>
    /// <returns>Each row with its number, from 1. The list is the same object for every row.</returns>
    /// <exception cref="InvalidInputException">The file is no workbook, is broken, or passes a bound.</exception>
    public static IEnumerable<(int Row, List<string> Cells)> Read(string file, CancellationToken stop)
    {
        using var rows = ReadUnguarded(file, stop).GetEnumerator();
        var row = 0;
        while (Next())
        {
            row = rows.Current.Row;
            yield return rows.Current;
        }

        bool Next()
        {
            try
            {
                return rows.MoveNext();
            }
            catch (Exception e)
                when (e
                        is InvalidDataException
                            or XmlException
                            or FormatException
                            or IOException
                            or NotSupportedException
                            or ArgumentException
                            or OverflowException
                            or InvalidOperationException
                )
            {
                throw Wrong(row == 0 ? "This XLSX file is damaged and cannot be read." : $"This XLSX file is damaged after row {row}.");
            }
        }
    }

    private static IEnumerable<(int Row, List<string> Cells)> ReadUnguarded(string file, CancellationToken stop)
    {
        using var zip = ZipFile.OpenRead(file);
        if (zip.Entries.Count > MostParts)
            throw Wrong($"This XLSX file has {zip.Entries.Count:#,0} parts; the most is {MostParts:#,0}.");
        var sheet = zip.GetEntry(SheetPath(zip)) ?? throw Wrong("This XLSX file has no sheet.");
        var dates = DateStyles(zip);
        var shared = SharedStrings(zip, stop);
        using var xml = XmlReader.Create(sheet.Open(), Settings);
        var cells = new List<string>();
        var row = 0;
        var text = new StringBuilder();
        while (ReadTo(xml, "row", stop))
        {
            row = xml.GetAttribute("r") is { } given ? int.Parse(given, NumberStyles.None, CultureInfo.InvariantCulture) : row + 1;
            if (row > Bounds.ImportRows)
                throw Wrong($"This sheet goes down to row {row:#,0}; the most is {Bounds.ImportRows:#,0} rows.");
            cells.Clear();
            using (var inRow = xml.ReadSubtree())
                while (ReadTo(inRow, "c", stop))
                {
                    var column = ColumnOf(inRow.GetAttribute("r"), cells.Count);
                    if (column >= Bounds.ImportColumns)
                        throw Wrong(
                            $"Row {row} of this sheet has a cell in column {column + 1:#,0}; the most is {Bounds.ImportColumns} columns."
                        );
                    var (type, style) = (inRow.GetAttribute("t") ?? "n", inRow.GetAttribute("s"));
                    while (cells.Count < column)
                        cells.Add("");
                    using var inCell = inRow.ReadSubtree();
                    cells.Add(CellText(inCell, type, style, shared, dates, text, stop));
                }

            yield return (row, cells);
        }
    }

    private static string CellText(
        XmlReader cell,
        string type,
        string? style,
        List<string> shared,
        HashSet<int> dates,
        StringBuilder text,
        CancellationToken stop
    )
    {
        text.Clear();
        for (var more = cell.Read(); more; )
        {
            stop.ThrowIfCancellationRequested();
            // Skips formulas and phonetic hints, which a cell does not show; skipping moves to the next node.
            if (cell is { NodeType: XmlNodeType.Element, LocalName: "f" or "rPh" })
            {
                cell.Skip();
                more = !cell.EOF;
                continue;
            }

            if (cell.NodeType is XmlNodeType.Text or XmlNodeType.CDATA or XmlNodeType.SignificantWhitespace)
                Append(cell, text, stop);
            more = cell.Read();
        }

        var value = text.ToString();
        return type switch
        {
            "s" => int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var at) && at < shared.Count
                ? shared[at]
                : throw Wrong("A cell of this XLSX file refers to a text that is not there."),
            "n" when double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) => int.TryParse(
                style,
                out var s
            )
            && dates.Contains(s)
            && number is > 0 and < 2_958_466
                ? DateTime.FromOADate(number).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
                : number.ToString(CultureInfo.InvariantCulture),
            _ => value,
        };
    }

    private static char[] Chunk => _chunk ??= new char[4096];

    private static void Append(XmlReader xml, StringBuilder text, CancellationToken stop)
    {
        int read;
        while ((read = xml.ReadValueChunk(Chunk, 0, Chunk.Length)) > 0)
        {
            stop.ThrowIfCancellationRequested();
            if (text.Length + read > Bounds.ImportCell)
                throw Wrong($"A cell of this file has more than {Bounds.ImportCell:#,0} characters.");
            text.Append(Chunk, 0, read);
        }
    }

    private static List<string> SharedStrings(ZipArchive zip, CancellationToken stop)
    {
        var strings = new List<string>();
        if (zip.GetEntry("xl/sharedStrings.xml") is not { } part)
            return strings;
        var (text, all) = (new StringBuilder(), 0L);
        using var xml = XmlReader.Create(part.Open(), Settings);
        while (ReadTo(xml, "si", stop))
        {
            using var item = xml.ReadSubtree();
            strings.Add(CellText(item, "str", null, strings, [], text, stop));
            all += strings[^1].Length + 16;
            if (all > MostSharedCharacters)
                throw Wrong("The texts of this XLSX file are larger than an import may be. Save it as CSV, or import it in parts.");
        }

        return strings;
    }

    // Which cell styles show a number as a date: some built-in formats, and those of the workbook that have a year or a day.
    private static HashSet<int> DateStyles(ZipArchive zip)
    {
        var (styles, formats) = (new HashSet<int>(), new HashSet<int>());
        if (zip.GetEntry("xl/styles.xml") is not { } part)
            return styles;
        using var xml = XmlReader.Create(part.Open(), Settings);
        var (inCells, style) = (false, 0);
        while (xml.Read())
        {
            if (
                xml is { NodeType: XmlNodeType.Element, LocalName: "numFmt" }
                && int.TryParse(xml.GetAttribute("numFmtId"), out var id)
                && xml.GetAttribute("formatCode") is { Length: < 200 } code
                && code.Replace("\\", "").IndexOfAny(['y', 'Y', 'd', 'D']) >= 0
                && !code.Contains("General", StringComparison.Ordinal)
                && !code.Contains("[Red]", StringComparison.OrdinalIgnoreCase)
            )
                formats.Add(id);
            if (xml.LocalName == "cellXfs")
                inCells = xml.NodeType == XmlNodeType.Element;
            if (!inCells || xml is not { NodeType: XmlNodeType.Element, LocalName: "xf" })
                continue;
            if (
                int.TryParse(xml.GetAttribute("numFmtId"), out var format)
                && (format is >= 14 and <= 22 or 45 or 46 or 47 || formats.Contains(format))
            )
                styles.Add(style);
            if (++style > MostStyles)
                throw Wrong($"This XLSX file has more than {MostStyles:#,0} cell styles.");
        }

        return styles;
    }

    private static string SheetPath(ZipArchive zip)
    {
        const string Usual = "xl/worksheets/sheet1.xml";
        string? id = null;
        if (zip.GetEntry("xl/workbook.xml") is { } workbook)
        {
            using var xml = XmlReader.Create(workbook.Open(), Settings);
            if (ReadTo(xml, "sheet", CancellationToken.None))
                id = xml.GetAttribute("id", "http://schemas.openxmlformats.org/officeDocument/2006/relationships");
        }

        if (id is not null && zip.GetEntry("xl/_rels/workbook.xml.rels") is { } relations)
        {
            using var xml = XmlReader.Create(relations.Open(), Settings);
            while (ReadTo(xml, "Relationship", CancellationToken.None))
                if (xml.GetAttribute("Id") == id && xml.GetAttribute("Target") is { } target)
                    return target.StartsWith('/') ? target[1..] : "xl/" + target;
        }

        return zip.GetEntry(Usual) is not null
            ? Usual
            : zip.Entries.FirstOrDefault(e => e.FullName.StartsWith("xl/worksheets/", StringComparison.Ordinal))?.FullName ?? Usual;
    }

    private static bool ReadTo(XmlReader xml, string name, CancellationToken stop)
    {
        while (xml.Read())
        {
            stop.ThrowIfCancellationRequested();
            if (xml.NodeType == XmlNodeType.Element && xml.LocalName == name)
                return true;
        }

        return false;
    }

    // "BC12" is column 54, from 0; without a reference, the one after the last.
    private static int ColumnOf(string? reference, int next)
    {
        if (reference is null)
            return next;
        var column = 0;
        foreach (var c in reference)
            if (char.IsAsciiLetter(c) && column < 1_000_000)
                column = column * 26 + (char.ToUpperInvariant(c) - 'A' + 1);
            else
                break;
        return column - 1 >= next
            ? column - 1
            : throw Wrong($"Cell {(reference.Length > 20 ? reference[..20] : reference)} of this XLSX file is not where it says.");
    }

    private static InvalidInputException Wrong(string why) => new([new("file", why)]);
}
