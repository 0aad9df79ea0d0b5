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

    /// <summary>Searches in one month.</summary>
    Month,
}
