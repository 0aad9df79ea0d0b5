using System.Text.RegularExpressions;

namespace TinRabbit.Server.Files.Tables;

/// <summary>
/// Reads a pasted column of terms, one a line, with volume and competition behind it where they are known, split by tabs,
/// semicolons or commas. Numbers may be written 1,300, 1.300, 1 300 or 12.1k. Where no line has a number behind its first column, every
/// column is a term: a list may be split by anything.
/// </summary>
public static partial class PastedTerms
{
    /// <summary>Reads what can be read and names the rest.</summary>
    public static (List<PastedTerm> Terms, List<BadLine> Bad) Read(string text)
    {
        var terms = new List<PastedTerm>();
        var bad = new List<BadLine>();
        var lines = text.TrimStart('\uFEFF').ReplaceLineEndings("\n").Split('\n');
        var isList = !Array.Exists(lines, HasNumber) && !(IsHead(lines[0]) && Cells(lines[0]).Length > 1);
        for (var i = 0; i < lines.Length; i++)
        {
            if (string.IsNullOrWhiteSpace(lines[i]) || (i == 0 && IsHead(lines[i])))
                continue;
            if (isList)
            {
                foreach (var part in Separators().Split(lines[i]).Where(p => !string.IsNullOrWhiteSpace(p)))
                    Add(i, part, [part]);
                continue;
            }

            Add(i, lines[i], Cells(lines[i]));
        }

        return (terms, bad);

        void Add(int i, string line, string[] cells)
        {
            var term = cells[0].Trim().Trim('"').Trim();
            var reason =
                Tokens.Of(term).Count == 0 ? "the first column contains no word"
                : term.Length > Bounds.TermLength ? $"the term has {term.Length} characters; the limit is {Bounds.TermLength}"
                : Tokens.Of(term).Count is > Bounds.TermWords and var words ? $"the term has {words} words; the limit is {Bounds.TermWords}"
                : cells.Length > 3 ? $"{cells.Length} columns; paste up to 3: term, searches and competing listings"
                : null;
            long? volume = null,
                competition = null;
            if (reason is null && cells.Length > 1 && !TryNumber(cells[1], out volume))
                reason = $"“{cells[1].Trim()}” is not a number of searches";
            if (reason is null && cells.Length > 2 && !TryNumber(cells[2], out competition))
                reason = $"“{cells[2].Trim()}” is not a number of listings";
            if (reason is null)
                terms.Add(new(i + 1, term, volume, competition));
            else
                bad.Add(new(i + 1, line, reason));
        }
    }

    // A comma between digits belongs to a number.
    [GeneratedRegex(@"[\t;|]|,(?!\d)|(?<!\d),")]
    private static partial Regex Separators();

    private static bool HasNumber(string line) => Cells(line).Skip(1).Any(c => TryNumber(c, out var number) && number is not null);

    private static bool IsHead(string line) =>
        Cells(line)[0].Trim().Trim('"').ToLowerInvariant()
            is "term"
                or "terms"
                or "keyword"
                or "keywords"
                or "search term"
                or "phrase"
                or "query";

    // A tab or semicolon splits wherever it stands; a comma only where what follows it are numbers, so that "1,300" stays whole.
    private static string[] Cells(string line)
    {
        if (line.Contains('\t'))
            return line.TrimEnd('\t').Split('\t');
        if (line.Contains(';'))
            return line.TrimEnd(';').Split(';');
        var first = line.IndexOf(',');
        if (first < 0)
            return [line];
        // "bird house, 1,300": a space after the first comma and none after the next says that the next groups thousands.
        var rest = line[(first + 1)..];
        return rest.StartsWith(' ') && !rest.Trim().Contains(' ') && IsGrouped(rest.Trim(), ',')
            ? [line[..first], rest]
            : [line[..first], .. rest.Split(',')];
    }

    private static bool TryNumber(string cell, out long? number)
    {
        var kind = WrittenNumbers.Read(cell, null, out var read);
        number = kind is WrittenNumbers.Kind.Number ? (long)Math.Round(read) : null;
        return kind is not WrittenNumbers.Kind.Bad;
    }

    private static bool IsGrouped(string digits, char separator)
    {
        var groups = digits.Split(separator);
        return groups.Length > 1
            && groups[0].Length is > 0 and <= 3
            && groups.Skip(1).All(g => g.Length == 3)
            && groups.All(g => g.All(char.IsAsciiDigit));
    }
}
