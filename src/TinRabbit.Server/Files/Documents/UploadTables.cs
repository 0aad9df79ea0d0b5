using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Files.Documents;

/// <summary>Writes listings as a marketplace's own export is laid out, so that they can be uploaded there again.</summary>
internal static class UploadTables
{
    /// <summary>The cells of a listing, column by column.</summary>
    public static IEnumerable<string> Cells(IReadOnlyList<UploadColumn> columns, ListingRow listing, Platform platform)
    {
        var copy = listing.Copy.On(platform);
        var details = listing.Details ?? new();
        var cells = new string[columns.Count];
        for (var i = 0; i < cells.Length; i++)
        {
            var column = columns[i];
            // The items of numbered columns are shared out, one each; the last one has the rest.
            var alike = Enumerable.Range(0, columns.Count).Where(c => columns[c].Role == column.Role).ToList();
            var (place, isLast) = (alike.IndexOf(i), alike[^1] == i);
            cells[i] = ListingColumns.FieldOf(column.Role) switch
            {
                var (key, attribute) when attribute is not null => copy.GetValueOrDefault(key) is FieldValue.Choices c
                    ? string.Join(column.Separator.Length > 0 ? column.Separator : ", ", c.Values.GetValueOrDefault(attribute) ?? [])
                    : "",
                var (key, _) when platform.Find(key) is { } field && copy.TryGetValue(key, out var value) => value is FieldValue.Items items
                    ? Shared(items.Values, place, alike.Count, isLast, column.Separator.Length > 0 ? column.Separator : field.Separator)
                    : ListingFiles.OneText(field, value),
                null => column.Role switch
                {
                    ListingColumns.Product => listing.Product.Name,
                    ListingColumns.Number => details.Number,
                    ListingColumns.Sku => details.Sku,
                    ListingColumns.Price => details.Price?.ToString("0.00", CultureInfo.InvariantCulture) ?? "",
                    ListingColumns.Quantity => details.Quantity?.ToString(CultureInfo.InvariantCulture) ?? "",
                    ListingColumns.Address => details.Address,
                    ListingColumns.Picture => Shared(details.Pictures ?? [], place, alike.Count, isLast, ","),
                    _ => details.Others?.GetValueOrDefault(column.Head) ?? "",
                },
                _ => "",
            };
        }

        return cells;
    }

    private static string Shared(IReadOnlyList<string> items, int place, int columns, bool isLast, string separator) =>
        columns == 1 || (isLast && items.Count > columns) ? string.Join(separator, items.Skip(place))
        : place < items.Count ? items[place]
        : "";
}
