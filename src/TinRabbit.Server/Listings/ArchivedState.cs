namespace TinRabbit.Server.Listings;

/// <summary>A listing that was archived or taken back: when it was archived before the change; null where it was not.</summary>
public sealed record ArchivedState(int ListingId, DateTime? Before) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Listings.FirstOrDefaultAsync(l => l.Id == ListingId, stop) is not { } listing)
            return [];
        var now = listing.ArchivedAt;
        listing.ArchivedAt = Before;
        return [new ArchivedState(ListingId, now)];
    }
}
