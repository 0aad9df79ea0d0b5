namespace TinRabbit.Core.Words;

/// <summary>The tables of words that ship inside the assembly.</summary>
internal static class WordData
{
    /// <summary>The lines of a table, without comments and empty lines.</summary>
    public static IEnumerable<string> Lines(string file, string folder = "Words")
    {
        using var stream =
            typeof(WordData).Assembly.GetManifestResourceStream($"TinRabbit.Core.{folder}.Data.{file}")
            ?? throw new InvalidOperationException($"The table {file} is not in the assembly.");
        using var reader = new StreamReader(stream);
        var lines = new List<string>();
        while (reader.ReadLine() is { } line)
            if (line.Length > 0 && line[0] != '#')
                lines.Add(line);
        return lines;
    }
}
