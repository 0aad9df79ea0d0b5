using System.Diagnostics;
using System.Text;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>
/// Asks every endpoint that the OpenAPI document describes with requests made from its schemas and then mutated: wrong types, missing and
/// extra members, texts and lists beyond every bound, numbers out of range, broken JSON. The same seed asks the same.
/// </summary>
public sealed class Fuzz(HttpClient client, JsonNode document, int seed)
{
    /// <summary>What was asked, and what is wrong with the answer.</summary>
    public sealed record Finding(string Asked, string Wrong);

    private const string TooLong = "took";
    private const int MostMutated = 1_000_000;
    private static readonly string[] Methods = ["get", "post", "put", "delete"];

    // These replace the shop or its backups, so a fuzz that calls them would test another shop.
    private static readonly string[] Left = ["RestoreBackup", "BackUp", "DeleteProduct", "DeleteListing"];

    private static readonly string[] Markets = ["hedgerow-fair-us", "longbarrow-gb", "nowhere", "", "\u0000", "web-us"];
    private static readonly string[] Texts =
    [
        "",
        " ",
        "bird house",
        "cedar bird house kit",
        "…",
        "pájaros",
        "🐦",
        "\ud83d",
        "a\u0000b",
        "../../etc/passwd",
        "=1+1",
        "<script>",
        "%00",
        "''; DROP TABLE Terms; --",
        "999999999999999999999",
        "es",
        "title",
        "longbarrow",
        "hedgerow-fair",
        "2025-01",
        "9999-12",
        "0001-01",
        "csv",
        "\n\n\n",
        "\u202e",
        "ﬃ",
        "İ",
        "1e400",
        "null",
        "utf-8",
        "utf-7",
        ",",
        "ab",
        "\"",
    ];

    private static readonly string[] Raw =
    [
        "",
        "{",
        "null",
        "[]",
        "{}",
        "7",
        "\"x\"",
        "\u0000",
        "{\"a\":1e400}",
        "{\"\\ud83d\":1}",
        "{\"fields\":{\"\\ud83d\":\"x\"},\"marketId\":\"longbarrow-us\"}",
        "{\"fields\":{\"title\":\"\\ud83d\"},\"revision\":0}",
        "{\"platform\":{\"\\ud83d\":1},\"fields\":{},\"terms\":[]}",
        "{\"platform\":\"longbarrow\",\"fields\":{\"attributes\":{\"\\ud83d\":\"x\"}},\"terms\":[{\"text\":\"a\",\"volume\":1e400}]}",
        "{\"months\":[1,2,3,4,5,6,7,8,9,10,11,12],\"from\":\"9999-12\"}",
        "{\"months\":[1e400,1,1,1,1,1,1,1,1,1,1,1],\"from\":\"2025-01\"}",
        "{\"profile\":{\"id\":\"x\",\"checks\":{\"unusedShare\":1e400},\"fields\":[]}}",
    ];

    private readonly Random _random = new(seed);
    private readonly Dictionary<string, KnownRequest> _known = [];
    private readonly JsonObject _schemas = document["components"]!["schemas"]!.AsObject();

    /// <summary>How many requests were made.</summary>
    public int Asked { get; private set; }

    /// <summary>How many of them were done, not refused.</summary>
    public int Done { get; private set; }

    /// <summary>The endpoints that did a request before it was mutated.</summary>
    public HashSet<string> Known { get; } = [];

    /// <summary>Those that a fuzz asks.</summary>
    public IReadOnlyList<string> Endpoints =>
        [
            .. document["paths"]!
                .AsObject()
                .SelectMany(p => p.Value!.AsObject())
                .Where(m => Methods.Contains(m.Key))
                .Select(m => m.Value!["operationId"]!.GetValue<string>())
                .Except(Left),
        ];

