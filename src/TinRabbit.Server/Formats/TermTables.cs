using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Sylvan.Data.Csv;
using TinRabbit.Core;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Server.Formats;

/// <summary>Reads tables of terms from any source: CSV in any common dress, or XLSX (first sheet). Nothing is held but the row at hand.</summary>
public static partial class TermTables
{
    private const int LookedAt = 200;
    private static readonly TimeSpan CountingTakes = TimeSpan.FromSeconds(4);

    // The longest CSV row that is read.
    private const int LongestRow = 1 << 20;
    private static readonly string[] Encodings = ["utf-8", "utf-16", "utf-16BE", "windows-1252"];
    private static readonly char[] Separators = ['\t', ';', ',', '|'];

    private static readonly (string Part, ColumnRole Role)[] Names =
    [
        ("titles", ColumnRole.TitlesHolding),
        ("exact-title", ColumnRole.TitlesHolding),
        ("title match", ColumnRole.TitlesHolding),
        ("in title", ColumnRole.TitlesHolding),
        ("allintitle", ColumnRole.TitlesHolding),
        ("cpc", ColumnRole.ClickCost),
        ("click cost", ColumnRole.ClickCost),
        ("cost per click", ColumnRole.ClickCost),
        ("cost", ColumnRole.ClickCost),
        ("bid", ColumnRole.ClickCost),
        ("competition", ColumnRole.Competition),
        ("listings", ColumnRole.Competition),
        ("results", ColumnRole.Competition),
        ("supply", ColumnRole.Competition),
        ("competing", ColumnRole.Competition),
        ("products", ColumnRole.Competition),
        ("volume", ColumnRole.Volume),
        ("searches", ColumnRole.Volume),
        ("demand", ColumnRole.Volume),
        ("a month", ColumnRole.Volume),
        ("monthly", ColumnRole.Volume),
        ("impressions", ColumnRole.Volume),
        ("term", ColumnRole.Term),
        ("keyword", ColumnRole.Term),
        ("query", ColumnRole.Term),
        ("phrase", ColumnRole.Term),
        ("tag", ColumnRole.Term),
        ("suche", ColumnRole.Term),
        ("palabra", ColumnRole.Term),
    ];

    static TermTables() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Guesses how a file is to be read, from its first rows.</summary>
    /// <param name="file">The file.</param>
    /// <param name="encoding">Its encoding, where somebody knows better; null to guess.</param>
    /// <param name="separator">Its separator, where somebody knows better; null to guess.</param>
    /// <exception cref="InvalidInputException">It is empty, or no table at all.</exception>
    public static TableLook Guess(string file, string? encoding = null, string? separator = null)
    {
        if (IsXlsx(file))
            (encoding, separator) = ("", "");
        else
        {
            CheckDress(encoding ?? "", separator ?? "");
            encoding = encoding is { Length: > 0 } ? encoding : EncodingOf(file);
            separator = separator is { Length: > 0 } ? separator : SeparatorOf(file, encoding).ToString();
        }

        var rows = Rows(file, encoding, separator).Take(LookedAt).Select(r => r.Cells.All()).ToList();
        if (rows.Count == 0 || rows.All(r => r.All(string.IsNullOrWhiteSpace)))
            throw new InvalidInputException([new("file", "The file has no rows.")]);
        var width = Math.Min(Bounds.ImportColumns, rows.Max(r => r.Length));
        var hasHead = IsHead(rows);
        var body = hasHead ? rows.Skip(1).ToList() : rows;
        var heads = Enumerable.Range(0, width).Select(i => hasHead && i < rows[0].Length ? rows[0][i].Trim() : "").ToArray();
        var cells = Enumerable.Range(0, width).Select(i => body.Where(r => i < r.Length).Select(r => r[i]).ToList()).ToArray();
        return new(encoding, separator, hasHead, StyleOf(cells), Columns(heads, cells));
    }

    /// <summary>The first rows as they stand, the head included.</summary>
    public static List<string[]> First(string file, TableLook look, int count) =>
        [.. Rows(file, look.Encoding, look.Separator).Take(count).Select(r => r.Cells.All())];

    /// <summary>How many rows a file has, with its header; counting ends after a few seconds.</summary>
    /// <returns>The rows counted, and whether there are more.</returns>
    public static (int Rows, bool More) Count(string file, TableLook look, CancellationToken stop)
    {
        var clock = System.Diagnostics.Stopwatch.StartNew();
        var rows = 0;
        foreach (var (row, _) in Rows(file, look.Encoding, look.Separator, stop: stop))
        {
            rows = row;
            if ((rows & 0xFFF) == 0 && clock.Elapsed > CountingTakes)
                return (rows, true);
        }

        return (rows, false);
    }

