namespace TinRabbit.Core.Measures;

/// <summary>A term with what is known of it in one market.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="Competition">Competing listings; null when unknown.</param>
/// <param name="Headroom">0–100; null when unknown.</param>
/// <param name="Fit">How true and central it is to the product.</param>
public sealed record WantedTerm(string Text, double? Volume = null, double? Competition = null, double? Headroom = null, Fit Fit = Fit.Core)
{
    /// <summary>What counts where the headroom is unknown: what is typical of a market.</summary>
    public const double TypicalHeadroom = 50;
}
