using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Server.Formats;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Write;

/// <summary>A listing with its platform's rules.</summary>
public sealed record ListingView(
    int Id, string Product, string PlatformId, string PlatformName, string About, IReadOnlyList<FieldView> Fields, JsonObject Copy,
    int Revision, string? LeadKey, DateTime SavedAt);

/// <summary>A field as an editor needs it.</summary>
public sealed record FieldView(
    string Key, string Label, string Role, FieldShape Shape, bool Indexed, int? IndexedFirst, double Weight, bool Required,
    int? Max, Unit Unit, int? MaxItems, int? Shows, string Separator);

/// <summary>A draft to save.</summary>
/// <param name="Fields">All fields.</param>
/// <param name="Revision">The revision it was made from.</param>
public sealed record SaveRequest(JsonElement Fields, int Revision);

/// <summary>The save is on disk.</summary>
public sealed record Saved(int Revision, DateTime SavedAt);

/// <summary>Somebody saved in between: what stands now.</summary>
public sealed record Conflict(JsonObject Copy, int Revision, DateTime SavedAt);

/// <summary>The pick a listing is built around.</summary>
public sealed record LeadRequest(string? Key);

/// <summary>A kept state of a listing.</summary>
public sealed record VersionView(int Id, DateTime At, JsonObject Copy);

internal static class WriteApi
{
    // Keystrokes within this time of each other are one version; a pause begins the next.
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(45);

    public static void MapWrite(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}").WithTags("Write");

        api.MapGet("/", async Task<Results<Ok<ListingView>, NotFound>> (int id, TinContext db, CancellationToken stop) =>
            await Find(db, id, stop) is { } listing ? TypedResults.Ok(View(listing)) : TypedResults.NotFound()).WithName("GetListing");

        api.MapPut("/copy", async Task<Results<Ok<Saved>, Conflict<Conflict>, NotFound>> (int id, SaveRequest request, TinContext db, CancellationToken stop) =>
        {
            if (await Find(db, id, stop) is not { } listing)
                return TypedResults.NotFound();
            if (listing.Revision != request.Revision)
                return TypedResults.Conflict(Now(listing));
            var copy = PlatformJson.WriteCopy(PlatformJson.ReadCopy(request.Fields, PlatformJson.Read(listing.Platform.Profile))).ToJsonString(Json);
            if (copy == listing.Copy)
                return TypedResults.Ok(new Saved(listing.Revision, listing.SavedAt));
            var now = DateTime.UtcNow;
            if (listing.Copy != "{}" && now - listing.SavedAt > Pause)
                db.Versions.Add(new() { ListingId = id, At = listing.SavedAt, Copy = listing.Copy });
            (listing.Copy, listing.SavedAt, listing.Revision) = (copy, now, listing.Revision + 1);
            try
            {
                await db.SaveChangesAsync(stop);
            }
            catch (DbUpdateConcurrencyException)
            {
                db.ChangeTracker.Clear();
                return TypedResults.Conflict(Now((await Find(db, id, stop))!));
            }

            return TypedResults.Ok(new Saved(listing.Revision, listing.SavedAt));
        }).WithName("SaveCopy").ProducesValidationProblem();

        api.MapPut("/lead", async Task<Results<NoContent, NotFound>> (int id, LeadRequest request, TinContext db, CancellationToken stop) =>
        {
            if (await db.Listings.FindAsync([id], stop) is not { } listing)
                return TypedResults.NotFound();
            var key = request.Key is { } text ? Tokens.Key(text) : null;
            if (key is not null && !await db.Picks.AnyAsync(p => p.ProductId == listing.ProductId && p.Key == key && p.Home != Home.Avoid, stop))
                throw new FormatProblems([new("key", $"\"{request.Key}\" is not among the product's picks.")]);
            listing.LeadKey = key;
            await db.SaveChangesAsync(stop);
            return TypedResults.NoContent();
        }).WithName("SetLead").ProducesValidationProblem();

        api.MapGet("/versions", async (int id, TinContext db, CancellationToken stop) =>
            TypedResults.Ok((await db.Versions.AsNoTracking().Where(v => v.ListingId == id).OrderByDescending(v => v.Id).Take(100).ToListAsync(stop))
                .Select(v => new VersionView(v.Id, v.At, Parse(v.Copy))).ToList())).WithName("GetVersions");

        api.MapGet("/export.csv", async Task<Results<FileContentHttpResult, NotFound>> (int id, TinContext db, CancellationToken stop) =>
        {
            if (await Find(db, id, stop) is not { } listing)
                return TypedResults.NotFound();
            var platform = PlatformJson.Read(listing.Platform.Profile);
            var csv = ListingFiles.Csv(listing.Product.Name, platform, Copy(listing, platform));
            return TypedResults.File(System.Text.Encoding.UTF8.GetBytes("\uFEFF" + csv), "text/csv; charset=utf-8", $"{FileName(listing)}.csv");
        }).WithName("ExportCsv");

        api.MapGet("/export.json", async Task<Results<FileContentHttpResult, NotFound>> (int id, TinContext db, CancellationToken stop) =>
        {
            if (await Find(db, id, stop) is not { } listing)
                return TypedResults.NotFound();
            var json = new JsonObject { ["product"] = listing.Product.Name, ["platform"] = listing.PlatformId, ["lead"] = listing.LeadKey, ["fields"] = Parse(listing.Copy) };
            return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(json.ToJsonString(new(Json) { WriteIndented = true })), "application/json", $"{FileName(listing)}.json");
        }).WithName("ExportJson");
    }

    private static readonly JsonSerializerOptions Json = new() { Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    private static Task<ListingRow?> Find(TinContext db, int id, CancellationToken stop) =>
        db.Listings.Include(l => l.Platform).Include(l => l.Product).FirstOrDefaultAsync(l => l.Id == id, stop);

    private static ListingView View(ListingRow listing)
    {
        var platform = PlatformJson.Read(listing.Platform.Profile);
        return new(
            listing.Id, listing.Product.Name, platform.Id, platform.Name, platform.About,
            [.. platform.Fields.Select(f => new FieldView(f.Key, f.Label, f.Role, f.Shape, f.Indexed, f.IndexedFirst, f.Weight, f.Required,
                f.Limit?.Max, f.Limit?.Unit ?? Unit.Characters, f.Limit?.MaxItems, f.Shows, f.Separator))],
            Parse(listing.Copy), listing.Revision, listing.LeadKey, listing.SavedAt);
    }

    private static Conflict Now(ListingRow listing) => new(Parse(listing.Copy), listing.Revision, listing.SavedAt);

    private static JsonObject Parse(string copy) => JsonNode.Parse(copy)!.AsObject();

    private static IReadOnlyDictionary<string, FieldValue> Copy(ListingRow listing, Platform platform)
    {
        using var json = JsonDocument.Parse(listing.Copy);
        return PlatformJson.ReadCopy(json.RootElement, platform);
    }

    private static string FileName(ListingRow listing) => $"{Tokens.Key(listing.Product.Name).Replace(' ', '-')}-{listing.PlatformId}";
}
