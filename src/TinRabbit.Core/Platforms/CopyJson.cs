using System.Text.Json;
using System.Text.Json.Nodes;

namespace TinRabbit.Core.Platforms;

/// <summary>Reads and writes a listing's fields in their open format.</summary>
public static class CopyJson
{
    /// <summary>Reads a listing's fields against a profile.</summary>
    /// <exception cref="InvalidInputException">A field is unknown to the platform, or its value has another shape.</exception>
    public static IReadOnlyDictionary<string, FieldValue> Read(JsonElement json, Platform platform, string path = "fields")
    {
        var reader = new JsonReader(bounded: true);
        return reader.ThrowIfWrong(new CopyReader(reader).Read(json, platform, path));
    }

    /// <summary>
    /// Reads a listing's fields as they are stored, perhaps under another profile: what the platform has no field for is passed over, and a
    /// text becomes a list, or a list a text, where the shape is another now.
    /// </summary>
    public static IReadOnlyDictionary<string, FieldValue> ReadStored(JsonElement json, Platform platform)
    {
        var copy = new Dictionary<string, FieldValue>();
        foreach (var stored in json.EnumerateObject())
        {
            if (platform.Find(stored.Name) is not { } field)
                continue;
            var texts = stored.Value.ValueKind switch
            {
                JsonValueKind.String => [stored.Value.GetString()!],
                JsonValueKind.Array => stored
                    .Value.EnumerateArray()
                    .Where(i => i.ValueKind == JsonValueKind.String)
                    .Select(i => i.GetString()!)
                    .ToList(),
                _ => (List<string>?)null,
            };
            if (stored.Value.ValueKind == JsonValueKind.Object)
                texts = field.Shape == FieldShape.Choices ? null : [.. stored.Value.EnumerateObject().Select(v => $"{v.Name}: {v.Value}")];
            if (texts is null || field.Shape == FieldShape.Choices)
            {
                foreach (
                    var value in new CopyReader(new(bounded: false)).Read(
                        JsonSerializer.SerializeToElement(new Dictionary<string, JsonElement> { [stored.Name] = stored.Value }),
                        platform,
                        "stored"
                    )
                )
                    copy[value.Key] = value.Value;
            }
            else
                copy[stored.Name] = field.Shape switch
                {
                    FieldShape.Lines or FieldShape.Phrases or FieldShape.Path => new FieldValue.Items(texts),
                    _ when stored.Value.ValueKind == JsonValueKind.Array && field.Shape == FieldShape.Words => new FieldValue.Items(texts),
                    _ => new FieldValue.Text(string.Join(field.Separator, texts)),
                };
        }

        return copy;
    }

    /// <summary>Writes a listing's fields.</summary>
    public static JsonObject Write(IReadOnlyDictionary<string, FieldValue> copy) =>
        new(copy.Select(f => KeyValuePair.Create(f.Key, WriteValue(f.Value))));

    /// <summary>Writes one field's value: a text, a list of texts, or an object of attributes.</summary>
    public static JsonNode? WriteValue(FieldValue value) =>
        value switch
        {
            FieldValue.Text t => JsonValue.Create(t.Value),
            FieldValue.Items i => PlatformJson.Strings(i.Values),
            FieldValue.Choices c => new JsonObject(
                c.Values.Select(v =>
                    KeyValuePair.Create(
                        v.Key,
                        (JsonNode?)(v.Value.Count == 1 ? JsonValue.Create(v.Value[0]) : PlatformJson.Strings(v.Value))
                    )
                )
            ),
            _ => null,
        };
}
