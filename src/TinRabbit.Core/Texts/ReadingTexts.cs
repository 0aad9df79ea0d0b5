using System.Globalization;
using TinRabbit.Core.Shapes;

namespace TinRabbit.Core.Texts;

/// <summary>Every sentence about a reading: why its numbers look wrong, and how certain the shape of its year is.</summary>
internal static class ReadingTexts
{
    // Numbers that look wrong
    public static string MoreTitlesThanListings(double titles, double competition) =>
        $"{Number(titles)} titles contain the exact phrase, but only {Number(competition)} listings compete.";

    public static string FewTitles(double topTenth, double titles) =>
        $"Its searches are in the top 10% of this shelf ({Number(topTenth)} or more), but {(titles == 0 ? "no title contains" : titles == 1 ? "only 1 title contains" : $"only {Number(titles)} titles contain")} the exact phrase.";

    public static string FewTitlesForSearches(double titles, double volume) =>
        $"{(titles == 0 ? "No title contains" : titles == 1 ? "Only 1 title contains" : $"Only {Number(titles)} titles contain")} the exact phrase, for {Number(volume)} searches/mo. Sellers would have noticed so many searches.";

    public static string FewTitlesForShelf(double titles, double expected) =>
        $"{(titles == 1 ? "1 title contains" : $"{Number(titles)} titles contain")} the exact phrase; by this shelf, about {Number(Math.Round(expected))} would be expected.";

    public static string UnusualCompetition(double competition, double volume, double deviations) =>
        $"{Number(competition)} {(competition == 1 ? "listing is" : "listings is")} unusually {(deviations > 0 ? "high" : "low")} for a term with about {Number(volume)} searches/mo ({Math.Abs(deviations).ToString("F1", CultureInfo.InvariantCulture)} robust standard deviations from the trend).";

    public static string SameForAllVariants(double volume) =>
        $"All known spelling variants have {Number(volume)} searches/mo. The source counts them together.";

    public static string HistoryDiffers(int months, double mean, double volume) =>
        $"The last {(months == 1 ? "month averages" : $"{months} months average")} {Number(Math.Round(mean))} searches, not {Number(volume)}.";

    public static string Old(double days) => $"These numbers are {Number(Math.Floor(days))} days old.";

    // How certain the shape of a year is, and what would settle it
    public static string Certainty(Shape shape, int months, double p) =>
        shape switch
        {
            Shape.Seasonal when months < 36 => $"Fairly certain: the season shows twice in {months} months. A third year would confirm it.",
            Shape.Seasonal => $"Certain: {months / 12} years have the same season.",
            Shape.OneOff when months < 24 =>
                $"Uncertain: a season would look the same in {months} months. The same month next year would tell.",
            Shape.OneOff => "Quite certain: the same months of other years show no peak.",
            Shape.Sparse => "Too few searches to say more. A broader term has more data.",
            _ when months < 24 => $"Uncertain: {months} months are too few to see a season. {24 - months} more are needed.",
            Shape.Rising or Shape.Fading =>
                $"The odds of such a trend by chance are {(p < 0.001 ? "less than 1 in 1,000" : $"about 1 in {1 / p:F0}")}.",
            _ => $"Fairly certain, based on {months} months.",
        };

    private static string Number(double number) => number.ToString("#,0", CultureInfo.InvariantCulture);
}
