using System.Text.Json;
using System.Text.Json.Nodes;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Platforms;

/// <summary>Reads and writes platform profiles and copy in their open format.</summary>
public static class PlatformJson
{
    /// <summary>Reads a profile that somebody gives: within <see cref="Bounds"/>.</summary>
    /// <exception cref="FormatProblems">Some key is missing or wrong, or passes a bound.</exception>
    public static Platform Read(JsonElement json, string path = "platform") => Read(json, path, new(bounded: true));

    /// <summary>Reads a profile that is stored or shipped. One that was stored before there were bounds may pass them.</summary>
    /// <exception cref="FormatProblems">The text is no JSON, or some key is missing or wrong.</exception>
    public static Platform Read(string json)
    {
        try
        {
            using var document = JsonDocument.Parse(json);
            return Read(document.RootElement, "platform", new(bounded: false));
        }
        catch (JsonException e)
        {
            throw new FormatProblems([new("platform", $"This is not JSON: {e.Message}")]);
        }
    }

    private static Platform Read(JsonElement json, string path, Reader read)
    {
        var platform = read.Platform(json, path);
        return read.Problems.Count == 0 ? platform : throw new FormatProblems(read.Problems);
    }

    /// <summary>Reads a listing's fields against a profile.</summary>
    /// <exception cref="FormatProblems">A field is unknown to the platform, or its value has another shape.</exception>
    public static IReadOnlyDictionary<string, FieldValue> ReadCopy(JsonElement json, Platform platform, string path = "fields")
    {
        var read = new Reader(bounded: true);
        var copy = read.Copy(json, platform, path);
        return read.Problems.Count == 0 ? copy : throw new FormatProblems(read.Problems);
    }

    /// <summary>
    /// Reads a listing's fields as they were kept, perhaps under another profile: what the platform has no field for is passed over, and a
    /// text becomes a list, or a list a text, where the shape is another now.
    /// </summary>
    public static IReadOnlyDictionary<string, FieldValue> ReadKept(JsonElement json, Platform platform)
    {
        var copy = new Dictionary<string, FieldValue>();
        foreach (var kept in json.EnumerateObject())
        {
            if (platform.Find(kept.Name) is not { } field)
                continue;
            var texts = kept.Value.ValueKind switch
            {
                JsonValueKind.String => [kept.Value.GetString()!],
                JsonValueKind.Array => kept.Value.EnumerateArray().Where(i => i.ValueKind == JsonValueKind.String).Select(i => i.GetString()!).ToList(),
                _ => (List<string>?)null,
            };
            if (kept.Value.ValueKind == JsonValueKind.Object)
                texts = field.Shape == FieldShape.Choices ? null : [.. kept.Value.EnumerateObject().Select(v => $"{v.Name}: {v.Value}")];
            if (texts is null || field.Shape == FieldShape.Choices)
            {
                var read = new Reader(bounded: false);
                foreach (var value in read.Copy(JsonSerializer.SerializeToElement(new Dictionary<string, JsonElement> { [kept.Name] = kept.Value }), platform, "kept"))
                    copy[value.Key] = value.Value;
            }
            else
                copy[kept.Name] = field.Shape switch
                {
                    FieldShape.Lines or FieldShape.Phrases or FieldShape.Path => new FieldValue.Items(texts),
                    _ when kept.Value.ValueKind == JsonValueKind.Array && field.Shape == FieldShape.Words => new FieldValue.Items(texts),
                    _ => new FieldValue.Text(string.Join(field.Separator, texts)),
                };
        }

        return copy;
    }

