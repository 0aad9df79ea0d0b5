namespace TinRabbit.Server.Shelf;

/// <summary>
/// An import that has begun. It is written in portions, so that saves get in between; until <see cref="Done"/> is set, everything it
/// wrote is removed again when it is stopped, and at the next start after a crash.
/// </summary>
public sealed class ImportRow : IRenamed
{
    /// <summary>When it was taken back; null while its terms and numbers are on the shelf.</summary>
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public required string MarketId { get; set; }
    public required string Source { get; set; }
    public DateTime At { get; set; }
    public bool Done { get; set; }

    /// <summary>Ids of the terms that are new with it: from the first, as many as <see cref="Rows"/>.</summary>
    public long FirstTerm { get; set; }

    /// <summary>Ids of its readings: from the first, as many as <see cref="Rows"/>.</summary>
    public long FirstReading { get; set; }
    public long Rows { get; set; }

    string IRenamed.Name => Source;

    public void Rename(string name) => Source = name;
}
