using CsvHelper;
using MiniExcelLibs;

namespace TinRabbit.Server.Files.Tables;

/// <summary>Listings as a file for upload: one row each, their fields as columns in the platform's order.</summary>
public static class ListingFiles
{
    /// <summary>Writes CSV (RFC 4180, UTF-8). A cell that a spreadsheet would take for a formula is made harmless with a leading apostrophe.</summary>
    public static string Csv(Platform platform, IEnumerable<(string Product, IReadOnlyDictionary<string, FieldValue> Copy)> listings)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { Injection = CsvInjection.Escape }, true))
        {
            csv.WriteRecord([.. Columns(platform)]);
            foreach (var (product, copy) in listings)
                csv.WriteRecord([.. Cells(platform, product, copy)]);
        }

        return text.ToString();
    }

    /// <summary>Writes the first sheet of an XLSX workbook; every cell is text.</summary>
    public static byte[] Xlsx(Platform platform, IEnumerable<(string Product, IReadOnlyDictionary<string, FieldValue> Copy)> listings)
    {
        using var file = new MemoryStream();
        file.SaveAs(
            listings.Select(l =>
                Columns(platform).Zip(Cells(platform, l.Product, l.Copy)).ToDictionary(c => c.First, c => (object)c.Second)
            )
        );
        return file.ToArray();
    }

    /// <summary>A field as one text, its items joined by the profile's separator: what Copy puts on the clipboard.</summary>
    public static string OneText(Field field, FieldValue value) =>
        value switch
        {
            FieldValue.Text t when field.Shape == FieldShape.Words => string.Join(
                ' ',
                t.Value.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
            ),
            FieldValue.Text t => t.Value,
            FieldValue.Items i => string.Join(
                field.Shape == FieldShape.Words ? " " : field.Separator,
                i.Values.Where(v => !string.IsNullOrWhiteSpace(v))
            ),
            FieldValue.Choices c => string.Join(field.Separator, c.Values.Select(v => $"{v.Key}: {string.Join(" / ", v.Value)}")),
            _ => "",
        };

    private static IEnumerable<string> Columns(Platform platform) =>
        platform.Fields.Select(f => f.Key).Prepend("platform").Prepend("product");

    private static IEnumerable<string> Cells(Platform platform, string product, IReadOnlyDictionary<string, FieldValue> copy) =>
        platform.Fields.Select(f => copy.TryGetValue(f.Key, out var value) ? OneText(f, value) : "").Prepend(platform.Id).Prepend(product);
}
