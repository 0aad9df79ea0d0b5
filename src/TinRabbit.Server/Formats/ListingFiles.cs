using System.Globalization;
using CsvHelper;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Server.Formats;

/// <summary>A listing as a file: one row, its fields as columns in the platform's order.</summary>
public static class ListingFiles
{
    /// <summary>Writes CSV (RFC 4180, UTF-8). A cell that a spreadsheet would take for a formula is made harmless with a leading apostrophe.</summary>
    public static string Csv(string product, Platform platform, IReadOnlyDictionary<string, FieldValue> copy)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { Injection = CsvInjection.Escape }, true))
        {
            csv.WriteRecord(["product", "platform", .. platform.Fields.Select(f => f.Key)]);
            csv.WriteRecord([product, platform.Id, .. platform.Fields.Select(f => copy.TryGetValue(f.Key, out var value) ? OneText(f, value) : "")]);
        }

        return text.ToString();
    }

    /// <summary>A field as one text, its items joined by the profile's separator: what Copy puts on the clipboard.</summary>
    public static string OneText(Field field, FieldValue value) => value switch
    {
        FieldValue.Text t => t.Value,
        FieldValue.Items i => string.Join(field.Separator, i.Values.Where(v => !string.IsNullOrWhiteSpace(v))),
        FieldValue.Choices c => string.Join(field.Separator, c.Values.Select(v => $"{v.Key}: {string.Join(" / ", v.Value)}")),
        _ => "",
    };
}
