namespace TinRabbit.Server.Shelf;

/// <summary>A known term to which an import gave another reading, and the reading that counted before.</summary>
public sealed class ImportChangeRow
{
    public int ImportId { get; set; }
    public int TermId { get; set; }
    public int? ReadingId { get; set; }
}
