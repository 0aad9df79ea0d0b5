namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>A page that a seller saw, as data.</summary>
/// <param name="Query">What was searched for; null where the page does not say it.</param>
/// <param name="Total">How many results the page states; null where it states none.</param>
/// <param name="Related">Related searches that it offers.</param>
/// <param name="Listing">The listing, where it is the page of one.</param>
/// <param name="Suggestions">Suggestions in their order, where it is a list of them.</param>
/// <param name="Unread">What could not be read, or not surely, in words.</param>
public sealed record ReadPage(
    ReadKind Kind,
    string? Query,
    long? Total,
    IReadOnlyList<ReadResult> Results,
    IReadOnlyList<string> Related,
    ReadListing? Listing,
    IReadOnlyList<string> Suggestions,
    IReadOnlyList<string> Unread
);
