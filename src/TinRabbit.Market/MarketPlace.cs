namespace TinRabbit.Market;

/// <summary>A platform in one country and language, as a source of numbers.</summary>
/// <param name="Id">Platform, country: <c>hedgerow-fair-us</c>.</param>
/// <param name="PlatformId">The platform it belongs to.</param>
/// <param name="Country">ISO 3166-1 alpha-2, lower case.</param>
/// <param name="CountryName">The country's name in English.</param>
/// <param name="Language">Main language typed there, as a BCP 47 tag.</param>
/// <param name="Currency">ISO 4217 code of its prices.</param>
public sealed record MarketPlace(string Id, string PlatformId, string Country, string CountryName, string Language, string Currency)
{
    /// <summary>The platform id of web search: a source of numbers, not a place to list.</summary>
    public const string Web = "web";
}
