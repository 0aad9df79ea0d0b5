namespace TinRabbit.Server.Picks;

/// <summary>Which results of a term the seller judged to be like a product.</summary>
public sealed class LikenessRow
{
    public int Id { get; set; }
    public int ProductId { get; set; }
    public required string MarketId { get; set; }

    /// <summary>The term's key.</summary>
    public required string Key { get; set; }

    /// <summary>Whether each result is like the product, by the market's own name for it, or by its title.</summary>
    public IReadOnlyDictionary<string, bool> Judged { get; set; } = new Dictionary<string, bool>();
}
