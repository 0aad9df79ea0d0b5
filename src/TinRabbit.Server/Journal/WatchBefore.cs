namespace TinRabbit.Server.Journal;

/// <summary>Whether a listing was watched in a market before a change.</summary>
public sealed record WatchBefore(int ListingId, string MarketId, bool IsWatched) : IUndoStep
{
    /// <summary>How it is now.</summary>
    public static async Task<WatchBefore> Of(Storage.TinContext db, int listingId, string marketId, CancellationToken stop) =>
        new(listingId, marketId, await db.Watches.AnyAsync(w => w.ListingId == listingId && w.MarketId == marketId, stop));

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var now = await Of(undo.Db, ListingId, MarketId, stop);
        if (now == this)
            return [];
        var watch = await undo.Db.WatchOf(ListingId, MarketId, stop);
        if (IsWatched)
            return [now];
        // What was set or checked since stays.
        if (!watch.IsAsBegun)
            return [];
        undo.Db.Watches.Remove(watch);
        return [now];
    }
}
