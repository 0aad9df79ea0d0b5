using TinRabbit.Server.Files.Html;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Pages;

/// <summary>Changes pages of the web shop: where they are in the tree, and what is known of them beside their texts. Only the pages that change are loaded.</summary>
internal sealed class PageEditor(TinContext db, ListingEditor editor, ChangeLog changes)
{
    /// <summary>Moves a page with those inside it.</summary>
    /// <returns>Null where there is no such page.</returns>
    /// <exception cref="InvalidInputException">It would be inside itself, or too deep.</exception>
    public async Task<Changed?> Move(int id, MoveRequest request, CancellationToken stop)
    {
        var tree = await db.PageTree(stop);
        if (tree.Find(id) is null)
            return null;
        tree.Move(id, request.ParentId, request.Order);
        return await Save(id, PageMessages.MovedPage(await NameOf(id, stop)), await Apply(tree, stop), stop);
    }

    /// <summary>Puts a product's page into categories.</summary>
    /// <returns>Null where there is no such page.</returns>
    /// <exception cref="InvalidInputException">One of them is no category, or it would be too deep.</exception>
    public async Task<Changed?> SetCategories(int id, CategoriesRequest request, CancellationToken stop)
    {
        var tree = await db.PageTree(stop);
        if (tree.Find(id) is null)
            return null;
        tree.SetCategories(id, request.Primary, request.Others);
        return await Save(id, PageMessages.ChangedPage(await NameOf(id, stop)), await Apply(tree, stop), stop);
    }

    /// <summary>Changes what is known of a page beside its texts and its place.</summary>
    /// <param name="page">The page, with its listing and product.</param>
    /// <param name="request">What is to be changed.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>Null where somebody else changed it meanwhile.</returns>
    /// <exception cref="InvalidInputException">It cannot be published under its slug.</exception>
    public async Task<Changed?> Change(PageRow page, PageChangeRequest request, CancellationToken stop)
    {
        var before = PageState.Of(page);
        var after = before with
        {
            Kind = request.Kind is { } kind && page.Listing.Product.IsPage ? kind : before.Kind,
            InMenu = request.InMenu ?? before.InMenu,
            HasSuffix = request.HasSuffix ?? before.HasSuffix,
            IsHome = request.IsHome == true || before.IsHome,
            IsPublished = request.IsPublished ?? before.IsPublished,
            LiveSlug = request.IsPublished == true ? page.Slug : before.LiveSlug,
        };
        List<IUndoStep> steps = [];
        var result = await Versioned.Apply(page.Revision, request.Revision, after.IsSame(before), Make);
        return result is SaveResult.Conflict ? null
            : result is SaveResult.Unchanged ? new(null)
            : await Save(page.Id, PageMessages.ChangedPage(await NameOf(page.Id, stop)), steps, stop);

        async Task Make()
        {
            var states = new List<PageState> { before };
            if (request.IsPublished == true && await db.Publish(page, stop) is { Pages.Count: > 0 } redirects)
                steps.Add(redirects);
            after.ApplyTo(page);
            if (after.IsHome != before.IsHome)
                foreach (var other in await db.Pages.Where(p => p.IsHome && p.Id != page.Id).ToListAsync(stop))
                {
                    states.Add(PageState.Of(other));
                    (states[^1] with { IsHome = false }).ApplyTo(other);
                }

            steps.Insert(0, new PagesBefore(states));
        }
    }

    /// <summary>What a deletion would concern; null where there is no such page.</summary>
    public async Task<DeletionView?> Deletion(int id, CancellationToken stop)
    {
        var tree = await db.PageTree(stop);
        if (tree.Find(id) is null)
            return null;
        var (inside, linking) = (tree.Inside(id).Select(n => n.Id).ToList(), await LinkingTo([id], stop));
        var names = await db.PageNames(inside.Concat(linking), stop);
        return new([.. inside.Select(i => names[i])], [.. linking.Select(i => names[i])]);
    }

    /// <summary>Deletes a page.</summary>
    /// <returns>Null where there is no such page.</returns>
    public async Task<Changed?> Delete(int id, DeletePageRequest request, CancellationToken stop)
    {
        var tree = await db.PageTree(stop);
        if (tree.Find(id) is null)
            return null;
        var name = await NameOf(id, stop);
        var gone = tree.Remove(id, request.Children).Select(g => g.Id).ToList();
        var texts = request.Links ? await RemoveLinks(gone, stop) : [];
        var moved = await Apply(tree, stop);
        var restore = changes.MarkDeleted(await db.OfPages(gone, stop), new RemovePages(gone));
        return await changes.Save(
            gone.Count == 1 ? ChangeMessages.Deleted("page", name) : PageMessages.DeletedPages(gone.Count),
            new(Screen.Pages, PageId: id),
            [restore, .. moved, .. texts],
            stop
        );
    }

    /// <summary>What an outline would create.</summary>
    /// <exception cref="InvalidInputException">The outline cannot be read, a name is there already, or there would be too many or too deep.</exception>
    public async Task<IReadOnlyList<PlannedPage>> Plan(IReadOnlyList<OutlineLine> lines, int? parentId, CancellationToken stop)
    {
        var tree = await db.PageTree(stop);
        tree.CheckParent(parentId);
        if (tree.Count + lines.Count > Bounds.Pages)
            throw new InvalidInputException([new("text", $"A shop has at most {Bounds.Pages:#,0} pages.")]);
        var siblings = await db.PageNames(tree.ChildrenOf(parentId).Select(n => n.Id), stop);
        var planned = PlannedPage.Plan(lines, siblings.Values, await NewPages.Slugs(db, stop));
        tree.CheckParent(parentId, planned.Max(p => p.Level) + 1);
        return planned;
    }

