using System.Text.RegularExpressions;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Pages;

/// <summary>What is wrong with one alt text by itself.</summary>
public static partial class AltTexts
{
    private static readonly string[] Openings = ["picture of", "image of", "photo of", "a picture of", "an image of", "a photo of"];

    /// <summary>What is wrong with a text, without those that depend on other pictures.</summary>
    /// <param name="alt">The alt text.</param>
    /// <param name="most">The most characters that it should have.</param>
    /// <param name="picks">Keys of the product's picks.</param>
    /// <param name="facts">What is true of the product; null where nothing is known.</param>
    public static IEnumerable<AltProblem> ProblemsOf(string alt, double most, IReadOnlySet<string> picks, FactWords? facts)
    {
        if (string.IsNullOrWhiteSpace(alt))
        {
            yield return AltProblem.Missing;
            yield break;
        }

        if (TextLength.Of(alt, Unit.Characters) > most)
            yield return AltProblem.TooLong;
        if (OpeningOf(alt) is not null)
            yield return AltProblem.Opening;
        if (IsStrung(alt, picks))
            yield return AltProblem.Strung;
        if (AdvertIn(alt) is not null)
            yield return AltProblem.Advert;
        if (facts is not null && Facets.Unbacked(alt, facts, TextKind.Prose).Count > 0)
            yield return AltProblem.Claim;
    }

    /// <summary>
    /// An alt text with a lead near its front: it begins with what it shows, and the lead follows its first phrase ("Front of the box on a tree,
    /// cedar nest box, with an open door"). Where nothing is said yet, the lead is what it shows.
    /// </summary>
    public static string WithLead(string alt, string lead)
    {
        if (alt.Trim().Length == 0)
            return Capitals.First(lead);
        var end = alt.IndexOfAny([',', '.', ';', ':']);
        return end <= 0 ? $"{alt.TrimEnd()}, {lead}" : $"{alt[..end]}, {lead}{alt[end..]}";
    }

    /// <summary>Where what one sees begins, after “picture of”; null where a text does not begin so.</summary>
    public static int? OpeningOf(string alt) =>
        Openings.FirstOrDefault(o => alt.StartsWith(o + " ", StringComparison.OrdinalIgnoreCase)) is { } opening ? opening.Length : null;

    /// <summary>The first words of an alt text that speak of price, stock or praise, and where; null where none do.</summary>
    public static (int Start, int Length)? AdvertIn(string alt)
    {
        if (Sum().Match(alt) is { Success: true } sum)
            return (sum.Index, sum.Length);
        var words = Tokens.Of(alt);
        for (var at = 0; at < words.Count; at++)
            foreach (var phrase in Adverts[words[at].Word])
                if (phrase.SequenceEqual(words.Skip(at).Take(phrase.Length).Select(t => t.Word)))
                    return (words[at].Start, words[at + phrase.Length - 1].End - words[at].Start);
        return null;
    }

    // By their first words.
    private static readonly ILookup<string, string[]> Adverts = WordData
        .Lines("alt-adverts.txt", "Pages")
        .Select(l => l.Split(' '))
        .ToLookup(p => p[0], StringComparer.Ordinal);

    // A number with a currency before or behind it, or percent off.
    [GeneratedRegex(
        @"[$£€¥]\s?\d[\d.,]*|\d[\d.,]*\s?(?:[$£€¥]|(?:usd|eur|gbp|dollars?|euros?|pounds sterling)\b)|\d+\s?%\s?off\b",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Sum();

    /// <summary>Whether a text is more than two picks in a row, set apart by commas.</summary>
    public static bool IsStrung(string alt, IReadOnlySet<string> picks) =>
        alt.Split(',', ';', '|').Count(p => picks.Contains(Tokens.Key(p))) > 2;
}
