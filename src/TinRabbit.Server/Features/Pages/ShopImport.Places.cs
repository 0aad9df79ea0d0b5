using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Pages;

// Puts pages into the tree, and leads old addresses to them.
internal sealed partial class ShopImport
{
    private async Task AddRedirects(CancellationToken stop)
    {
        if (document.Redirects is not { Count: > 0 } redirects || _placed.Count == 0)
            return;
        var (slugs, imported) = (_pages.Select(p => p.Slug).ToHashSet(StringComparer.Ordinal), new Dictionary<string, PageRow>());
        foreach (var (_, page) in _placed)
            imported.TryAdd(page.Slug, page);
        var kept = (await db.Redirects.Select(r => r.From).ToListAsync(stop)).ToHashSet(StringComparer.Ordinal);
        foreach (var (from, to) in Redirects.Collapse([.. redirects.Select(r => (r.Key, r.Value))]))
            if (imported.TryGetValue(to, out var page) && !slugs.Contains(from) && kept.Add(from))
                _addedRedirects.Add(new() { From = from, PageId = page.Id });
        db.Redirects.AddRange(_addedRedirects);
    }

    // Pages get their parents once all of them have numbers of this shop.
    private void Place()
    {
        var slugs = _pages.CountBy(p => p.Slug).ToDictionary();
        foreach (var (entry, page) in _placed)
        {
            // A page or a table says nothing of the state of a page that is there already.
            if (entry.Given.Page is { } given && (entry.Place is not null || _addedPages.Contains(page)))
            {
                (page.Kind, page.InMenu, page.IsPublished) = (given.Kind, given.InMenu, given.IsPublished);
                (page.HasSuffix, page.LiveSlug) = (given.HasSuffix, given.IsPublished ? given.LiveSlug ?? page.Slug : given.LiveSlug);
            }

            if (entry.Place is { } place)
            {
                page.ParentId = place.Parent is { } parent ? NumberOf(parent) : null;
                page.Order = place.Order;
                page.AlsoIn = [.. (place.AlsoIn ?? []).Select(NumberOf).OfType<int>()];
                if (place.IsHome)
                    foreach (var other in _pages)
                        other.IsHome = other == page;
            }

            // Only a page that could be published by hand is published.
            if (_addedPages.Contains(page) && !page.IsHome && (!Slugs.IsSlug(page.Slug) || slugs[page.Slug] > 1))
                (page.IsPublished, page.LiveSlug) = (false, null);
        }

        ThrowIfInsideItself();

        int? NumberOf(int id) => _entryOfPage.GetValueOrDefault(id)?.Subject.Page?.Id;
    }

    // Where only some pages are imported, their places and those of the others can contradict each other.
    private void ThrowIfInsideItself()
    {
        var byId = _pages.ToDictionary(p => p.Id);
        foreach (var (entry, page) in _placed)
        {
            var steps = 0;
            for (var above = page; above.ParentId is { } id && byId.TryGetValue(id, out var next); above = next)
                if (++steps > _pages.Count)
                    throw new InvalidInputException([
                        Wrong($"“{entry.Given.Name}” would be inside itself. Import the pages around it too."),
                    ]);
        }
    }
}
