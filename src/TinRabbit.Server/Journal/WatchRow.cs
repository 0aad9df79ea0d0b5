namespace TinRabbit.Server.Journal;

/// <summary>A listing in a market that is watched day by day.</summary>
public sealed class WatchRow
{
    /// <summary>Results of one page, where the seller has not counted them.</summary>
    public const int UsualPageSize = 48;

    /// <summary>The most results that one page of a market can have.</summary>
    public const int MostPageSize = 500;

    public int Id { get; set; }
    public int ListingId { get; set; }
    public required string MarketId { get; set; }

    /// <summary>Whether its terms are checked once a day.</summary>
    public bool ChecksDaily { get; set; }

    /// <summary>Results of one page of this market.</summary>
    public int PageSize { get; set; } = UsualPageSize;

    /// <summary>The day of the last daily check, in the market's time; null before the first.</summary>
    public DateOnly? CheckedOn { get; set; }

    /// <summary>The last day whose figures the market has given; null before the first.</summary>
    public DateOnly? FiguresUntil { get; set; }

    /// <summary>Whether nothing was set or checked since the listing began to be watched.</summary>
    public bool IsAsBegun => ChecksDaily && PageSize == UsualPageSize && CheckedOn is null && FiguresUntil is null;
}
