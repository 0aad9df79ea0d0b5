using System.Text.Json;

namespace TinRabbit.Core.Platforms;

/// <summary>Reads JSON that somebody gives and collects every problem, each with the path of its key, instead of stopping at the first.</summary>
/// <param name="bounded">Whether <see cref="Bounds"/> are applied; not for what was stored before there were any.</param>
internal sealed class JsonReader(bool bounded)
{
    private const string HalfCharacter = "There is half of a character here (a lone surrogate). Write the whole character, or remove it.";

    /// <summary>Whether bounds are applied.</summary>
    public bool IsBounded { get; } = bounded;

    /// <summary>What was wrong.</summary>
    public List<Problem> Problems { get; } = [];

    /// <summary>Characters of all texts that were read.</summary>
    public int Characters { get; private set; }

    /// <summary>Notes a problem.</summary>
    /// <returns>False.</returns>
    public bool AddProblem(string path, string message)
    {
        Problems.Add(new(path, message));
        return false;
    }

    /// <summary>What was read, or all problems as an exception.</summary>
    public T ThrowIfWrong<T>(T value) => Problems.Count == 0 ? value : throw new InvalidInputException(Problems);

    /// <summary>The value of a key; null where there is none.</summary>
    public static JsonElement? Child(JsonElement json, string key)
    {
        try
        {
            return json.TryGetProperty(key, out var child) ? child : null;
        }
        catch (InvalidOperationException)
        {
            return null; // another key is half a character; OnlyKeys says so
        }
    }

    /// <summary>A text of a profile; another value where there is none.</summary>
    public string Text(JsonElement json, string path, string key, string otherwise)
    {
        if (Child(json, key) is not { ValueKind: not JsonValueKind.Null } child)
            return otherwise;
        if (child.ValueKind == JsonValueKind.String)
            return ReadString(child, $"{path}.{key}", Bounds.ProfileText) ?? otherwise;
        AddProblem($"{path}.{key}", "This is a text.");
        return otherwise;
    }

    /// <summary>True or false; false where there is none.</summary>
    public bool Flag(JsonElement json, string path, string key)
    {
        if (Child(json, key) is not { } child || child.ValueKind is JsonValueKind.True or JsonValueKind.False)
            return Child(json, key)?.ValueKind == JsonValueKind.True;
        AddProblem($"{path}.{key}", "This is true or false.");
        return false;
    }

    /// <summary>A number within bounds; null where there is none.</summary>
    public double? Number(JsonElement json, string path, string key, double least, double most)
    {
        if (Child(json, key) is not { } child)
            return null;
        if (child.ValueKind == JsonValueKind.Number && child.GetDouble() is var number && number >= least && number <= most)
            return number;
        AddProblem($"{path}.{key}", $"Enter a number from {least} to {most}.");
        return null;
    }

    /// <summary>A whole number from a least one; null where there is none.</summary>
    public int? Integer(JsonElement json, string path, string key, int least)
    {
        if (Child(json, key) is not { ValueKind: not JsonValueKind.Null } child)
            return null;
        if (child.ValueKind == JsonValueKind.Number && child.TryGetInt32(out var number) && number >= least)
            return number;
        AddProblem($"{path}.{key}", $"Enter a whole number, {least} or more.");
        return null;
    }

    /// <summary>A value of an enumeration, by its name in lower case.</summary>
    public T? Choice<T>(JsonElement json, string path, string key, T? otherwise)
        where T : struct, Enum
    {
        if (Child(json, key) is not { } child)
        {
            if (otherwise is null)
                AddProblem($"{path}.{key}", $"Required: use one of {Names<T>()}.");
            return otherwise;
        }

        if (child.ValueKind == JsonValueKind.String)
            foreach (var value in Enum.GetValues<T>())
                if (child.ValueEquals(PlatformJson.Lower(value)))
                    return value;
        AddProblem($"{path}.{key}", $"Use one of {Names<T>()}.");
        return null;
    }

    private static string Names<T>()
        where T : struct, Enum => string.Join(", ", Enum.GetValues<T>().Select(PlatformJson.Lower));

    /// <summary>A list of short texts; empty where there is none.</summary>
    public IReadOnlyList<string> Texts(JsonElement json, string path, string key) =>
        Child(json, key) is { } child && IsList(child, $"{path}.{key}")
            ? ReadStrings(child, $"{path}.{key}", Bounds.PlatformList, Bounds.ProfileText) ?? []
            : [];

    /// <summary>The texts of a list; null where one is wrong.</summary>
    public List<string>? ReadStrings(JsonElement list, string path, int mostItems, int longest)
    {
        var texts = new List<string>();
        var right = true;
        foreach (var (item, i) in Limited(list, path, mostItems).Select((x, i) => (x, i)))
            if (item.ValueKind == JsonValueKind.String && ReadString(item, $"{path}[{i}]", longest) is { } text)
                texts.Add(text);
            else if (item.ValueKind == JsonValueKind.String)
                right = false;
            else
                right = AddProblem($"{path}[{i}]", "This is a text.");
        return right ? texts : null;
    }

    /// <summary>A text within a length; null where it is longer or holds half a character, which JSON can spell and no text has.</summary>
    public string? ReadString(JsonElement text, string path, int longest)
    {
        try
        {
            var said = text.GetString()!;
            Characters += said.Length;
            if (!IsBounded || said.Length <= longest)
                return said;
            AddProblem(path, $"This text has {said.Length:#,0} characters; the most is {longest:#,0}.");
            return null;
        }
        catch (InvalidOperationException)
        {
            AddProblem(path, HalfCharacter);
            return null;
        }
    }

    /// <summary>The items of a list of a greatest length; none where it is longer.</summary>
    public IEnumerable<JsonElement> Limited(JsonElement list, string path, int most)
    {
        if (!IsBounded || list.GetArrayLength() <= most)
            return list.EnumerateArray();
        AddProblem(path, $"This list has {list.GetArrayLength():#,0} items; the most is {most:#,0}.");
        return [];
    }

    /// <summary>The keys and values of an object of a greatest size.</summary>
    public List<(string Name, JsonElement Value)> Entries(JsonElement json, string path, int most)
    {
        var entries = new List<(string, JsonElement)>();
        foreach (var entry in json.EnumerateObject())
            try
            {
                if (IsBounded && entries.Count == most)
                {
                    AddProblem(path, $"This object has more than {most:#,0} keys, which is the most.");
                    break;
                }

                var name = entry.Name;
                if (!IsBounded || name.Length <= Bounds.ProfileText)
                    entries.Add((name, entry.Value));
                else
                    AddProblem(path, $"A key has {name.Length:#,0} characters; the most is {Bounds.ProfileText:#,0}.");
            }
            catch (InvalidOperationException)
            {
                AddProblem(path, HalfCharacter);
            }

        return entries;
    }

    /// <summary>Names every key that has no meaning here.</summary>
    public void OnlyKeys(JsonElement json, string path, params string[] keys)
    {
        foreach (var (name, _) in Entries(json, path, keys.Length + 1))
            if (!keys.Contains(name))
                AddProblem($"{path}.{name}", $"There is no such key here; there are {string.Join(", ", keys.Where(k => k[0] != '$'))}.");
    }

    /// <summary>Whether this is an object.</summary>
    public bool IsObject(JsonElement json, string path) =>
        json.ValueKind == JsonValueKind.Object || AddProblem(path, "This is an object, in braces.");

    /// <summary>Whether this is a list.</summary>
    public bool IsList(JsonElement json, string path) =>
        json.ValueKind == JsonValueKind.Array || AddProblem(path, "This is a list, in square brackets.");
}
