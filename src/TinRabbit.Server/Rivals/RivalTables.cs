using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Rivals;

/// <summary>Rivals as a table: one row each, a column for each field and figure.</summary>
internal static class RivalTables
{
    private static readonly string[] Figures = ["price", "rating", "ratings", "photos", "sales", "views", "occupancy"];

    /// <summary>Reads a table. A column is a field by its key, label or role, <c>shop</c>, or one of the figures.</summary>
    /// <param name="file">CSV or XLSX.</param>
    /// <param name="platform">The platform that the rivals' listings are on.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">A row has no field of the platform, or a number that cannot be.</exception>
    public static IReadOnlyList<RivalState> Read(string file, Platform platform, CancellationToken stop)
    {
        var rivals = new List<RivalState>();
        foreach (var row in HeadedRow.Read(file, Bounds.Rivals, stop))
        {
            var fields = ListingTables.Fields(platform, row.Heads, row.Cells);
            if (fields.Count == 0)
                throw HeadedRow.Wrong(
                    $"Row {row.Number} has no text of a field. Head the columns with the fields of {platform.Name}, such as “{platform.Fields[0].Label}”."
                );
            var rating = row.NumberOf("rating", "stars");
            if (rating is not (null or (>= 1 and <= 5)))
                throw HeadedRow.Wrong($"Row {row.Number}: {rating} stars aren’t possible. Stars go from 1 to 5.");
            var occupancy = row.PercentOf("occupancy");
            if (occupancy is > 1)
                throw HeadedRow.Wrong($"Row {row.Number}: an occupancy of {occupancy:P0} isn’t possible.");
            rivals.Add(
                new(
                    row["shop", "seller"],
                    ListingText.Of(fields),
                    row.NumberOf("price"),
                    (double?)rating,
                    Whole(row, "ratings"),
                    Whole(row, "photos"),
                    Whole(row, "sales"),
                    Whole(row, "views"),
                    (double?)occupancy
                )
            );
        }

        return rivals;
    }

    /// <summary>Writes rivals as they were seen last.</summary>
    public static string Csv(IReadOnlyList<RivalRow> rivals, Platform platform) =>
        CsvText.Of(
            ["shop", .. platform.Fields.Select(f => f.Key), .. Figures, "source", "saved", "seen"],
            rivals.Select(r =>
            {
                var copy = r.Latest.Copy.On(platform);
                return (IEnumerable<string>)
                    [
                        r.Latest.Shop,
                        .. platform.Fields.Select(f => copy.TryGetValue(f.Key, out var value) ? ListingFiles.OneText(f, value) : ""),
                        Text(r.Latest.Price),
                        Text(r.Latest.Rating),
                        Text(r.Latest.Ratings),
                        Text(r.Latest.Photos),
                        Text(r.Latest.Sales),
                        Text(r.Latest.Views),
                        Text(r.Latest.Occupancy),
                        r.Source,
                        $"{r.SavedAt:u}",
                        $"{r.SeenAt:u}",
                    ];
            })
        );

    private static int? Whole(HeadedRow row, string name) =>
        row.NumberOf(name) switch
        {
            null => null,
            <= int.MaxValue and var number => (int)number,
            var number => throw HeadedRow.Wrong($"Row {row.Number}: {number:#,0} {name} are too many."),
        };

    private static string Text(IFormattable? number) => number?.ToString(null, CultureInfo.InvariantCulture) ?? "";
}
