using System.Text.RegularExpressions;

namespace TinRabbit.Server.Files.Tables;

/// <summary>Reads months as headings of tables write them.</summary>
public static partial class WrittenMonths
{
    /// <summary>Which month a heading names, if any: 2025-01, 01/2025, Jan 2025, "Searches: Jan 25".</summary>
    public static DateOnly? Read(string head)
    {
        var match = MonthPattern().Match(head.ToLowerInvariant());
        if (!match.Success)
            return null;
        var year = int.Parse(match.Groups["y"].Value, CultureInfo.InvariantCulture);
        if (year < 100)
            year += 2000;
        var month = match.Groups["n"] is { Success: true } number
            ? int.Parse(number.Value, CultureInfo.InvariantCulture)
            : Array.IndexOf(
                ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"],
                match.Groups["name"].Value[..3]
            ) + 1;
        return month is >= 1 and <= 12 && year is >= 1990 and <= 2100 ? new(year, month, 1) : null;
    }

    [GeneratedRegex(
        @"(?<![\d.,])(?:(?<y>\d{4})[-/. ](?<n>\d{1,2})(?:[-/.]\d{1,2})?|(?<n>\d{1,2})[-/.](?<y>\d{4})|(?<name>jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?[ \-_/']{1,2}(?<y>\d{4}|\d{2})|(?<y>\d{4})[ \-_](?<name>jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*)(?![\d.,])"
    )]
    private static partial Regex MonthPattern();
}