    /// <summary>Creates the pages of an outline.</summary>
    /// <exception cref="InvalidInputException">As for <see cref="Plan"/>.</exception>
    public async Task<Changed> AddOutline(IReadOnlyList<OutlineLine> lines, int? parentId, CancellationToken stop)
    {
        await Plan(lines, parentId, stop);
        var pages = await NewPages.Load(db, editor, stop);
        var made = new List<PageRow>(lines.Count);
        foreach (var line in lines)
            made.Add(await pages.Add(PageKind.Category, line.Name, parentId, stop));
        return await SaveAdded(pages, made, PageMessages.AddedPages(made.Count), Nest, stop);

        async Task Nest()
        {
            var tree = await db.PageTree(stop);
            tree.Nest([.. made.Select(m => m.Id)], lines);
            await Apply(tree, stop);
        }
    }

    /// <summary>Adds a page, of a product or of none.</summary>
    /// <exception cref="InvalidInputException">The parent or the product is gone, the product has a page, or there would be too many or too deep.</exception>
    public async Task<Changed> Add(NewPageRequest request, CancellationToken stop)
    {
        (await db.PageTree(stop)).CheckParent(request.ParentId);
        var pages = await NewPages.Load(db, editor, stop);
        var page = request.ProductId is { } product
            ? await pages.AddProduct(product, request.Name, request.ParentId, stop)
            : await pages.Add(request.Kind, NewName.Check(request.Name ?? ""), request.ParentId, stop);
        var name = page.Heading is { Length: > 0 } heading ? heading : page.Listing.Product.Name;
        return await SaveAdded(pages, [page], PageMessages.AddedPage(name), () => Task.CompletedTask, stop);
    }

    // Makes the changes of the tree in the rows that have some, and tells what takes them back.
    private async Task<List<IUndoStep>> Apply(PageTree tree, CancellationToken stop)
    {
        var changed = tree.Changed.ToDictionary(n => n.Id);
        var ids = changed.Keys.ToList();
        var rows = await db.Pages.Where(p => ids.Contains(p.Id)).ToListAsync(stop);
        var before = rows.Select(PageState.Of).ToList();
        foreach (var (row, state) in rows.Zip(before))
        {
            var node = changed[row.Id];
            (state with { ParentId = node.ParentId, Order = node.Order, AlsoIn = node.AlsoIn }).ApplyTo(row);
        }

        return before.Count == 0 ? [] : [new PagesBefore(before)];
    }

    private async Task<List<int>> LinkingTo(List<int> targets, CancellationToken stop)
    {
        await db.FillHeads(stop);
        var links = await db
            .Pages.AsNoTracking()
            .Where(p => !targets.Contains(p.Id))
            .OrderBy(p => p.Id)
            .Select(p => new { p.Id, p.LinksTo })
            .ToListAsync(stop);
        return [.. links.Where(l => l.LinksTo.Any(targets.Contains)).Select(l => l.Id)];
    }

    // Puts the words of links to some pages in the place of the links; each text before it is kept as a version.
    private async Task<List<TextState>> RemoveLinks(List<int> targets, CancellationToken stop)
    {
        var texts = new List<TextState>();
        if ((await db.PageRules(stop)).Role("body") is not { } field)
            return texts;
        var linking = await LinkingTo(targets, stop);
        foreach (
            var page in await db
                .Pages.Include(p => p.Listing)
                    .ThenInclude(l => l.Platform)
                .Where(p => linking.Contains(p.Id))
                .OrderBy(p => p.Id)
                .ToListAsync(stop)
        )
        {
            var copy = page.Listing.Copy.Fields();
            copy[field.Key] = RichText.WithoutLinks(
                copy[field.Key]!.GetValue<string>(),
                address => targets.Any(t => address == $"{RichLink.PagePrefix}{t}")
            );
            if (await editor.Replace(page.Listing, ListingText.Of(copy), VersionReason.LinksRemoved, stop) is { } text)
                texts.Add(text);
        }

        return texts;
    }

    private async Task<string> NameOf(int id, CancellationToken stop) => (await db.PageNames([id], stop))[id];

    private async Task<Changed> Save(int id, string what, List<IUndoStep> steps, CancellationToken stop)
    {
        if (steps.Count > 0)
            return await changes.Save(what, new(Screen.Pages, PageId: id), steps, stop);
        await db.SaveChangesAsync(stop);
        return new(null);
    }

    private async Task<Changed> SaveAdded(NewPages pages, List<PageRow> added, string what, Func<Task> then, CancellationToken stop)
    {
        Changed? saved = null;
        await db.InOneWrite(
            async () =>
            {
                await db.SaveChangesAsync(stop);
                await then();
                saved = await changes.Save(what, new(Screen.Pages, PageId: added.Count == 1 ? added[0].Id : null), pages.Undo(added), stop);
            },
            stop
        );
        return saved!;
    }
}
