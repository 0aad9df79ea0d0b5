using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Journal;

/// <summary>The change note that every send makes, and the watch that begins with the first.</summary>
internal static class ChangeNotes
{
    /// <summary>Notes that a listing was sent, and watches it in that market; the caller saves.</summary>
    /// <param name="db">The database.</param>
    /// <param name="listing">The listing, with its platform.</param>
    /// <param name="sent">What was sent; it is saved already.</param>
    /// <param name="before">What was sent to the same market before; null the first time.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task NoteSent(this TinContext db, ListingRow listing, SentRow sent, SentRow? before, CancellationToken stop)
    {
        await db.WatchOf(listing.Id, sent.MarketId, stop);
        var platform = listing.Platform.Profile;
        var changed = before is null ? [] : FieldsChanged(platform, before.Copy.On(platform), sent.Copy.On(platform));
        if (before is not null && changed.Count == 0)
            return;
        db.Notes.Add(
            new()
            {
                ProductId = listing.ProductId,
                ListingId = listing.Id,
                MarketId = sent.MarketId,
                At = sent.At,
                CountsFrom = sent.NoticedAt,
                Kinds = [.. changed.Select(f => KindOf(f.Role)).Distinct()],
                Text = JournalMessages.SentChange(before is null, sent.ByHand, [.. changed.Select(f => f.Label)]),
                SentId = sent.Id,
            }
        );
    }

    /// <summary>How a listing is watched in a market; begins to watch it where it is not, and the caller saves.</summary>
    public static async Task<WatchRow> WatchOf(this TinContext db, int listingId, string marketId, CancellationToken stop) =>
        await db.Watches.FirstOrDefaultAsync(w => w.ListingId == listingId && w.MarketId == marketId, stop)
        ?? db.Watches.Add(
            new()
            {
                ListingId = listingId,
                MarketId = marketId,
                ChecksDaily = true,
            }
        ).Entity;

    private static List<Field> FieldsChanged(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> before,
        IReadOnlyDictionary<string, FieldValue> after
    ) =>
        [
            .. platform.Fields.Where(f =>
                (before.GetValueOrDefault(f.Key)?.Lines(f.Shape) ?? "") != (after.GetValueOrDefault(f.Key)?.Lines(f.Shape) ?? "")
            ),
        ];

    private static NoteKind KindOf(string? role) =>
        role switch
        {
            "title" => NoteKind.Title,
            "tags" or "keywords" => NoteKind.Tags,
            "bullets" => NoteKind.Bullets,
            "backend" => NoteKind.Backend,
            "body" or "short" or "meta" => NoteKind.Description,
            "attributes" or "category" or "materials" => NoteKind.Attributes,
            "alt" => NoteKind.Photos,
            _ => NoteKind.Other,
        };
}
