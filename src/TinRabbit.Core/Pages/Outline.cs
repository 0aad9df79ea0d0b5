using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Pages;

/// <summary>A pasted list of names in which indentation shows what is inside what.</summary>
public static class Outline
{
    /// <summary>How deep pages may be nested.</summary>
    public const int MostLevels = 12;

    /// <summary>Reads an outline: each line a name, deeper lines inside the line above them. List marks before a name are left out.</summary>
    /// <returns>The lines with text in order, and for each the index of the line that it is inside; −1 at the top.</returns>
    /// <exception cref="InvalidInputException">A name is too long, two of one place are the same, or it is nested too deeply.</exception>
    public static IReadOnlyList<OutlineLine> Read(string text)
    {
        var (lines, open, problems) = (new List<OutlineLine>(), new List<(int Indent, int Index)>(), new List<Problem>());
        var number = 0;
        foreach (var raw in text.ReplaceLineEndings("\n").Split('\n'))
        {
            number++;
            if (raw.AsSpan().IsWhiteSpace())
                continue;
            var indent = 0;
            var at = 0;
            for (; at < raw.Length && (raw[at] == ' ' || raw[at] == '\t'); at++)
                indent += raw[at] == '\t' ? 4 : 1;
            var name = raw[at..].TrimStart('-', '*', '•', '–').Trim();
            if (name.Length == 0)
                continue;
            while (open.Count > 0 && open[^1].Indent >= indent)
                open.RemoveAt(open.Count - 1);
            var inside = open.Count > 0 ? open[^1].Index : -1;
            if (name.Length > Bounds.NameLength)
                problems.Add(new($"line {number}", $"Line {number} has {name.Length} characters; a name has at most {Bounds.NameLength}."));
            if (open.Count >= MostLevels)
                problems.Add(new($"line {number}", $"Line {number} is more than {MostLevels} levels deep."));
            if (
                lines.FirstOrDefault(l => l.Inside == inside && string.Equals(l.Name, name, StringComparison.OrdinalIgnoreCase)) is { } same
            )
                problems.Add(new($"line {number}", $"Line {number} repeats “{name}” of line {same.Number}."));
            open.Add((indent, lines.Count));
            lines.Add(new(number, name, inside));
        }

        return problems.Count == 0 ? lines : throw new InvalidInputException(problems);
    }
}
