namespace TinRabbit.Server.Files.Tables;

/// <summary>Reads the terms of a table, row by row.</summary>
public static class TermTables
{
    /// <summary>The month that a look's history begins with; null where it has none.</summary>
    public static DateOnly? FirstMonth(TableLook look) =>
        look.Columns.Where(c => c.Role == ColumnRole.Month).Select(c => WrittenMonths.Read(c.Month ?? "")).Min();

    /// <summary>Reads all terms, one after the other; a row that cannot be taken is told with its reason and left out.</summary>
    /// <param name="file">The file.</param>
    /// <param name="look">How to read it.</param>
    /// <param name="bad">Is told of each row that cannot be taken.</param>
    /// <param name="read">Is told how many bytes are read, now and then.</param>
    /// <param name="most">How many rows to look at.</param>
    /// <param name="stop">Stops reading.</param>
    /// <exception cref="InvalidInputException">The file breaks off in the middle of a quotation, or passes a bound.</exception>
    public static IEnumerable<TableTerm> Read(
        string file,
        TableLook look,
        Action<BadRow> bad,
        Action<long>? read = null,
        int most = int.MaxValue,
        CancellationToken stop = default
    )
    {
        var at = new Dictionary<ColumnRole, int>();
        for (var i = 0; i < look.Columns.Count; i++)
            at.TryAdd(look.Columns[i].Role, i);
        int At(ColumnRole role) => at.GetValueOrDefault(role, -1);
        var (text, volume, competition, titles, cost, popularity, clicks, orders, sales) = (
            At(ColumnRole.Term),
            At(ColumnRole.Volume),
            At(ColumnRole.Competition),
            At(ColumnRole.TitlesHolding),
            At(ColumnRole.ClickCost),
            At(ColumnRole.Popularity),
            At(ColumnRole.Clicks),
            At(ColumnRole.Orders),
            At(ColumnRole.Sales)
        );
        var months = look
            .Columns.Select((c, i) => (c, i))
            .Where(c => c.c.Role == ColumnRole.Month)
            .OrderBy(c => WrittenMonths.Read(c.c.Month!))
            .Select(c => c.i)
            .ToArray();
        var refused = 0;
        foreach (var (row, cells) in TableRows.Read(file, look.Encoding, look.Separator, read, stop))
        {
            if (row > most)
                break;
            if (row == 1 && look.HasHead)
                continue;
            var bounds = 0;
            string? reason = null;
            var term = text < cells.Count ? CsvText.Unescaped(cells[text].Trim().ToString()) : "";
            if (term.Length == 0 && cells.ToArray().All(string.IsNullOrWhiteSpace))
                continue;
            var key = term.Length <= Bounds.TermLength ? Tokens.Key(term) : "";
            if (key.Length > Bounds.TermWords && key.Count(c => c == ' ') >= Bounds.TermWords)
                reason = $"the term has {key.Count(c => c == ' ') + 1} words; the limit is {Bounds.TermWords}";
            else if (term.Length > Bounds.TermLength)
                reason = $"the term has {term.Length} characters; the limit is {Bounds.TermLength}";
            else if (term.Contains('\uFFFD'))
                reason = $"character {term.IndexOf('\uFFFD') + 1} isn’t valid in {look.Encoding}";
            else if (key.Length == 0)
                reason = term.Length == 0 ? "no term" : $"“{term}” contains no word";
            long? below = null;
            var v = Whole(volume, "searches", isVolume: true);
            var c = Whole(competition, "listings");
            var t = Whole(titles, "titles");
            var money = Number(cost, "cost per click");
            var rank = Whole(popularity, "popularity");
            var clicked = Whole(clicks, "clicks");
            var ordered = Whole(orders, "orders");
            var sold = Number(sales, "sales");
            int[]? history = null;
            if (months.Length > 0 && reason is null)
            {
                var found = months.Select(m => Whole(m, look.Columns[m].Month!)).ToArray();
                // One unknown month makes the history unknown, because the known months alone would give a wrong year.
                if (found.All(f => f is not null))
                    history = [.. found.Select(f => (int)Math.Min(int.MaxValue, f!.Value))];
            }

            if (reason is null)
                yield return new(
                    row,
                    term,
                    key,
                    v,
                    below,
                    c,
                    t,
                    money,
                    history,
                    bounds,
                    rank is >= 1 and <= int.MaxValue ? (int)rank : null,
                    clicked,
                    ordered,
                    sold
                );
            else if (++refused > Bounds.ImportBadRows)
                throw new InvalidInputException([
                    new(
                        "file",
                        $"More than {Bounds.ImportBadRows:#,0} rows could not be read, the last because {reason}. Check what each column holds."
                    ),
                ]);
            else
                bad(new(row, reason, cells.ToArray()));

            decimal? Number(int column, string what, bool isVolume = false)
            {
                if (column < 0 || column >= cells.Count || reason is not null)
                    return null;
                var kind = WrittenNumbers.Read(cells[column], look.Style, out var number);
                if (kind == WrittenNumbers.Kind.Bad)
                    reason = $"“{cells[column].Trim()}” in column {column + 1} is not a number ({what})";
                if (kind == WrittenNumbers.Kind.Bound)
                {
                    bounds++;
                    if (isVolume && number > 0)
                        below = (long)Math.Round(number);
                }

                return kind == WrittenNumbers.Kind.Number ? number : null;
            }

            long? Whole(int column, string what, bool isVolume = false) =>
                Number(column, what, isVolume) is { } number ? (long)Math.Round(number) : null;
        }
    }
}
