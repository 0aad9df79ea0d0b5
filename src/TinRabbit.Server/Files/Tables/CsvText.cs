using CsvHelper;

namespace TinRabbit.Server.Files.Tables;

/// <summary>Writes CSV (RFC 4180). A cell that a spreadsheet would take for a formula gets a leading apostrophe.</summary>
public static class CsvText
{
    /// <summary>A text that no spreadsheet takes for a formula; in CSV the writer sees to it.</summary>
    public static string Harmless(string text) =>
        text.Length > 0 && text[0] is '=' or '+' or '-' or '@' or '\t' or '\r' ? "'" + text : text;

    /// <summary>A cell without what an export puts before it, so that a spreadsheet does not take it for a formula.</summary>
    public static string Unescaped(string cell) =>
        cell.Length > 1 && cell[0] == '\'' && cell[1] is '=' or '+' or '-' or '@' ? cell[1..] : cell;

    /// <summary>A table with its headings.</summary>
    public static string Of(IEnumerable<string> heads, IEnumerable<IEnumerable<string>> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { Injection = CsvInjection.Escape }, true))
        {
            csv.WriteRecord([.. heads]);
            foreach (var row in rows)
                csv.WriteRecord([.. row]);
        }

        return text.ToString();
    }
}
