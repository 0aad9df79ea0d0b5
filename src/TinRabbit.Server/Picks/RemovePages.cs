namespace TinRabbit.Server.Picks;

/// <summary>Deletes pages that a change added. A product keeps its listing.</summary>
public sealed record RemovePages(IReadOnlyList<int> Ids) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var rows = await undo.Db.OfPages(Ids, stop);
        foreach (var row in rows)
            row.DeletedAt = undo.Now;
        return rows.Count == 0 ? [] : [new RestoreDeleted(undo.Now, this)];
    }
}
