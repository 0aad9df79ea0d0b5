namespace TinRabbit.Core.Pages;

/// <summary>A page of a tree that is changed.</summary>
/// <param name="Id">The page; an older one has a lower number.</param>
/// <param name="Kind">What it is for.</param>
/// <param name="ParentId">The page that it is inside; null at the top.</param>
/// <param name="Order">Its place among the pages of the same parent, from 0.</param>
/// <param name="IsHome">Whether it is the home page.</param>
/// <param name="AlsoIn">Other categories that show it.</param>
public sealed record PageNode(int Id, PageKind Kind, int? ParentId, int Order, bool IsHome, IReadOnlyList<int> AlsoIn) : IPageNode;
