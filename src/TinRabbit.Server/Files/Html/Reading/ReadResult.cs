namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>A listing among the results of a search. Null is unknown.</summary>
/// <param name="Position">Its place as shown, from 1; ads count.</param>
/// <param name="Price">What is paid, without shipping; of a range the lower one.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Rating">Mean stars, 0–5.</param>
/// <param name="Ratings">How many rated it.</param>
/// <param name="Sponsored">Whether it is an ad.</param>
/// <param name="Mine">Whether it is of the seller's own shop.</param>
public sealed record ReadResult(
    int Position,
    string Title,
    string? Url = null,
    string? Shop = null,
    decimal? Price = null,
    string? Currency = null,
    bool FreeShipping = false,
    double? Rating = null,
    int? Ratings = null,
    bool Sponsored = false,
    ReadImage? Image = null,
    bool Mine = false
);
