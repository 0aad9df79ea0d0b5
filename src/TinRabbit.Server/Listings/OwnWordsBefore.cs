namespace TinRabbit.Server.Listings;

/// <summary>The seller's own words before a change.</summary>
public sealed record OwnWordsBefore(IReadOnlyList<OwnWord> Words) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var shop = await undo.Db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        var now = new OwnWordsBefore(shop.OwnWords);
        shop.OwnWords = Words;
        return [now];
    }
}
