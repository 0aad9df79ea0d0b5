namespace TinRabbit.Core.Findings;

/// <summary>How much a finding matters.</summary>
public enum Level
{
    /// <summary>Could be better.</summary>
    Fine,

    /// <summary>Costs something.</summary>
    Should,

    /// <summary>The platform refuses it, or the law or the seller's own avoid list forbids it.</summary>
    Must,
}
