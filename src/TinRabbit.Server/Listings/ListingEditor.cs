using TinRabbit.Server.Files.Html;

namespace TinRabbit.Server.Listings;

/// <summary>
/// The only code that changes a listing's text: it decides what is kept as a version and as a take, and moves on the revision, the time and
/// what lists show of the listing's page.
/// </summary>
public sealed class ListingEditor(TinContext db)
{
    /// <summary>Saves within this time of each other belong to one version; a longer pause begins the next.</summary>
    public static readonly TimeSpan Pause = TimeSpan.FromSeconds(45);

    /// <summary>Adds a listing to a product; the caller saves.</summary>
    /// <param name="product">Its product.</param>
    /// <param name="platformId">Its platform.</param>
    /// <param name="at">When.</param>
    /// <param name="text">What it begins with; nothing where none is given.</param>
    /// <param name="leadKey">The key of the pick that it is built around.</param>
    public static ListingRow Add(ProductRow product, string platformId, DateTime at, ListingText? text = null, string? leadKey = null)
    {
        var listing = new ListingRow
        {
            Product = product,
            PlatformId = platformId,
            SavedAt = at,
            Copy = text ?? ListingText.Empty,
            LeadKey = leadKey,
        };
        product.Listings.Add(listing);
        return listing;
    }

    /// <summary>Saves the fields that somebody wrote, unless somebody else saved others meanwhile.</summary>
    /// <param name="listing">The listing as it is stored, with its platform.</param>
    /// <param name="fields">All fields, as JSON.</param>
    /// <param name="revision">The revision that the fields were made from.</param>
    /// <param name="reason">Why the text before becomes a version; null when only a pause makes it one.</param>
    /// <param name="stop">Stops waiting; nothing is saved then.</param>
    /// <exception cref="InvalidInputException">A field is unknown to the platform, or its value has another shape.</exception>
    public Task<SaveResult> Save(ListingRow listing, JsonElement fields, int revision, VersionReason? reason, CancellationToken stop)
    {
        var text = Written(listing, fields);
        return Versioned.Apply(
            listing.Revision,
            revision,
            text.Equals(listing.Copy),
            async () =>
            {
                await Replace(listing, text, reason, stop);
                await db.SaveChangesAsync(stop);
            }
        );
    }

    /// <summary>Replaces a listing's text; the caller saves.</summary>
    /// <param name="listing">The listing as it is stored, with its platform.</param>
    /// <param name="text">Its text from now on.</param>
    /// <param name="reason">Why the text before becomes a version.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>What takes it back; null where the listing has the text already.</returns>
    public Task<TextState?> Replace(ListingRow listing, ListingText text, VersionReason reason, CancellationToken stop) =>
        Replace(listing, text, (VersionReason?)reason, stop);

    /// <summary>Takes a change of a text back, unless it was changed again meanwhile: then the versions have the text before. The caller saves.</summary>
    /// <returns>What makes the change again; null where nothing was taken back.</returns>
    public async Task<TextState?> Revert(TextState state, CancellationToken stop)
    {
        if (await db.FindListing(state.ListingId, stop) is not { } listing || !listing.Copy.Equals(state.After))
            return null;
        await Replace(listing, state.Before, VersionReason.Undo, stop);
        if (state.Take is { } added)
            db.Takes.RemoveRange(await db.Takes.Where(t => t.ListingId == listing.Id && t.Text == added && t.Name == "").ToListAsync(stop));
        var again = state.RemovedTake is { } removed ? await SaveTake(listing.Id, removed, stop) : null;
        return new(listing.Id, state.After, state.Before) { Take = again, RemovedTake = state.Take };
    }

    /// <summary>Saves a listing's text as a version, unless it is empty or the last one saved; the caller saves.</summary>
    /// <param name="listing">The listing.</param>
    /// <param name="reason">Why.</param>
    /// <param name="name">The seller's name for it; empty where none.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>Whether a version was added or named.</returns>
    public async Task<bool> SaveVersion(ListingRow listing, VersionReason reason, string name, CancellationToken stop)
    {
        if (listing.Copy.IsEmpty)
            return false;
        var last = await db.Versions.Where(v => v.ListingId == listing.Id).OrderByDescending(v => v.Id).FirstOrDefaultAsync(stop);
        if (listing.Copy.Equals(last?.Copy))
        {
            last!.Name = name.Length > 0 ? name : last.Name;
            return name.Length > 0;
        }

        db.Versions.Add(
            new()
            {
                ListingId = listing.Id,
                At = listing.SavedAt,
                Copy = listing.Copy,
                Reason = reason,
                Name = name,
            }
        );
        return true;
    }

