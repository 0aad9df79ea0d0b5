namespace TinRabbit.Server.Files.Tables;

/// <summary>The role of a column in a table of terms.</summary>
public enum ColumnRole
{
    Ignore,
    Term,
    Volume,
    Competition,
    TitlesHolding,
    ClickCost,

    /// <summary>The rank of a term among those that are searched for, from 1: it orders terms where there are no searches.</summary>
    Popularity,

    /// <summary>Clicks on the shop's own listings after a search for it.</summary>
    Clicks,

    /// <summary>Orders that came of them.</summary>
    Orders,

    /// <summary>What those were worth.</summary>
    Sales,

    /// <summary>Searches in one month.</summary>
    Month,
}