    /// <summary>Writes a profile.</summary>
    public static JsonObject Write(Platform platform) => new()
    {
        ["id"] = platform.Id,
        ["name"] = platform.Name,
        ["about"] = platform.About,
        ["language"] = platform.Language,
        ["spelling"] = platform.Spelling,
        ["search"] = new JsonObject
        {
            ["folds"] = Strings(Fold.All.Where(f => platform.Search.Folds.HasFlag(f)).Select(Fold.Name)),
            ["ignoredWords"] = Strings(platform.Search.IgnoredWords),
            ["wordsCombine"] = platform.Search.WordsCombine,
            ["indexDelayHours"] = platform.Search.IndexDelayHours,
        },
        ["fields"] = new JsonArray([.. platform.Fields.Select(Write)]),
        ["banned"] = Strings(platform.Banned),
        ["checks"] = new JsonObject(platform.Checks.Select(c => KeyValuePair.Create(c.Key, (JsonNode?)c.Value))),
    };

    /// <summary>Writes a listing's fields.</summary>
    public static JsonObject WriteCopy(IReadOnlyDictionary<string, FieldValue> copy) => new(copy.Select(f => KeyValuePair.Create(f.Key, WriteValue(f.Value))));

    /// <summary>Writes one field's value: a text, a list of texts, or an object of attributes.</summary>
    public static JsonNode? WriteValue(FieldValue value) => value switch
    {
        FieldValue.Text t => JsonValue.Create(t.Value),
        FieldValue.Items i => Strings(i.Values),
        FieldValue.Choices c => new JsonObject(c.Values.Select(v => KeyValuePair.Create(v.Key, (JsonNode?)(v.Value.Count == 1 ? JsonValue.Create(v.Value[0]) : Strings(v.Value))))),
        _ => null,
    };

    private static JsonObject Write(Field field)
    {
        var json = new JsonObject
        {
            ["key"] = field.Key,
            ["label"] = field.Label,
            ["role"] = field.Role,
            ["shape"] = Lower(field.Shape),
            ["indexed"] = field.Indexed,
            ["weight"] = field.Weight,
            ["front"] = field.Front,
            ["required"] = field.Required,
            ["separator"] = field.Separator,
        };
        if (field.IndexedFirst is { } first)
            json["indexedFirst"] = first;
        if (field.Shows is { } shows)
            json["shows"] = shows;
        if (field.Limit is { } limit)
        {
            var room = new JsonObject { ["unit"] = Lower(limit.Unit) };
            if (limit.Max is { } max)
                room["max"] = max;
            if (limit.MaxItems is { } most)
                room["maxItems"] = most;
            json["limit"] = room;
        }

        if (field.Tree.Count > 0)
            json["tree"] = Write(field.Tree);
        if (field.Attributes.Count > 0)
            json["attributes"] = new JsonArray([.. field.Attributes.Select(a =>
            {
                var attribute = new JsonObject { ["name"] = a.Name, ["options"] = Strings(a.Options) };
                if (a.Category is { } category)
                    attribute["category"] = category;
                return (JsonNode?)attribute;
            })]);
        return json;
    }

    private static JsonArray Write(IReadOnlyList<Category> tree) => new([.. tree.Select(c =>
    {
        var category = new JsonObject { ["name"] = c.Name };
        if (c.Under.Count > 0)
            category["under"] = Write(c.Under);
        return (JsonNode?)category;
    })]);

    private static string Lower<T>(T value) where T : struct, Enum => value.ToString().ToLowerInvariant();

    private static JsonArray Strings(IEnumerable<string> values) => new([.. values.Select(v => (JsonNode?)JsonValue.Create(v))]);

    /// <summary>Collects every problem instead of stopping at the first.</summary>
    private sealed class Reader(bool bounded)
    {
        private const double HighestThreshold = 1_000_000;
        private const string HalfCharacter = "There is half of a character here (a lone surrogate). Write the whole character, or remove it.";

        private int _categories;
        private int _characters;

        public List<Problem> Problems { get; } = [];

