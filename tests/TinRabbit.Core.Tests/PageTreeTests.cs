using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Tests;

/// <summary>The tree of a site's pages, changed at random and by hand.</summary>
public class PageTreeTests
{
    private static PageNode Node(int id, int? parent = null, int order = 0, PageKind kind = PageKind.Category, params int[] alsoIn) =>
        new(id, kind, parent, order, false, alsoIn);

    // Each page inside an earlier one or at the top, numbered in order.
    private static readonly Gen<List<PageNode>> Trees =
        from parents in Gen.Choose(0, 1_000).ListOf(24)
        select parents
            .Select((p, i) => (Id: i + 1, Parent: p % (i + 1) is > 0 and var up ? up : (int?)null))
            .GroupBy(p => p.Parent)
            .SelectMany(g => g.Select((p, order) => Node(p.Id, p.Parent, order)))
            .OrderBy(n => n.Id)
            .ToList();

    private static readonly Gen<List<(int Page, int? Parent, int Order)>> Moves =
        from moves in (
            from page in Gen.Choose(1, 24)
            from parent in Gen.Choose(0, 24)
            from order in Gen.Choose(0, 30)
            select (page, parent == 0 ? (int?)null : parent, order)
        ).ListOf(12)
        select moves.ToList();

    [Fact]
    public void However_pages_are_moved_none_is_inside_itself_none_is_lost_and_siblings_are_numbered_without_gaps() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                Trees.ToArbitrary(),
                Moves.ToArbitrary(),
                (nodes, moves) =>
                {
                    var tree = new PageTree(nodes);
                    foreach (var (page, parent, order) in moves)
                        Try(() => tree.Move(page, parent, order));
                    var now = nodes.Select(n => tree.Find(n.Id)!).ToList();
                    var levels = PageTree.InOrder(now);
                    return levels.Count == nodes.Count
                        && levels.All(l => l.Level < Outline.MostLevels)
                        && now.GroupBy(n => n.ParentId)
                            .All(g => g.Select(n => n.Order).Order().SequenceEqual(Enumerable.Range(0, g.Count())));
                }
            )
        );

    [Fact]
    public void A_page_that_is_moved_and_moved_back_leaves_nothing_changed() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                Trees.ToArbitrary(),
                Moves.ToArbitrary(),
                (nodes, moves) =>
                {
                    var (tree, (page, parent, order)) = (new PageTree(nodes), moves[0]);
                    var before = tree.Find(page)!;
                    if (!Try(() => tree.Move(page, parent, order)))
                        return tree.Changed.Count == 0;
                    tree.Move(page, before.ParentId, before.Order);
                    return tree.Changed.Count == 0;
                }
            )
        );

    [Fact]
    public void Only_the_siblings_of_both_places_change()
    {
        var tree = new PageTree([Node(1), Node(2, null, 1), Node(3, 1), Node(4, 1, 1), Node(5, 2), Node(6, 5)]);
        tree.Move(3, 2, 0);
        Assert.Equal([3, 4, 5], tree.Changed.Select(n => n.Id).Order());
        Assert.Equal([3, 5], tree.ChildrenOf(2).Select(n => n.Id));
        Assert.Equal(0, tree.Find(4)!.Order);
    }

    [Fact]
    public void A_page_cannot_go_into_itself_into_what_is_inside_it_or_into_one_that_is_gone()
    {
        var tree = new PageTree([Node(1), Node(2, 1), Node(3, 2)]);
        Assert.Throws<InvalidInputException>(() => tree.Move(1, 1, 0));
        Assert.Throws<InvalidInputException>(() => tree.Move(1, 3, 0));
        Assert.Throws<InvalidInputException>(() => tree.Move(1, 9, 0));
        Assert.Empty(tree.Changed);
    }

    [Fact]
    public void Twelve_levels_are_the_most_with_those_that_come_along()
    {
        // Eleven in a row, and two in another.
        PageNode[] row = [.. Enumerable.Range(1, 11).Select(i => Node(i, i == 1 ? null : i - 1))];
        var tree = new PageTree([.. row, Node(20, null, 1), Node(21, 20)]);
        Assert.Throws<InvalidInputException>(() => tree.Move(20, 11, 0));
        tree.Move(20, 10, 0);
        Assert.Equal(10, tree.Find(20)!.ParentId);
        tree.CheckParent(11);
        Assert.Throws<InvalidInputException>(() => tree.CheckParent(11, 2));
    }

    [Fact]
    public void A_page_that_goes_takes_what_is_inside_it_or_lets_it_move_up_and_no_product_stays_in_it()
    {
        PageNode[] nodes = [Node(1), Node(2, 1), Node(3, 2), Node(4, null, 1, PageKind.Product, 2, 1)];
        var tree = new PageTree(nodes);
        Assert.Equal([2], tree.Remove(2, withChildren: false).Select(n => n.Id));
        Assert.Equal(1, tree.Find(3)!.ParentId);
        Assert.Equal([1], tree.Find(4)!.AlsoIn);
        tree = new PageTree(nodes);
        Assert.Equal([2, 3], tree.Remove(2, withChildren: true).Select(n => n.Id));
        Assert.Null(tree.Find(3));
        Assert.Equal([4], tree.Changed.Select(n => n.Id));
    }

    [Fact]
    public void A_product_is_inside_its_primary_category_and_shown_in_the_others()
    {
        var tree = new PageTree([Node(1), Node(2, null, 1), Node(3, null, 2), Node(4, null, 3, PageKind.Product)]);
        tree.SetCategories(4, 2, [1, 1, 2]);
        Assert.Equal((2, 0), (tree.Find(4)!.ParentId, tree.Find(4)!.Order));
        Assert.Equal([1], tree.Find(4)!.AlsoIn);
        Assert.Throws<InvalidInputException>(() => tree.SetCategories(4, 2, [4]));
    }

    [Fact]
    public void An_outline_is_nested_and_each_parent_numbered()
    {
        var lines = Outline.Read("Birds\n  Feeders\n  Houses\n    Cedar\nBats");
        var tree = new PageTree(Enumerable.Range(1, 5).Select(i => Node(i, null, i - 1)));
        tree.Nest([1, 2, 3, 4, 5], lines);
        Assert.Equal([2, 3], tree.ChildrenOf(1).Select(n => n.Id));
        Assert.Equal((3, 0), (tree.Find(4)!.ParentId, tree.Find(4)!.Order));
        Assert.Equal([1, 5], tree.ChildrenOf(null).Select(n => n.Id));
        Assert.Equal(1, tree.Find(5)!.Order);
    }

    [Fact]
    public void A_planned_outline_has_free_slugs_and_names_a_name_that_is_there()
    {
        var planned = PlannedPage.Plan(Outline.Read("Birds\n  Houses\nBats"), ["Cats"], new HashSet<string> { "birds" });
        Assert.Equal([("birds-2", 0), ("houses", 1), ("bats", 0)], planned.Select(p => (p.Slug, p.Level)));
        var refused = Assert.Throws<InvalidInputException>(() =>
            PlannedPage.Plan(Outline.Read("Birds\nbats"), ["Bats"], new HashSet<string>())
        );
        Assert.Contains("Line 2", refused.Problems[0].Message);
    }

    [Fact]
    public void A_page_inside_twenty_thousand_others_is_found()
    {
        PageNode[] pages = [.. Enumerable.Range(1, 20_000).Select(i => Node(i, i == 1 ? null : i - 1))];
        var order = PageTree.InOrder(pages);
        Assert.Equal(Enumerable.Range(0, 20_000), order.Select(p => p.Level));
        Assert.Equal(pages, order.Select(p => p.Page));
    }

    [Fact]
    public void A_term_is_free_for_a_page_where_no_page_leads_with_it_and_no_other_holds_it_strongly()
    {
        PageHolding[] pages =
        [
            new(1, PageKind.Product, "bird house", [new("bird house", "bird house", 900, 0.9), new("nest box", "nest box", 50, 0.7)]),
            new(2, PageKind.Product, null, [new("nest box", "nest box", 50, 0.5), new("cedar box", "cedar box", 20, 0.8)]),
        ];
        var terms = new FreeTerms(pages, ["bird house", "owl box"]);
        Assert.True(terms.IsFree(1, "nest box"));
        Assert.False(terms.IsFree(2, "nest box"));
        Assert.False(terms.IsFree(1, "bird house"));
        Assert.False(terms.IsFree(1, "owl box"));
        Assert.True(terms.IsTargeted("owl box") && terms.IsTargeted("cedar box"));
        Assert.False(terms.IsTargeted("bat box"));
    }

    private static bool Try(Action change)
    {
        try
        {
            change();
            return true;
        }
        catch (InvalidInputException)
        {
            return false;
        }
    }
}
