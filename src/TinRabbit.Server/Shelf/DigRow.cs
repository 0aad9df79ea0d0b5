namespace TinRabbit.Server.Shelf;

/// <summary>One step of a product's trail.</summary>
public sealed class DigRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ProductId { get; set; }
    public required string MarketId { get; set; }
    public required string Text { get; set; }
    public required string Key { get; set; }

    /// <summary>The step it was clicked in; null where it was typed.</summary>
    public int? ParentId { get; set; }
    public DateTime At { get; set; }
}
