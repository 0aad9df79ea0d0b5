using TinRabbit.Core.Findings;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Platforms;

/// <summary>A platform and its profile.</summary>
/// <param name="Shipped">Whether it came with the program.</param>
/// <param name="Listings">How many listings there are with something in them.</param>
/// <param name="Profile">The profile in its open format.</param>
public sealed record PlatformView(string Id, string Name, string About, bool Shipped, int Listings, int Revision, JsonObject Profile);

/// <summary>Every platform, and the thresholds that a profile may set, with what counts where it does not.</summary>
public sealed record PlatformsView(IReadOnlyList<PlatformView> Platforms, IReadOnlyDictionary<string, double> Thresholds);

/// <summary>A profile to check or to save.</summary>
/// <param name="Like">For a new one: the platform that it was duplicated from.</param>
/// <param name="Revision">For a saved one: the <see cref="PlatformView.Revision"/> that it was made from.</param>
public sealed record ProfileRequest(JsonElement Profile, [MaxLength(Bounds.NameLength)] string? Like, int? Revision = null);

/// <summary>The effect of a profile on the existing listings.</summary>
/// <param name="Unfit">Listings that would no longer fit, with why.</param>
/// <param name="Revision">Of the profile as it is now; null where nothing was saved.</param>
/// <param name="Changed">What was saved; null where nothing was.</param>
public sealed record ProfileChecked(IReadOnlyList<UnfitListing> Unfit, int? Revision = null, Changed? Changed = null);

/// <summary>A listing that does not fit a profile.</summary>
/// <param name="Before">Whether it fitted the profile that was there before.</param>
public sealed record UnfitListing(int ListingId, string Product, IReadOnlyList<string> Why, bool Before);

internal static class PlatformsApi
{
    public static void MapPlatforms(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/platforms");
        api.MapGet("/", GetPlatforms);
        api.MapGet("/{id}/profile.json", ExportProfile);

        // Says what is wrong, and which listings would not fit; keeps nothing.
        api.MapPost("/check", CheckProfile);
        api.MapPost("/", AddPlatform).RetriesRaces();
        api.MapPut("/{id}", SavePlatform).RetriesRaces();
        api.MapDelete("/{id}", DeletePlatform);
    }

    private static async Task<PlatformsView> GetPlatforms(TinContext db, CancellationToken stop)
    {
        var counts = await db
            .Listings.Where(l => l.Copy != ListingText.Empty)
            .GroupBy(l => l.PlatformId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, stop);
        var rows = await db.Platforms.AsNoTracking().ToListAsync(stop);
        return new PlatformsView(
            [.. rows.OrderBy(r => r.Like is not null).ThenBy(r => r.Id).Select(r => View(r, counts.GetValueOrDefault(r.Id)))],
            ListingToCheck.Thresholds
        );
    }

    private static async Task<FileContentHttpResult> ExportProfile(string id, TinContext db, CancellationToken stop)
    {
        var row = await db.Platforms.FindAsync([id], stop).OrNotThere();
        return TypedResults.File(
            Encoding.UTF8.GetBytes(PlatformJson.Write(row.Profile).ToJsonString(new(ListingText.Format) { WriteIndented = true })),
            "application/json",
            $"{id}.json"
        );
    }

    private static async Task<ProfileChecked> CheckProfile(ProfileRequest request, TinContext db, CancellationToken stop) =>
        new ProfileChecked(await Unfit(db, Read(request), stop));

    private static async Task<PlatformView> AddPlatform(
        ProfileRequest request,
        TinContext db,
        ChangeLog changes,
        MarketSetup markets,
        CancellationToken stop
    )
    {
        var platform = Read(request);
        await CheckFree(db, platform.Id, stop);
        var row = new PlatformRow
        {
            Id = platform.Id,
            Profile = platform,
            Like = await KindOf(db, request.Like, stop),
        };
        db.Platforms.Add(row);
        var undo = new RemoveRows(nameof(PlatformRow), [platform.Id]);
        await changes.Save(PlatformMessages.Added(platform.Name), new(Screen.Settings), [undo], stop);
        await markets.TryOpen(platform, row.Like!, stop);
        return View(row, 0);
    }

    private static async Task<Results<Ok<ProfileChecked>, Conflict<PlatformView>>> SavePlatform(
        string id,
        ProfileRequest request,
        TinContext db,
        ChangeLog changes,
        MarketSetup markets,
        CancellationToken stop
    )
    {
        var row = await db.Platforms.FindAsync([id], stop).OrNotThere();
        var (platform, from) = ReadChanged(request, id);
        var unfit = await Unfit(db, platform, stop);
        var before = Profiles.Write(row.Profile);
        var result = Versioned.Apply(row.Revision, from, Profiles.Write(platform) == before, () => row.SetProfile(platform));
        if (result is SaveResult.Conflict)
            return TypedResults.Conflict(View(row, await Written(db, id, stop)));
        if (result is SaveResult.Unchanged)
            return TypedResults.Ok(new ProfileChecked(unfit, row.Revision));
        var what = PlatformMessages.Changed(platform.Name);
        var changed = await changes.Save(what, new(Screen.Settings), [new ProfileBefore(id, before)], stop);
        await Reopen(row, db, markets, stop);
        return TypedResults.Ok(new ProfileChecked(unfit, row.Revision, changed));
    }

