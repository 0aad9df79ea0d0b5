namespace TinRabbit.Server.Files.Documents;

/// <summary>Reads JSON that somebody gives, whole and at once: nothing in it can fail later, when it is looked at.</summary>
internal static class GivenJson
{
    private static readonly JsonDocumentOptions Options = new() { MaxDepth = 64, AllowDuplicateProperties = false };

    /// <summary>Parses JSON.</summary>
    /// <param name="json">The text, in UTF-8.</param>
    /// <exception cref="InvalidInputException">It is not JSON, says one thing twice, or has half a character in a text.</exception>
    public static JsonDocument Parse(Stream json)
    {
        JsonDocument? document = null;
        try
        {
            document = JsonDocument.Parse(json, Options);
            ReadTexts(document.RootElement);
            return document;
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException)
        {
            document?.Dispose();
            throw new InvalidInputException([
                new(
                    "file",
                    e is JsonException
                        ? $"This is not JSON: {e.Message}"
                        : "A text in this JSON has half of a character (a lone surrogate). Write the whole character, or remove it."
                ),
            ]);
        }
    }

    // A text is decoded only when it is asked for; one with half a character fails then.
    private static void ReadTexts(JsonElement element)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.Object:
                foreach (var member in element.EnumerateObject())
                {
                    _ = member.Name;
                    ReadTexts(member.Value);
                }

                break;
            case JsonValueKind.Array:
                foreach (var item in element.EnumerateArray())
                    ReadTexts(item);
                break;
            case JsonValueKind.String:
                _ = element.GetString();
                break;
        }
    }
}
