using System.Text.Json;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Platforms;

/// <summary>Reads a platform profile, validating each key.</summary>
internal sealed class PlatformReader(JsonReader json)
{
    private const double HighestThreshold = 1_000_000;
    private const string RepeatsPay = "titleRepeatsPay";

    private readonly JsonReader _json = json;
    private int _categories;

    /// <summary>The profile.</summary>
    public Platform Read(JsonElement json, string path)
    {
        if (!_json.IsObject(json, path))
            json = JsonDocument.Parse("{}").RootElement;
        _json.OnlyKeys(
            json,
            path,
            "id",
            "name",
            "about",
            "language",
            "spelling",
            "search",
            "fields",
            "banned",
            "checks",
            "capitals",
            "searchAddress",
            "listingAddress",
            "$schema"
        );
        var id = _json.Text(json, path, "id", "");
        if (id.Any(c => !(char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c == '-')))
            _json.AddProblem($"{path}.id", "Use lower-case letters, digits and hyphens only.");
        var search = ReadSearch(json, path);
        var fields = new List<Field>();
        if (JsonReader.Child(json, "fields") is not { } list)
            _json.AddProblem($"{path}.fields", "Add at least one field.");
        else if (_json.IsList(list, $"{path}.fields"))
            foreach (var (field, i) in _json.Limited(list, $"{path}.fields", Bounds.PlatformFields).Select((f, i) => (f, i)))
                if (_json.IsObject(field, $"{path}.fields[{i}]"))
                    fields.Add(ReadField(field, $"{path}.fields[{i}]", fields));
        var checks = new Dictionary<string, double>();
        if (JsonReader.Child(json, "checks") is { } given && _json.IsObject(given, $"{path}.checks"))
            foreach (var (name, value) in _json.Entries(given, $"{path}.checks", Bounds.PlatformList))
                if (value.ValueKind == JsonValueKind.Number && Math.Abs(value.GetDouble()) <= HighestThreshold)
                    AddThreshold(checks, name, value.GetDouble());
                else
                    _json.AddProblem($"{path}.checks.{name}", $"A threshold is a number up to {HighestThreshold:#,0}.");
        return new(
            id,
            _json.Text(json, path, "name", id),
            _json.Text(json, path, "about", ""),
            _json.Text(json, path, "language", "en"),
            JsonReader.Child(json, "spelling") is { ValueKind: not JsonValueKind.Null } ? _json.Text(json, path, "spelling", "") : null,
            search,
            fields,
            ReadPhrases(json, path, "banned"),
            checks
        )
        {
            Capitals = _json.Choice<CapitalStyle>(json, path, "capitals", CapitalStyle.Sentence) ?? CapitalStyle.Sentence,
            SearchAddress = ReadAddress(json, path, "searchAddress", "{term}"),
            ListingAddress = ReadAddress(json, path, "listingAddress", "{id}"),
        };
    }

    // Profiles written before a word could come twice in a title said only whether repeats pay.
    private static void AddThreshold(Dictionary<string, double> checks, string name, double value)
    {
        if (name == RepeatsPay)
            checks.TryAdd(Findings.ListingToCheck.TitleWordUses, value > 0 ? 2 : 1);
        else
            checks[name] = value;
    }

    // An address of the web with a place for what it is about.
    private string? ReadAddress(JsonElement json, string path, string key, string place)
    {
        if (_json.Text(json, path, key, "").Trim() is not { Length: > 0 } address)
            return null;
        if (
            address.Contains(place, StringComparison.Ordinal)
            && Uri.TryCreate(address.Replace(place, "x", StringComparison.Ordinal), UriKind.Absolute, out var uri)
            && uri.Scheme is "http" or "https"
        )
            return address;
        _json.AddProblem($"{path}.{key}", $"This is an address that begins with https:// and contains {place}.");
        return null;
    }

    private SearchRules ReadSearch(JsonElement json, string path)
    {
        if (JsonReader.Child(json, "search") is not { } search || !_json.IsObject(search, $"{path}.search"))
            return new(Folds.None, [], false, 0);
        _json.OnlyKeys(search, $"{path}.search", "folds", "ignoredWords", "wordsCombine", "indexDelayHours");
        var folds = Folds.None;
        foreach (var (name, i) in _json.Texts(search, $"{path}.search", "folds").Select((n, i) => (n, i)))
        {
            var known = Fold.All.FirstOrDefault(f => Fold.Name(f) == name);
            if (known == Folds.None)
                _json.AddProblem(
                    $"{path}.search.folds[{i}]",
                    $"\"{name}\" is no fold; there are {string.Join(", ", Fold.All.Select(Fold.Name))}."
                );
            folds |= known;
        }

        return new(
            folds,
            ReadPhrases(search, $"{path}.search", "ignoredWords"),
            _json.Flag(search, $"{path}.search", "wordsCombine"),
            _json.Number(search, $"{path}.search", "indexDelayHours", 0, 10_000) ?? 0
        );
    }

