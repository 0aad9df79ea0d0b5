using TinRabbit.Server.Files.Html;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Files.Documents;

/// <summary>Reads a marketplace's own export of listings, for any platform, by the roles of its columns.</summary>
internal static class ListingExports
{
    private const int MostRows = 20_000;

    /// <summary>A listing of an export.</summary>
    /// <param name="Row">Its row, from 1.</param>
    /// <param name="Product">The product that it names; empty where it names none.</param>
    /// <param name="Title">Its title.</param>
    public sealed record Listing(int Row, string Product, string Title, JsonObject Fields, ListingDetails Details);

    /// <summary>Reads the rows.</summary>
    /// <param name="file">CSV or XLSX.</param>
    /// <param name="look">How it is read.</param>
    /// <param name="heads">Its headings; all empty where the first row is a listing.</param>
    /// <param name="roles">What each column holds (<see cref="ListingColumns"/>).</param>
    /// <param name="separators">What is between several values of a cell, by column; empty where there is one.</param>
    /// <param name="platform">The platform.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">No column is a title, or there are too many rows.</exception>
    public static IReadOnlyList<Listing> Read(
        string file,
        TableLook look,
        IReadOnlyList<string> heads,
        IReadOnlyList<string> roles,
        IReadOnlyList<string> separators,
        Platform platform,
        CancellationToken stop
    )
    {
        var title = platform.Role("title") ?? platform.Role("heading") ?? platform.Fields[0];
        if (!roles.Contains(ListingColumns.Field + title.Key) && !roles.Contains(ListingColumns.Product))
            throw HeadedRow.Wrong($"Which column holds the {title.Label.ToLowerInvariant()}? Choose it below.");
        var listings = new List<Listing>();
        foreach (var (row, cells) in TableRows.Read(file, look.Encoding, look.Separator, stop: stop))
        {
            if (row == 1 && heads.Any(h => h.Length > 0))
                continue;
            if (listings.Count >= MostRows)
                throw HeadedRow.Wrong($"This file has more than {MostRows:#,0} rows, the limit. Import it in parts.");
            var texts = cells.ToArray();
            if (!Array.TrueForAll(texts, string.IsNullOrWhiteSpace))
                listings.Add(ListingOf(row, texts, heads, roles, separators, platform, title));
        }

        return listings;
    }

    /// <summary>One listing of cells that are headed.</summary>
    public static Listing OfCells(IReadOnlyList<string> heads, string[] roles, string[] cells, Platform platform)
    {
        var title = platform.Role("title") ?? platform.Role("heading") ?? platform.Fields[0];
        string[] separators =
        [
            .. roles.Select(
                (r, i) =>
                    ListingColumns.FieldOf(r) is var (key, attribute) && attribute is null && ListingColumns.IsList(r, platform)
                        ? ListingColumns.SeparatorOf([cells[i]], platform.Find(key)!)
                        : ""
            ),
        ];
        return ListingOf(1, cells, heads, roles, separators, platform, title);
    }

    private static Listing ListingOf(
        int row,
        string[] cells,
        IReadOnlyList<string> heads,
        IReadOnlyList<string> roles,
        IReadOnlyList<string> separators,
        Platform platform,
        Field title
    )
    {
        var values = new Dictionary<string, List<string>>(StringComparer.Ordinal);
        var attributes = new Dictionary<string, JsonObject>(StringComparer.Ordinal);
        var others = new Dictionary<string, string>(StringComparer.Ordinal);
        for (var i = 0; i < roles.Count && i < cells.Length; i++)
        {
            var cell = CsvText.Unescaped(cells[i]).Trim();
            if (cell.Length == 0)
                continue;
            if (roles[i].Length == 0)
                others.TryAdd(heads[i].Length > 0 ? heads[i] : $"Column {i + 1}", cell);
            else if (ListingColumns.FieldOf(roles[i]) is var (key, attribute) && attribute is not null)
            {
                if (!attributes.TryGetValue(key, out var chosen))
                    attributes[key] = chosen = [];
                chosen[attribute] = Several(cell, separators[i]) is { Count: > 1 } several
                    ? new JsonArray([.. several.Select(s => (JsonNode)s)])
                    : cell;
            }
            else
            {
                if (!values.TryGetValue(roles[i], out var all))
                    values[roles[i]] = all = [];
                all.AddRange(ListingColumns.IsList(roles[i], platform) ? Several(cell, separators[i]) : [cell]);
            }
        }

        var fields = new JsonObject();
        foreach (var field in platform.Fields)
            if (attributes.TryGetValue(field.Key, out var chosen))
                fields[field.Key] = chosen;
            else if (values.TryGetValue(ListingColumns.Field + field.Key, out var texts))
                fields[field.Key] = ValueOf(field, texts);
        return new(
            row,
            First(ListingColumns.Product),
            First(ListingColumns.Field + title.Key),
            fields,
            new(
                First(ListingColumns.Number),
                First(ListingColumns.Sku),
                Number(First(ListingColumns.Price)),
                CurrencyIn(heads, roles),
                Number(First(ListingColumns.Quantity)) is { } quantity and >= 0 and <= int.MaxValue ? (int)quantity : null,
                First(ListingColumns.Address),
                values.GetValueOrDefault(ListingColumns.Picture),
                others.Count > 0 ? others : null
            )
        );

        string First(string role) => values.TryGetValue(role, out var found) ? found[0] : "";
    }

    private static JsonNode ValueOf(Field field, List<string> texts) =>
        field.Shape switch
        {
            FieldShape.Line or FieldShape.Text => string.Join("\n", texts),
            FieldShape.Words => string.Join(' ', texts),
            FieldShape.Rich => RichText.Sanitize(string.Join("\n", texts)),
            _ => new JsonArray([.. texts.Select(t => (JsonNode)t)]),
        };

    private static List<string> Several(string cell, string separator) =>
        separator.Length == 0 ? [cell] : [.. cell.Split(separator, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];

    private static decimal? Number(string text)
    {
        var digits = text.Trim('€', '£', '$', ' ');
        return WrittenNumbers.Read(digits, null, out var number) == WrittenNumbers.Kind.Number ? number : null;
    }

    // "Price (GBP)" says the currency.
    private static string CurrencyIn(IReadOnlyList<string> heads, IReadOnlyList<string> roles)
    {
        for (var i = 0; i < roles.Count; i++)
            if (roles[i] == ListingColumns.Price)
                return heads[i].Split(' ', '(', ')', '/', ',').FirstOrDefault(w => w.Length == 3 && w.All(char.IsAsciiLetterUpper)) ?? "";
        return "";
    }
}
