namespace TinRabbit.Server.Picks;

/// <summary>Deletes products that a change added, with all that is theirs.</summary>
public sealed record RemoveProducts(IReadOnlyList<int> Ids) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var rows = await undo.Db.OfProducts(Ids, stop);
        foreach (var row in rows)
            row.DeletedAt = undo.Now;
        return rows.Count == 0 ? [] : [new RestoreDeleted(undo.Now, this)];
    }
}
