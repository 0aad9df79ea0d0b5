namespace TinRabbit.Core.Measures;

/// <summary>Numbers of one term in one market (docs/model.md, "Numbers").</summary>
public static class TermMeasures
{
    /// <summary>What a fit counts: core 1, good 0.7, stretch 0.4.</summary>
    public static double Weight(this Fit fit) =>
        fit switch
        {
            Fit.Core => 1,
            Fit.Good => 0.7,
            _ => 0.4,
        };

    /// <summary>
    /// What a term counts in a listing's reach: demand·fit. Demand is its volume, or where that is unknown what
    /// <see cref="PickDemand.Assume"/> gave it; 0 for terms that do not count.
    /// </summary>
    public static double Demand(this WantedTerm term) =>
        term.Counts ? (term.Volume ?? term.Assumed ?? PickDemand.Same) * term.Fit.Weight() : 0;

    /// <summary>What a term counts in a listing's grip: demand·fit·(0.5 + headroom/200), headroom 50 where unknown.</summary>
    public static double Worth(this WantedTerm term) => term.Demand() * (0.5 + (term.Headroom ?? WantedTerm.TypicalHeadroom) / 200);

    /// <summary>
    /// Demand against supply, 50 being typical for the market:
    /// clamp(50 + 25·(log10(volume / max(1, competition)) − centre), 0, 100) × (1 − e^(−volume/200)).
    /// </summary>
    /// <param name="volume">Searches/mo; null when unknown.</param>
    /// <param name="competition">Competing listings; null when unknown.</param>
    /// <param name="centre">Median log10(volume / competition) of the market's shelf; null when the shelf has none.</param>
    /// <returns>0–100, or null when something it is made of is unknown.</returns>
    public static double? Headroom(double? volume, double? competition, double? centre)
    {
        if (volume is not { } v || competition is not { } c || centre is not { } middle)
            return null;
        if (v <= 0)
            return 0;
        return Position(Ratio(v, c), middle) * Evidence(v);
    }

    /// <summary>The steps of <see cref="Headroom"/>; null where it is unknown, or 0 because nobody searches for the term.</summary>
    public static HeadroomSteps? ExplainHeadroom(double? volume, double? competition, double? centre) =>
        volume is > 0 and var v && competition is { } c && centre is { } middle
            ? new(Ratio(v, c), middle, Position(Ratio(v, c), middle), Evidence(v))
            : null;

    private static double Position(double ratio, double centre) => Math.Clamp(50 + 25 * (ratio - centre), 0, 100);

    private static double Evidence(double volume) => 1 - Math.Exp(-volume / 200);

    internal static double Ratio(double volume, double competition) => Math.Log10(volume / Math.Max(1, competition));
}
