namespace TinRabbit.Core.Measures;

/// <summary>How much of the picks' demand a listing can be found for, and how firmly.</summary>
/// <param name="Reach">0–100: share of Σ demand·fit over the eligible terms; 0 where nobody searches for any.</param>
/// <param name="Grip">0–100: Σ worth·grip ÷ Σ worth; 0 where nobody searches for any.</param>
/// <param name="Eligible">Terms that count and that the listing holds.</param>
/// <param name="Volume">Their searches a month, unknown ones counted as 0.</param>
/// <param name="UnknownVolume">Terms that count and whose volume is unknown.</param>
/// <param name="Terms">Each term, in the order given; also those that are in no sum.</param>
public sealed record Weighing(double Reach, double Grip, int Eligible, double Volume, int UnknownVolume, IReadOnlyList<WeighedTerm> Terms)
{
    /// <summary>Terms that count: those neither parked nor avoided.</summary>
    public int Counted { get; init; }

    /// <summary>What the demand of the terms rests on.</summary>
    public DemandBasis Basis =>
        UnknownVolume == 0 ? DemandBasis.Measured
        : UnknownVolume < Counted ? DemandBasis.Partly
        : DemandBasis.Counted;

    /// <summary>The sums that reach is made of: Σ demand·fit of the eligible terms, and of all.</summary>
    public (double Eligible, double All) Demand { get; init; }

    /// <summary>Searches a month of all terms, unknown ones counted as 0.</summary>
    public double TotalVolume { get; init; }

    /// <summary>Searches a month of the terms that cannot find the listing; null where no volume is known.</summary>
    public double? LostVolume => UnknownVolume < Counted ? TotalVolume - Volume : null;

    /// <summary>Terms that count and cannot find the listing.</summary>
    public int LostTerms => Counted - Eligible;

    /// <summary>The sums that grip is made of: Σ worth·grip, and Σ worth.</summary>
    public (double Gripped, double All) Worth { get; init; }
}
