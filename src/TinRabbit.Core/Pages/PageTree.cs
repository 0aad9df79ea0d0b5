using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Pages;

/// <summary>The pages of a site as a tree that is changed: a page is never inside itself, and the pages of each parent that is touched are numbered without gaps.</summary>
public sealed class PageTree
{
    private const int Top = 0;
    private readonly Dictionary<int, PageNode> _before;
    private readonly Dictionary<int, PageNode> _nodes;
    private readonly Dictionary<int, SortedSet<int>> _inside = [];

    /// <param name="nodes">All pages, each with its own number above 0.</param>
    public PageTree(IEnumerable<PageNode> nodes)
    {
        _before = nodes.ToDictionary(n => n.Id);
        _nodes = new(_before);
        foreach (var node in _nodes.Values)
            SetOf(node.ParentId).Add(node.Id);
    }

    /// <summary>How many pages there are.</summary>
    public int Count => _nodes.Count;

    /// <summary>The pages that are no longer as they were given.</summary>
    public IReadOnlyList<PageNode> Changed => [.. _nodes.Values.Where(n => !IsSame(n, _before.GetValueOrDefault(n.Id)))];

    /// <summary>A page; null where there is none.</summary>
    public PageNode? Find(int id) => _nodes.GetValueOrDefault(id);

    /// <summary>The pages directly inside one, or at the top, in order.</summary>
    public IReadOnlyList<PageNode> ChildrenOf(int? parentId) =>
        [.. SetOf(parentId).Select(id => _nodes[id]).OrderBy(n => n.Order).ThenBy(n => n.Id)];

    /// <summary>The pages inside a page, at any depth.</summary>
    public IReadOnlyList<PageNode> Inside(int id)
    {
        var (inside, seen) = (new List<PageNode>(), new HashSet<int> { id });
        for (var next = new Queue<int>([id]); next.TryDequeue(out var parent); )
            foreach (var child in ChildrenOf(parent).Where(c => seen.Add(c.Id)))
            {
                inside.Add(child);
                next.Enqueue(child.Id);
            }

        return inside;
    }

    /// <summary>Checks that there is such a parent, and room for some levels of pages inside it.</summary>
    /// <param name="parentId">The parent; null for the top.</param>
    /// <param name="levels">How many levels of pages come there.</param>
    /// <exception cref="InvalidInputException">There is none, or they would be too deep.</exception>
    public void CheckParent(int? parentId, int levels = 1)
    {
        if (parentId is { } id && Find(id) is null)
            throw new InvalidInputException([new("parentId", "That page was deleted meanwhile.")]);
        for (var above = parentId; above is { } up && levels <= Outline.MostLevels; above = Find(up)?.ParentId)
            levels++;
        if (levels > Outline.MostLevels)
            throw new InvalidInputException([new("parentId", $"Pages can be at most {Outline.MostLevels} levels deep.")]);
    }

    /// <summary>Moves a page with those inside it.</summary>
    /// <param name="id">The page.</param>
    /// <param name="parentId">The page that it goes into; null for the top.</param>
    /// <param name="order">Its place there, from 0; more than there are puts it last.</param>
    /// <exception cref="InvalidInputException">It would be inside itself, or too deep.</exception>
    public void Move(int id, int? parentId, int order)
    {
        if (parentId == id || (parentId is { } parent && Inside(id).Any(n => n.Id == parent)))
            throw new InvalidInputException([new("parentId", "A page can’t be inside itself.")]);
        CheckParent(parentId, LevelsOf(id));
        var from = _nodes[id].ParentId;
        Put(_nodes[id], parentId);
        var there = ChildrenOf(parentId).Where(n => n.Id != id).ToList();
        there.Insert(Math.Clamp(order, 0, there.Count), _nodes[id]);
        Number(there);
        if (from != parentId)
            Number(ChildrenOf(from));
    }

    /// <summary>Puts a product's page into categories: it is inside the primary one, and shown in the others.</summary>
    /// <exception cref="InvalidInputException">One of them is no category, or it would be too deep.</exception>
    public void SetCategories(int id, int? primary, IReadOnlyList<int> others)
    {
        if (others.Concat(primary is { } one ? [one] : []).Any(c => Find(c)?.Kind != PageKind.Category))
            throw new InvalidInputException([new("categories", "A product can only be in pages of the kind category.")]);
        if (primary != _nodes[id].ParentId)
            Move(id, primary, int.MaxValue);
        _nodes[id] = _nodes[id] with { AlsoIn = [.. others.Where(c => c != primary).Distinct()] };
    }

