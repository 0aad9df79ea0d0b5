namespace TinRabbit.Server.Features.Weigh;

/// <summary>What came of looking rivals up again.</summary>
/// <param name="Seen">Those that the market still has.</param>
/// <param name="Changed">Those of them that differ from when they were saved.</param>
/// <param name="Gone">Those that it no longer has; they stay as they were seen last.</param>
/// <param name="ByHand">Those that did not come from the market.</param>
public sealed record Refreshed(int Seen, int Changed, int Gone, int ByHand);
