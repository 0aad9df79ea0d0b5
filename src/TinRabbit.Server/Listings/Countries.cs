namespace TinRabbit.Server.Listings;

/// <summary>The countries of the world, as the runtime knows them (ISO 3166-1).</summary>
internal static class Countries
{
    /// <summary>Where nobody has said otherwise.</summary>
    public const string Usual = "us";

    /// <summary>Every country by its code, in order of their names.</summary>
    public static IReadOnlyDictionary<string, Country> All { get; } =
        CultureInfo
            .GetCultures(CultureTypes.SpecificCultures)
            .Where(c => c.Name.Length > 0)
            .Select(c => new RegionInfo(c.Name))
            .Where(r => r.TwoLetterISORegionName is [>= 'A' and <= 'Z', >= 'A' and <= 'Z'] && r.ISOCurrencySymbol.Length == 3)
            .Select(r => new Country(r.TwoLetterISORegionName.ToLowerInvariant(), r.EnglishName, r.ISOCurrencySymbol))
            .DistinctBy(c => c.Code)
            .OrderBy(c => c.Name, StringComparer.Ordinal)
            .ToDictionary(c => c.Code);
}
