namespace TinRabbit.Server.Listings;

/// <summary>How a marketplace's own export of listings is laid out, as it was imported: an export for upload is laid out so again.</summary>
public sealed class UploadShapeRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public required string PlatformId { get; set; }

    /// <summary>The headings in one text, by which the same layout is known again.</summary>
    public required string Heads { get; set; }

    /// <summary>Its columns, in order.</summary>
    public required IReadOnlyList<UploadColumn> Columns { get; set; }
}
