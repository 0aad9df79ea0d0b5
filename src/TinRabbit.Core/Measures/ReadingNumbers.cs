namespace TinRabbit.Core.Measures;

/// <summary>The numbers of one reading.</summary>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="Competition">Competing listings; null when unknown.</param>
/// <param name="Titles">Exact-title matches; null when unknown.</param>
/// <param name="ClickCost">Cost per click; null when unknown.</param>
public readonly record struct ReadingNumbers(double? Volume, double? Competition, double? Titles = null, double? ClickCost = null)
{
    /// <summary>What stands for its supply; null when unknown.</summary>
    public double? SupplyOf(Supply supply) => supply == Supply.ExactTitles ? Titles : Competition;
}
