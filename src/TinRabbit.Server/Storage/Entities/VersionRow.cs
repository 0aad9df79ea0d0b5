namespace TinRabbit.Server.Storage;

/// <summary>A state of a listing worth returning to.</summary>
public sealed class VersionRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ListingId { get; set; }
    public DateTime At { get; set; }
    public required string Copy { get; set; }

    /// <summary>Why it was kept, as words that follow "Kept": after a pause, before a fill, when sent.</summary>
    public string Why { get; set; } = "";

    /// <summary>The name that the seller gave it; empty where none.</summary>
    public string Name { get; set; } = "";
}
