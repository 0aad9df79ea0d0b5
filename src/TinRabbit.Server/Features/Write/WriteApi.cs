using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Write;

/// <summary>A listing with its platform's rules.</summary>
public sealed record ListingView(
    int Id,
    string Product,
    string PlatformId,
    string PlatformName,
    string About,
    IReadOnlyList<FieldView> Fields,
    JsonObject Copy,
    int Revision,
    string? LeadKey,
    DateTime SavedAt,
    PageOfListing? Page
);

/// <summary>The page of the web shop whose texts a listing has.</summary>
/// <param name="Suffix">What comes after its title by itself.</param>
/// <param name="Site">The site's address; empty where none is set.</param>
/// <param name="LiveSlug">The slug that it was published with last; null before it was.</param>
public sealed record PageOfListing(
    int Id,
    PageKind Kind,
    bool IsHome,
    bool InMenu,
    bool IsPublished,
    bool HasSuffix,
    string Suffix,
    string Site,
    string Brand,
    string? LiveSlug,
    int Revision
);

/// <summary>A field as an editor needs it.</summary>
public sealed record FieldView(
    string Key,
    string Label,
    string Role,
    FieldShape Shape,
    bool Indexed,
    int? IndexedFirst,
    double Weight,
    bool Required,
    int? Max,
    Unit Unit,
    int? MaxPixels,
    double? FontSize,
    int? MaxItems,
    int? Shows,
    string Separator,
    IReadOnlyList<CategoryView> Tree,
    IReadOnlyList<AttributeRule> Attributes
)
{
    public static FieldView Of(Field f) =>
        new(
            f.Key,
            f.Label,
            f.Role,
            f.Shape,
            f.Indexed,
            f.IndexedFirst,
            f.Weight,
            f.Required,
            f.Limit?.Max,
            f.Limit?.Unit ?? Unit.Characters,
            f.Limit?.MaxPixels,
            f.Limit?.FontSize,
            f.Limit?.MaxItems,
            f.Shows,
            f.Separator,
            [.. Flat(f.Tree, [])],
            f.Attributes
        );

    private static IEnumerable<CategoryView> Flat(IReadOnlyList<Category> tree, string[] above) =>
        tree.SelectMany(c => Flat(c.Under, [.. above, c.Name]).Prepend(new([.. above, c.Name], c.Under.Count)));
}

/// <summary>A category as a path of names.</summary>
/// <param name="Path">From the top.</param>
/// <param name="Under">How many are directly below it.</param>
public sealed record CategoryView(IReadOnlyList<string> Path, int Under);

/// <summary>A draft to save.</summary>
/// <param name="Fields">All fields.</param>
/// <param name="Revision">The revision it was made from.</param>
/// <param name="Keep">Saves the text before it as a version, for this reason; null saves one only after a pause.</param>
public sealed record SaveRequest(JsonElement Fields, int Revision, VersionReason? Keep);

/// <summary>Whether the save is on disk.</summary>
public sealed record Saved(int Revision, DateTime SavedAt);

/// <summary>The listing was saved by another window: its current texts.</summary>
public sealed record Conflict(JsonObject Copy, int Revision, DateTime SavedAt);

/// <summary>The pick a listing is built around.</summary>
public sealed record LeadRequest([Term] string? Key);

internal static class WriteApi
{
    public static void MapWrite(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}");
        api.MapGet("/", GetListing);
        api.MapPut("/copy", SaveCopy).RetriesRaces();
        api.MapPut("/lead", SetLead).RetriesRaces();
    }

    private static async Task<ListingView> GetListing(int id, TinContext db, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return View(listing, await PageOf(db, listing, stop));
    }

    private static async Task<PageOfListing?> PageOf(TinContext db, ListingRow listing, CancellationToken stop)
    {
        if (await db.Pages.AsNoTracking().FirstOrDefaultAsync(p => p.ListingId == listing.Id, stop) is not { } page)
            return null;
        var site = await db.Site(stop);
        return new(
            page.Id,
            page.Kind,
            page.IsHome,
            page.InMenu,
            page.IsPublished,
            page.HasSuffix,
            site.SuffixOf(page),
            site.Address,
            site.Brand,
            page.LiveSlug,
            page.Revision
        );
    }

    private static async Task<Results<Ok<Saved>, Conflict<Conflict>>> SaveCopy(
        int id,
        SaveRequest request,
        TinContext db,
        ListingEditor editor,
        CancellationToken stop
    )
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await editor.Save(listing, request.Fields, request.Revision, request.Keep, stop) is SaveResult.Conflict
            ? TypedResults.Conflict(Now(listing))
            : TypedResults.Ok(new Saved(listing.Revision, listing.SavedAt));
    }

    private static async Task<NoContent> SetLead(int id, LeadRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var listing = await db.Listings.FindAsync([id], stop).OrNotThere();
        var key = request.Key is { } text ? Tokens.Key(text) : null;
        if (
            key is not null
            && !await db.Picks.AnyAsync(p => p.ProductId == listing.ProductId && p.Key == key && p.Home != Home.Avoid, stop)
        )
            throw new InvalidInputException([new("key", $"\"{request.Key}\" is not among the product's picks.")]);
        var what = key is null ? WriteMessages.RemovedLead : WriteMessages.SetLead(request.Key!);
        if (listing.LeadKey != key)
            changes.Note(what, new(Screen.Write, listing.ProductId, id), new LeadState(id, listing.LeadKey, key));
        ListingEditor.SetLead(listing, key);
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static ListingView View(ListingRow listing, PageOfListing? page)
    {
        var platform = listing.Platform.Profile;
        return new(
            listing.Id,
            listing.Product.Name,
            platform.Id,
            platform.Name,
            platform.About,
            [.. platform.Fields.Select(FieldView.Of)],
            CopyJson.Write(listing.Copy.On(platform)),
            listing.Revision,
            listing.LeadKey,
            listing.SavedAt,
            page
        );
    }

    private static Conflict Now(ListingRow listing) =>
        new(CopyJson.Write(listing.Copy.On(listing.Platform.Profile)), listing.Revision, listing.SavedAt);
}
