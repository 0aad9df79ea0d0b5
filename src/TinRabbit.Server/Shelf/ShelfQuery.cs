using TinRabbit.Core.Shapes;

namespace TinRabbit.Server.Shelf;

/// <summary>A search of a shelf. Null filters nothing; an unknown number passes no bound.</summary>
/// <param name="Has">Words, or beginnings and middles of words, that the term must have; with a minus before it, one that it must not.</param>
/// <param name="LastMonthFrom">At least so many searches in the newest month.</param>
/// <param name="Change3From">At least this change over three months, in percent.</param>
/// <param name="Change12From">At least this change over twelve months, in percent.</param>
/// <param name="Shape">Only terms whose year has this shape.</param>
/// <param name="WebVolumeFrom">At least so many searches on the web of the same country.</param>
/// <param name="ClicksFrom">At least so many clicks on the seller's own listings.</param>
/// <param name="OrdersFrom">At least so many orders.</param>
/// <param name="SalesFrom">At least this worth of orders.</param>
/// <param name="Source">Only readings of this source.</param>
/// <param name="Also">Keys of terms that need not have the words of <paramref name="Head"/>: those that a dig found. Without a head, only these pass.</param>
/// <param name="Head">Words that the term must have unless it is among <paramref name="Also"/>.</param>
/// <param name="By">In which order; the most searched first when nothing is said.</param>
/// <param name="Down">Whether the highest comes first. Unknown values come last either way.</param>
/// <param name="Skip">How many to leave out.</param>
/// <param name="Take">How many to give.</param>
public sealed record ShelfQuery(
    [MaxLength(Bounds.NoteLength)] string? Has = null,
    double? VolumeFrom = null,
    double? VolumeTo = null,
    double? CompetitionFrom = null,
    double? CompetitionTo = null,
    double? HeadroomFrom = null,
    double? HeadroomTo = null,
    double? TitlesTo = null,
    double? ClickCostTo = null,
    [MaxLength(Bounds.NameLength)] string? Source = null,
    [Term] IReadOnlyList<string>? Also = null,
    [Term] string? Head = null,
    ShelfOrder By = ShelfOrder.Volume,
    bool Down = true,
    int Skip = 0,
    int Take = 200,
    double? LastMonthFrom = null,
    double? Change3From = null,
    double? Change12From = null,
    Shape? Shape = null,
    double? WebVolumeFrom = null,
    double? ClicksFrom = null,
    double? OrdersFrom = null,
    double? SalesFrom = null
)
{
    /// <summary>Whether it asks for numbers that come from the searches by month.</summary>
    internal bool NeedsTrends =>
        By is ShelfOrder.LastMonth or ShelfOrder.Change3 or ShelfOrder.Change12 or ShelfOrder.Shape
        || LastMonthFrom is not null
        || Change3From is not null
        || Change12From is not null
        || Shape is not null;

    /// <summary>Whether it asks for the searches of the web in the same country.</summary>
    internal bool NeedsWeb => By == ShelfOrder.WebVolume || WebVolumeFrom is not null;

    /// <summary>Whether it asks for what the seller's own listings earned by a term.</summary>
    internal bool NeedsEarnings =>
        By is ShelfOrder.Clicks or ShelfOrder.Orders or ShelfOrder.Sales || (ClicksFrom ?? OrdersFrom ?? SalesFrom) is not null;
}
