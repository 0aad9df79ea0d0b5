using TinRabbit.Core.Moves;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Picks;

/// <summary>A draft with all that fills, findings and takes work with.</summary>
/// <param name="Listing">The listing as it is saved.</param>
/// <param name="Picks">Its product's picks, ready for the platform.</param>
/// <param name="Copy">The draft's fields.</param>
/// <param name="Lead">The lead as it is typed; null where none is chosen.</param>
internal sealed record OpenDraft(ListingRow Listing, PreparedPicks Picks, IReadOnlyDictionary<string, FieldValue> Copy, string? Lead)
{
    public Platform Platform => Picks.Platform;

    /// <summary>What is true of the product, with the seller's own words.</summary>
    public FactWords Facts { get; } = Listing.Product.Facts.Words with { Own = Picks.OwnWords };

    public IReadOnlyList<string> Avoid { get; } = [.. Picks.Avoided.Select(a => a.Text)];

    /// <summary>The text of the field of a role, as it stands in the draft; empty where there is none.</summary>
    public string TextOf(string role) =>
        Platform.Role(role) is { } field && Copy.GetValueOrDefault(field.Key) is FieldValue.Text text ? text.Value.Trim() : "";

    /// <summary>The draft as the search for moves takes it.</summary>
    public MovesInput ForMoves =>
        new(Platform, Copy, Picks.Wanted, Avoid)
        {
            Lead = Lead,
            Facts = Facts,
            LeftAlone = Platform.Fields.Where(f => f.IsMaterials).Select(f => f.Key).ToHashSet(),
        };

    public static async Task<OpenDraft?> Open(TinContext db, PreparedPicksCache ready, int id, DraftOf draft, CancellationToken stop)
    {
        if (
            await db.Listings.AsNoTracking().Include(l => l.Platform).Include(l => l.Product).FirstOrDefaultAsync(l => l.Id == id, stop)
            is not { } listing
        )
            return null;
        var picks = await ready.Get(db, listing.ProductId, draft.MarketId, listing.Platform.Profile, stop);
        var copy = draft.Fields is { ValueKind: JsonValueKind.Object } fields
            ? CopyJson.Read(fields, picks.Platform)
            : listing.Copy.On(picks.Platform);
        copy = await db.WithAltTexts(picks.Platform, listing.ProductId, copy, stop);
        var at = listing.LeadKey is { } key ? picks.Keys.ToList().IndexOf(key) : -1;
        return new(listing, picks, copy, at < 0 ? null : picks.Wanted[at].Text);
    }
}