    private Field ReadField(JsonElement json, string path, List<Field> before)
    {
        _json.OnlyKeys(
            json,
            path,
            "key",
            "label",
            "role",
            "shape",
            "indexed",
            "indexedFirst",
            "weight",
            "front",
            "required",
            "limit",
            "shows",
            "separator",
            "tree",
            "attributes"
        );
        var key = _json.Text(json, path, "key", "");
        if (key.Length == 0)
            _json.AddProblem($"{path}.key", "Enter a key.");
        else if (before.Any(f => f.Key == key))
            _json.AddProblem($"{path}.key", $"Two fields have the key \"{key}\".");
        var shape = _json.Choice<FieldShape>(json, path, "shape", null);
        var indexed = _json.Flag(json, path, "indexed");
        var weight = _json.Number(json, path, "weight", 0, 1);
        if (indexed && weight is null && JsonReader.Child(json, "weight") is null)
            _json.AddProblem($"{path}.weight", "A searched field needs a weight from 0 to 1.");
        return new(
            key,
            _json.Text(json, path, "label", key),
            _json.Text(json, path, "role", ""),
            shape ?? FieldShape.Line,
            indexed,
            _json.Integer(json, path, "indexedFirst", 0),
            weight ?? 0,
            _json.Flag(json, path, "front"),
            _json.Flag(json, path, "required"),
            ReadLimit(json, path),
            _json.Integer(json, path, "shows", 1),
            _json.Text(
                json,
                path,
                "separator",
                shape is FieldShape.Lines or FieldShape.Text ? "\n"
                    : shape == FieldShape.Words ? " "
                    : ", "
            )
        )
        {
            Tree = ReadTree(json, path, "tree"),
            Attributes =
            [
                .. ReadObjects(json, path, "attributes")
                    .Select(a =>
                    {
                        _json.OnlyKeys(a.Json, a.Path, "name", "options", "category");
                        return new AttributeRule(
                            ReadName(a.Json, a.Path),
                            _json.Texts(a.Json, a.Path, "options"),
                            JsonReader.Child(a.Json, "category") is { ValueKind: not JsonValueKind.Null }
                                ? _json.Text(a.Json, a.Path, "category", "")
                                : null
                        );
                    }),
            ],
        };
    }

    private List<Category> ReadTree(JsonElement json, string path, string key, int level = 1)
    {
        if (_json.IsBounded && level > Bounds.CategoryLevels && JsonReader.Child(json, key) is not null)
        {
            _json.AddProblem($"{path}.{key}", $"Categories have at most {Bounds.CategoryLevels} levels.");
            return [];
        }

        return
        [
            .. ReadObjects(json, path, key)
                .Select(c =>
                {
                    _json.OnlyKeys(c.Json, c.Path, "name", "under");
                    if (_json.IsBounded && ++_categories == Bounds.Categories + 1)
                        _json.AddProblem(c.Path, $"A platform has at most {Bounds.Categories:#,0} categories.");
                    return new Category(ReadName(c.Json, c.Path), ReadTree(c.Json, c.Path, "under", level + 1));
                }),
        ];
    }

    private string ReadName(JsonElement json, string path)
    {
        var name = _json.Text(json, path, "name", "");
        if (name.Trim().Length == 0)
            _json.AddProblem($"{path}.name", "Enter a name.");
        return name.Trim();
    }

    private List<(JsonElement Json, string Path)> ReadObjects(JsonElement json, string path, string key)
    {
        if (JsonReader.Child(json, key) is not { ValueKind: not JsonValueKind.Null } list || !_json.IsList(list, $"{path}.{key}"))
            return [];
        return
        [
            .. _json
                .Limited(list, $"{path}.{key}", Bounds.PlatformList)
                .Select((o, i) => (o, $"{path}.{key}[{i}]"))
                .Where(o => _json.IsObject(o.o, o.Item2)),
        ];
    }

    private Limit? ReadLimit(JsonElement json, string path)
    {
        if (JsonReader.Child(json, "limit") is not { ValueKind: not JsonValueKind.Null } limit || !_json.IsObject(limit, $"{path}.limit"))
            return null;
        _json.OnlyKeys(limit, $"{path}.limit", "max", "unit", "maxItems", "maxPixels", "fontSize");
        var max = _json.Integer(limit, $"{path}.limit", "max", 1);
        var most = _json.Integer(limit, $"{path}.limit", "maxItems", 1);
        if (
            max is null
            && most is null
            && JsonReader.Child(limit, "max") is null
            && JsonReader.Child(limit, "maxItems") is null
            && JsonReader.Child(limit, "maxPixels") is null
        )
            _json.AddProblem($"{path}.limit", "A limit needs max, maxItems or both.");
        return new(max, _json.Choice<Unit>(limit, $"{path}.limit", "unit", Unit.Characters) ?? Unit.Characters, most)
        {
            MaxPixels = _json.Integer(limit, $"{path}.limit", "maxPixels", 1),
            FontSize = _json.Number(limit, $"{path}.limit", "fontSize", 1, 200),
        };
    }

    // Phrases with the bounds of a search term, because they are matched like one.
    private IReadOnlyList<string> ReadPhrases(JsonElement json, string path, string key)
    {
        var terms = _json.Texts(json, path, key);
        for (var i = 0; _json.IsBounded && i < terms.Count; i++)
            if (terms[i].Length > Bounds.TermLength || Tokens.Of(terms[i]).Count > Bounds.TermWords)
                _json.AddProblem(
                    $"{path}.{key}[{i}]",
                    $"A phrase has at most {Bounds.TermWords} words and {Bounds.TermLength} characters."
                );
        return terms;
    }
}
