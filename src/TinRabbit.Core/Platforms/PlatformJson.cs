using System.Text.Json;
using System.Text.Json.Nodes;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Platforms;

/// <summary>Reads and writes platform profiles in their open format.</summary>
public static class PlatformJson
{
    /// <summary>Reads a profile that somebody gives: within <see cref="Bounds"/>.</summary>
    /// <exception cref="InvalidInputException">Some key is missing or wrong, or passes a bound.</exception>
    public static Platform Read(JsonElement json, string path = "platform") => Read(json, path, bounded: true);

    /// <summary>Reads a profile that is stored or shipped. One that was stored before there were bounds may pass them.</summary>
    /// <exception cref="InvalidInputException">The text is no JSON, or some key is missing or wrong.</exception>
    public static Platform Read(string json)
    {
        try
        {
            using var document = JsonDocument.Parse(json);
            return Read(document.RootElement, "platform", bounded: false);
        }
        catch (JsonException e)
        {
            throw new InvalidInputException([new("platform", $"This is not JSON: {e.Message}")]);
        }
    }

    private static Platform Read(JsonElement json, string path, bool bounded)
    {
        var reader = new JsonReader(bounded);
        return reader.ThrowIfWrong(new PlatformReader(reader).Read(json, path));
    }

    /// <summary>Writes a profile.</summary>
    public static JsonObject Write(Platform platform) =>
        new()
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
            ["capitals"] = CamelCase(platform.Capitals),
            ["searchAddress"] = platform.SearchAddress,
            ["listingAddress"] = platform.ListingAddress,
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
            if (limit.MaxPixels is { } pixels)
                room["maxPixels"] = pixels;
            if (limit.FontSize is { } size)
                room["fontSize"] = size;
            json["limit"] = room;
        }

        if (field.Tree.Count > 0)
            json["tree"] = Write(field.Tree);
        if (field.Attributes.Count > 0)
            json["attributes"] = new JsonArray([
                .. field.Attributes.Select(a =>
                {
                    var attribute = new JsonObject { ["name"] = a.Name, ["options"] = Strings(a.Options) };
                    if (a.Category is { } category)
                        attribute["category"] = category;
                    return (JsonNode?)attribute;
                }),
            ]);
        return json;
    }

    private static JsonArray Write(IReadOnlyList<Category> tree) =>
        new([
            .. tree.Select(c =>
            {
                var category = new JsonObject { ["name"] = c.Name };
                if (c.Under.Count > 0)
                    category["under"] = Write(c.Under);
                return (JsonNode?)category;
            }),
        ]);

    private static string CamelCase(CapitalStyle style) => JsonNamingPolicy.CamelCase.ConvertName(style.ToString());

    internal static string Lower<T>(T value)
        where T : struct, Enum => value.ToString().ToLowerInvariant();

    internal static JsonArray Strings(IEnumerable<string> values) => new([.. values.Select(v => (JsonNode?)JsonValue.Create(v))]);
}
