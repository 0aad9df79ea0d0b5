namespace TinRabbit.Server.Files.Tables;

/// <summary>Guesses how a table of terms is to be read: its encoding, delimiter, header, number format, and what each column holds.</summary>
public static class TableGuess
{
    private const int LookedAt = 200;

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
        ("bid", ColumnRole.ClickCost),
        ("clicks", ColumnRole.Clicks),
        ("klicks", ColumnRole.Clicks),
        ("clics", ColumnRole.Clicks),
        ("orders", ColumnRole.Orders),
        ("purchases", ColumnRole.Orders),
        ("units sold", ColumnRole.Orders),
        ("bestellungen", ColumnRole.Orders),
        ("pedidos", ColumnRole.Orders),
        ("sales", ColumnRole.Sales),
        ("revenue", ColumnRole.Sales),
        ("umsatz", ColumnRole.Sales),
        ("ventas", ColumnRole.Sales),
        ("popularity", ColumnRole.Popularity),
        ("search rank", ColumnRole.Popularity),
        ("frequency rank", ColumnRole.Popularity),
        ("beliebtheit", ColumnRole.Popularity),
        ("popularidad", ColumnRole.Popularity),
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
        ("term", ColumnRole.Term),
        ("keyword", ColumnRole.Term),
        ("query", ColumnRole.Term),
        ("phrase", ColumnRole.Term),
        ("tag", ColumnRole.Term),
        ("suche", ColumnRole.Term),
        ("palabra", ColumnRole.Term),
    ];

    // In a report of clicks these are of the shop's own listings: no searches, and no cost per click.
    private static readonly (string Part, ColumnRole Role)[] NamesWithoutClicks =
    [
        ("cost", ColumnRole.ClickCost),
        ("impressions", ColumnRole.Volume),
    ];

    /// <summary>Guesses how a file is to be read, from its first rows.</summary>
    /// <param name="file">The file.</param>
    /// <param name="encoding">Its encoding, where somebody knows better; null to guess.</param>
    /// <param name="separator">Its separator, where somebody knows better; null to guess.</param>
    /// <exception cref="InvalidInputException">It is empty, or no table at all.</exception>
    public static TableLook Of(string file, string? encoding = null, string? separator = null)
    {
        if (TableRows.IsXlsx(file))
            (encoding, separator) = ("", "");
        else
        {
            TableCheck.CheckDress(encoding ?? "", separator ?? "");
            encoding = encoding is { Length: > 0 } ? encoding : EncodingOf(file);
            separator = separator is { Length: > 0 } ? separator : SeparatorOf(file, encoding).ToString();
        }

        var rows = TableRows.Read(file, encoding, separator).Take(LookedAt).Select(r => r.Cells.ToArray()).ToList();
        if (rows.Count == 0 || rows.All(r => r.All(string.IsNullOrWhiteSpace)))
            throw new InvalidInputException([new("file", "The file has no rows.")]);
        var width = Math.Min(Bounds.ImportColumns, rows.Max(r => r.Length));
        var hasHead = IsHead(rows);
        var body = hasHead ? rows.Skip(1).ToList() : rows;
        var heads = Enumerable.Range(0, width).Select(i => hasHead && i < rows[0].Length ? rows[0][i].Trim() : "").ToArray();
        var cells = Enumerable.Range(0, width).Select(i => body.Where(r => i < r.Length).Select(r => r[i]).ToList()).ToArray();
        return new(encoding, separator, hasHead, StyleOf(cells), Columns(heads, cells));
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
        foreach (var sign in TableCheck.Separators)
        {
            int[] widths;
            try
            {
                widths = [.. TableRows.Read(file, encoding, sign.ToString()).Take(60).Select(r => r.Cells.Count)];
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
        if (first.Any(c => RoleOf(c, first) is not null || WrittenMonths.Read(c) is not null))
            return rows.Count == 1 || !first.Any(IsNumber) || first.Any(c => WrittenMonths.Read(c) is not null);
        return rows.Count > 1
            && Enumerable
                .Range(0, first.Length)
                .Any(i =>
                    !string.IsNullOrWhiteSpace(first[i])
                    && !IsNumber(first[i])
                    && rows.Skip(1).Count(r => i < r.Length && IsNumber(r[i])) * 2 > rows.Count - 1
                );
    }

    private static ColumnRole? RoleOf(string head, IReadOnlyList<string> heads) =>
        Named(head, Names) ?? (heads.Any(h => Named(h, Names) == ColumnRole.Clicks) ? null : Named(head, NamesWithoutClicks));

    private static ColumnRole? Named(string head, (string Part, ColumnRole Role)[] names)
    {
        var words = head.Trim().ToLowerInvariant().Replace('_', ' ');
        foreach (var (part, role) in names)
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
            if (WrittenMonths.Read(heads[i]) is { } month)
                roles[i] = (ColumnRole.Month, month.ToString("yyyy-MM", CultureInfo.InvariantCulture));
            else if (
                RoleOf(heads[i], heads) is { } role
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