    private static async Task Reopen(PlatformRow row, TinContext db, MarketSetup markets, CancellationToken stop)
    {
        await db.ForgetHeads(row.Id, stop);
        if (row.Like is { } like)
            await markets.TryOpen(row.Profile, like, stop);
    }

    private static Task<int> Written(TinContext db, string platformId, CancellationToken stop) =>
        db.Listings.CountAsync(l => l.PlatformId == platformId && l.Copy != ListingText.Empty, stop);

    private static (Platform Platform, int Revision) ReadChanged(ProfileRequest request, string id)
    {
        var platform = Read(request);
        if (platform.Id != id)
            throw new InvalidInputException([new("profile.id", $"A platform keeps its ID, “{id}”. Duplicate it to use another.")]);
        return (platform, request.Revision ?? throw new InvalidInputException([new("revision", "This is missing.")]));
    }

    private static async Task CheckFree(TinContext db, string id, CancellationToken stop)
    {
        if (await db.Platforms.IgnoreQueryFilters().FirstOrDefaultAsync(p => p.Id == id, stop) is { } other)
            throw new InvalidInputException([
                new(
                    "profile.id",
                    other.DeletedAt is null
                        ? $"A platform with the ID “{id}” exists already. Choose another ID."
                        : $"A deleted platform has the ID “{id}”. Choose another ID."
                ),
            ]);
    }

    private static async Task<Changed> DeletePlatform(string id, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var row = await db.Platforms.FindAsync([id], stop).OrNotThere();
        if (row.Like is null)
            throw new InvalidInputException([new("id", "A built-in platform can’t be deleted.")]);
        List<IDeletable> rows = [row, .. await db.Listings.Where(l => l.PlatformId == id).ToListAsync(stop)];
        return await changes.Delete(ChangeMessages.Deleted("platform", row.Profile.Name), new(Screen.Settings), rows, stop);
    }

    // A copy of a copy resembles the original's platform.
    private static async Task<string> KindOf(TinContext db, string? like, CancellationToken stop) =>
        like is not null && await db.Platforms.FindAsync([like], stop) is { } row ? row.Like ?? row.Id : "longbarrow";

    private static Platform Read(ProfileRequest request)
    {
        var platform = PlatformJson.Read(request.Profile, "profile");
        if (platform.Id.Length is 0 or > 40)
            throw new InvalidInputException([new("profile.id", "Use 1 to 40 lower-case letters, digits and hyphens.")]);
        if (platform.Name.Trim().Length == 0)
            throw new InvalidInputException([new("profile.name", "Enter a name.")]);
        return platform;
    }

    private static PlatformView View(PlatformRow row, int listings)
    {
        var platform = row.Profile;
        return new(row.Id, platform.Name, platform.About, row.Like is null, listings, row.Revision, PlatformJson.Write(platform));
    }

    private static async Task<List<UnfitListing>> Unfit(TinContext db, Platform platform, CancellationToken stop)
    {
        var unfit = new List<UnfitListing>();
        var listings = await db
            .Listings.AsNoTracking()
            .Include(l => l.Product)
            .Include(l => l.Platform)
            .Where(l => l.PlatformId == platform.Id && l.Copy != ListingText.Empty)
            .OrderBy(l => l.ProductId)
            .ToListAsync(stop);
        var kinds = await db
            .Pages.Where(p => p.Listing.PlatformId == platform.Id)
            .ToDictionaryAsync(p => p.ListingId, p => (PageKind?)p.Kind, stop);
        var before = listings.Count > 0 ? listings[0].Platform.Profile : null;
        foreach (var listing in listings)
        {
            var kind = kinds.GetValueOrDefault(listing.Id);
            if (Why(platform, listing, kind) is { Count: > 0 } why)
                unfit.Add(new(listing.Id, listing.Product.Name, why, Why(before!, listing, kind).Count == 0));
        }

        return unfit;
    }

    private static List<string> Why(Platform platform, ListingRow listing, PageKind? kind)
    {
        var copy = listing.Copy.On(platform);
        var why = new List<string>();
        foreach (var field in platform.Fields)
        {
            var room = RoomUsed.Of(field, copy.GetValueOrDefault(field.Key));
            if (room.Over > 0)
                why.Add(LimitMessages.TooLong(field.Label, room.Over, field.Limit!.Unit));
            if (room.ItemsOver > 0)
                why.Add(LimitMessages.TooMany(field.Label, room.ItemsOver));
            if (kind.Requires(field) && copy.GetValueOrDefault(field.Key)?.IsEmpty(field.Shape) != false)
                why.Add(LimitMessages.Empty(field.Label));
        }

        return why;
    }
}
