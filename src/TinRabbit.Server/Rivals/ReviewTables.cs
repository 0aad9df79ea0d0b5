using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Rivals;

/// <summary>Reviews as a table: one row each.</summary>
internal static class ReviewTables
{
    /// <summary>Reads a table with a column headed <c>review</c> or <c>text</c>, and perhaps <c>stars</c> and <c>date</c>.</summary>
    /// <param name="file">CSV or XLSX.</param>
    /// <param name="last">The last day that a row can be of.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">There is no column of texts, a text is too long, or stars or a date cannot be.</exception>
    public static IReadOnlyList<MarketReview> Read(string file, DateOnly last, CancellationToken stop)
    {
        var reviews = new List<MarketReview>();
        foreach (var row in HeadedRow.Read(file, Bounds.Reviews, stop))
        {
            if (!row.Heads.Any(h => h is "review" or "text" or "comment"))
                throw HeadedRow.Wrong("No column is headed “review” or “text”. Name the columns in the first row.");
            var text = row["review", "text", "comment"];
            if (text.Length == 0)
                continue;
            if (text.Length > Bounds.ReviewLength)
                throw HeadedRow.Wrong($"Row {row.Number} has {text.Length:#,0} characters; the limit is {Bounds.ReviewLength:#,0}.");
            var stars = row.NumberOf("stars", "rating");
            if (stars is not (null or (>= 1 and <= 5)))
                throw HeadedRow.Wrong($"Row {row.Number}: {stars} stars aren’t possible. Stars go from 1 to 5.");
            reviews.Add(new(text, (double?)stars, row.DateOf(last, "date")));
        }

        return reviews;
    }

    /// <summary>Writes reviews.</summary>
    public static string Csv(IEnumerable<(ReviewRow Review, string Of)> reviews) =>
        CsvText.Of(
            ["of", "stars", "date", "review", "source"],
            reviews.Select(r =>
                (IEnumerable<string>)
                    [
                        r.Of,
                        r.Review.Stars?.ToString(CultureInfo.InvariantCulture) ?? "",
                        r.Review.At?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "",
                        r.Review.Text,
                        r.Review.Source,
                    ]
            )
        );
}
