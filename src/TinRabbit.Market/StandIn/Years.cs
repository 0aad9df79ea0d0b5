using TinRabbit.Core;

namespace TinRabbit.Market.StandIn;

/// <summary>How a query's searches move through the months.</summary>
internal static class Years
{
    // Factors by month from January, with a mean of about 1.
    private static readonly Dictionary<string, double[]> Seasons = new()
    {
        ["flat"] = [1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1],
        ["spring"] = [0.95, 1.5, 2.05, 1.75, 1.2, 0.85, 0.65, 0.55, 0.5, 0.55, 0.65, 0.8],
        ["summer"] = [0.45, 0.55, 0.85, 1.35, 1.8, 1.8, 1.55, 1.2, 0.8, 0.6, 0.5, 0.55],
        ["winter"] = [1.5, 1.25, 1, 0.8, 0.75, 0.65, 0.6, 0.65, 0.8, 1, 1.35, 1.65],
        ["gifts"] = [0.55, 0.65, 0.7, 0.8, 1.05, 0.8, 0.65, 0.7, 0.75, 0.95, 1.9, 2.5],
        ["count"] = [3.4, 1.4, 0.9, 0.9, 0.8, 0.5, 0.3, 0.4, 0.7, 0.8, 0.8, 1.1],
        ["stay"] = [0.7, 0.8, 0.95, 1.15, 1.4, 1.45, 1.5, 1.3, 1.0, 0.7, 0.5, 0.55],
    };

    private const double DaysOfMonth = 365.25 / 12;

    /// <summary>Searches in one month.</summary>
    public static int Searches(Query query, DateOnly month, DeterministicRandom random)
    {
        var season = Seasons.GetValueOrDefault(query.Year, Seasons["flat"])[month.Month - 1];
        var years = (month.Year - 2026) + (month.Month - 7) / 12.0;
        var noise = Math.Exp(0.07 * random.For("month").For(month.Year * 12 + month.Month).Normal);
        return (int)Math.Round(query.Volume * season * Trend(query, years, random) * noise);
    }

    /// <summary>Searches on one day, before the weekday and chance: a season comes and goes from day to day, not by the month.</summary>
    public static double SearchesOn(Query query, DateOnly day, DeterministicRandom random)
    {
        var seasons = Seasons.GetValueOrDefault(query.Year, Seasons["flat"]);
        // Months since the middle of January.
        var at = (day.DayOfYear - 1) / DaysOfMonth - 0.5;
        var (before, share) = ((int)Math.Floor(at), at - Math.Floor(at));
        var season = (1 - share) * seasons[(before + 12) % 12] + share * seasons[(before + 13) % 12];
        var years = (day.Year - 2026) + (day.DayOfYear / DaysOfMonth - 6.5) / 12;
        return query.Volume * season * Trend(query, years, random) / DaysOfMonth;
    }

    private static double Trend(Query query, double years, DeterministicRandom random) =>
        query.Trend switch
        {
            "up" => Math.Exp(0.28 * years),
            "down" => Math.Exp(-0.3 * years),
            "fad" => Math.Exp(0.35 * years) * (1 + 2.2 * Math.Exp(-Math.Pow((years - random.For("fad").Uniform + 1.1) * 5, 2))),
            _ => 1,
        };
}
