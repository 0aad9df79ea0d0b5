using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Picks;

/// <summary>Deletes products that a change added, with all that is theirs.</summary>
public sealed record RemoveProducts(IReadOnlyList<int> Ids) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        foreach (var row in await undo.Db.OfProducts(Ids, stop))
            row.DeletedAt = undo.Now;
        return [new RestoreDeleted(undo.Now)];
    }
}
