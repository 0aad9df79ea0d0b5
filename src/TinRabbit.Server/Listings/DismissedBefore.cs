namespace TinRabbit.Server.Listings;

/// <summary>Whether a finding of a listing was dismissed before a change.</summary>
/// <param name="At">When it was dismissed; null where it was not.</param>
public sealed record DismissedBefore(int ListingId, string Key, bool IsDismissed, DateTime? At = null) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var row = await undo.Db.Asides.FirstOrDefaultAsync(a => a.ListingId == ListingId && a.Key == Key, stop);
        if (IsDismissed == row is not null)
            return [];
        if (row is null)
            undo.Db.Asides.Add(
                new()
                {
                    ListingId = ListingId,
                    Key = Key,
                    At = At ?? undo.Now,
                }
            );
        else
            undo.Db.Asides.Remove(row);
        return [new DismissedBefore(ListingId, Key, row is not null, row?.At)];
    }
}
