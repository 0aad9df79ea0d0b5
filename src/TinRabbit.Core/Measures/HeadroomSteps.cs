namespace TinRabbit.Core.Measures;

/// <summary>How a term's headroom is worked out: each step as the engine used it.</summary>
/// <param name="Ratio">log10(volume / competing listings, at least 1).</param>
/// <param name="Centre">The same for a typical term of the shelf.</param>
/// <param name="Position">50 + 25·(ratio − centre), limited to 0–100.</param>
/// <param name="Evidence">1 − e^(−volume/200), 0–1: few searches are weak evidence.</param>
public sealed record HeadroomSteps(double Ratio, double Centre, double Position, double Evidence)
{
    /// <summary>Position × evidence, 0–100.</summary>
    public double Headroom => Position * Evidence;
}
