using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Storage;

/// <summary>Every change that can be undone: what was done is noted with what takes it back.</summary>
public sealed class ChangeLog(TinContext db, ListingEditor editor, Shelves shelves, WriteGate writes)
{
    /// <summary>Notes a change with what takes it back; the caller saves.</summary>
    public ChangeRow Note(string what, int? productId, Reversal reversal) =>
        db
            .Changes.Add(
                new()
                {
                    ProductId = productId,
                    What = what,
                    Reversal = reversal,
                    At = DateTime.UtcNow,
                }
            )
            .Entity;

    /// <summary>Deletes something so that it can come back, and saves.</summary>
    /// <param name="entity">What kind of thing it is.</param>
    /// <param name="id">Its number, or its id.</param>
    /// <param name="what">The change in words.</param>
    /// <param name="productId">The product it belongs to; null for the shop.</param>
    /// <param name="rows">Everything that goes with it.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<Changed> Delete(
        Entity entity,
        string id,
        string what,
        int? productId,
        IEnumerable<IDeletable> rows,
        CancellationToken stop
    )
    {
        var now = DateTime.UtcNow;
        foreach (var row in rows)
            row.DeletedAt = now;
        var change = Note(what, productId, new(ReversalKind.Restore, entity, id, At: now));
        await db.SaveChangesAsync(stop);
        return new(what, change.Id);
    }

    /// <summary>Notes a change and saves.</summary>
    public async Task<Changed> Save(string what, int? productId, Reversal reversal, CancellationToken stop)
    {
        var change = Note(what, productId, reversal);
        await db.SaveChangesAsync(stop);
        return new(what, change.Id);
    }

    /// <summary>Notes what a change to several things takes back, and saves.</summary>
    public Task<Changed> Save(string what, ShopState before, CancellationToken stop) =>
        Save(what, null, new(ReversalKind.Revert, Entity.Shop, "", before.ToJson()), stop);

    /// <summary>Everything of some products that goes when they do, themselves included.</summary>
    public async Task<List<IDeletable>> AllOf(IReadOnlyCollection<int> products, CancellationToken stop) =>
        [
            .. await db.Products.Where(p => products.Contains(p.Id)).ToListAsync(stop),
            .. await db.Listings.Where(l => products.Contains(l.ProductId)).ToListAsync(stop),
            .. await db.Picks.Where(p => products.Contains(p.ProductId)).ToListAsync(stop),
            .. await db.Pages.Where(p => products.Contains(p.Listing.ProductId)).ToListAsync(stop),
        ];

    /// <summary>Some listings with their pages.</summary>
    private async Task<List<IDeletable>> AllOfListings(IReadOnlyCollection<int> ids, CancellationToken stop) =>
        [
            .. await db.Listings.Where(l => ids.Contains(l.Id)).ToListAsync(stop),
            .. await db.Pages.Where(p => ids.Contains(p.ListingId)).ToListAsync(stop),
        ];

    /// <summary>Everything of some pages that goes when they do: what a page alone is about, too. A product keeps its listing.</summary>
    public async Task<List<IDeletable>> AllOfPages(IReadOnlyCollection<int> ids, CancellationToken stop)
    {
        var pages = await db.Pages.Include(p => p.Listing).ThenInclude(l => l.Product).Where(p => ids.Contains(p.Id)).ToListAsync(stop);
        return [.. pages, .. await AllOf([.. pages.Where(p => p.Listing.Product.IsPage).Select(p => p.Listing.ProductId)], stop)];
    }

    /// <summary>Takes a change back. With its id, only that one: not another that two windows have undone up to meanwhile.</summary>
    /// <param name="productId">The product that is open; null for the shop's own changes only.</param>
    /// <param name="id">The change; null for the last one.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>What was undone, in words; null where there is nothing to undo, or where later changes to the same picks come first.</returns>
    public async Task<string?> Undo(int? productId, int? id, CancellationToken stop)
    {
        var changes = db.Changes.Where(c => c.ProductId == productId || c.ProductId == null).OrderByDescending(c => c.Id);
        if (await changes.FirstOrDefaultAsync(c => id == null || c.Id == id, stop) is not { } change)
            return null;
        if (change.Reversal is { } reversal)
            await Apply(reversal, stop);
        else if (await db.Changes.AnyAsync(c => c.ProductId == change.ProductId && c.Reversal == null && c.Id > change.Id, stop))
            return null;
        else
            await Revert(new ProductState(change.ProductId!.Value, change.FactsBefore, change.Before), stop);
        db.Changes.Remove(change);
        await db.SaveChangesAsync(stop);
        return change.What;
    }

    private async Task Revert(ProductState before, CancellationToken stop)
    {
        var keys = before.Picks.Keys.ToList();
        var picks = await db.Picks.Where(p => p.ProductId == before.Id && keys.Contains(p.Key)).ToDictionaryAsync(p => p.Key, stop);
        foreach (var (key, state) in before.Picks)
        {
            picks.TryGetValue(key, out var pick);
            if (state is null)
            {
                if (pick is not null)
                    db.Picks.Remove(pick);
                continue;
            }

            pick ??= db
                .Picks.Add(
                    new()
                    {
                        ProductId = before.Id,
                        Key = key,
                        Text = state.Text,
                    }
                )
                .Entity;
            state.ApplyTo(pick);
        }

        if (before.Facts is { } facts && await db.Products.FindAsync([before.Id], stop) is { } product)
            (product.Facts, product.Revision) = (facts, product.Revision + 1);
    }

    private Task Apply(Reversal reversal, CancellationToken stop) =>
        reversal.Kind switch
        {
            ReversalKind.Restore when reversal.Entity == Entity.Term => RestoreTerms(reversal, stop),
            ReversalKind.Restore => RestoreAll(reversal, stop),
            ReversalKind.Revert => Revert(reversal, stop),
            ReversalKind.Delete when reversal.Entity == Entity.Import => RemoveImport(Number(reversal), stop),
            ReversalKind.Delete => DeleteAgain(reversal, stop),
            _ => Rename(reversal, stop),
        };

    private async Task RestoreAll(Reversal reversal, CancellationToken stop)
    {
        await Restore(reversal.At!.Value, stop);
        if (reversal.Entity != Entity.Page)
            return;
        await db.SaveChangesAsync(stop);
        await Revert(reversal, stop);
    }

    // A text, a lead or an alt text that was changed again meanwhile stays as it is; the versions have the text before.
    private async Task Revert(Reversal reversal, CancellationToken stop)
    {
        var state = ShopState.FromJson(reversal.Before);
        var deleted = new List<IDeletable>([
            .. await AllOf(state.AddedProducts, stop),
            .. await AllOfListings(state.AddedListings, stop),
            .. await db.Pages.Where(p => state.AddedPages.Contains(p.Id)).ToListAsync(stop),
            .. await db.Takes.Where(t => state.AddedTakes.Contains(t.Id)).ToListAsync(stop),
        ]);
        foreach (var page in state.Pages)
            if (await db.Pages.FirstOrDefaultAsync(p => p.Id == page.Id, stop) is { } row)
                page.ApplyTo(row);
        foreach (var text in state.Texts)
            await editor.Revert(text, stop);
        foreach (var archived in state.Archived)
            if (await db.Listings.FirstOrDefaultAsync(l => l.Id == archived.ListingId, stop) is { } listing)
                listing.ArchivedAt = archived.Before;
        foreach (var lead in state.Leads)
            if (await db.Listings.FirstOrDefaultAsync(l => l.Id == lead.ListingId, stop) is { } listing && listing.LeadKey == lead.After)
                ListingEditor.SetLead(listing, lead.Before);
        foreach (var change in state.Pictures)
            if (
                await db.Products.Include(p => p.Pictures).FirstOrDefaultAsync(p => p.Id == change.ProductId, stop) is { } product
                && product.PictureStates().SequenceEqual(change.After)
            )
                product.SetPictures(change.Before);
        foreach (var product in state.Products)
            await Revert(product, stop);
        if (state.Site is { } site)
            site.ApplyTo(await db.Site(stop));
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        if (state.Shop is { } names)
            (shop.Name, shop.Currency) = (names.Name, names.Currency);
        if (state.OwnWords is { } words)
            shop.OwnWords = words;
        foreach (var (id, profile) in state.Platforms)
            if (await db.Platforms.FirstOrDefaultAsync(p => p.Id == id, stop) is { } platform)
                if (profile is null)
                    deleted.Add(platform);
                else
                    (platform.Profile, platform.Revision) = (Profiles.Read(profile), platform.Revision + 1);
        db.Redirects.RemoveRange(await db.Redirects.Where(r => state.AddedRedirects.Contains(r.From)).ToListAsync(stop));
        var now = DateTime.UtcNow;
        foreach (var row in deleted)
            row.DeletedAt = now;
    }

    private async Task Restore(DateTime at, CancellationToken stop)
    {
        var listings = await Deleted(db.Listings);
        foreach (var listing in listings)
            if (await db.Listings.AnyAsync(l => l.ProductId == listing.ProductId && l.PlatformId == listing.PlatformId, stop))
                throw new InvalidInputException([
                    new("change", "The product has a new listing on this platform. Delete it first, then undo."),
                ]);
        var filters = await Deleted(db.Filters);
        foreach (var filter in filters)
            if (await db.Filters.AnyAsync(f => f.Name == filter.Name, stop))
                throw new InvalidInputException([
                    new("change", $"There is a new filter named “{filter.Name}”. Rename it first, then undo."),
                ]);
        IDeletable[] all =
        [
            .. listings,
            .. filters,
            .. await Deleted(db.Products),
            .. await Deleted(db.Platforms),
            .. await Deleted(db.Versions),
            .. await Deleted(db.Takes),
            .. await Deleted(db.Picks),
            .. await Deleted(db.Digs),
            .. await Deleted(db.Pages),
            .. await Deleted(db.Rivals),
            .. await Deleted(db.Reviews),
            .. await Deleted(db.FollowedTerms),
            .. await Deleted(db.Checks),
            .. await Deleted(db.Figures),
            .. await Deleted(db.Notes),
        ];
        foreach (var row in all)
            row.DeletedAt = null;

        Task<List<T>> Deleted<T>(IQueryable<T> rows)
            where T : class, IDeletable => rows.IgnoreQueryFilters().Where(r => r.DeletedAt == at).ToListAsync(stop);
    }

    private async Task DeleteAgain(Reversal reversal, CancellationToken stop)
    {
        var id = reversal.Entity is Entity.Platform or Entity.Rival or Entity.Review or Entity.Check or Entity.Figures
            ? 0
            : Number(reversal);
        IEnumerable<IDeletable> rows = reversal.Entity switch
        {
            Entity.Product => await AllOf([id], stop),
            Entity.Listing => await AllOfListings([id], stop),
            Entity.Page => await AllOfPages(Numbers(reversal), stop),
            Entity.Platform =>
            [
                .. await db.Platforms.Where(p => p.Id == reversal.Id).ToListAsync(stop),
                .. await db.Listings.Where(l => l.PlatformId == reversal.Id).ToListAsync(stop),
            ],
            Entity.Rival => await db.Rivals.Where(r => Numbers(reversal).Contains(r.Id)).ToListAsync(stop),
            Entity.Review => await db.Reviews.Where(r => Numbers(reversal).Contains(r.Id)).ToListAsync(stop),
            Entity.Filter => await db.Filters.Where(f => f.Id == id).ToListAsync(stop),
            Entity.Check => await db.Checks.Where(c => Numbers(reversal).Contains(c.Id)).ToListAsync(stop),
            // An import adds rows one after another: from the first to the last.
            Entity.Figures when Numbers(reversal) is [var first, var last] => await db
                .Figures.Where(f => f.Id >= first && f.Id <= last)
                .ToListAsync(stop),
            Entity.Note => await db.Notes.Where(n => n.Id == id).ToListAsync(stop),
            _ => [],
        };
        var now = DateTime.UtcNow;
        foreach (var row in rows)
            row.DeletedAt = now;
    }

    private async Task Rename(Reversal reversal, CancellationToken stop)
    {
        switch (reversal.Entity)
        {
            case Entity.Shop when await db.Shops.OrderBy(s => s.Id).FirstAsync(stop) is var shop:
                (shop.Name, shop.Currency) = (reversal.Before, reversal.Id);
                break;
            case Entity.Product when await db.Products.FindAsync([Number(reversal)], stop) is { } product:
                (product.Name, product.Revision) = (reversal.Before, product.Revision + 1);
                break;
            case Entity.Take when await db.Takes.FindAsync([Number(reversal)], stop) is { } take:
                take.Name = reversal.Before;
                break;
            case Entity.Version when await db.Versions.FindAsync([Number(reversal)], stop) is { } version:
                version.Name = reversal.Before;
                break;
            case Entity.Note when await db.Notes.FindAsync([Number(reversal)], stop) is { } note:
                JsonSerializer.Deserialize<NoteState>(reversal.Before, JsonSerializerOptions.Web)!.ApplyTo(note);
                break;
            case Entity.Filter when await db.Filters.FindAsync([Number(reversal)], stop) is { } filter:
                filter.Name = reversal.Before;
                break;
            case Entity.Import when await db.Imports.FindAsync([Number(reversal)], stop) is { } import:
                import.Source = reversal.Before;
                break;
            case Entity.Term when await db.Terms.FindAsync([Number(reversal)], stop) is { } term:
                (term.Text, term.Key) = (reversal.Before, Core.Words.Tokens.Key(reversal.Before));
                await db.SaveChangesAsync(stop);
                shelves.Evict(term.MarketId);
                break;
        }
    }

    private async Task RestoreTerms(Reversal reversal, CancellationToken stop)
    {
        foreach (var gone in JsonSerializer.Deserialize<List<DeletedTerm>>(reversal.Before, JsonSerializerOptions.Web)!)
        {
            var term =
                await db.Terms.FirstOrDefaultAsync(t => t.MarketId == reversal.Id && t.Key == gone.Key, stop)
                ?? db.Terms.Add(
                    new()
                    {
                        MarketId = reversal.Id,
                        Text = gone.Text,
                        Key = gone.Key,
                    }
                ).Entity;
            await db.SaveChangesAsync(stop);
            foreach (var reading in gone.Readings)
            {
                var counts = reading.Id == gone.ReadingId;
                (reading.Id, reading.TermId) = (0, term.Id);
                db.Readings.Add(reading);
                await db.SaveChangesAsync(stop);
                if (counts)
                    term.ReadingId = reading.Id;
            }
        }

        await db.SaveChangesAsync(stop);
        shelves.Evict(reversal.Id);
    }

    /// <summary>Removes what a finished import added, and gives the terms it changed the readings they had.</summary>
    public async Task RemoveImport(int id, CancellationToken stop)
    {
        if (await db.Imports.FirstOrDefaultAsync(i => i.Id == id, stop) is not { } import)
            return;
        // From here on a crash does not leave half of it: the next start removes what is not done.
        import.Done = false;
        await db.SaveChangesAsync(stop);
        db.Entry(import).State = EntityState.Detached;
        await TermImport.RemoveUnfinished(db, writes);
        shelves.Evict(import.MarketId);
        await Shelves.SaveStatistics(
            db,
            import.MarketId,
            await shelves.Query(db, import.MarketId, s => s.ComputeStatistics(), CancellationToken.None),
            CancellationToken.None
        );
    }

    // The numbers of several things that were added together.
    private static List<int> Numbers(Reversal reversal) =>
        [.. reversal.Before.Split(',').Select(n => int.Parse(n, CultureInfo.InvariantCulture))];

    private static int Number(Reversal reversal) => int.Parse(reversal.Id, CultureInfo.InvariantCulture);
}