    /// <summary>Asks each endpoint what it does, once: what is mutated afterwards gets past the door.</summary>
    /// <returns>What was refused, and why.</returns>
    public async Task<List<Finding>> AskKnown()
    {
        var methods = document["paths"]!
            .AsObject()
            .SelectMany(p => p.Value!.AsObject())
            .Where(m => Methods.Contains(m.Key))
            .ToDictionary(m => m.Value!["operationId"]!.GetValue<string>(), m => m.Key);
        var refused = new List<Finding>();
        await foreach (var known in new KnownRequests(client).All())
        {
            using var request = new HttpRequestMessage(new(methods[known.Operation]), known.Address);
            request.Content =
                known.Body is { } body ? new StringContent(body.ToJsonString(), Encoding.UTF8, "application/json")
                : known.File is { } file ? new ByteArrayContent(file)
                : null;
            using var response = await client.SendAsync(request);
            Asked++;
            if (!response.IsSuccessStatusCode)
            {
                refused.Add(
                    new(
                        $"{methods[known.Operation]} {known.Address}",
                        $"{(int)response.StatusCode}: {Short(await response.Content.ReadAsStringAsync())}"
                    )
                );
                continue;
            }

            Done++;
            Known.Add(known.Operation);
            _known[known.Operation] = known;
        }

        return refused;
    }

    /// <summary>The longest that an answer took.</summary>
    public TimeSpan Longest { get; private set; }

    /// <summary>Asks each endpoint so many times.</summary>
    /// <returns>What is wrong: an answer of 500, one that names a .NET type, one after more than five seconds.</returns>
    public async Task<List<Finding>> Run(int timesEach)
    {
        var found = new List<Finding>();
        foreach (var (path, methods) in document["paths"]!.AsObject())
        foreach (
            var (method, operation) in methods!
                .AsObject()
                .Where(m => Methods.Contains(m.Key) && !Left.Contains(m.Value!["operationId"]?.GetValue<string>()))
        )
            for (var i = 0; i < timesEach; i++)
                if (await Ask(path, method, operation!, i) is { } wrong)
                    found.Add(wrong);
        return found;
    }

    private async Task<Finding?> Ask(string path, string method, JsonNode operation, int turn)
    {
        // Half of them begin with one that is done.
        var known = _known.GetValueOrDefault(operation["operationId"]?.GetValue<string>() ?? "");
        var (address, body) =
            known is not null && _random.Next(2) == 0
                ? (known.Address, known.Body is { } good ? Written(Mutate(good.DeepClone(), 0)) : null)
                : (Address(path, operation), Body(operation, turn));
        var wrong = await Ask(method, address, body);
        // A machine that was busy for a moment is no fault: what took too long is asked once more.
        return wrong?.Wrong.StartsWith(TooLong, StringComparison.Ordinal) == true ? await Ask(method, address, body) : wrong;
    }

