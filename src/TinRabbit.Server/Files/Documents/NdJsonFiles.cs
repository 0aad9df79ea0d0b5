namespace TinRabbit.Server.Files.Documents;

/// <summary>Files of the ZIP of a shop that have one thing a line, as JSON.</summary>
internal static class NdJsonFiles
{
    private static readonly JsonSerializerOptions Format = new(ShopDocument.Json) { WriteIndented = false };

    /// <summary>Writes a line.</summary>
    public static async Task Write<T>(Stream stream, T thing, CancellationToken stop)
    {
        await JsonSerializer.SerializeAsync(stream, thing, Format, stop);
        stream.WriteByte((byte)'\n');
    }

    /// <summary>A thing as its line says it.</summary>
    public static string LineOf<T>(T thing) => JsonSerializer.Serialize(thing, Format);

    /// <summary>Reads a file.</summary>
    /// <param name="stream">Its bytes.</param>
    /// <param name="name">What it is called, for a line that cannot be read.</param>
    /// <param name="whyNot">What is wrong with a thing that is within its bounds; null where nothing is.</param>
    /// <exception cref="InvalidInputException">A line cannot be read, or is beyond a bound.</exception>
    public static List<T> Read<T>(Stream stream, string name, Func<T, string?> whyNot)
        where T : class
    {
        var things = new List<T>();
        var number = 0;
        using var reader = new StreamReader(stream, leaveOpen: true);
        while (reader.ReadLine() is { } line)
        {
            number++;
            if (line.Length == 0)
                continue;
            try
            {
                var thing = JsonSerializer.Deserialize<T>(line, Format) ?? throw new JsonException("it is null.");
                RequestValidation.ThrowIfOutOfBounds(thing);
                if (whyNot(thing) is { } why)
                    throw new JsonException(why);
                things.Add(thing);
            }
            catch (Exception e) when (e is JsonException or InvalidOperationException)
            {
                throw new InvalidInputException([new("file", $"Line {number:#,0} of {name} can’t be read: {e.Message}")]);
            }
        }

        return things;
    }
}
