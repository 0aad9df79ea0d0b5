namespace TinRabbit.Core.Measures;

/// <summary>What the demand of some picks rests on.</summary>
public enum DemandBasis
{
    /// <summary>The volume of every pick is known.</summary>
    Measured,

    /// <summary>Some volumes are known; the other picks count by an assumed number.</summary>
    Partly,

    /// <summary>No volume is known: each pick counts the same.</summary>
    Counted,
}
