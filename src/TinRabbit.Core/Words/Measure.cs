using System.Globalization;
using System.Text.RegularExpressions;

namespace TinRabbit.Core.Words;

/// <summary>A measure in a text: "28 mm", "21 x 15 cm", "300 gsm".</summary>
/// <param name="Start">Where it begins, in UTF-16 units of the text.</param>
/// <param name="Length">How long it is, in UTF-16 units.</param>
/// <param name="Kind">What it measures: its unit's kind, or "number" where only numbers stand side by side ("5x7").</param>
/// <param name="Values">Its numbers, in the base unit of the kind: millimetres, millilitres, grams.</param>
internal sealed partial record Measure(int Start, int Length, string Kind, IReadOnlyList<double> Values)
{
    private const double Rounding = 0.005;

    // A measure in inches is often rounded to centimetres, and the other way round.
    private const double Conversion = 0.03;

    private static readonly Dictionary<string, (string Kind, double Base, bool Metric)> Units = new(StringComparer.Ordinal)
    {
        ["mm"] = ("length", 1, true),
        ["cm"] = ("length", 10, true),
        ["m"] = ("length", 1000, true),
        ["in"] = ("length", 25.4, false),
        ["inch"] = ("length", 25.4, false),
        ["inches"] = ("length", 25.4, false),
        ["ft"] = ("length", 304.8, false),
        ["foot"] = ("length", 304.8, false),
        ["feet"] = ("length", 304.8, false),
        ["ml"] = ("volume", 1, true),
        ["cl"] = ("volume", 10, true),
        ["l"] = ("volume", 1000, true),
        ["litre"] = ("volume", 1000, true),
        ["liter"] = ("volume", 1000, true),
        ["litres"] = ("volume", 1000, true),
        ["liters"] = ("volume", 1000, true),
        ["oz"] = ("ounces", 1, false),
        ["g"] = ("weight", 1, true),
        ["kg"] = ("weight", 1000, true),
        ["lb"] = ("weight", 453.6, false),
        ["lbs"] = ("weight", 453.6, false),
        ["gsm"] = ("gsm", 1, true),
        ["ct"] = ("carat", 1, true),
        ["carat"] = ("carat", 1, true),
    };

    private bool IsMetric { get; init; } = true;

    /// <summary>The facet that it belongs to.</summary>
    public Facet Facet => Kind == "gsm" ? Facet.Property : Facet.Size;

    /// <summary>Every measure of a text, in order.</summary>
    public static IReadOnlyList<Measure> In(string text)
    {
        if (!text.Any(char.IsAsciiDigit))
            return [];
        var measures = new List<Measure>();
        foreach (Match match in Pattern().Matches(text))
        {
            var numbers = match.Groups["n"].Captures;
            var unit = match.Groups["u"].Captures is { Count: > 0 } units ? units[^1].Value.ToLowerInvariant() : "";
            // "5in" is a measure, "2 in 1" is not; "5 m" may be anything.
            if (
                unit is "in" or "m" or "l" or "ct"
                && char.IsWhiteSpace(text[match.Groups["u"].Captures[^1].Index - 1])
                && numbers.Count == 1
            )
                continue;
            if (unit.Length == 0 && numbers.Count < 2)
                continue;
            var (kind, factor, metric) = unit.Length > 0 ? Units[unit] : ("number", 1, true);
            measures.Add(new(match.Index, match.Length, kind, [.. numbers.Select(n => Number(n.Value) * factor)]) { IsMetric = metric });
        }

        return measures;
    }

    /// <summary>Whether a fact says this measure, whole or as one of its numbers, in any order and unit.</summary>
    public bool IsBackedBy(Measure fact) =>
        (fact.Kind == Kind || fact.Kind == "number" || Kind == "number")
        && Values.All(v => fact.Values.Any(f => Math.Abs(v - f) <= f * (fact.IsMetric == IsMetric ? Rounding : Conversion)));

    private static double Number(string text) =>
        double.TryParse(text.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : 0;

    [GeneratedRegex(
        @"(?<![\p{L}\d.,])(?<n>\d{1,6}(?:[.,]\d{1,4})?)(?:[\s-]*(?<u>mm|cm|m|inches|inch|in|ft|foot|feet|ml|cl|l|litres?|liters?|oz|kg|g|lbs?|gsm|ct|carat)\b)?(?:\s*[x×*]\s*(?<n>\d{1,6}(?:[.,]\d{1,4})?)(?:[\s-]*(?<u>mm|cm|m|inches|inch|in|ft|foot|feet|ml|cl|l|litres?|liters?|oz|kg|g|lbs?|gsm)\b)?){0,2}(?![\p{L}\d])",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        1000
    )]
    private static partial Regex Pattern();
}
