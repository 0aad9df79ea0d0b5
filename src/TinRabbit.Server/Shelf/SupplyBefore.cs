namespace TinRabbit.Server.Shelf;

/// <summary>Which supply a market's headroom went by before a change.</summary>
public sealed record SupplyBefore(string MarketId, Supply Supply) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var shelves = undo.Get<Shelves>();
        var now = await shelves.Query(undo.Db, MarketId, s => s.Norm.Supply, stop);
        await shelves.ChooseSupply(undo.Db, MarketId, Supply, stop);
        return [new SupplyBefore(MarketId, now)];
    }
}
