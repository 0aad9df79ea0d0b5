namespace TinRabbit.Core.Measures;

/// <summary>What is looked at to doubt a reading.</summary>
/// <param name="Volume">Searches/mo; null when unknown.</param>
/// <param name="Competition">Competing listings; null when unknown.</param>
/// <param name="TitlesHolding">Titles holding the phrase; null when unknown.</param>
/// <param name="Months">Searches by month, oldest first; null when unknown.</param>
/// <param name="Age">Days since it was measured; null when unknown.</param>
/// <param name="FamilyVolumes">Known volumes of the other forms of the term.</param>
public sealed record ReadingToCheck(
    double? Volume,
    double? Competition,
    double? TitlesHolding,
    IReadOnlyList<int>? Months,
    double? Age,
    IReadOnlyList<double> FamilyVolumes
);
