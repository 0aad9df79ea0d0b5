namespace TinRabbit.Server.Shelf;

/// <summary>What a shelf can be sorted by.</summary>
public enum ShelfOrder
{
    Volume,
    Competition,
    Headroom,
    TitlesHolding,
    ClickCost,
    TakenAt,
    Text,
    LastMonth,
    Change3,
    Change12,
    Shape,
    WebVolume,
    Clicks,
    Orders,
    Sales,
}