        public Platform Platform(JsonElement json, string path)
        {
            if (!IsObject(json, path))
                json = JsonDocument.Parse("{}").RootElement;
            OnlyKeys(json, path, "id", "name", "about", "language", "spelling", "search", "fields", "banned", "checks", "$schema");
            var id = Text(json, path, "id", "");
            if (id.Any(c => !(char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c == '-')))
                Wrong($"{path}.id", "Use lower-case letters, digits and hyphens only.");
            var search = Search(json, path);
            var fields = new List<Field>();
            if (Child(json, "fields") is not { } list)
                Wrong($"{path}.fields", "Add at least one field.");
            else if (IsList(list, $"{path}.fields"))
                foreach (var (field, i) in Bounded(list, $"{path}.fields", Bounds.PlatformFields).Select((f, i) => (f, i)))
                    if (IsObject(field, $"{path}.fields[{i}]"))
                        fields.Add(Field(field, $"{path}.fields[{i}]", fields));
            var checks = new Dictionary<string, double>();
            if (Child(json, "checks") is { } given && IsObject(given, $"{path}.checks"))
                foreach (var (name, value) in Entries(given, $"{path}.checks", Bounds.PlatformList))
                    if (value.ValueKind == JsonValueKind.Number && Math.Abs(value.GetDouble()) <= HighestThreshold)
                        checks[name] = value.GetDouble();
                    else
                        Wrong($"{path}.checks.{name}", $"A threshold is a number up to {HighestThreshold:#,0}.");
            return new(id, Text(json, path, "name", id), Text(json, path, "about", ""), Text(json, path, "language", "en"),
                Child(json, "spelling") is { ValueKind: not JsonValueKind.Null } ? Text(json, path, "spelling", "") : null,
                search, fields, Terms(json, path, "banned"), checks);
        }

        public Dictionary<string, FieldValue> Copy(JsonElement json, Platform platform, string path)
        {
            var copy = new Dictionary<string, FieldValue>();
            if (!IsObject(json, path))
                return copy;
            foreach (var (name, given) in Entries(json, path, Bounds.PlatformFields))
            {
                var at = $"{path}.{name}";
                if (platform.Find(name) is not { } field)
                    Wrong(at, $"{(platform.Name.Length > 0 ? platform.Name : "The platform")} has no field \"{name}\".");
                else if (given.ValueKind != JsonValueKind.Null && Value(given, field, at) is { } value)
                    copy[name] = value;
            }

            if (bounded && _characters > Bounds.CopyLength)
                Wrong(path, $"All texts together have {_characters:#,0} characters; the most is {Bounds.CopyLength:#,0}.");
            return copy;
        }

        private FieldValue? Value(JsonElement json, Field field, string at)
        {
            switch (json.ValueKind)
            {
                case JsonValueKind.String when field.Shape == FieldShape.Choices:
                    return WrongValue(at, "Attributes are an object of names and values.");
                case JsonValueKind.String when field.Shape is FieldShape.Lines or FieldShape.Phrases:
                    return Said(json, at, Bounds.TextLength) is { } one ? new FieldValue.Items([one]) : null;
                case JsonValueKind.String:
                    return Said(json, at, Bounds.TextLength) is { } text ? new FieldValue.Text(text) : null;
                case JsonValueKind.Array when field.Shape is FieldShape.Line or FieldShape.Text or FieldShape.Rich or FieldShape.Choices:
                    return WrongValue(at, field.Shape == FieldShape.Choices ? "Attributes are an object of names and values." : "This field is one text, not a list.");
                case JsonValueKind.Array:
                    return Strings(json, at, Bounds.Items, Bounds.TextLength) is { } items ? new FieldValue.Items(items) : null;
                case JsonValueKind.Object when field.Shape == FieldShape.Choices:
                    var choices = new Dictionary<string, IReadOnlyList<string>>();
                    foreach (var (name, choice) in Entries(json, at, Bounds.Attributes))
                        if (choice.ValueKind == JsonValueKind.String)
                            choices[name] = Said(choice, $"{at}.{name}", Bounds.TextLength) is { } said ? [said] : [];
                        else if (choice.ValueKind == JsonValueKind.Array && Strings(choice, $"{at}.{name}", Bounds.Items, Bounds.TextLength) is { } values)
                            choices[name] = values;
                        else if (choice.ValueKind != JsonValueKind.Array)
                            Wrong($"{at}.{name}", "A value is a text or a list of texts.");
                    return new FieldValue.Choices(choices);
                default:
                    return WrongValue(at, field.Shape == FieldShape.Choices ? "Attributes are an object of names and values." : "This field is a text or a list of texts.");
            }
        }

