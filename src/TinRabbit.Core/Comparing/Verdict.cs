namespace TinRabbit.Core.Comparing;

/// <summary>What can be said of a difference.</summary>
public enum Verdict
{
    /// <summary>The whole interval is above 0.</summary>
    Up,

    /// <summary>The whole interval is below 0.</summary>
    Down,

    /// <summary>It cannot be told yet.</summary>
    Unclear,
}
