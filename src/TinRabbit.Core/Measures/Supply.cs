namespace TinRabbit.Core.Measures;

/// <summary>What stands for supply in a market: headroom and bands are worked out from it.</summary>
public enum Supply
{
    /// <summary>Competing listings.</summary>
    Competition,

    /// <summary>Titles that hold the phrase exactly.</summary>
    ExactTitles,
}
