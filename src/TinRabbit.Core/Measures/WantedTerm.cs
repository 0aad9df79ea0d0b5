namespace TinRabbit.Core.Measures;

/// <summary>A term with what is known of it in one market.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="Competition">Its supply in the market, competing listings or exact-title matches; null when unknown.</param>
/// <param name="Headroom">0–100; null when unknown.</param>
/// <param name="Fit">How true and central it is to the product.</param>
public sealed record WantedTerm(string Text, double? Volume = null, double? Competition = null, double? Headroom = null, Fit Fit = Fit.Core)
{
    /// <summary>What counts where the headroom is unknown: what is typical of a market.</summary>
    public const double TypicalHeadroom = 50;

    /// <summary>Where the seller wants it to be used.</summary>
    public Home Home { get; init; }

    /// <summary>Where the volume is unknown, the bound that it is known to be below, as in "&lt; 10"; null where nothing is known.</summary>
    public double? VolumeBelow { get; init; }

    /// <summary>What it counts for where its volume is unknown; null until <see cref="PickDemand.Assume"/> has compared it with its fellow picks.</summary>
    public double? Assumed { get; init; }

    /// <summary>Whether it counts in any sum: parked and avoided terms do not.</summary>
    public bool Counts => Home is not (Home.Later or Home.Avoid);
}
