using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Server.Storage;

/// <summary>Listings as they lie in the database.</summary>
internal static class Listings
{
    /// <summary>How copy is written: as the seller typed it, without escapes.</summary>
    public static readonly JsonSerializerOptions Json = new()
    {
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>A listing with its product and platform, to be changed.</summary>
    public static Task<ListingRow?> FindListing(this TinContext db, int id, CancellationToken stop) =>
        db.Listings.Include(l => l.Platform).Include(l => l.Product).FirstOrDefaultAsync(l => l.Id == id, stop);

    /// <summary>The name of each platform.</summary>
    public static async Task<Dictionary<string, string>> PlatformNames(this TinContext db, CancellationToken stop) =>
        (await db.Platforms.AsNoTracking().ToListAsync(stop)).ToDictionary(p => p.Id, p => PlatformJson.Read(p.Profile).Name);

    /// <summary>The product of a listing; null where there is no such listing.</summary>
    public static Task<int?> ProductOf(this TinContext db, int listingId, CancellationToken stop) =>
        db.Listings.Where(l => l.Id == listingId).Select(l => (int?)l.ProductId).FirstOrDefaultAsync(stop);

    /// <summary>The picks of a product that are worked on: neither saved for later nor to be avoided.</summary>
    public static IQueryable<PickRow> PicksInUse(this TinContext db, int productId) =>
        db.Picks.Where(p => p.ProductId == productId && p.Home != Home.Avoid && p.Home != Home.Later).OrderBy(p => p.Order);

    /// <summary>Copy as JSON.</summary>
    public static JsonObject Parse(string copy) => JsonNode.Parse(copy)!.AsObject();

    /// <summary>The text of a field of one text, by its role; empty where there is none.</summary>
    public static string TextOf(JsonObject copy, Platform platform, string role) =>
        platform.Role(role) is { } field && copy[field.Key] is JsonValue value && value.TryGetValue<string>(out var text)
            ? text.Trim()
            : "";

    /// <inheritdoc cref="TextOf(JsonObject, Platform, string)"/>
    public static string TextOf(string copy, Platform platform, string role) => TextOf(Parse(copy), platform, role);

    /// <summary>Copy as the engine takes it.</summary>
    public static IReadOnlyDictionary<string, FieldValue> CopyOf(string copy, Platform platform)
    {
        using var json = JsonDocument.Parse(copy);
        return CopyJson.ReadStored(json.RootElement, platform);
    }

    /// <summary>A field's text to be compared with another: a list has its items one a line; empty where nothing is there.</summary>
    public static string LinesOf(Field field, FieldValue? value) =>
        value switch
        {
            null => "",
            FieldValue.Text text => text.Value,
            _ => string.Join('\n', value.Units(field.Shape)),
        };

    /// <summary>Keeps the state that a listing is in, unless it is empty or the last one kept.</summary>
    /// <param name="db">The database; the caller saves.</param>
    /// <param name="listing">The listing before it is changed.</param>
    /// <param name="why">Why it is kept, as words that follow "Kept".</param>
    /// <param name="name">The seller's name for it; empty where none.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<bool> SaveVersion(this TinContext db, ListingRow listing, string why, string name, CancellationToken stop)
    {
        var last = await db.Versions.Where(v => v.ListingId == listing.Id).OrderByDescending(v => v.Id).FirstOrDefaultAsync(stop);
        if (listing.Copy == "{}" || (last?.Copy == listing.Copy && name.Length == 0))
            return false;
        if (last?.Copy == listing.Copy)
            last!.Name = name;
        else
            db.Versions.Add(
                new()
                {
                    ListingId = listing.Id,
                    At = listing.SavedAt,
                    Copy = listing.Copy,
                    Why = why,
                    Name = name,
                }
            );
        return true;
    }

    /// <summary>Keeps a try at a title, unless it is empty or there already.</summary>
    public static async Task SaveTake(this TinContext db, int listingId, string text, DateTime now, CancellationToken stop)
    {
        if (text.Trim() is { Length: > 0 } take && !await db.Takes.AnyAsync(t => t.ListingId == listingId && t.Text == take, stop))
            db.Takes.Add(
                new()
                {
                    ListingId = listingId,
                    At = now,
                    Text = take,
                }
            );
    }
}
