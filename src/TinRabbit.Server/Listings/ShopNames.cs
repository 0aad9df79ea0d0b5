namespace TinRabbit.Server.Listings;

/// <summary>What the shop is called, and the currency of its own platforms.</summary>
public sealed record ShopNames(string Name, string Currency) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var shop = await undo.Db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        var now = new ShopNames(shop.Name, shop.Currency);
        (shop.Name, shop.Currency) = (Name, Currency);
        return [now];
    }
}
