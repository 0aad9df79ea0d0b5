namespace TinRabbit.Market.StandIn;

/// <summary>One thing that shoppers type.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Volume">Searches in a typical month, before season, trend and noise.</param>
/// <param name="Year">The name of its year.</param>
/// <param name="Trend">flat, up, down or fad.</param>
internal sealed record Query(string Text, double Volume, string Year, string Trend);
