namespace TinRabbit.Server.Journal;

/// <summary>A found check: some terms that a market was asked for, to see whether it finds a listing.</summary>
public sealed class CheckRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ListingId { get; set; }
    public required string MarketId { get; set; }

    /// <summary>When it began, in the market's time.</summary>
    public DateTime At { get; set; }

    /// <summary>The day that its ranks are of.</summary>
    public DateOnly Day { get; set; }

    /// <summary>Where it came from, as it is shown: the market's source, a file, or what was pasted.</summary>
    public required string Source { get; set; }

    /// <summary>Whether it was the check of a day, made without being asked for.</summary>
    public bool IsDaily { get; set; }
    public CheckState State { get; set; }

    /// <summary>Why it went no further; null where nothing went wrong.</summary>
    public string? Problem { get; set; }
}
