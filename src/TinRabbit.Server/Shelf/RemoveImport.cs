namespace TinRabbit.Server.Shelf;

/// <summary>Takes back what a finished import added, and gives the terms that it changed the readings that they had.</summary>
public sealed record RemoveImport(int ImportId) : IUndoStep
{
    public bool WritesByItself => true;

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop) =>
        await undo.Get<Shelves>().Withdraw(undo.Db, ImportId, undo.Now) ? [new ReturnImport(ImportId)] : [];
}
