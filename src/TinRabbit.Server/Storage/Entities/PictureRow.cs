namespace TinRabbit.Server.Storage;

/// <summary>A picture of a product: what is to be seen in it.</summary>
public sealed class PictureRow
{
    public int Id { get; set; }
    public int ProductId { get; set; }
    public int Order { get; set; }
    public required string Description { get; set; }
}
