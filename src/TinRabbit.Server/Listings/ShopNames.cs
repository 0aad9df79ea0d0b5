namespace TinRabbit.Server.Listings;

/// <summary>What the shop is called, and the seller's currency, countries and language.</summary>
/// <param name="Countries">Null leaves them: a change of an older program did not know of them.</param>
/// <param name="Language">Null leaves it.</param>
public sealed record ShopNames(string Name, string Currency, IReadOnlyList<string>? Countries = null, string? Language = null) : IUndoStep
{
    public static ShopNames Of(ShopRow shop) => new(shop.Name, shop.Currency, shop.Countries, shop.Language);

    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        var shop = await undo.Db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        var now = Of(shop);
        ApplyTo(shop);
        return [now];
    }

    public void ApplyTo(ShopRow shop)
    {
        (shop.Name, shop.Currency) = (Name, Currency);
        (shop.Countries, shop.Language) = (Countries ?? shop.Countries, Language ?? shop.Language);
    }

    public bool IsSame(ShopNames other) =>
        (Countries ?? []).SequenceEqual(other.Countries ?? []) && this with { Countries = other.Countries } == other;
}
