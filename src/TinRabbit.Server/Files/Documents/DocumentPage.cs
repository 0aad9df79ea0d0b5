namespace TinRabbit.Server.Files.Documents;

/// <summary>A page's place in the shop.</summary>
/// <param name="Id">Its number in this document: links in texts name it as <c>page:12</c>.</param>
/// <param name="Parent">The number of the page that it is inside; null at the top.</param>
public sealed record DocumentPage(
    int Id,
    PageKind Kind,
    int? Parent = null,
    int Order = 0,
    IReadOnlyList<int>? AlsoIn = null,
    bool IsHome = false,
    bool InMenu = true,
    bool IsPublished = false,
    bool HasSuffix = true,
    string? LiveSlug = null
);
