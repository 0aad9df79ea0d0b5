namespace TinRabbit.Server.Files.Tables;

/// <summary>Found checks as a table: one row a term and day.</summary>
internal static class CheckTables
{
    private const int HighestRank = 1_000_000;

    /// <summary>Reads a table with a column headed <c>term</c>, <c>found</c> (yes or no), <c>rank</c>, <c>results</c> or <c>date</c>; without headings, terms and what was found.</summary>
    /// <param name="file">CSV, XLSX or what was pasted.</param>
    /// <param name="last">The last day that a row can be of.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">A rank, a number or a date cannot be.</exception>
    public static IReadOnlyList<ObservedRow> Read(string file, DateOnly last, CancellationToken stop)
    {
        var rows = new List<ObservedRow>();
        foreach (var row in HeadedRow.Read(file, Bounds.WatchRows, stop, ["term", "found"], "keyword", "query", "search term"))
        {
            var term = row["term", "keyword", "query", "search term"];
            if (term.Length == 0)
                continue;
            if (term.Length > Bounds.TermLength)
                throw HeadedRow.Wrong($"Row {row.Number}: the term has {term.Length:#,0} characters; the limit is {Bounds.TermLength}.");
            // A rank may stand under "found", too: so people note it.
            var (found, rank) = (row["found"], row["rank", "position"]);
            var isFound = Found(found);
            if (isFound is null && rank.Length == 0 && found.Length > 0)
                (rank, found) = (found, "");
            var place = RankOf(rank, row.Number);
            // A rank that is still empty was not looked up.
            if (isFound is null && rank.Length == 0)
                continue;
            // ">100" says that it is not among the first, "page 3" that it is found.
            isFound ??= place is null ? !IsBeyond(rank) && Found(rank) != false : null;
            if (isFound == false && place is not null)
                throw HeadedRow.Wrong($"Row {row.Number}: “{term}” has a rank, but says it was not found.");
            rows.Add(new(term, isFound ?? place > 0, place, row.CountOf("results"), row.DayOf(last, "date", "day")));
        }

        return rows;
    }

    /// <summary>Writes what was found.</summary>
    public static string Csv(IEnumerable<(ObservedRow Row, string Source)> rows) =>
        CsvText.Of(
            ["date", "term", "found", "rank", "results", "source"],
            rows.Select(r =>
                (IEnumerable<string>)
                    [
                        r.Row.Day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "",
                        r.Row.Term,
                        r.Row.Found ? "yes" : "no",
                        r.Row.Rank?.ToString(CultureInfo.InvariantCulture) ?? "",
                        r.Row.Results?.ToString(CultureInfo.InvariantCulture) ?? "",
                        r.Source,
                    ]
            )
        );

    private static bool? Found(string text) =>
        text.ToLowerInvariant() switch
        {
            "yes" or "y" or "true" or "found" => true,
            "no" or "n" or "false" or "not found" or "–" or "-" or "—" or "x" => false,
            _ => null,
        };

    // ">100", "100+": beyond what was looked at.
    private static bool IsBeyond(string text) =>
        (text.StartsWith('>') && int.TryParse(text[1..].Trim(), CultureInfo.InvariantCulture, out _))
        || (text.EndsWith('+') && int.TryParse(text[..^1].Trim(), CultureInfo.InvariantCulture, out _));

    private static bool IsPage(string text) =>
        text.Split(' ', StringSplitOptions.RemoveEmptyEntries) is [var page, var number]
        && page.ToLowerInvariant().TrimEnd('.') is "page" or "p" or "seite" or "página" or "pagina"
        && int.TryParse(number, CultureInfo.InvariantCulture, out _);

    private static int? RankOf(string text, int number) =>
        text.Length == 0 || Found(text) == false || IsBeyond(text) || IsPage(text) ? null
        : int.TryParse(text.TrimStart('#'), CultureInfo.InvariantCulture, out var rank) && rank is >= 1 and <= HighestRank ? rank
        : throw HeadedRow.Wrong($"Row {number}: “{text}” isn’t a rank. Enter a whole number from 1 to {HighestRank:#,0}, or yes or no.");
}