    /// <summary>Checks that a file can be read this way: as XLSX without encoding and delimiter, or as CSV with both.</summary>
    /// <exception cref="InvalidInputException">It cannot.</exception>
    public static void CheckFits(string file, TableLook look)
    {
        var xlsx = IsXlsx(file);
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

    private static void CheckDress(string encoding, string separator)
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
            var role in new[] { ColumnRole.Term, ColumnRole.Volume, ColumnRole.Competition, ColumnRole.TitlesHolding, ColumnRole.ClickCost }
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
        if (look.Columns.Any(c => c.Role == ColumnRole.Month && MonthOf(c.Month ?? "") is null))
            problems.Add(new("columns", "Enter the month of each month column, such as 2025-01."));
        var months = look
            .Columns.Where(c => c.Role == ColumnRole.Month)
            .Select(c => MonthOf(c.Month ?? ""))
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

    /// <summary>The month that a look's history begins with; null where it has none.</summary>
    public static DateOnly? FirstMonth(TableLook look) =>
        look.Columns.Where(c => c.Role == ColumnRole.Month).Select(c => MonthOf(c.Month ?? "")).Min();

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
        var (text, volume, competition, titles, cost) = (
            At(ColumnRole.Term),
            At(ColumnRole.Volume),
            At(ColumnRole.Competition),
            At(ColumnRole.TitlesHolding),
            At(ColumnRole.ClickCost)
        );
        var months = look
            .Columns.Select((c, i) => (c, i))
            .Where(c => c.c.Role == ColumnRole.Month)
            .OrderBy(c => MonthOf(c.c.Month!))
            .Select(c => c.i)
            .ToArray();
        var refused = 0;
        foreach (var (row, cells) in Rows(file, look.Encoding, look.Separator, read, stop))
        {
            if (row > most)
                break;
            if (row == 1 && look.HasHead)
                continue;
            var bounds = 0;
            string? reason = null;
            var term = text < cells.Count ? Harmless(cells[text].Trim().ToString()) : "";
            if (term.Length == 0 && cells.All().All(string.IsNullOrWhiteSpace))
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
            var v = Whole(volume, "searches");
            var c = Whole(competition, "listings");
            var t = Whole(titles, "titles");
            var money = Number(cost, "cost per click");
            int[]? history = null;
            if (months.Length > 0 && reason is null)
            {
                var found = months.Select(m => Whole(m, look.Columns[m].Month!)).ToArray();
                // One unknown month makes the history unknown, because the known months alone would give a wrong year.
                if (found.All(f => f is not null))
                    history = [.. found.Select(f => (int)Math.Min(int.MaxValue, f!.Value))];
            }

            if (reason is null)
                yield return new(row, term, key, v, c, t, money, history, bounds);
            else if (++refused > Bounds.ImportBadRows)
                throw new InvalidInputException([
                    new(
                        "file",
                        $"More than {Bounds.ImportBadRows:#,0} rows could not be read, the last because {reason}. Check what each column holds."
                    ),
                ]);
            else
                bad(new(row, reason, cells.All()));

            decimal? Number(int column, string what)
            {
                if (column < 0 || column >= cells.Count || reason is not null)
                    return null;
                var kind = WrittenNumbers.Read(cells[column], look.Style, out var number);
                if (kind == WrittenNumbers.Kind.Bad)
                    reason = $"“{cells[column].Trim()}” in column {column + 1} is not a number ({what})";
                if (kind == WrittenNumbers.Kind.Bound)
                    bounds++;
                return kind == WrittenNumbers.Kind.Number ? number : null;
            }

            long? Whole(int column, string what) => Number(column, what) is { } number ? (long)Math.Round(number) : null;
        }
    }

    /// <summary>Which month a heading names, if any: 2025-01, 01/2025, Jan 2025, "Searches: Jan 25".</summary>
    public static DateOnly? MonthOf(string head)
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

    private static bool IsXlsx(string file)
    {
        using var stream = File.OpenRead(file);
        Span<byte> first = stackalloc byte[4];
        return stream.ReadAtLeast(first, 4, throwOnEndOfStream: false) == 4 && first.SequenceEqual((ReadOnlySpan<byte>)[0x50, 0x4B, 3, 4]);
    }

    // What a spreadsheet export put before a cell to make it harmless is taken off again.
    private static string Harmless(string cell) =>
        cell.Length > 1 && cell[0] == '\'' && cell[1] is '=' or '+' or '-' or '@' ? cell[1..] : cell;

