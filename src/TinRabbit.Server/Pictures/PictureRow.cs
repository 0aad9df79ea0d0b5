namespace TinRabbit.Server.Pictures;

/// <summary>A picture of a product: what is to be seen in it.</summary>
public sealed class PictureRow
{
    public int Id { get; set; }
    public int ProductId { get; set; }
    public int Order { get; set; }

    /// <summary>Its alt text.</summary>
    public required string Description { get; set; }

    /// <summary>What it shows, in the seller's words, for patterns; empty where nothing is said.</summary>
    public string Shows { get; set; } = "";

    /// <summary>The name of its file in the data folder; null where there is none.</summary>
    public string? File { get; set; }

    /// <summary>Whether its alt text is locked, because something else depends on it.</summary>
    public bool IsLocked { get; set; }
}
