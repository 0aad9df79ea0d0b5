using System.Text.Json;

namespace TinRabbit.Core.Platforms;

/// <summary>Reads a listing's fields against a profile, validating each value.</summary>
internal sealed class CopyReader(JsonReader json)
{
    private readonly JsonReader _json = json;

    /// <summary>The fields.</summary>
    public Dictionary<string, FieldValue> Read(JsonElement json, Platform platform, string path)
    {
        var copy = new Dictionary<string, FieldValue>();
        if (!_json.IsObject(json, path))
            return copy;
        foreach (var (name, given) in _json.Entries(json, path, Bounds.PlatformFields))
        {
            var at = $"{path}.{name}";
            if (platform.Find(name) is not { } field)
                _json.AddProblem(at, $"{(platform.Name.Length > 0 ? platform.Name : "The platform")} has no field \"{name}\".");
            else if (given.ValueKind != JsonValueKind.Null && ReadValue(given, field, at) is { } value)
                copy[name] = value;
        }

        if (_json.IsBounded && _json.Characters > Bounds.CopyLength)
            _json.AddProblem(path, $"All texts together have {_json.Characters:#,0} characters; the most is {Bounds.CopyLength:#,0}.");
        return copy;
    }

    private FieldValue? ReadValue(JsonElement json, Field field, string at)
    {
        switch (json.ValueKind)
        {
            case JsonValueKind.String when field.Shape == FieldShape.Choices:
                return WrongValue(at, "Attributes are an object of names and values.");
            case JsonValueKind.String when field.Shape is FieldShape.Lines or FieldShape.Phrases:
                return _json.ReadString(json, at, Bounds.TextLength) is { } one ? new FieldValue.Items([one]) : null;
            case JsonValueKind.String:
                return _json.ReadString(json, at, Bounds.TextLength) is { } text ? new FieldValue.Text(text) : null;
            case JsonValueKind.Array when field.Shape is FieldShape.Line or FieldShape.Text or FieldShape.Rich or FieldShape.Choices:
                return WrongValue(
                    at,
                    field.Shape == FieldShape.Choices
                        ? "Attributes are an object of names and values."
                        : "This field is one text, not a list."
                );
            case JsonValueKind.Array:
                return _json.ReadStrings(json, at, Bounds.Items, Bounds.TextLength) is { } items ? new FieldValue.Items(items) : null;
            case JsonValueKind.Object when field.Shape == FieldShape.Choices:
                var choices = new Dictionary<string, IReadOnlyList<string>>();
                foreach (var (name, choice) in _json.Entries(json, at, Bounds.Attributes))
                    if (choice.ValueKind == JsonValueKind.String)
                        choices[name] = _json.ReadString(choice, $"{at}.{name}", Bounds.TextLength) is { } value ? [value] : [];
                    else if (
                        choice.ValueKind == JsonValueKind.Array
                        && _json.ReadStrings(choice, $"{at}.{name}", Bounds.Items, Bounds.TextLength) is { } values
                    )
                        choices[name] = values;
                    else if (choice.ValueKind != JsonValueKind.Array)
                        _json.AddProblem($"{at}.{name}", "A value is a text or a list of texts.");
                return new FieldValue.Choices(choices);
            default:
                return WrongValue(
                    at,
                    field.Shape == FieldShape.Choices
                        ? "Attributes are an object of names and values."
                        : "This field is a text or a list of texts."
                );
        }
    }

    private FieldValue? WrongValue(string path, string message)
    {
        _json.AddProblem(path, message);
        return null;
    }
}
