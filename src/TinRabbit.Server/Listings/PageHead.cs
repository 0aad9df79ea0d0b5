namespace TinRabbit.Server.Listings;

/// <summary>A page as lists show it, without its text: a site has thousands.</summary>
/// <param name="Name">Its heading, otherwise what its product is called.</param>
/// <param name="MenuName">Its name in menus.</param>
/// <param name="Title">The title of its text; empty where it has none.</param>
/// <param name="LeadKey">The key of its lead; null where none is chosen.</param>
/// <param name="LinksTo">The pages that its text links to.</param>
public sealed record PageHead(
    int Id,
    int ListingId,
    int ProductId,
    PageKind Kind,
    int? ParentId,
    int Order,
    IReadOnlyList<int> AlsoIn,
    bool IsHome,
    bool InMenu,
    bool IsPublished,
    bool HasSuffix,
    string Name,
    string MenuName,
    string Title,
    string Slug,
    string? LiveSlug,
    string? LeadKey,
    IReadOnlyList<int> LinksTo,
    int Revision
) : IPageNode;
