namespace TinRabbit.Server.Features.Dig;

/// <summary>How far measuring in the background is.</summary>
/// <param name="Done">Terms that were asked for.</param>
/// <param name="All">Terms that had no numbers when it began.</param>
/// <param name="Seen">What it has looked at: the changes before it began, and the day (UTC).</param>
/// <param name="Problem">Why it does not go on; null where nothing is wrong.</param>
internal sealed record MeasuringState(int Done, int All, (long Changes, DateOnly Day) Seen, string? Problem = null);
