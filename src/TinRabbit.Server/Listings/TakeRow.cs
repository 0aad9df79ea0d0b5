namespace TinRabbit.Server.Listings;

/// <summary>One version of a title.</summary>
public sealed class TakeRow : IRenamed
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ListingId { get; set; }
    public DateTime At { get; set; }
    public required string Text { get; set; }

    /// <summary>The name that the seller gave it; empty where none.</summary>
    public string Name { get; set; } = "";

    public void Rename(string name) => Name = name;
}
