namespace TinRabbit.Server.Storage;

/// <summary>A shelf's filters under a name.</summary>
public sealed class FilterRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>The filters as the address bar has them.</summary>
    public required string Filters { get; set; }
}