    // The same array is used for every row; copy it to keep it.
    private static IEnumerable<(int Row, Cells Cells)> Rows(
        string file,
        string encoding,
        string separator,
        Action<long>? read = null,
        CancellationToken stop = default
    ) => separator.Length == 0 ? XlsxCells(file, stop) : CsvRows(file, encoding, separator[0], read, stop);

    private static IEnumerable<(int Row, Cells Cells)> XlsxCells(string file, CancellationToken stop)
    {
        List<string> cells = [];
        var view = new Cells(() => cells.Count, i => cells[i]);
        foreach (var (row, found) in XlsxRows.Read(file, stop))
        {
            cells = found;
            yield return (row, view);
        }
    }

    // The cells of the current row.
    private sealed class Cells(Func<int> count, Cells.Reader read)
    {
        public delegate ReadOnlySpan<char> Reader(int column);

        public int Count => count();

        public ReadOnlySpan<char> this[int column] => read(column);

        public string[] All()
        {
            var all = new string[Count];
            for (var i = 0; i < all.Length; i++)
                all[i] = read(i).ToString();
            return all;
        }
    }

    private static IEnumerable<(int Row, Cells Cells)> CsvRows(
        string file,
        string encoding,
        char separator,
        Action<long>? read,
        CancellationToken stop = default
    )
    {
        using var stream = File.OpenRead(file);
        using var text = new StreamReader(
            stream,
            Encoding.GetEncoding(encoding),
            detectEncodingFromByteOrderMarks: true,
            bufferSize: 1 << 16
        );
        using var csv = Open();
        var view = new Cells(() => csv.RowFieldCount, i => csv.GetFieldSpan(i));
        var row = 0;
        while (Next())
        {
            if (++row > Bounds.ImportRows)
                throw new InvalidInputException([
                    new("file", $"This file has more than {Bounds.ImportRows:#,0} rows, the limit. Import it in parts."),
                ]);
            if (csv.RowFieldCount > Bounds.ImportColumns)
                throw new InvalidInputException([
                    new("file", $"Row {row} has {csv.RowFieldCount:#,0} columns; the limit is {Bounds.ImportColumns}."),
                ]);
            if ((row & 0xFFF) == 0)
                read?.Invoke(stream.Position);
            if ((row & 0xFF) == 0)
                stop.ThrowIfCancellationRequested();
            yield return (row, view);
        }

        CsvDataReader Open()
        {
            try
            {
                return CsvDataReader.Create(
                    text,
                    new CsvDataReaderOptions
                    {
                        HasHeaders = false,
                        Delimiter = separator,
                        BufferSize = 1 << 16,
                        MaxBufferSize = LongestRow,
                    }
                );
            }
            catch (Exception e) when (e is CsvFormatException or CsvRecordTooLargeException or ArgumentException)
            {
                throw Broken(e, 1);
            }
        }

        bool Next()
        {
            try
            {
                return csv.Read();
            }
            catch (Exception e) when (e is CsvFormatException or CsvRecordTooLargeException)
            {
                throw Broken(e, row + 1);
            }
        }

        static InvalidInputException Broken(Exception e, int row) =>
            new([
                new(
                    "file",
                    e is CsvRecordTooLargeException
                        ? $"Row {row} is longer than {LongestRow >> 10:#,0} KB, the limit. A quotation mark may open a cell and not close it."
                        : $"Row {row} cannot be read: a quotation mark opens a cell and does not close it."
                ),
            ]);
    }

