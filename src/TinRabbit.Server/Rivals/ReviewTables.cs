using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Rivals;

/// <summary>Reviews as a table: one row each.</summary>
internal static class ReviewTables
{
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
