namespace TinRabbit.Server.Shelf;

/// <summary>Makes an import again that was taken back.</summary>
public sealed record ReturnImport(int ImportId) : IUndoStep
{
    public bool WritesByItself => true;

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop) =>
        await undo.Get<Shelves>().Return(undo.Db, ImportId, undo.Now) ? [new RemoveImport(ImportId)] : [];
}
