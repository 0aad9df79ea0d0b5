using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Files.Documents;

/// <summary>The shop's settings; what is null or left out stays as it is.</summary>
/// <param name="Countries">Codes of the countries that it sells in, the home first.</param>
/// <param name="Language">The seller's language.</param>
/// <param name="OwnWords">Words that the seller says more about.</param>
public sealed record DocumentShop(
    [MaxLength(Bounds.NameLength)] string Name,
    [MaxLength(3)] string Currency,
    [MaxLength(Bounds.Countries)] IReadOnlyList<string>? Countries = null,
    [MaxLength(20)] string? Language = null,
    [MaxLength(Bounds.OwnWords)] IReadOnlyList<OwnWord>? OwnWords = null
);
