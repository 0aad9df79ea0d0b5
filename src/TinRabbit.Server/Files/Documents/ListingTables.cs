using TinRabbit.Server.Files.Html;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Files.Documents;

/// <summary>Reads tables of listings or pages: one row each, a column for each field.</summary>
public static class ListingTables
{
    private const int MostRows = 20_000;

    /// <summary>Reads a table. A column is a field by its key, its label or its role; <c>product</c> or <c>name</c> names the product, <c>platform</c> the platform.</summary>
    /// <param name="file">CSV or XLSX.</param>
    /// <param name="platforms">The platforms that there are, by id.</param>
    /// <param name="usual">The platform of rows that name none.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">It has no head, no column of products, an unknown platform, or too many rows.</exception>
    public static IReadOnlyList<DocumentProduct> Read(
        string file,
        IReadOnlyDictionary<string, Platform> platforms,
        string usual,
        CancellationToken stop
    )
    {
        var look = TableGuess.Of(file);
        var rows = TableRows.Read(file, look.Encoding, look.Separator, stop: stop).GetEnumerator();
        if (!rows.MoveNext())
            throw Wrong("The file has no rows.");
        var heads = rows.Current.Cells.ToArray().Select(h => h.Trim().ToLowerInvariant()).ToArray();
        var (product, platform, kind) = (Column(heads, "product", "name", "heading"), Column(heads, "platform"), Column(heads, "kind"));
        if (product < 0)
            throw Wrong("No column is headed “product” or “name”. Name the columns in the first row.");
        var products = new List<DocumentProduct>();
        while (rows.MoveNext())
        {
            var (number, cells) = (rows.Current.Row, rows.Current.Cells.ToArray());
            if (products.Count >= MostRows)
                throw Wrong($"This file has more than {MostRows:#,0} rows, the limit. Import it in parts.");
            string Cell(int column) => column >= 0 && column < cells.Length ? CsvText.Unescaped(cells[column]) : "";
            var name = Cell(product).Trim();
            if (name.Length == 0)
            {
                if (cells.All(string.IsNullOrWhiteSpace))
                    continue;
                throw Wrong($"Row {number} names no product.");
            }

            var id = Cell(platform).Trim() is { Length: > 0 } given ? given : usual;
            if (!platforms.TryGetValue(id, out var rules))
                throw Wrong($"Row {number}: there is no platform “{id}”.");
            // Only pages have a slug; a table that names no kind has products.
            var isPage = rules.Role("slug") is not null;
            var known = Enum.TryParse<PageKind>(Cell(kind).Trim(), ignoreCase: true, out var read) ? read : PageKind.Product;
            products.Add(
                new(
                    name,
                    isPage && known != PageKind.Product,
                    Listings: [new(id, Fields(rules, heads, cells))],
                    Page: isPage ? new(0, known) : null
                )
            );
        }

        return products;
    }

    /// <summary>The fields of a row whose columns are headed by their keys, labels or roles.</summary>
    internal static JsonObject Fields(Platform rules, string[] heads, string[] cells)
    {
        var fields = new JsonObject();
        for (var i = 0; i < Math.Min(heads.Length, cells.Length); i++)
            if (
                rules.Fields.FirstOrDefault(f =>
                    string.Equals(f.Key, heads[i], StringComparison.OrdinalIgnoreCase)
                    || string.Equals(f.Label, heads[i], StringComparison.OrdinalIgnoreCase)
                    || (f.Role.Length > 0 && f.Role == heads[i])
                )
                    is { Role: not "alt" } field
                && CsvText.Unescaped(cells[i]) is { Length: > 0 } text
            )
                fields[field.Key] = Value(field, text);
        return fields;
    }

    private static JsonNode Value(Field field, string text) =>
        field.Shape switch
        {
            FieldShape.Line or FieldShape.Text or FieldShape.Words => text,
            FieldShape.Rich => RichText.Sanitize(text),
            FieldShape.Choices => Choices(text, field.Separator),
            _ => new JsonArray([
                .. text.Split(field.Separator, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                    .Select(t => (JsonNode)t),
            ]),
        };

    private static JsonObject Choices(string text, string separator)
    {
        var values = new JsonObject();
        foreach (var one in text.Split(separator, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
            if (one.IndexOf(':') is var at and > 0)
            {
                var parts = one[(at + 1)..].Split(" / ", StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
                values[one[..at].Trim()] = parts.Length == 1 ? parts[0] : new JsonArray([.. parts.Select(p => (JsonNode)p)]);
            }

        return values;
    }

    private static int Column(string[] heads, params string[] names) =>
        names.Select(n => Array.IndexOf(heads, n)).FirstOrDefault(i => i >= 0, -1);

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
