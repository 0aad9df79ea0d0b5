namespace TinRabbit.Core.Measures;

/// <summary>How true and central a pick is to the product.</summary>
public enum Fit
{
    /// <summary>What the product is. Counts 1.</summary>
    Core,

    /// <summary>True of it. Counts 0.7.</summary>
    Good,

    /// <summary>Not wrong. Counts 0.4.</summary>
    Stretch,
}
