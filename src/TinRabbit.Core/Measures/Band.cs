namespace TinRabbit.Core.Measures;

/// <summary>Competition against the rest of the market's shelf, by terciles.</summary>
public enum Band
{
    /// <summary>The lowest third.</summary>
    Low,

    /// <summary>The middle third.</summary>
    Medium,

    /// <summary>The highest third.</summary>
    High,
}