        private SearchRules Search(JsonElement json, string path)
        {
            if (Child(json, "search") is not { } search || !IsObject(search, $"{path}.search"))
                return new(Folds.None, [], false, 0);
            OnlyKeys(search, $"{path}.search", "folds", "ignoredWords", "wordsCombine", "indexDelayHours");
            var folds = Folds.None;
            foreach (var (name, i) in Texts(search, $"{path}.search", "folds").Select((n, i) => (n, i)))
            {
                var known = Fold.All.FirstOrDefault(f => Fold.Name(f) == name);
                if (known == Folds.None)
                    Wrong($"{path}.search.folds[{i}]", $"\"{name}\" is no fold; there are {string.Join(", ", Fold.All.Select(Fold.Name))}.");
                folds |= known;
            }

            return new(folds, Terms(search, $"{path}.search", "ignoredWords"), Flag(search, $"{path}.search", "wordsCombine"),
                Number(search, $"{path}.search", "indexDelayHours", 0, 10_000) ?? 0);
        }

        private Field Field(JsonElement json, string path, List<Field> before)
        {
            OnlyKeys(json, path, "key", "label", "role", "shape", "indexed", "indexedFirst", "weight", "front", "required", "limit", "shows", "separator", "tree", "attributes");
            var key = Text(json, path, "key", "");
            if (key.Length == 0)
                Wrong($"{path}.key", "Enter a key.");
            else if (before.Any(f => f.Key == key))
                Wrong($"{path}.key", $"Two fields have the key \"{key}\".");
            var shape = Choice<FieldShape>(json, path, "shape", null);
            var indexed = Flag(json, path, "indexed");
            var weight = Number(json, path, "weight", 0, 1);
            if (indexed && weight is null && Child(json, "weight") is null)
                Wrong($"{path}.weight", "A searched field needs a weight from 0 to 1.");
            return new(key, Text(json, path, "label", key), Text(json, path, "role", ""), shape ?? FieldShape.Line, indexed,
                Whole(json, path, "indexedFirst", 0), weight ?? 0, Flag(json, path, "front"), Flag(json, path, "required"),
                ReadLimit(json, path), Whole(json, path, "shows", 1),
                Text(json, path, "separator", shape is FieldShape.Lines or FieldShape.Text ? "\n" : shape == FieldShape.Words ? " " : ", "))
            {
                Tree = Tree(json, path, "tree"),
                Attributes = [.. Objects(json, path, "attributes").Select(a =>
                {
                    OnlyKeys(a.Json, a.Path, "name", "options", "category");
                    return new AttributeRule(Named(a.Json, a.Path), Texts(a.Json, a.Path, "options"), Child(a.Json, "category") is { ValueKind: not JsonValueKind.Null } ? Text(a.Json, a.Path, "category", "") : null);
                })],
            };
        }

        private List<Category> Tree(JsonElement json, string path, string key, int level = 1)
        {
            if (bounded && level > Bounds.CategoryLevels && Child(json, key) is not null)
            {
                Wrong($"{path}.{key}", $"Categories have at most {Bounds.CategoryLevels} levels.");
                return [];
            }

            return [.. Objects(json, path, key).Select(c =>
            {
                OnlyKeys(c.Json, c.Path, "name", "under");
                if (bounded && ++_categories == Bounds.Categories + 1)
                    Wrong(c.Path, $"A platform has at most {Bounds.Categories:#,0} categories.");
                return new Category(Named(c.Json, c.Path), Tree(c.Json, c.Path, "under", level + 1));
            })];
        }

