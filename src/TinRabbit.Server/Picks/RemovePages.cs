using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Picks;

/// <summary>Deletes pages that a change added. A product keeps its listing.</summary>
public sealed record RemovePages(IReadOnlyList<int> Ids) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        foreach (var row in await undo.Db.OfPages(Ids, stop))
            row.DeletedAt = undo.Now;
        return [new RestoreDeleted(undo.Now)];
    }
}
