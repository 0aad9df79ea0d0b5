using TinRabbit.Core.Pages;

namespace TinRabbit.Server.Storage;

/// <summary>What a page was before a change, to be undone.</summary>
public sealed record PageState(
    int Id,
    PageKind Kind,
    int? ParentId,
    int Order,
    IReadOnlyList<int> AlsoIn,
    bool IsHome,
    bool InMenu,
    bool IsPublished,
    bool HasSuffix
)
{
    public static PageState Of(PageRow page) =>
        new(page.Id, page.Kind, page.ParentId, page.Order, page.AlsoIn, page.IsHome, page.InMenu, page.IsPublished, page.HasSuffix);

    public void ApplyTo(PageRow page)
    {
        (page.Kind, page.ParentId, page.Order, page.AlsoIn) = (Kind, ParentId, Order, [.. AlsoIn]);
        (page.IsHome, page.InMenu, page.IsPublished, page.HasSuffix) = (IsHome, InMenu, IsPublished, HasSuffix);
    }
}
