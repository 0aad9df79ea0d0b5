namespace TinRabbit.Server.Picks;

/// <summary>What was judged of a term's results before a change.</summary>
/// <param name="Judged">Each result; null where none was judged.</param>
public sealed record LikenessBefore(int ProductId, string MarketId, string Key, IReadOnlyDictionary<string, bool>? Judged) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var row = await undo.Db.Likenesses.FirstOrDefaultAsync(
            l => l.ProductId == ProductId && l.MarketId == MarketId && l.Key == Key,
            stop
        );
        var now = this with { Judged = row?.Judged };
        if (Judged is null && row is not null)
            undo.Db.Likenesses.Remove(row);
        else if (Judged is not null)
            (
                row
                ?? undo.Db.Likenesses.Add(
                    new()
                    {
                        ProductId = ProductId,
                        MarketId = MarketId,
                        Key = Key,
                    }
                ).Entity
            ).Judged = Judged;
        return [now];
    }
}
