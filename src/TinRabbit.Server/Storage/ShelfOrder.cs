namespace TinRabbit.Server.Storage;

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
}
