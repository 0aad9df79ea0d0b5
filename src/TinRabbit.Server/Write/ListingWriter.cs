using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Platforms;
using TinRabbit.Server.Formats;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Write;

/// <summary>Decides what a save of a listing's fields keeps: the revision, text without a field, a version, a take.</summary>
public sealed class ListingWriter(TinContext db, TimeProvider clock)
{
    /// <summary>Saves within this time of each other belong to one version; a longer pause begins the next.</summary>
    public static readonly TimeSpan Pause = TimeSpan.FromSeconds(45);

    /// <summary>Saves the fields of a listing, unless somebody else saved others meanwhile.</summary>
    /// <param name="listing">The listing as it is stored, with its platform.</param>
    /// <param name="fields">All fields, as JSON.</param>
    /// <param name="revision">The revision that the fields were made from.</param>
    /// <param name="versionReason">Why the state before becomes a version, as words that follow “Saved”; null when only a pause makes it one.</param>
    /// <param name="stop">Stops waiting; nothing is saved then.</param>
    /// <returns>False, and nothing is changed, when the listing has another revision and other text.</returns>
    /// <exception cref="InvalidInputException">A field is unknown to the platform, or its value has another shape.</exception>
    public async Task<bool> Save(ListingRow listing, JsonElement fields, int revision, string? versionReason, CancellationToken stop)
    {
        var platform = PlatformJson.Read(listing.Platform.Profile);
        var copy = CopyToStore(listing, fields, platform);
        // The same text is saved already, whoever saved it: an answer that was lost on its way is asked for again like this.
        if (copy == listing.Copy)
            return true;
        if (listing.Revision != revision)
            return false;
        var now = clock.GetUtcNow().UtcDateTime;
        if (versionReason is { Length: > 0 } || now - listing.SavedAt > Pause)
        {
            await db.SaveVersion(listing, versionReason ?? "after a pause", "", stop);
            await db.SaveTake(listing.Id, Listings.TextOf(listing.Copy, platform, "title"), now, stop);
        }

        (listing.Copy, listing.SavedAt, listing.Revision) = (copy, now, listing.Revision + 1);
        await db.KeepSlug(listing, platform, stop);
        await db.SaveChangesAsync(stop);
        return true;
    }

    // Text for a field that the profile no longer has stays stored, and comes back with the field.
    private static string CopyToStore(ListingRow listing, JsonElement given, Platform platform)
    {
        var fields = RichText.SanitizeFields(CopyJson.Write(CopyJson.Read(given, platform)), platform);
        foreach (var (key, stored) in Listings.Parse(listing.Copy))
            if (platform.Find(key) is null)
                fields[key] = stored?.DeepClone();
        return fields.ToJsonString(Listings.Json);
    }
}
