using MiniExcelLibs;

namespace TinRabbit.Server.Files.Tables;

/// <summary>Listings as a file for upload: one row each, their fields as columns in the platform's order.</summary>
public static class ListingFiles
{
    /// <summary>Writes CSV (RFC 4180, UTF-8). A cell that a spreadsheet would take for a formula is made harmless with a leading apostrophe.</summary>
    public static string Csv(Platform platform, IEnumerable<(string Product, IReadOnlyDictionary<string, FieldValue> Copy)> listings) =>
        CsvText.Of(Columns(platform), listings.Select(l => Cells(platform, l.Product, l.Copy)));

    /// <summary>Writes the first sheet of an XLSX workbook; every cell is text.</summary>
    public static byte[] Xlsx(Platform platform, IEnumerable<(string Product, IReadOnlyDictionary<string, FieldValue> Copy)> listings) =>
        Xlsx([.. Columns(platform)], listings.Select(l => Cells(platform, l.Product, l.Copy)));

    /// <summary>The same of any columns, and of numbers as numbers.</summary>
    public static byte[] Xlsx(IEnumerable<string> heads, IEnumerable<IEnumerable<object>> rows)
    {
        using var file = new MemoryStream();
        // Two columns of one heading have two names in a workbook's rows: the second is told apart by a space.
        var names = new List<string>();
        foreach (var head in heads)
            names.Add(names.Contains(head) ? head + new string(' ', names.Count(n => n.TrimEnd() == head)) : head);
        file.SaveAs(rows.Select(r => names.Zip(r).ToDictionary(c => c.First, c => c.Second)));
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

    /// <summary>The columns by which listings are written.</summary>
    public static IEnumerable<string> Columns(Platform platform) =>
        platform.Fields.Select(f => f.Key).Prepend("platform").Prepend("product");

    /// <summary>The cells of a listing.</summary>
    public static IEnumerable<string> Cells(Platform platform, string product, IReadOnlyDictionary<string, FieldValue> copy) =>
        platform.Fields.Select(f => copy.TryGetValue(f.Key, out var value) ? OneText(f, value) : "").Prepend(platform.Id).Prepend(product);
}
