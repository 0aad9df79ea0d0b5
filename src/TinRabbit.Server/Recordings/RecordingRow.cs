using TinRabbit.Server.Files.Html.Reading;

namespace TinRabbit.Server.Recordings;

/// <summary>A page of a market as the seller saw it on a day. Earlier ones stay: they are how the market was then.</summary>
public sealed class RecordingRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public required string MarketId { get; set; }
    public RecordingKind Kind { get; set; }

    /// <summary>The term that was searched for or typed, as typed; empty for a listing.</summary>
    public required string Term { get; set; }

    /// <summary>The key of <see cref="Term"/>; for a listing its id, by which a result of a search is known to be the same.</summary>
    public required string Key { get; set; }

    /// <summary>The day that it was seen, in UTC.</summary>
    public DateOnly Day { get; set; }

    /// <summary>The file that it came from, or that it was pasted, as it is shown.</summary>
    public required string Source { get; set; }
    public required ReadPage Page { get; set; }
}
