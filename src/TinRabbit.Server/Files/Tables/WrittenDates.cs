using System.Text.RegularExpressions;

namespace TinRabbit.Server.Files.Tables;

/// <summary>Reads dates as tables write them. A date that could be two days is none: a whole table is asked which number is its day.</summary>
internal static partial class WrittenDates
{
    private static readonly string[] Formats =
    [
        "yyyy-M-d",
        "yyyy/M/d",
        "yyyy.M.d",
        "d MMM yyyy",
        "d MMMM yyyy",
        "d. MMMM yyyy",
        "d-MMM-yyyy",
        "MMM d, yyyy",
        "MMMM d, yyyy",
        "MMM d yyyy",
        "MMMM d yyyy",
    ];

    /// <summary>Which of the two numbers before the year is the day.</summary>
    public enum Order
    {
        /// <summary>No date of the table says it.</summary>
        Unknown,

        /// <summary>31/03/2026.</summary>
        DayFirst,

        /// <summary>03/31/2026.</summary>
        MonthFirst,
    }

    /// <summary>What the dates among some texts say together: one whose first number is above 12 begins with the day.</summary>
    public static Order OrderOf(IEnumerable<string> texts)
    {
        var (day, month) = (false, false);
        foreach (var text in texts)
            if (Numbers(text) is var (first, second, _))
                (day, month) = (day || first > 12, month || second > 12);
        return day == month ? Order.Unknown
            : day ? Order.DayFirst
            : Order.MonthFirst;
    }

    /// <summary>The day that a text names, whatever time stands behind it; null where it names none, or could name two.</summary>
    public static DateOnly? Read(string text, Order order)
    {
        var date = WithoutTime().Match(text.Trim()).Groups["date"].Value;
        if (Numbers(date) is not var (first, second, year))
            return DateOnly.TryParseExact(date, Formats, CultureInfo.InvariantCulture, DateTimeStyles.AllowWhiteSpaces, out var exact)
                ? exact
                : null;
        var isDayFirst = first == second || first > 12 || date.Contains('.') || (second <= 12 && order == Order.DayFirst);
        var isMonthFirst = second > 12 || order == Order.MonthFirst;
        var (day, month) =
            isDayFirst ? (first, second)
            : isMonthFirst ? (second, first)
            : (0, 0);
        return year >= 1 && month is >= 1 and <= 12 && day >= 1 && day <= DateTime.DaysInMonth(year, month) ? new(year, month, day) : null;
    }

    /// <summary>Whether a text could be two days.</summary>
    public static bool IsAmbiguous(string text) =>
        !text.Contains('.')
        && Numbers(text) is var (first, second, _)
        && first != second
        && first is >= 1 and <= 12
        && second is >= 1 and <= 12;

    private static (int First, int Second, int Year)? Numbers(string text) =>
        TwoNumbersAndYear().Match(text.Trim()) is { Success: true } match
            ? (Number(match.Groups, "first"), Number(match.Groups, "second"), Number(match.Groups, "year"))
            : null;

    private static int Number(GroupCollection groups, string name) => int.Parse(groups[name].Value, CultureInfo.InvariantCulture);

    [GeneratedRegex(
        @"^(?<date>.*?)(?:[T ]+\d{1,2}:\d{2}(?::\d{2}(?:\.\d{1,7})?)?(?: ?[AaPp][Mm])?(?:Z|[+-]\d{2}:?\d{2})?)?$",
        RegexOptions.NonBacktracking
    )]
    private static partial Regex WithoutTime();

    [GeneratedRegex(@"^(?<first>\d{1,2})[/.-](?<second>\d{1,2})[/.-](?<year>\d{4})(?:[T ].*)?$")]
    private static partial Regex TwoNumbersAndYear();
}
