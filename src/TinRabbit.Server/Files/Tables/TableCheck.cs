namespace TinRabbit.Server.Files.Tables;

/// <summary>Checks how a table is to be read, as somebody has chosen it.</summary>
public static class TableCheck
{
    private static readonly string[] Encodings = ["utf-8", "utf-16", "utf-16BE", "windows-1252"];

    /// <summary>The delimiters that CSV may have.</summary>
    public static readonly char[] Separators = ['\t', ';', ',', '|'];

    /// <summary>Checks that a file can be read this way: as XLSX without encoding and delimiter, or as CSV with both.</summary>
    /// <exception cref="InvalidInputException">It cannot.</exception>
    public static void CheckFits(string file, TableLook look)
    {
        CheckDress(look.Encoding, look.Separator);
        var xlsx = TableRows.IsXlsx(file);
        if (xlsx != (look.Separator.Length == 0) || xlsx != (look.Encoding.Length == 0))
            throw new InvalidInputException([
                new(
                    "separator",
                    xlsx
                        ? "An XLSX file has no delimiter and no encoding: leave both empty."
                        : "A CSV file needs its delimiter and its encoding."
                ),
            ]);
    }

    /// <summary>Checks an encoding and a delimiter; either may be empty, for none.</summary>
    /// <exception cref="InvalidInputException">One is not known.</exception>
    public static void CheckDress(string encoding, string separator)
    {
        var problems = new List<Problem>();
        if (separator.Length > 0 && (separator.Length > 1 || !Separators.Contains(separator[0])))
            problems.Add(new("separator", "The delimiter is a tab, a semicolon, a comma or a vertical bar."));
        if (encoding.Length > 0 && !Encodings.Contains(encoding))
            problems.Add(new("encoding", $"The encoding is one of {string.Join(", ", Encodings)}."));
        if (problems.Count > 0)
            throw new InvalidInputException(problems);
    }

    /// <summary>What is wrong with a look, if anything.</summary>
    public static void Check(TableLook look)
    {
        CheckDress(look.Encoding, look.Separator);
        var problems = new List<Problem>();
        if (look.Columns.Count > Bounds.ImportColumns)
            problems.Add(new("columns", $"There are {look.Columns.Count} columns; the limit is {Bounds.ImportColumns}."));
        foreach (
            var role in new[]
            {
                ColumnRole.Term,
                ColumnRole.Volume,
                ColumnRole.Competition,
                ColumnRole.TitlesHolding,
                ColumnRole.ClickCost,
                ColumnRole.Popularity,
                ColumnRole.Clicks,
                ColumnRole.Orders,
                ColumnRole.Sales,
            }
        )
            if (look.Columns.Count(c => c.Role == role) is var count && (count > 1 || (role == ColumnRole.Term && count == 0)))
                problems.Add(
                    new(
                        "columns",
                        role == ColumnRole.Term
                            ? "Choose exactly one column as the term."
                            : $"Choose at most one column as {role}; {count} are chosen."
                    )
                );
        if (look.Columns.Any(c => c.Role == ColumnRole.Month && WrittenMonths.Read(c.Month ?? "") is null))
            problems.Add(new("columns", "Enter the month of each month column, such as 2025-01."));
        var months = look
            .Columns.Where(c => c.Role == ColumnRole.Month)
            .Select(c => WrittenMonths.Read(c.Month ?? ""))
            .OfType<DateOnly>()
            .Order()
            .ToList();
        if (months.Zip(months.Skip(1)).FirstOrDefault(m => m.First.AddMonths(1) != m.Second) is { Second.Year: > 1 } gap)
            problems.Add(
                new("columns", $"The months must follow each other without a gap: {gap.First:yyyy-MM} is followed by {gap.Second:yyyy-MM}.")
            );
        if (problems.Count > 0)
            throw new InvalidInputException(problems);
    }
}
