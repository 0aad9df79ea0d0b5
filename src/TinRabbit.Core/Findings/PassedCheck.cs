namespace TinRabbit.Core.Findings;

/// <summary>A check that applies to a listing and found nothing.</summary>
/// <param name="Id">The id that its finding would have.</param>
/// <param name="Text">What is right, as a short sentence.</param>
/// <param name="How">What was looked at, with its threshold.</param>
public sealed record PassedCheck(string Id, string Text, string How);
