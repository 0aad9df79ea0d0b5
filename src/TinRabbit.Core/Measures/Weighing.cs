namespace TinRabbit.Core.Measures;

/// <summary>How much of the picks' demand a listing can be found for, and how firmly.</summary>
/// <param name="Reach">0–100: share of Σ volume·fit over the eligible terms; 0 when nothing is known of any volume.</param>
/// <param name="Grip">0–100: Σ worth·grip ÷ Σ worth; 0 when nothing is known of any volume.</param>
/// <param name="Eligible">Terms that the listing holds.</param>
/// <param name="Volume">Their searches a month, unknown ones counted as 0.</param>
/// <param name="UnknownVolume">Terms whose volume is unknown.</param>
/// <param name="Terms">Each term, in the order given.</param>
public sealed record Weighing(double Reach, double Grip, int Eligible, double Volume, int UnknownVolume, IReadOnlyList<WeighedTerm> Terms)
{
    /// <summary>The sums that reach is made of: Σ volume·fit of the eligible terms, and of all.</summary>
    public (double Eligible, double All) Demand { get; init; }

    /// <summary>Searches a month of all terms, unknown ones counted as 0.</summary>
    public double TotalVolume { get; init; }

    /// <summary>Searches a month of the terms that cannot find the listing; null where nothing is known of any volume.</summary>
    public double? LostVolume => TotalVolume > 0 ? TotalVolume - Volume : null;

    /// <summary>The sums that grip is made of: Σ worth·grip, and Σ worth.</summary>
    public (double Gripped, double All) Worth { get; init; }
}
