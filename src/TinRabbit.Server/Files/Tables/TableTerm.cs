namespace TinRabbit.Server.Files.Tables;

/// <summary>A term read from a table.</summary>
/// <param name="Row">Counted from 1, the head included, as a spreadsheet counts.</param>
/// <param name="VolumeBelow">What the volume is below, where the cell says only that.</param>
/// <param name="Popularity">Its rank among those that are searched for, from 1.</param>
/// <param name="Clicks">Clicks on the shop's own listings after a search for it.</param>
/// <param name="Orders">Orders that came of them.</param>
/// <param name="Sales">What those were worth.</param>
/// <param name="Bounds">Cells that gave only a bound, such as &lt; 10: what they say stays unknown.</param>
public readonly record struct TableTerm(
    int Row,
    string Text,
    string Key,
    long? Volume,
    long? VolumeBelow,
    long? Competition,
    long? TitlesHolding,
    decimal? ClickCost,
    int[]? Months,
    int Bounds,
    int? Popularity,
    long? Clicks,
    long? Orders,
    decimal? Sales
)
{
    /// <summary>Whether it has any number.</summary>
    public bool IsMeasured =>
        (Volume ?? VolumeBelow ?? Competition ?? TitlesHolding ?? Popularity ?? Clicks ?? Orders) is not null
        || (ClickCost ?? Sales) is not null
        || Months is not null;
}
