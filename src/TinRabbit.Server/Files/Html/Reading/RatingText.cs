using System.Text.RegularExpressions;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>Stars and how many gave them, as pages write them: 4.8 out of 5 stars, 4,8 von 5, ★ 4.8 (1,204), (1.2k).</summary>
internal static partial class RatingText
{
    /// <summary>Mean stars in a text; null where there are none.</summary>
    public static double? Stars(string text)
    {
        if (text.Length > 200)
            return null;
        foreach (var form in (Regex[])[OutOf(), Named(), Drawn()])
            if (form.Match(text) is { Success: true } found && PriceText.Value(found.Groups["stars"].Value) is { } stars and >= 0 and <= 5)
                return (double)stars;
        return Filled().Match(text) is { Success: true } drawn ? drawn.Groups["full"].Length : null;
    }

    /// <summary>How many rated; null where the text does not say it.</summary>
    public static int? Count(string text)
    {
        if (text.Length > 200)
            return null;
        foreach (var form in (Regex[])[Counted(), InBrackets()])
            if (
                form.Match(text) is { Success: true } found
                && PriceText.Whole(found.Groups["count"].Value) is { } count and <= int.MaxValue
            )
                return (int)count;
        return null;
    }

    /// <summary>Whether a text says nothing but a rating.</summary>
    public static bool Is(string text) => text.Length <= 80 && (Stars(text) ?? Count(text)) is not null && Letters().Count(text) <= 4;

    private const string Mean = @"(?<stars>[0-5](?:[.,]\d{1,2})?)";
    private const string Whole = @"(?<count>\d{1,3}(?:[.,’'\u00a0\u202f ]\d{3})+|\d+(?:[.,]\d)?\s?[kKmM]?)";

    [GeneratedRegex(
        $@"(?<![\d.,]){Mean}\s*(?:/|out of|of|von|sur|de|di|su|van|em|uit)\s*5\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex OutOf();

    [GeneratedRegex(
        $@"(?<![\d.,]){Mean}\s*(?:stars?|sterne?n?|étoiles?|estrellas?|stelle|stella|estrelas?|sterren)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Named();

    [GeneratedRegex($@"(?:[★⭐✩☆]+\s*(?<![\d.,]){Mean}(?![\d.,]))|(?:(?<![\d.,]){Mean}\s*[★⭐✩☆]+)", RegexOptions.CultureInvariant)]
    private static partial Regex Drawn();

    [GeneratedRegex(@"(?<full>[★⭐]{1,5})(?=[☆✩]{0,4}(?:\W|$))", RegexOptions.CultureInvariant)]
    private static partial Regex Filled();

    [GeneratedRegex(
        $@"{Whole}\s*(?:reviews?|ratings?|bewertung(?:en)?|rezension(?:en)?|avis|évaluations?|opiniones|opinión|valoraciones|reseñas?|recension[ei]|valutazion[ei]|avaliaç(?:ões|ão)|beoordeling(?:en)?)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Counted();

    [GeneratedRegex($@"^[^()\p{{L}}]*\({Whole}\)\W*$", RegexOptions.CultureInvariant)]
    private static partial Regex InBrackets();

    [GeneratedRegex(@"\p{L}{4,}", RegexOptions.CultureInvariant)]
    private static partial Regex Letters();
}