    /// <summary>Puts the pages of an outline inside each other.</summary>
    /// <param name="made">A page for each line, all inside the same one.</param>
    /// <param name="lines">The outline.</param>
    public void Nest(IReadOnlyList<int> made, IReadOnlyList<OutlineLine> lines)
    {
        for (var i = 0; i < made.Count; i++)
            if (lines[i].Inside >= 0)
                Put(_nodes[made[i]], made[lines[i].Inside]);
        foreach (var parent in made.Select(id => _nodes[id].ParentId).Distinct().ToList())
            Number(ChildrenOf(parent));
    }

    /// <summary>Takes a page out, with those inside it or without: then they move up.</summary>
    /// <returns>The pages that are gone.</returns>
    public IReadOnlyList<PageNode> Remove(int id, bool withChildren)
    {
        List<PageNode> gone = withChildren ? [_nodes[id], .. Inside(id)] : [_nodes[id]];
        if (!withChildren)
            foreach (var child in ChildrenOf(id))
                Move(child.Id, _nodes[id].ParentId, int.MaxValue);
        foreach (var page in gone)
        {
            SetOf(page.ParentId).Remove(page.Id);
            _nodes.Remove(page.Id);
        }

        var ids = gone.Select(g => g.Id).ToHashSet();
        foreach (var other in _nodes.Values.Where(n => n.AlsoIn.Any(ids.Contains)).ToList())
            _nodes[other.Id] = other with { AlsoIn = [.. other.AlsoIn.Where(c => !ids.Contains(c))] };
        return gone;
    }

    /// <summary>Pages in the order of the tree, each before those inside it, with how deep it is from 0.</summary>
    /// <param name="pages">The pages. One whose parent is gone is at the top, so that none is out of sight.</param>
    public static IReadOnlyList<(TPage Page, int Level)> InOrder<TPage>(IReadOnlyList<TPage> pages)
        where TPage : IPageNode
    {
        var ids = pages.Select(p => p.Id).ToHashSet();
        var inside = pages.ToLookup(p => p.ParentId is { } id && ids.Contains(id) ? id : Top);
        var (order, seen) = (new List<(TPage, int)>(pages.Count), new HashSet<int>());
        var next = new Stack<(TPage Page, int Level)>();
        Push(Top, 0);
        while (next.TryPop(out var at))
            if (seen.Add(at.Page.Id))
            {
                order.Add(at);
                Push(at.Page.Id, at.Level + 1);
            }

        return order;

        // The first of them comes out first.
        void Push(int parent, int level)
        {
            foreach (var page in inside[parent].OrderBy(p => p.IsHome).ThenByDescending(p => p.Order).ThenByDescending(p => p.Id))
                next.Push((page, level));
        }
    }

    private SortedSet<int> SetOf(int? parentId) => _inside.TryGetValue(parentId ?? Top, out var set) ? set : _inside[parentId ?? Top] = [];

    private void Put(PageNode node, int? parentId)
    {
        SetOf(node.ParentId).Remove(node.Id);
        SetOf(parentId).Add(node.Id);
        _nodes[node.Id] = node with { ParentId = parentId, AlsoIn = [.. node.AlsoIn.Where(c => c != parentId)] };
    }

    // How many levels a page and those inside it have.
    private int LevelsOf(int id)
    {
        var levels = 0;
        for (List<int> level = [id]; level.Count > 0 && levels <= Outline.MostLevels; levels++)
            level = [.. level.SelectMany(up => SetOf(up))];
        return levels;
    }

    private void Number(IReadOnlyList<PageNode> siblings)
    {
        for (var i = 0; i < siblings.Count; i++)
            _nodes[siblings[i].Id] = _nodes[siblings[i].Id] with { Order = i };
    }

    private static bool IsSame(PageNode node, PageNode? before) =>
        before is not null && node.AlsoIn.SequenceEqual(before.AlsoIn) && node with { AlsoIn = before.AlsoIn } == before;
}
