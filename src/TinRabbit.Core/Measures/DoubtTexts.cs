using System.Globalization;

namespace TinRabbit.Core.Measures;

/// <summary>Why the numbers of a reading look wrong, in sentences.</summary>
internal static class DoubtTexts
{
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

    private static string Number(double number) => number.ToString("#,0", CultureInfo.InvariantCulture);
}
