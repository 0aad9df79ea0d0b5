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
            .Select(c => (Culture: c, Region: new RegionInfo(c.Name)))
            .Where(c => c.Region.TwoLetterISORegionName is [>= 'A' and <= 'Z', >= 'A' and <= 'Z'] && c.Region.ISOCurrencySymbol.Length == 3)
            .GroupBy(c => c.Region.TwoLetterISORegionName.ToLowerInvariant())
            .Select(g => new Country(
                g.Key,
                g.First().Region.EnglishName,
                Language(g.Key, g.Select(c => c.Culture)),
                g.First().Region.ISOCurrencySymbol
            ))
            .OrderBy(c => c.Name, StringComparer.Ordinal)
            .ToDictionary(c => c.Code);

    // The culture that bears the country's own code where there is one (de-DE), else English, else the first.
    private static string Language(string code, IEnumerable<CultureInfo> cultures)
    {
        var languages = cultures.Select(c => c.TwoLetterISOLanguageName).ToList();
        return languages.Contains(code) ? code
            : languages.Contains("en") ? "en"
            : languages[0];
    }
}