        private string Named(JsonElement json, string path)
        {
            var name = Text(json, path, "name", "");
            if (name.Trim().Length == 0)
                Wrong($"{path}.name", "Enter a name.");
            return name.Trim();
        }

        private List<(JsonElement Json, string Path)> Objects(JsonElement json, string path, string key)
        {
            if (Child(json, key) is not { ValueKind: not JsonValueKind.Null } list || !IsList(list, $"{path}.{key}"))
                return [];
            return [.. Bounded(list, $"{path}.{key}", Bounds.PlatformList).Select((o, i) => (o, $"{path}.{key}[{i}]")).Where(o => IsObject(o.o, o.Item2))];
        }

        private Limit? ReadLimit(JsonElement json, string path)
        {
            if (Child(json, "limit") is not { ValueKind: not JsonValueKind.Null } limit || !IsObject(limit, $"{path}.limit"))
                return null;
            OnlyKeys(limit, $"{path}.limit", "max", "unit", "maxItems");
            var max = Whole(limit, $"{path}.limit", "max", 1);
            var most = Whole(limit, $"{path}.limit", "maxItems", 1);
            if (max is null && most is null && Child(limit, "max") is null && Child(limit, "maxItems") is null)
                Wrong($"{path}.limit", "A limit needs max, maxItems or both.");
            return new(max, Choice<Unit>(limit, $"{path}.limit", "unit", Unit.Characters) ?? Unit.Characters, most);
        }

        private static JsonElement? Child(JsonElement json, string key)
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

        private string Text(JsonElement json, string path, string key, string otherwise)
        {
            if (Child(json, key) is not { ValueKind: not JsonValueKind.Null } child)
                return otherwise;
            if (child.ValueKind == JsonValueKind.String)
                return Said(child, $"{path}.{key}", Bounds.ProfileText) ?? otherwise;
            Wrong($"{path}.{key}", "This is a text.");
            return otherwise;
        }

        private bool Flag(JsonElement json, string path, string key)
        {
            if (Child(json, key) is not { } child || child.ValueKind is JsonValueKind.True or JsonValueKind.False)
                return Child(json, key)?.ValueKind == JsonValueKind.True;
            Wrong($"{path}.{key}", "This is true or false.");
            return false;
        }

        private double? Number(JsonElement json, string path, string key, double least, double most)
        {
            if (Child(json, key) is not { } child)
                return null;
            if (child.ValueKind == JsonValueKind.Number && child.GetDouble() is var number && number >= least && number <= most)
                return number;
            Wrong($"{path}.{key}", $"Enter a number from {least} to {most}.");
            return null;
        }

        private int? Whole(JsonElement json, string path, string key, int least)
        {
            if (Child(json, key) is not { ValueKind: not JsonValueKind.Null } child)
                return null;
            if (child.ValueKind == JsonValueKind.Number && child.TryGetInt32(out var number) && number >= least)
                return number;
            Wrong($"{path}.{key}", $"Enter a whole number, {least} or more.");
            return null;
        }

        private T? Choice<T>(JsonElement json, string path, string key, T? otherwise) where T : struct, Enum
        {
            if (Child(json, key) is not { } child)
            {
                if (otherwise is null)
                    Wrong($"{path}.{key}", $"Required: use one of {Names<T>()}.");
                return otherwise;
            }

            if (child.ValueKind == JsonValueKind.String)
                foreach (var value in Enum.GetValues<T>())
                    if (child.ValueEquals(Lower(value)))
                        return value;
            Wrong($"{path}.{key}", $"Use one of {Names<T>()}.");
            return null;
        }

        private static string Names<T>() where T : struct, Enum => string.Join(", ", Enum.GetValues<T>().Select(Lower));

