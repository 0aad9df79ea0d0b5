using System.Text.RegularExpressions;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>Prices as pages write them: 1,204.50, 1.204,50, 1 204,50 or 1'204.50, with the currency before or behind.</summary>
internal static partial class PriceText
{
    /// <summary>A price in a text.</summary>
    /// <param name="Value">The price; of a range the lower one.</param>
    /// <param name="Currency">ISO 4217.</param>
    /// <param name="IsRange">Whether it is the lower end of a range.</param>
    /// <param name="Start">Where it stands in the text, and its length.</param>
    public readonly record struct Found(decimal Value, string Currency, bool IsRange, int Start, int Length);

    private static readonly Dictionary<string, string> Currencies = new(StringComparer.OrdinalIgnoreCase)
    {
        ["€"] = "EUR",
        ["£"] = "GBP",
        ["$"] = "USD",
        ["US$"] = "USD",
        ["CA$"] = "CAD",
        ["C$"] = "CAD",
        ["AU$"] = "AUD",
        ["A$"] = "AUD",
        ["NZ$"] = "NZD",
        ["R$"] = "BRL",
        ["¥"] = "JPY",
        ["₹"] = "INR",
        ["zł"] = "PLN",
        ["Kč"] = "CZK",
        ["kr"] = "SEK",
        ["CHF"] = "CHF",
        ["Fr."] = "CHF",
    };

    /// <summary>The prices of a text, in order.</summary>
    public static IEnumerable<Found> In(string text)
    {
        if (text.Length > 2_000)
            yield break;
        foreach (var found in Price().Matches(text).Cast<System.Text.RegularExpressions.Match>())
            if (
                CurrencyOf(found.Groups["before"].Value, found.Groups["behind"].Value) is { } currency
                && Value(found.Groups["low"].Value) is { } low
            )
                yield return new(
                    found.Groups["high"] is { Success: true } high && Value(high.Value) is { } other ? Math.Min(low, other) : low,
                    currency,
                    found.Groups["high"].Success,
                    found.Index,
                    found.Length
                );
    }

    /// <summary>A price as it is shown; null where it is unknown.</summary>
    public static string? Written(decimal? price, string? currency) =>
        price is { } known ? $"{known.ToString("#,0.00", CultureInfo.InvariantCulture)} {currency}".TrimEnd() : null;

    /// <summary>Whether a text is a price and nothing else.</summary>
    public static bool Is(string text) =>
        text.Length <= 60 && In(text).FirstOrDefault() is { Length: > 0 } found && found.Length >= text.Trim().Length - 1;

    /// <summary>A whole number with marks between thousands, or with k or m; null where it is none.</summary>
    public static long? Whole(string text) => Value(text) is { } value ? (long)value : null;

    /// <summary>A number with its decimals, as tables are read too; null where it is none.</summary>
    public static decimal? Value(string text) =>
        WrittenNumbers.Read(text, null, out var value) == WrittenNumbers.Kind.Number ? value : null;

    private static string? CurrencyOf(string before, string behind)
    {
        var given = (before.Length > 0 ? before : behind).Trim();
        return given.Length == 0 ? null
            : Currencies.TryGetValue(given, out var known) ? known
            : given.Length == 3 && given.All(char.IsAsciiLetterUpper) ? given
            : null;
    }

    private const string Sign = @"US\$|CA\$|C\$|AU\$|A\$|NZ\$|R\$|[€£$¥₹]|CHF|Fr\.|EUR|GBP|USD|CAD|AUD|NZD|SEK|DKK|NOK|PLN|CZK|BRL|JPY";
    private const string Amount = @"\d{1,3}(?:[.,’'\u00a0\u202f ]\d{3})+(?:[.,]\d{1,2})?|\d{1,9}(?:[.,]\d{1,2})?";

    [GeneratedRegex(
        $@"(?:(?<![\w])(?<before>{Sign})\s?)?(?<![\d.,])(?<low>{Amount})(?![\d])\s?(?<behind>(?:{Sign}|zł|Kč|kr)(?![\w])(?!\s?\d))?(?:\s?(?:[–—-]|to|bis|à|a|tot|até)\s?(?:(?:{Sign})\s?)?(?<high>{Amount})(?![\d])\s?(?<behind>(?:{Sign}|zł|Kč|kr)(?![\w])(?!\s?\d))?)?",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Price();
}