    /// <summary>Saves a try at a title as a take, unless it is empty or there already; the caller saves.</summary>
    /// <returns>The take; null where none was added.</returns>
    public async Task<string?> SaveTake(int listingId, string title, CancellationToken stop)
    {
        if (title.Trim() is not { Length: > 0 } take || await db.Takes.AnyAsync(t => t.ListingId == listingId && t.Text == take, stop))
            return null;
        db.Takes.Add(
            new()
            {
                ListingId = listingId,
                At = db.Now,
                Text = take,
            }
        );
        return take;
    }

    /// <summary>Stores what lists show of a page's text beside the page: its slug, its names, its title and its links.</summary>
    public static void SetHead(PageRow page, Platform platform)
    {
        var head = HeadOf(page.Listing.Copy, platform);
        (page.Slug, page.Heading, page.MenuName, page.Title, page.LinksTo) = (
            head.Slug,
            head.Heading,
            head.MenuName,
            head.Title,
            head.LinksTo
        );
    }

    /// <summary>Stores what lists show of pages' texts, without loading the pages.</summary>
    public static async Task SetHeads(
        TinContext db,
        IEnumerable<(int PageId, ListingText Text)> pages,
        Platform platform,
        CancellationToken stop
    )
    {
        foreach (var (id, text) in pages)
        {
            var head = HeadOf(text, platform);
            await db
                .Pages.Where(p => p.Id == id)
                .ExecuteUpdateAsync(
                    set =>
                        set.SetProperty(p => p.Slug, head.Slug)
                            .SetProperty(p => p.Heading, head.Heading)
                            .SetProperty(p => p.MenuName, head.MenuName)
                            .SetProperty(p => p.Title, head.Title)
                            .SetProperty(p => p.LinksTo, head.LinksTo),
                    stop
                );
        }
    }

    /// <summary>Sets the pick that a listing is built around, by its key; the caller saves.</summary>
    public static void SetLead(ListingRow listing, string? key) => listing.LeadKey = key;

    private async Task<TextState?> Replace(ListingRow listing, ListingText text, VersionReason? reason, CancellationToken stop)
    {
        var before = listing.Copy;
        if (text.Equals(before))
            return null;
        var platform = (listing.Platform ?? await db.Platforms.FirstAsync(p => p.Id == listing.PlatformId, stop)).Profile;
        string? take = null;
        if (listing.Id > 0 && (reason is not null || db.Now - listing.SavedAt > Pause))
        {
            await SaveVersion(listing, reason ?? VersionReason.Pause, "", stop);
            // An undone title was no try that the seller made last.
            if (reason != VersionReason.Undo)
                take = await SaveTake(listing.Id, before.TextOf(platform, "title"), stop);
        }

        (listing.Copy, listing.SavedAt, listing.Revision) = (text, db.Now, listing.Revision + 1);
        if (platform.Role("slug") is not null && await PageOf(listing, stop) is { } page)
            SetHead(page, platform);
        return new(listing.Id, before, text) { Take = take };
    }

    private static (string Slug, string Heading, string MenuName, string Title, List<int> LinksTo) HeadOf(
        ListingText text,
        Platform platform
    ) =>
        (
            text.TextOf(platform, "slug"),
            text.TextOf(platform, "heading"),
            text.TextOf(platform, "menu"),
            text.TextOf(platform, "title"),
            [.. RichLink.PagesIn(text.TextOf(platform, "body")).Distinct().Order()]
        );

    private async Task<PageRow?> PageOf(ListingRow listing, CancellationToken stop) =>
        listing.Pages.FirstOrDefault(p => p.DeletedAt is null) ?? await db.Pages.FirstOrDefaultAsync(p => p.ListingId == listing.Id, stop);

    // Text for a field that the profile no longer has stays stored, and comes back with the field.
    private static ListingText Written(ListingRow listing, JsonElement given)
    {
        var platform = listing.Platform.Profile;
        var fields = RichText.SanitizeFields(CopyJson.Write(CopyJson.Read(given, platform)), platform);
        foreach (var (key, stored) in listing.Copy.Fields())
            if (platform.Find(key) is null)
                fields[key] = stored?.DeepClone();
        return ListingText.Of(fields);
    }
}
