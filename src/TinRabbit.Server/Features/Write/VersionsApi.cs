using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Write;

/// <summary>A saved state of a listing.</summary>
/// <param name="Why">Why it was saved, as words that follow “Saved”.</param>
/// <param name="Name">The seller's name for it; empty where none.</param>
public sealed record VersionView(int Id, DateTime At, string Why, string Name, JsonObject Copy);

/// <summary>A name for a version, or for the state that a listing is in.</summary>
public sealed record NameRequest([MaxLength(Bounds.NameLength)] string Name);

/// <summary>Two states to compare: each the number of a version, or 0 for the fields given (what is saved, where none are).</summary>
public sealed record CompareRequest(int From, int To, JsonElement? Fields);

/// <summary>Whether a version was saved; not if the listing is empty or unchanged since the last one.</summary>
public sealed record KeptVersion(bool Kept);

internal static class VersionsApi
{
    private const int MostNamed = 80;

    public static void MapVersions(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/versions");
        api.MapGet("/", GetVersions);
        api.MapPost("/", KeepVersion).RetriesRaces();
        api.MapPut("/{version:int}", RenameVersion).RetriesRaces();
        api.MapDelete("/{version:int}", DeleteVersion);
        api.MapPost("/compare", CompareVersions);
    }

    private static async Task<List<VersionView>> GetVersions(int id, int? before, TinContext db, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var platform = listing.Platform.Profile;
        return (
            await db
                .Versions.AsNoTracking()
                .Where(v => v.ListingId == id && (before == null || v.Id < before))
                .OrderByDescending(v => v.Id)
                .Take(Bounds.PageRows)
                .ToListAsync(stop)
        )
            .Select(v => new VersionView(v.Id, v.At, WriteMessages.SavedBecause(v.Reason), v.Name, CopyJson.Write(v.Copy.On(platform))))
            .ToList();
    }

    private static async Task<KeptVersion> KeepVersion(
        int id,
        NameRequest request,
        TinContext db,
        ListingEditor editor,
        CancellationToken stop
    )
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var kept = await editor.SaveVersion(listing, VersionReason.ByHand, NameOf(request), stop);
        await db.SaveChangesAsync(stop);
        return new KeptVersion(kept);
    }

    private static async Task<List<FieldChange>> CompareVersions(int id, CompareRequest request, TinContext db, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var platform = listing.Platform.Profile;
        var (from, to) = (await State(request.From), await State(request.To));
        return from is null || to is null ? throw new NotThereException() : FieldChanges.Of(platform, from, to);

        async Task<IReadOnlyDictionary<string, FieldValue>?> State(int version)
        {
            if (version == 0)
                return request.Fields is { ValueKind: JsonValueKind.Object } draft
                    ? CopyJson.Read(draft, platform)
                    : listing.Copy.On(platform);
            return await db.Versions.AsNoTracking().FirstOrDefaultAsync(v => v.Id == version && v.ListingId == id, stop) is { } row
                ? row.Copy.On(platform)
                : null;
        }
    }

    private static async Task<Changed> RenameVersion(
        int id,
        int version,
        NameRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var row = await db.Versions.FirstOrDefaultAsync(v => v.Id == version && v.ListingId == id, stop).OrNotThere();
        var (before, name, undo) = (row.Name, NameOf(request), RenameRow.Of(row, version));
        row.Rename(name);
        return await changes.Save(
            ChangeMessages.Renamed("version", before, name),
            new(Screen.Write, await db.ProductOf(id, stop), id),
            [undo],
            stop
        );
    }

    private static async Task<Changed> DeleteVersion(int id, int version, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var row = await db.Versions.FirstOrDefaultAsync(v => v.Id == version && v.ListingId == id, stop).OrNotThere();
        return await changes.Delete(
            ChangeMessages.Deleted("version", row.Name),
            new(Screen.Write, await db.ProductOf(id, stop), id),
            [row],
            stop
        );
    }

    private static string NameOf(NameRequest request) =>
        request.Name.Trim() is { Length: <= MostNamed } name
            ? name
            : throw new InvalidInputException([new("name", $"Enter a name of at most {MostNamed} characters.")]);
}
