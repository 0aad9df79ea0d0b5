namespace TinRabbit.Server.Listings;

/// <summary>The details of a listing before a change.</summary>
public sealed record DetailsBefore(int ListingId, ListingDetails? Details) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Listings.IgnoreQueryFilters().FirstOrDefaultAsync(l => l.Id == ListingId, stop) is not { } listing)
            return [];
        var now = new DetailsBefore(ListingId, listing.Details);
        listing.Details = Details;
        return [now];
    }

    public bool IsUnder(IUndoStep later) => later is DetailsBefore other && other.ListingId == ListingId;
}
