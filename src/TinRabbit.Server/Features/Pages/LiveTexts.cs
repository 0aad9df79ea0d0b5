using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Features.Pages;

/// <summary>That texts are live as they are imported.</summary>
/// <param name="At">Since when.</param>
/// <param name="MarketOf">Where: the first market of a platform, which is that of the seller's own country; null where the platform has none.</param>
internal sealed record LiveTexts(DateTime At, Func<string, string?> MarketOf)
{
    /// <summary>Texts that are live since a day.</summary>
    /// <exception cref="InvalidInputException">The day has not come yet.</exception>
    public static LiveTexts Since(DateOnly day, IMarket market) =>
        day > market.LastDay
            ? throw new InvalidInputException([new("liveSince", "Enter today or a day before.")])
            : new(market.TimeOf(day), platform => market.Places.FirstOrDefault(p => p.PlatformId == platform)?.Id);
}
