using TinRabbit.Server.Files.Html.Reading;

namespace TinRabbit.Server.Rivals;

/// <summary>A review that the seller brings in.</summary>
/// <param name="Text">Its text.</param>
/// <param name="Stars">1–5; null where none were given.</param>
/// <param name="At">The day it was written; null where it is not known.</param>
/// <param name="Author">Who wrote it; empty where that is not known.</param>
/// <param name="Listing">The listing that it is of, as the file names it; empty where it names none.</param>
internal sealed record GivenReview(string Text, double? Stars, DateOnly? At, string Author = "", string Listing = "")
{
    /// <summary>The reviews of a listing's page.</summary>
    /// <param name="page">The page.</param>
    /// <param name="last">The last day that one can be of.</param>
    public static IEnumerable<GivenReview> Of(ReadListing page, DateOnly last) =>
        page
            .Reviews.Where(r => r.Text.Length is > 0 and <= Bounds.ReviewLength)
            .Select(r => new GivenReview(r.Text, r.Stars, r.Date <= last ? r.Date : null));
}
