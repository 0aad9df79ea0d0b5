namespace TinRabbit.Core.Comparing;

/// <summary>
/// How much the terms of a listing are searched through the year (docs/model.md, "Before and after"): what their searches by month say about
/// any day. Growth from year to year is left out.
/// </summary>
public sealed class Demand
{
    private const int Year = 12;

    // The days of a month lie around its middle.
    private const double Middle = 0.5;

    private readonly double[] _months;

    private Demand(double[] months) => _months = months;

    /// <summary>The demand for terms together.</summary>
    /// <param name="terms">Of each term its searches by month, oldest first, the month that they begin with, and how much it counts: any positive weight.</param>
    /// <returns>Null where no term has a year of searches.</returns>
    public static Demand? Of(IEnumerable<(IReadOnlyList<int> Months, DateOnly From, double Weight)> terms)
    {
        var months = new double[Year];
        foreach (var (searches, from, weight) in terms)
            if (searches.Count >= Year)
                foreach (var (month, mean) in ByMonth(searches, from))
                    months[month] += weight * mean;
        return months.Min() > 0 ? new(months) : null;
    }

    /// <summary>The demand on a day, in searches a month: between the middles of two months in proportion.</summary>
    public double On(DateOnly day)
    {
        var daysInMonth = new DateOnly(day.Year, day.Month, 1).AddMonths(1).DayNumber - new DateOnly(day.Year, day.Month, 1).DayNumber;
        var at = day.Month - 1 + (day.Day - Middle) / daysInMonth - Middle;
        var (before, share) = ((int)Math.Floor(at), at - Math.Floor(at));
        return (1 - share) * _months[(before + Year) % Year] + share * _months[(before + 1) % Year];
    }

    // The mean of each month of the year, over two years where they are known, as if the term had always been searched as much as lately.
    private static IEnumerable<(int Month, double Mean)> ByMonth(IReadOnlyList<int> searches, DateOnly from)
    {
        var years = Math.Min(2, searches.Count / Year);
        var first = searches.Count - years * Year;
        var (late, early) = (searches.TakeLast(Year).Sum(), years == 2 ? searches.Skip(first).Take(Year).Sum() : 0);
        var growth = early > 0 && late > 0 ? (double)late / early : 1;
        return Enumerable
            .Range(first, searches.Count - first)
            .GroupBy(i => from.AddMonths(i).Month - 1)
            .Select(g => (g.Key, g.Average(i => searches[i] * Math.Pow(growth, (searches.Count - 1.0 - i) / Year))));
    }
}
