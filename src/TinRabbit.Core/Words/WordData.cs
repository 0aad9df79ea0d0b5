using System.IO.Compression;

namespace TinRabbit.Core.Words;

/// <summary>The tables of words that ship inside the assembly.</summary>
internal static class WordData
{
    /// <summary>The lines of a digest that is made at build and packed.</summary>
    public static IEnumerable<string> Digest(string file)
    {
        using var reader = new StreamReader(new GZipStream(Open($"Words.Data.{file}"), CompressionMode.Decompress));
        while (reader.ReadLine() is { } line)
            yield return line;
    }

    /// <summary>The lines of a table, without comments and empty lines.</summary>
    public static IEnumerable<string> Lines(string file, string folder = "Words")
    {
        using var reader = new StreamReader(Open($"{folder}.Data.{file}"));
        var lines = new List<string>();
        while (reader.ReadLine() is { } line)
            if (line.Length > 0 && line[0] != '#')
                lines.Add(line);
        return lines;
    }

    private static Stream Open(string name) =>
        typeof(WordData).Assembly.GetManifestResourceStream($"TinRabbit.Core.{name}")
        ?? throw new InvalidOperationException($"The table {name} is not in the assembly.");
}
