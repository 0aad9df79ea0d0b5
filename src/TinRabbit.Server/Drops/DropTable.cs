using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Drops;

/// <summary>How a table that was dropped begins: its headings, and some of its rows.</summary>
/// <param name="Look">How it is read.</param>
/// <param name="Heads">The first row where it names the columns; empty texts otherwise.</param>
/// <param name="Rows">The first rows below.</param>
internal sealed record DropTable(TableLook Look, IReadOnlyList<string> Heads, IReadOnlyList<string[]> Rows)
{
    private const int LookedAt = 200;

    /// <summary>Whether its first row names the columns.</summary>
    public bool HasHead => Heads.Any(h => h.Length > 0);

    /// <summary>How many columns it has.</summary>
    public int Width => Heads.Count;

    /// <summary>Reads how a file begins.</summary>
    /// <exception cref="InvalidInputException">It is empty, or no table at all.</exception>
    public static DropTable Of(string path)
    {
        var look = TableGuess.Of(path);
        var rows = TableRows.First(path, look, LookedAt + 1);
        var width = rows.Max(r => r.Length);
        // Words above other things are headings, too, where nothing in the row is a number or a date.
        var isHead =
            look.HasHead || (rows.Count > 1 && width > 1 && Array.TrueForAll(rows[0], IsName) && rows[0].Distinct().Count() == width);
        return new(
            look,
            [.. Enumerable.Range(0, width).Select(i => isHead && i < rows[0].Length ? rows[0][i].Trim() : "")],
            [.. rows.Skip(isHead ? 1 : 0)]
        );
    }

    /// <summary>A text as a table of several columns; null where it is prose, or a list.</summary>
    public static DropTable? OfText(string path)
    {
        try
        {
            var table = Of(path);
            return table.Width > 1 && table.Rows.Count > 0 && table.Rows.Count(r => r.Length == table.Width) * 10 >= table.Rows.Count * 8
                ? table
                : null;
        }
        catch (InvalidInputException)
        {
            return null;
        }
    }

    /// <summary>The cells of a column that are not empty.</summary>
    public IEnumerable<string> Column(int column) =>
        Rows.Where(r => column < r.Length).Select(r => r[column].Trim()).Where(c => c.Length > 0);

    /// <summary>The first column whose heading has one of these words, the earlier words first; -1 where there is none.</summary>
    public int Find(params string[] names)
    {
        foreach (var name in names)
            for (var i = 0; i < Heads.Count; i++)
                if (HasWord(Heads[i], name))
                    return i;
        return -1;
    }

    /// <summary>Whether most cells of a column are something.</summary>
    public bool Most(int column, Func<string, bool> isSo) =>
        column >= 0 && Column(column).ToList() is { Count: > 0 } cells && cells.Count(isSo) * 10 >= cells.Count * 8;

    /// <summary>Whether a text is a number.</summary>
    public static bool IsNumber(string cell) =>
        WrittenNumbers.Read(cell, null, out _) is WrittenNumbers.Kind.Number or WrittenNumbers.Kind.Bound;

    /// <summary>Whether a text is a date.</summary>
    public static bool IsDate(string cell) => WrittenDates.Read(cell, WrittenDates.Order.DayFirst) is not null;

    /// <summary>Whether a heading has a word, whatever else it says: "Item title" has "title", "Subtitle" has not.</summary>
    public static bool HasWord(string head, string word)
    {
        var key = $" {Tokens.Key(head.Replace('_', ' '))} ";
        return key.Contains($" {word} ", StringComparison.Ordinal) || key.Contains($" {word}s ", StringComparison.Ordinal);
    }

    private static bool IsName(string cell) =>
        cell.Trim().Length is > 0 and <= 60 && !IsNumber(cell) && !IsDate(cell) && cell.Any(char.IsLetter);
}
