namespace TinRabbit.Server.Shelf;

/// <summary>One measurement of a term.</summary>
public sealed class ReadingRow : IWeighed
{
    public int Id { get; set; }
    public int TermId { get; set; }
    public long? Volume { get; set; }

    /// <summary>Where the volume is unknown, the bound that it is known to be below, as in "&lt; 10".</summary>
    public long? VolumeBelow { get; set; }
    public long? Competition { get; set; }
    public long? TitlesHolding { get; set; }
    public decimal? ClickCost { get; set; }

    /// <summary>Searches by month, oldest first.</summary>
    public IReadOnlyList<int>? Months { get; set; }
    public DateOnly? From { get; set; }
    public required string Source { get; set; }
    public DateTime TakenAt { get; set; }
}
