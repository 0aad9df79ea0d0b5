namespace TinRabbit.Server.Listings;

/// <summary>A listing's lead that a change set, and the one before it, by their keys: undone only while the listing still has the one that the change set.</summary>
public sealed record LeadState(int ListingId, string? Before, string? After) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Listings.FirstOrDefaultAsync(l => l.Id == ListingId, stop) is not { } listing || listing.LeadKey != After)
            return [];
        ListingEditor.SetLead(listing, Before);
        return [new LeadState(ListingId, After, Before)];
    }
}
