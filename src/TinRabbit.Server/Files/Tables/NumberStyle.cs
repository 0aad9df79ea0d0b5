namespace TinRabbit.Server.Files.Tables;

/// <summary>How a column's numbers are written.</summary>
public enum NumberStyle
{
    /// <summary>1,300.50</summary>
    Point,

    /// <summary>1.300,50</summary>
    Comma,
}
