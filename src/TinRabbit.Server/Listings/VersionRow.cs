namespace TinRabbit.Server.Listings;

/// <summary>A state of a listing worth returning to.</summary>
public sealed class VersionRow : IRenamed
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ListingId { get; set; }
    public DateTime At { get; set; }
    public required ListingText Copy { get; set; }

    public VersionReason Reason { get; set; }

    /// <summary>The name that the seller gave it; empty where none.</summary>
    public string Name { get; set; } = "";

    public void Rename(string name) => Name = name;
}
