namespace TinRabbit.Server.Picks;

/// <summary>Deletes listings that a change added, with their pages.</summary>
public sealed record RemoveListings(IReadOnlyList<int> Ids) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var rows = await undo.Db.OfListings(Ids, stop);
        foreach (var row in rows)
            row.DeletedAt = undo.Now;
        return rows.Count == 0 ? [] : [new RestoreDeleted(undo.Now, this)];
    }
}