        private IReadOnlyList<string> Texts(JsonElement json, string path, string key) =>
            Child(json, key) is { } child && IsList(child, $"{path}.{key}") ? Strings(child, $"{path}.{key}", Bounds.PlatformList, Bounds.ProfileText) ?? [] : [];

        // Phrases that are looked for as search terms are.
        private IReadOnlyList<string> Terms(JsonElement json, string path, string key)
        {
            var terms = Texts(json, path, key);
            for (var i = 0; bounded && i < terms.Count; i++)
                if (terms[i].Length > Bounds.TermLength || Tokens.Of(terms[i]).Count > Bounds.TermWords)
                    Wrong($"{path}.{key}[{i}]", $"A phrase has at most {Bounds.TermWords} words and {Bounds.TermLength} characters.");
            return terms;
        }

        private List<string>? Strings(JsonElement list, string path, int mostItems, int longest)
        {
            var texts = new List<string>();
            var right = true;
            foreach (var (item, i) in Bounded(list, path, mostItems).Select((x, i) => (x, i)))
                if (item.ValueKind == JsonValueKind.String && Said(item, $"{path}[{i}]", longest) is { } text)
                    texts.Add(text);
                else if (item.ValueKind == JsonValueKind.String)
                    right = false;
                else
                    right = Wrong($"{path}[{i}]", "This is a text.");
            return right ? texts : null;
        }

        // JSON can spell half of a surrogate pair; no text has that.
        private string? Said(JsonElement text, string path, int longest)
        {
            try
            {
                var said = text.GetString()!;
                _characters += said.Length;
                if (!bounded || said.Length <= longest)
                    return said;
                Wrong(path, $"This text has {said.Length:#,0} characters; the most is {longest:#,0}.");
                return null;
            }
            catch (InvalidOperationException)
            {
                Wrong(path, HalfCharacter);
                return null;
            }
        }

        private IEnumerable<JsonElement> Bounded(JsonElement list, string path, int most)
        {
            if (!bounded || list.GetArrayLength() <= most)
                return list.EnumerateArray();
            Wrong(path, $"This list has {list.GetArrayLength():#,0} items; the most is {most:#,0}.");
            return [];
        }

        private List<(string Name, JsonElement Value)> Entries(JsonElement json, string path, int most)
        {
            var entries = new List<(string, JsonElement)>();
            foreach (var entry in json.EnumerateObject())
                try
                {
                    if (bounded && entries.Count == most)
                    {
                        Wrong(path, $"This object has more than {most:#,0} keys, which is the most.");
                        break;
                    }

                    var name = entry.Name;
                    if (!bounded || name.Length <= Bounds.ProfileText)
                        entries.Add((name, entry.Value));
                    else
                        Wrong(path, $"A key has {name.Length:#,0} characters; the most is {Bounds.ProfileText:#,0}.");
                }
                catch (InvalidOperationException)
                {
                    Wrong(path, HalfCharacter);
                }

            return entries;
        }

        private void OnlyKeys(JsonElement json, string path, params string[] keys)
        {
            foreach (var (name, _) in Entries(json, path, keys.Length + 1))
                if (!keys.Contains(name))
                    Wrong($"{path}.{name}", $"There is no such key here; there are {string.Join(", ", keys.Where(k => k[0] != '$'))}.");
        }

        private bool IsObject(JsonElement json, string path) => json.ValueKind == JsonValueKind.Object || Wrong(path, "This is an object, in braces.");

        private bool IsList(JsonElement json, string path) => json.ValueKind == JsonValueKind.Array || Wrong(path, "This is a list, in square brackets.");

        private FieldValue? WrongValue(string path, string message)
        {
            Wrong(path, message);
            return null;
        }

        private bool Wrong(string path, string message)
        {
            Problems.Add(new(path, message));
            return false;
        }
    }
}
