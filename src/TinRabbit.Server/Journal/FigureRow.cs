namespace TinRabbit.Server.Journal;

/// <summary>What happened to a listing in a market on one day. Of several for one day the newest number counts.</summary>
public sealed class FigureRow : IDeletable
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public int ListingId { get; set; }
    public required string MarketId { get; set; }
    public DateOnly Day { get; set; }

    /// <summary>Each is null when unknown.</summary>
    public long? Views { get; set; }
    public long? Clicks { get; set; }

    /// <summary>How many were sold, or nights booked.</summary>
    public long? Sales { get; set; }

    /// <summary>Where they came from, as it is shown.</summary>
    public required string Source { get; set; }

    /// <summary>A day as it is stored.</summary>
    public static FigureRow Of(int listingId, string marketId, DayFigures figures, string source) =>
        new()
        {
            ListingId = listingId,
            MarketId = marketId,
            Day = figures.Day,
            Views = figures.Views,
            Clicks = figures.Clicks,
            Sales = figures.Sales,
            Source = source,
        };
}
