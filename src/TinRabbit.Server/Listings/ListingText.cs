using System.Text.Json.Serialization;

namespace TinRabbit.Server.Listings;

/// <summary>A listing's text: its fields in their open format. It never changes, so what is read from it is read once.</summary>
[JsonConverter(typeof(ListingTextJson))]
public sealed class ListingText : IEquatable<ListingText>
{
    /// <summary>How texts are stored: as the seller typed them, without escapes.</summary>
    public static readonly JsonSerializerOptions Format = new()
    {
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>The text of a listing that nobody has written yet.</summary>
    public static readonly ListingText Empty = new("{}");

    private readonly Lazy<JsonElement> _fields;
    private Tuple<Platform, IReadOnlyDictionary<string, FieldValue>>? _read;

    private ListingText(string json)
    {
        Json = json;
        _fields = new(() => JsonElement.Parse(json));
    }

    /// <summary>The fields as JSON, as they are stored.</summary>
    public string Json { get; }

    public bool IsEmpty => Json == Empty.Json;

    /// <summary>A text as it is stored.</summary>
    public static ListingText Of(string json) => json == Empty.Json ? Empty : new(json);

    /// <summary>A text of these fields.</summary>
    public static ListingText Of(JsonObject fields) => Of(fields.ToJsonString(Format));

    /// <summary>A text of these fields.</summary>
    public static ListingText Of(IReadOnlyDictionary<string, FieldValue> copy) => Of(CopyJson.Write(copy));

    /// <summary>The fields as JSON, to be changed for another text.</summary>
    public JsonObject Fields() => JsonNode.Parse(Json)!.AsObject();

    /// <summary>The same text with other values in some fields.</summary>
    public ListingText With(IEnumerable<KeyValuePair<string, FieldValue>> values)
    {
        var fields = Fields();
        foreach (var (key, value) in values)
            fields[key] = CopyJson.WriteValue(value);
        return Of(fields);
    }

    /// <summary>The fields that a platform has, as the engine takes them.</summary>
    public IReadOnlyDictionary<string, FieldValue> On(Platform platform)
    {
        if (_read is var (known, read) && ReferenceEquals(known, platform))
            return read;
        var copy = CopyJson.ReadStored(_fields.Value, platform);
        _read = new(platform, copy);
        return copy;
    }

    /// <summary>The text of the field with a role; empty where there is none.</summary>
    public string TextOf(Platform platform, string role) =>
        platform.Role(role) is { } field
        && _fields.Value.TryGetProperty(field.Key, out var value)
        && value.ValueKind == JsonValueKind.String
            ? value.GetString()!.Trim()
            : "";

    public bool Equals(ListingText? other) => other is not null && Json == other.Json;

    public override bool Equals(object? obj) => Equals(obj as ListingText);

    public override int GetHashCode() => Json.GetHashCode(StringComparison.Ordinal);

    public override string ToString() => Json;

    // Inside what is stored as JSON, such as a change or a rival, a text is a string.
    private sealed class ListingTextJson : JsonConverter<ListingText>
    {
        public override ListingText Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) => Of(reader.GetString()!);

        public override void Write(Utf8JsonWriter writer, ListingText value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.Json);
    }
}
