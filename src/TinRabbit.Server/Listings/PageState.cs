namespace TinRabbit.Server.Listings;

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
    bool HasSuffix,
    string? LiveSlug
)
{
    public static PageState Of(PageRow page) =>
        new(
            page.Id,
            page.Kind,
            page.ParentId,
            page.Order,
            page.AlsoIn,
            page.IsHome,
            page.InMenu,
            page.IsPublished,
            page.HasSuffix,
            page.LiveSlug
        );

    /// <summary>Those of some states that their pages no longer have.</summary>
    public static IReadOnlyList<PageState> Changed(IEnumerable<PageState> before, IEnumerable<PageRow> now)
    {
        var rows = now.ToDictionary(p => p.Id);
        return [.. before.Where(b => rows.TryGetValue(b.Id, out var row) && !b.IsSame(Of(row)))];
    }

    /// <summary>Gives a page this state, and moves its revision on.</summary>
    public void ApplyTo(PageRow page)
    {
        (page.Kind, page.ParentId, page.Order, page.AlsoIn) = (Kind, ParentId, Order, [.. AlsoIn]);
        (page.IsHome, page.InMenu, page.IsPublished, page.HasSuffix, page.LiveSlug) = (IsHome, InMenu, IsPublished, HasSuffix, LiveSlug);
        page.Revision++;
    }

    /// <summary>Whether two states say the same.</summary>
    public bool IsSame(PageState other) => AlsoIn.SequenceEqual(other.AlsoIn) && this with { AlsoIn = other.AlsoIn } == other;
}
