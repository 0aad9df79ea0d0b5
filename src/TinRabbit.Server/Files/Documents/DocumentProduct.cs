using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Files.Documents;

/// <summary>A product, or what a page is about.</summary>
/// <param name="Notes">Change notes about it and none of its listings.</param>
/// <param name="Digs">What was dug for it.</param>
/// <param name="Likeness">Which results were judged to be like it.</param>
/// <param name="IsIdea">Whether it is only a list of picks that may become a product.</param>
public sealed record DocumentProduct(
    string Name,
    bool IsPage = false,
    Facts? Facts = null,
    [MaxLength(Bounds.Pictures)] IReadOnlyList<DocumentPicture>? Pictures = null,
    [MaxLength(Bounds.Picks)] IReadOnlyList<DocumentPick>? Picks = null,
    IReadOnlyList<DocumentListing>? Listings = null,
    DocumentPage? Page = null,
    [MaxLength(Bounds.Notes)] IReadOnlyList<DocumentNote>? Notes = null,
    IReadOnlyList<DocumentDig>? Digs = null,
    bool IsIdea = false,
    IReadOnlyList<DocumentLikeness>? Likeness = null
);