    private static string EncodingOf(string file)
    {
        using var stream = File.OpenRead(file);
        var first = new byte[1 << 16];
        var length = stream.ReadAtLeast(first, first.Length, throwOnEndOfStream: false);
        var bytes = first.AsSpan(0, length);
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF]))
            return "utf-8";
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]))
            return "utf-16";
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]))
            return "utf-16BE";
        // Detects UTF-16 without a byte order mark by its zero bytes.
        var (even, odd) = (0, 0);
        for (var i = 0; i + 1 < length; i += 2)
        {
            even += bytes[i] == 0 ? 1 : 0;
            odd += bytes[i + 1] == 0 ? 1 : 0;
        }

        if (Math.Max(even, odd) * 5 > length)
            return odd > even ? "utf-16" : "utf-16BE";
        // Ignores a character that is cut at the end of the first piece.
        for (var cut = 0; cut < 4 && cut <= length; cut++)
            if (System.Text.Unicode.Utf8.IsValid(bytes[..(length - cut)]))
                return "utf-8";
        return "windows-1252";
    }

    // The delimiter that splits the first rows into equally many cells, as many as possible.
    private static char SeparatorOf(string file, string encoding)
    {
        var best = (Sign: ',', Score: 0.0);
        foreach (var sign in Separators)
        {
            int[] widths;
            try
            {
                widths = [.. CsvRows(file, encoding, sign, null).Take(60).Select(r => r.Cells.Count)];
            }
            catch (InvalidInputException)
            {
                continue;
            }

            if (widths.Length == 0)
                continue;
            var usual = widths.GroupBy(w => w).OrderByDescending(g => g.Count()).ThenByDescending(g => g.Key).First();
            var score = usual.Key < 2 ? 0 : (double)usual.Count() / widths.Length + Math.Min(usual.Key, 20) * 0.01;
            if (score > best.Score)
                best = (sign, score);
        }

        return best.Sign;
    }

    private static bool IsNumber(string cell) =>
        WrittenNumbers.Read(cell, null, out _) is WrittenNumbers.Kind.Number or WrittenNumbers.Kind.Bound;

    // A first row names columns when it has a known name or a month, or words above numbers.
    private static bool IsHead(List<string[]> rows)
    {
        var first = rows[0];
        if (first.Any(c => RoleOf(c) is not null || MonthOf(c) is not null))
            return rows.Count == 1 || !first.Any(IsNumber) || first.Any(c => MonthOf(c) is not null);
        return rows.Count > 1
            && Enumerable
                .Range(0, first.Length)
                .Any(i =>
                    !string.IsNullOrWhiteSpace(first[i])
                    && !IsNumber(first[i])
                    && rows.Skip(1).Count(r => i < r.Length && IsNumber(r[i])) * 2 > rows.Count - 1
                );
    }

    private static ColumnRole? RoleOf(string head)
    {
        var words = head.Trim().ToLowerInvariant().Replace('_', ' ');
        foreach (var (part, role) in Names)
            if (words.Contains(part, StringComparison.Ordinal) && words.Length <= part.Length + 28)
                return role;
        return null;
    }

    private static List<TableColumn> Columns(string[] heads, List<string>[] cells)
    {
        var roles = new (ColumnRole Role, string? Month)[heads.Length];
        bool Numbers(int i) => cells[i].Count(IsNumber) * 2 > cells[i].Count(c => !string.IsNullOrWhiteSpace(c));
        bool Free(ColumnRole role) => roles.All(r => r.Role != role);
        for (var i = 0; i < heads.Length; i++)
            if (MonthOf(heads[i]) is { } month)
                roles[i] = (ColumnRole.Month, month.ToString("yyyy-MM", CultureInfo.InvariantCulture));
            else if (
                RoleOf(heads[i]) is { } role
                && Free(role)
                && (role == ColumnRole.Term ? !Numbers(i) : Numbers(i) || cells[i].All(string.IsNullOrWhiteSpace))
            )
                roles[i] = (role, null);
        // Without names: the first column of words holds the terms; the numbers behind it are searches, then listings.
        if (
            Free(ColumnRole.Term)
            && Enumerable
                .Range(0, heads.Length)
                .FirstOrDefault(i => roles[i].Role == ColumnRole.Ignore && cells[i].Any(c => c.Any(char.IsLetter)) && !Numbers(i), -1)
                is >= 0
                    and var text
        )
            roles[text] = (ColumnRole.Term, null);
        if (heads.All(h => h.Length == 0))
            foreach (var role in new[] { ColumnRole.Volume, ColumnRole.Competition })
                if (
                    Enumerable.Range(0, heads.Length).FirstOrDefault(i => roles[i].Role == ColumnRole.Ignore && Numbers(i), -1)
                    is >= 0
                        and var number
                )
                    roles[number] = (role, null);
        return [.. heads.Select((h, i) => new TableColumn(h, roles[i].Role, roles[i].Month))];
    }

    private static NumberStyle StyleOf(List<string>[] cells)
    {
        var (comma, point) = (0, 0);
        foreach (var cell in cells.SelectMany(c => c).Where(IsNumber))
        {
            var (lastComma, lastPoint) = (cell.LastIndexOf(','), cell.LastIndexOf('.'));
            var at = Math.Max(lastComma, lastPoint);
            if (at < 0)
                continue;
            var digits = cell[(at + 1)..].TakeWhile(char.IsAsciiDigit).Count();
            var alone = lastComma < 0 || lastPoint < 0;
            // "1,300" alone groups; "0,45" and "1.300,50" have decimals.
            var isDecimal = !alone || digits != 3 || cell[..at].TrimStart().StartsWith('0') || cell.TrimEnd().EndsWith('k');
            if (isDecimal == (cell[at] == ','))
                comma++;
            else
                point++;
        }

        return comma > point ? NumberStyle.Comma : NumberStyle.Point;
    }
}
