namespace TinRabbit.Server.Drops;

/// <summary>A kind of table whose columns the seller can correct.</summary>
internal interface IHasColumns
{
    /// <summary>The columns with their roles, as guessed and corrected.</summary>
    IReadOnlyList<DropColumn>? ColumnsOf(DroppedThing thing);
}
