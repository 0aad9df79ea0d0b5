namespace TinRabbit.Market;

/// <summary>When something was seen in a market, and where it came from.</summary>
/// <param name="Day">The day, in UTC.</param>
/// <param name="Source">The file or the paste, as it is shown.</param>
public sealed record SeenAt(DateOnly Day, string Source);
