namespace TinRabbit.Core.Measures;

/// <summary>A term's numbers against the rest of its market's shelf, by terciles; null where the number or the shelf is unknown.</summary>
/// <param name="Volume">Its searches.</param>
/// <param name="Competition">Its competing listings.</param>
/// <param name="Titles">Its exact-title matches.</param>
/// <param name="ClickCost">Its cost per click.</param>
/// <param name="Headroom">Its searches compared with its supply.</param>
/// <param name="WebVolume">Its searches on the web, against the web's own shelf.</param>
public sealed record Bands(Band? Volume, Band? Competition, Band? Titles, Band? ClickCost, Band? Headroom, Band? WebVolume = null);
