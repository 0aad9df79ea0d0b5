namespace TinRabbit.Server.Files.Tables;

/// <summary>A row of a table whose columns are named in the first row.</summary>
/// <param name="Number">Its number in the file, from 1.</param>
/// <param name="Heads">The names in lower case.</param>
/// <param name="Cells">Its cells.</param>
/// <param name="Dates">How the table writes its dates.</param>
internal sealed record HeadedRow(int Number, string[] Heads, string[] Cells, WrittenDates.Order Dates = WrittenDates.Order.Unknown)
{
    /// <summary>The rows below the first; those without any text are left out.</summary>
    /// <param name="file">CSV or XLSX.</param>
    /// <param name="most">The most rows that are read.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <param name="usual">The columns of a table without names; it has names where the first row has the first of these, or another name of it. Null where names are needed.</param>
    /// <param name="alsoFirst">Other names of the first of these.</param>
    /// <exception cref="InvalidInputException">The file has no rows, or more than <paramref name="most"/>.</exception>
    public static IReadOnlyList<HeadedRow> Read(
        string file,
        int most,
        CancellationToken stop,
        string[]? usual = null,
        params string[] alsoFirst
    )
    {
        return Rows(file, TableGuess.Of(file), most, HeadsOf, stop);

        (string[], bool) HeadsOf(string[] first)
        {
            string[] heads = [.. first.Select(h => h.Trim().ToLowerInvariant())];
            return usual is null || heads.Contains(usual[0]) || heads.Any(alsoFirst.Contains) ? (heads, true) : (usual, false);
        }
    }

    /// <summary>The rows of a table whose columns have other names than the file gives them; those without any text are left out.</summary>
    /// <param name="file">CSV or XLSX.</param>
    /// <param name="look">How the file is read.</param>
    /// <param name="hasHead">Whether its first row names the columns.</param>
    /// <param name="names">The names that count, column by column; empty for one that is not used.</param>
    /// <param name="most">The most rows that are read.</param>
    /// <param name="stop">Stops the reading.</param>
    /// <exception cref="InvalidInputException">The file has no rows, or more than <paramref name="most"/>.</exception>
    public static IReadOnlyList<HeadedRow> Under(
        string file,
        TableLook look,
        bool hasHead,
        string[] names,
        int most,
        CancellationToken stop
    ) => Rows(file, look, most, _ => (names, hasHead), stop);

    private static List<HeadedRow> Rows(
        string file,
        TableLook look,
        int most,
        Func<string[], (string[] Heads, bool AreFirst)> headsOf,
        CancellationToken stop
    )
    {
        var rows = new List<HeadedRow>();
        string[]? heads = null;
        foreach (var (row, cells) in TableRows.Read(file, look.Encoding, look.Separator, stop: stop))
        {
            var texts = cells.ToArray();
            if (heads is null)
            {
                (heads, var areFirst) = headsOf(texts);
                if (areFirst)
                    continue;
            }

            if (row - 1 > most)
                throw Wrong($"This file has more than {most:#,0} rows, the limit.");
            else if (texts.Any(t => !string.IsNullOrWhiteSpace(t)))
                rows.Add(new(row, heads, texts));
        }

        if (heads is null)
            throw Wrong("The file has no rows.");
        var dates = WrittenDates.OrderOf(rows.SelectMany(r => r.Cells));
        return dates == WrittenDates.Order.Unknown ? rows : [.. rows.Select(r => r with { Dates = dates })];
    }

    /// <summary>The text of the first column that has one of these names; empty where there is none.</summary>
    public string this[params string[] names] =>
        names.Select(n => Array.IndexOf(Heads, n)).FirstOrDefault(i => i >= 0, -1) is >= 0 and var at && at < Cells.Length
            ? Cells[at].Trim()
            : "";

    /// <summary>A number of a column; null where it is empty or unknown.</summary>
    /// <exception cref="InvalidInputException">It is no number.</exception>
    public decimal? NumberOf(params string[] names) =>
        WrittenNumbers.Read(this[names], null, out var number) switch
        {
            WrittenNumbers.Kind.Number => number,
            WrittenNumbers.Kind.Bad => throw Wrong($"Row {Number}: “{this[names]}” under “{names[0]}” isn’t a number."),
            _ => null,
        };

    /// <summary>A share of a column, written as 0.7, 70 or 70%; 0–1, null where it is empty or unknown.</summary>
    /// <exception cref="InvalidInputException">It is no number.</exception>
    public decimal? PercentOf(string name)
    {
        var isPercent = this[name].EndsWith('%');
        var number = isPercent ? (this with { Cells = [.. Cells.Select(c => c.TrimEnd().TrimEnd('%'))] }).NumberOf(name) : NumberOf(name);
        return isPercent || number > 1 ? number / 100 : number;
    }

    /// <summary>A date of a column; null where it is empty.</summary>
    /// <param name="last">The last day that can be.</param>
    /// <param name="names">The names that the column can have.</param>
    /// <exception cref="InvalidInputException">It is no date, could be two days, or has not come yet.</exception>
    public DateOnly? DateOf(DateOnly last, params string[] names) =>
        this[names] is not { Length: > 0 } text ? null
        : WrittenDates.Read(text, Dates) is { } day
            ? day <= last ? day
                : throw Wrong($"Row {Number}: {day:yyyy-MM-dd} has not come yet.")
        : WrittenDates.IsAmbiguous(text)
            ? throw Wrong($"Row {Number}: “{text}” can begin with the day or with the month. Write dates as 2026-03-31.")
        : throw Wrong($"Row {Number}: “{text}” isn’t a date. Write it as 2026-03-31.");

    /// <summary>A day of a column, as <see cref="DateOf"/>, and no longer ago than days are shown.</summary>
    /// <exception cref="InvalidInputException">It is no date, could be two days, has not come yet, or is too long ago.</exception>
    public DateOnly? DayOf(DateOnly last, params string[] names) =>
        DateOf(last, names) is var day && !(day < last.AddDays(-Bounds.Days))
            ? day
            : throw Wrong($"Row {Number}: {day:yyyy-MM-dd} is more than {Bounds.Days:#,0} days ago, the limit.");

    /// <summary>A whole number of a column, 0 or more; null where it is empty or unknown.</summary>
    /// <exception cref="InvalidInputException">It is no number, or cannot be.</exception>
    public long? CountOf(params string[] names) =>
        NumberOf(names) is not { } number ? null
        : number >= 0 && number <= Bounds.Count && number == Math.Floor(number) ? (long)number
        : throw Wrong($"Row {Number}: {number} under “{names[0]}” isn’t possible. Enter a whole number from 0 to {Bounds.Count:#,0}.");

    /// <summary>The problem of a file.</summary>
    public static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
