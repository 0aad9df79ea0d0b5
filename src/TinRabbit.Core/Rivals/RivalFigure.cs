namespace TinRabbit.Core.Rivals;

/// <summary>A figure by which rivals with and without a value are compared.</summary>
public enum RivalFigure
{
    /// <summary>Compared as a ratio.</summary>
    Price,

    /// <summary>Compared as a ratio of 1 + sales.</summary>
    Sales,

    /// <summary>Compared as a ratio of 1 + views.</summary>
    Views,

    /// <summary>How many rated it; compared as a ratio of 1 + ratings.</summary>
    Ratings,

    /// <summary>Compared as a difference.</summary>
    Occupancy,
}
