namespace TinRabbit.Core.Findings;

/// <summary>What a check of a listing says.</summary>
/// <param name="Findings">What must change first, then by what it costs.</param>
/// <param name="Passed">The checks that apply and found nothing, in the order in which a listing is written.</param>
/// <param name="LeadPlaces">Where the lead stands; empty without a lead.</param>
public sealed record CheckResult(IReadOnlyList<Finding> Findings, IReadOnlyList<PassedCheck> Passed, IReadOnlyList<LeadPlace> LeadPlaces);
