using CsvHelper;

namespace TinRabbit.Server.Files.Tables;

/// <summary>Writes CSV (RFC 4180). A cell that a spreadsheet would take for a formula gets a leading apostrophe.</summary>
public static class CsvText
{
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