    private async Task<Finding?> Ask(string method, string address, string? body)
    {
        using var request = new HttpRequestMessage(new(method), address);
        if (body is not null)
            request.Content = new ByteArrayContent(Encoding.UTF8.GetBytes(body)) { Headers = { { "Content-Type", "application/json" } } };
        var asked =
            $"{method.ToUpperInvariant()} {address} {(body is null ? "" : body.Length > 300 ? body[..300] + $"… ({body.Length:#,0} characters)" : body)}";
        var clock = Stopwatch.StartNew();
        Asked++;
        using var response = await client.SendAsync(request, HttpCompletionOption.ResponseContentRead);
        var text = await response.Content.ReadAsStringAsync();
        var took = clock.Elapsed;
        Longest = took > Longest ? took : Longest;
        var status = (int)response.StatusCode;
        Done += response.IsSuccessStatusCode ? 1 : 0;
        if (status is 500 or 501 or 502)
            return new(asked, $"{status}: {Short(text)}");
        if (took > TimeSpan.FromMinutes(1))
            return new(asked, $"{TooLong} {took.TotalSeconds:F1} s");
        if (
            status is >= 400 and not 404 and not 405 and not 415
            && (text.Contains("System.", StringComparison.Ordinal) || text.Contains("TinRabbit.Server", StringComparison.Ordinal))
        )
            return new(asked, $"names a type: {Short(text)}");
        return null;
    }

    private string Address(string path, JsonNode operation)
    {
        var address = path;
        var query = new List<string>();
        foreach (var parameter in operation["parameters"]?.AsArray() ?? [])
        {
            var name = parameter!["name"]!.GetValue<string>();
            var value = Uri.EscapeDataString(
                WithoutLoneSurrogates(
                    name switch
                    {
                        "marketId" => Pick(Markets),
                        "id" or "stepId" or "readingId" or "version" or "change" => Pick("1", "2", "3", "999999", "-1", "99999999999", "x"),
                        _ => Pick(Texts),
                    }
                )
            );
            // No client sends an empty part of a path, nor one with NUL.
            if (parameter["in"]!.GetValue<string>() == "path")
                address = address.Replace(
                    $"{{{name}}}",
                    value.Length > 0 ? value.Replace("%00", "x", StringComparison.Ordinal) : "x",
                    StringComparison.Ordinal
                );
            else if (_random.Next(4) > 0)
                query.Add($"{name}={value}");
        }

        return query.Count > 0 ? $"{address}?{string.Join('&', query)}" : address;
    }

    private string? Body(JsonNode operation, int turn)
    {
        if (operation["requestBody"]?["content"]?.AsObject() is not { Count: > 0 } content)
            return null;
        if (turn < Raw.Length && _random.Next(3) == 0)
            return Pick(Raw);
        var schema = content.First().Value?["schema"];
        var body = schema is null ? JsonValue.Create(Pick(Texts)) : Make(schema, 0);
        for (var mutations = turn == 0 ? 0 : _random.Next(4); mutations > 0; mutations--)
            body = Mutate(body, 0);
        return Written(body);
    }

    private string Written(JsonNode? body)
    {
        try
        {
            return body?.ToJsonString() ?? "null";
        }
        catch (Exception e) when (e is ArgumentException or InvalidOperationException)
        {
            return Pick(Raw); // a text that no JSON can hold
        }
    }

    private JsonNode? Make(JsonNode schema, int depth)
    {
        if (schema["$ref"]?.GetValue<string>() is { } reference)
            return _schemas[reference[(reference.LastIndexOf('/') + 1)..]] is { } named && depth < 8 ? Make(named, depth + 1) : null;
        if (schema["oneOf"]?.AsArray() is { Count: > 0 } choices)
            return Make(choices[_random.Next(choices.Count)]!, depth + 1);
        if (schema["enum"]?.AsArray() is { Count: > 0 } values)
            return values[_random.Next(values.Count)]?.DeepClone();
        var types = schema["type"] switch
        {
            JsonArray several => several.Select(t => t!.GetValue<string>()).ToArray(),
            { } one => [one.GetValue<string>()],
            _ => [],
        };
        if (types.Contains("null") && _random.Next(4) == 0)
            return null;
        return types.FirstOrDefault(t => t != "null") switch
        {
            "string" => Safe(Pick(Texts)),
            "integer" => _random.Next(4) switch
            {
                0 => 0,
                1 => _random.Next(-5, 50),
                2 => int.MaxValue,
                _ => _random.Next(1, 5),
            },
            "number" => _random.Next(3) switch
            {
                0 => 0,
                1 => _random.NextDouble() * 10_000,
                _ => -1.5,
            },
            "boolean" => _random.Next(2) == 0,
            "array" => new JsonArray([
                .. Enumerable
                    .Range(0, _random.Next(5))
                    .Select(_ => schema["items"] is { } items ? Make(items, depth + 1) : JsonValue.Create("x")),
            ]),
            "object" => new JsonObject(
                (schema["properties"]?.AsObject() ?? []).Select(p =>
                    KeyValuePair.Create(p.Key, p.Key is "marketId" ? JsonValue.Create(Markets[_random.Next(2)]) : Make(p.Value!, depth + 1))
                )
            ),
            _ => Anything(), // a whole document: a profile, or fields
        };
    }

    // Platforms and fields are documents of their own.
    private JsonNode? Anything() =>
        _random.Next(6) switch
        {
            0 => JsonValue.Create(Pick("longbarrow", "hedgerow-fair", "nowhere")),
            1 => new JsonObject
            {
                ["title"] = Safe(Pick(Texts)),
                ["tags"] = new JsonArray("bird house", Safe(Pick(Texts))),
                ["description"] = Safe(Pick(Texts)),
            },
            2 => JsonNode.Parse(
                """{"id":"fuzzed","name":"F","fields":[{"key":"title","shape":"line","role":"title","indexed":true,"weight":0.8,"limit":{"max":60}},{"key":"b","shape":"words","indexed":true,"weight":0.3}],"search":{"folds":["plural","compound"],"wordsCombine":true}}"""
            ),
            3 => new JsonObject { ["title"] = new string('x', _random.Next(3) * 120_000), ["nowhere"] = 1 },
            4 => new JsonObject(),
            _ => JsonNode.Parse(
                """{"id":"x","fields":[{"key":"t","shape":"line","limit":{"max":-1}}],"banned":["""
                    + string.Join(',', Enumerable.Repeat("\"a b\"", _random.Next(3000)))
                    + "]}"
            ),
        };

    private JsonNode? Mutate(JsonNode? node, int depth)
    {
        if (node is JsonObject { Count: > 0 } members && _random.Next(4) > 0 && depth < 8)
        {
            var key = members.ElementAt(_random.Next(members.Count)).Key;
            switch (_random.Next(6))
            {
                case 0:
                    members.Remove(key);
                    break;
                case 1:
                    members[Pick("extra", "", "__proto__", "x\u0000")] = Wild();
                    break;
                default:
                    var value = members[key];
                    members.Remove(key);
                    members[key] = Mutate(value, depth + 1);
                    break;
            }

            return members;
        }

        if (node is JsonArray { Count: > 0 } items && _random.Next(3) > 0 && depth < 8)
        {
            var at = _random.Next(items.Count);
            if (_random.Next(5) == 0)
            {
                var copy = items[at];
                var most = _random.Next(2) == 0 ? 3000 : 25_000;
                // Thousands of what is large already would be gigabytes.
                for (var many = Math.Min(most, MostMutated / (1 + SizeOf(copy))); many > 0; many--)
                    items.Add(copy?.DeepClone());
            }
            else
            {
                var value = items[at];
                items[at] = null;
                items[at] = Mutate(value, depth + 1);
            }

            return items;
        }

        return Wild();
    }

    // In characters and nodes: also what holds nothing takes room.
    private static int SizeOf(JsonNode? node) =>
        node switch
        {
            JsonObject members => 10 + members.Sum(m => m.Key.Length + SizeOf(m.Value)),
            JsonArray items => 10 + items.Sum(SizeOf),
            JsonValue value when value.TryGetValue<string>(out var text) => 10 + text.Length,
            _ => 10,
        };

    private JsonNode? Wild() =>
        _random.Next(14) switch
        {
            0 => null,
            1 => JsonValue.Create(long.MaxValue),
            2 => JsonValue.Create(-1),
            3 => JsonValue.Create(1e308),
            4 => JsonValue.Create(true),
            5 => new JsonArray(),
            6 => new JsonObject(),
            7 => JsonValue.Create(string.Join(' ', Enumerable.Repeat("bird", 20_000))),
            8 => JsonValue.Create(new string('a', 300_000)),
            9 => JsonValue.Create(string.Concat(Enumerable.Repeat("nest-box ", 15_000))),
            10 => new JsonArray([.. Enumerable.Range(0, 30_000).Select(i => (JsonNode?)JsonValue.Create(i))]),
            11 => Deep(),
            12 => JsonValue.Create(0.1),
            _ => Safe(Pick(Texts)),
        };

    private static JsonNode Deep()
    {
        JsonNode node = new JsonArray();
        for (var i = 0; i < 58; i++)
            node = new JsonArray(node);
        return node;
    }

    private static JsonValue Safe(string text) => JsonValue.Create(WithoutLoneSurrogates(text));

    private static string WithoutLoneSurrogates(string text) => new([.. text.Where(c => !char.IsSurrogate(c))]);

    private string Pick(params string[] texts) => texts[_random.Next(texts.Length)];

    private static string Short(string text) => text.Length > 400 ? text[..400] + "…" : text;
}
