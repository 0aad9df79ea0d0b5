namespace TinRabbit.Core.Comparing;

/// <summary>What was counted on the days before a change and after it.</summary>
/// <param name="Before">One count a day, 0 or more, the last one of the day before the change.</param>
/// <param name="After">One count a day, the first one of the first day on which the change counts.</param>
/// <param name="DaysLeftOut">Days between the two that are left out: the change was made, and the index did not know it yet.</param>
public sealed record DailyCounts(IReadOnlyList<double> Before, IReadOnlyList<double> After, int DaysLeftOut = 0);
