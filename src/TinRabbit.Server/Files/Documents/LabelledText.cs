using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Files.Documents;

/// <summary>One listing that was pasted as text, its fields headed by their names: "Title: …", "Tags: …", or a name alone on the line above.</summary>
internal static class LabelledText
{
    /// <summary>How many fields a text names.</summary>
    public static int Count(string text) => text.Length > 50_000 ? 0 : text.Split('\n').Count(l => LabelOf(l, _ => false) is not null);

    /// <summary>Reads it.</summary>
    /// <exception cref="InvalidInputException">It has no title.</exception>
    public static ListingExports.Listing Read(string text, Platform platform)
    {
        var parts = new List<(string Label, StringBuilder Text)>();
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n'))
            if (LabelOf(line, IsField) is var (label, rest))
                parts.Add((label, new StringBuilder(rest)));
            else if (parts.Count > 0)
                parts[^1].Text.Append('\n').Append(line);
        var heads = parts.ConvertAll(p => p.Label);
        string[] cells = [.. parts.Select(p => p.Text.ToString().Trim())];
        var roles = ListingColumns.Guess(heads, i => [cells[i]], platform);
        var listing = ListingExports.OfCells(heads, roles, cells, platform);
        return listing.Title.Length > 0
            ? listing
            : throw HeadedRow.Wrong("Begin a line with “Title:”, so that the title of the listing is known.");

        bool IsField(string label) => platform.Fields.Any(f => string.Equals(f.Label, label, StringComparison.OrdinalIgnoreCase));
    }

    private static (string Label, string Text)? LabelOf(string line, Func<string, bool> isField)
    {
        var at = line.IndexOf(':');
        var label = (at < 0 ? line : line[..at]).Trim().TrimStart('#', '*', ' ').TrimEnd('*', ' ');
        if (label.Length is 0 or > 40)
            return null;
        return ListingColumns.IsUsual(label) || isField(label) ? (label, at < 0 ? "" : line[(at + 1)..].TrimStart('*', ' ')) : null;
    }
}
