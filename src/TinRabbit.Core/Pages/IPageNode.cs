namespace TinRabbit.Core.Pages;

/// <summary>Where a page is in the tree of a site.</summary>
public interface IPageNode
{
    /// <summary>The page; an older one has a lower number.</summary>
    int Id { get; }

    /// <summary>The page that it is inside; null at the top.</summary>
    int? ParentId { get; }

    /// <summary>Its place among the pages of the same parent, from 0.</summary>
    int Order { get; }

    /// <summary>Whether it is the home page, which comes first.</summary>
    bool IsHome { get; }
}
