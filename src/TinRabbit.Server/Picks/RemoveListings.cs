using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Picks;

/// <summary>Deletes listings that a change added, with their pages.</summary>
public sealed record RemoveListings(IReadOnlyList<int> Ids) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        foreach (var row in await undo.Db.OfListings(Ids, stop))
            row.DeletedAt = undo.Now;
        return [new RestoreDeleted(undo.Now)];
    }
}
