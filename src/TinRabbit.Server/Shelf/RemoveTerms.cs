namespace TinRabbit.Server.Shelf;

/// <summary>Deletes terms from a shelf, by their keys.</summary>
public sealed record RemoveTerms(string MarketId, IReadOnlyList<string> Keys) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop) =>
        await undo.Get<Shelves>().Delete(undo.Db, MarketId, Keys, stop) is { Count: > 0 } gone ? [new RestoreTerms(MarketId, gone)] : [];
}
