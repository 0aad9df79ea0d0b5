using System.Text;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

public sealed class EngineApiTests(TestShop shop) : IClassFixture<TestShop>
{
    private const string Platform = """
        {"id":"p","name":"P","language":"en","search":{"folds":["diacritics"],"ignoredWords":[],"wordsCombine":true},
         "fields":[{"key":"title","shape":"line","indexed":true,"weight":0.8,"front":true},{"key":"tags","shape":"phrases","indexed":true,"weight":0.6}]}
        """;

    [Fact]
    public async Task Weigh_answers_exactly_as_described()
    {
        var answer = await Weigh(
            $$$"""
            {"platform":{{{Platform}}},"fields":{"title":"🐦 Wren boxes","tags":["cedar wren"]},
             "terms":[{"text":"wren boxes","volume":100},{"text":"wren box","volume":50,"competition":3,"headroom":40,"fit":"good"},{"text":"cedar boxes"}]}
            """
        );
        Assert.Equal(["reach", "grip", "demand", "eligible", "volume", "unknownVolume", "terms"], Keys(answer));
        // The term without a number counts as the lowest quarter of the known: 50.
        Assert.Equal((100 + 50) / (100 + 35 + 50.0) * 100, answer["reach"]!.GetValue<double>(), 9);
        Assert.Equal("partly", answer["demand"]!.GetValue<string>());
        Assert.Equal(
            (2, 100.0, 1),
            (answer["eligible"]!.GetValue<int>(), answer["volume"]!.GetValue<double>(), answer["unknownVolume"]!.GetValue<int>())
        );
        var terms = answer["terms"]!.AsArray();
        Assert.Equal(["text", "grade", "grip", "fields", "missing", "near", "spans"], Keys(terms[0]!));
        Assert.Equal(
            """{"text":"wren boxes","grade":"whole","grip":0.8,"fields":{"title":"whole","tags":"missing"},"missing":[],"near":[],"spans":[{"field":"title","item":0,"start":3,"length":10}]}""",
            terms[0]!.ToJsonString()
        );
        Assert.Equal("""["box"]""", terms[1]!["missing"]!.ToJsonString());
        Assert.Equal("""[{"needs":"box","has":"boxes","fold":"plural"}]""", terms[1]!["near"]!.ToJsonString());
        Assert.Equal("spread", terms[2]!["grade"]!.GetValue<string>());
    }

    [Fact]
    public async Task Words_apart_are_told_only_where_they_are()
    {
        var answer = await Weigh(
            $$$"""
            {"platform":{{{Platform.Replace(
                "\"wordsCombine\":true",
                "\"wordsCombine\":false"
            )}}},"fields":{"title":"wren","tags":["box"]},"terms":[{"text":"wren box","volume":1},{"text":"wren","volume":1}]}
            """
        );
        Assert.True(answer["terms"]![0]!["apart"]!.GetValue<bool>());
        Assert.Null(answer["terms"]![1]!["apart"]);
        Assert.Equal(50, answer["reach"]!.GetValue<double>());
    }

    [Fact]
    public async Task A_stored_platform_is_known_by_its_id()
    {
        var answer = await Weigh(
            """{"platform":"longbarrow","fields":{"title":"Bird houses for the garden"},"terms":[{"text":"bird house in garden","volume":10}]}"""
        );
        Assert.Equal("together", answer["terms"]![0]!["grade"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("""{"platform":"nowhere","fields":{},"terms":[]}""", "platform")]
    [InlineData("""{"fields":{},"terms":[]}""", "platform")]
    [InlineData("""{"platform":"longbarrow","terms":[]}""", "fields")]
    [InlineData("""{"platform":"longbarrow","fields":{}}""", "terms")]
    [InlineData("""{"platform":"longbarrow","fields":{"titel":"x"},"terms":[]}""", "fields.titel")]
    [InlineData("""{"platform":"longbarrow","fields":{"bullets":[1]},"terms":[]}""", "fields.bullets[0]")]
    [InlineData("""{"platform":"longbarrow","fields":{},"terms":[{"text":"bird"},{"text":"–"}]}""", "terms[1].text")]
    [InlineData("""{"platform":"longbarrow","fields":{},"terms":[{"text":"bird","volume":-1}]}""", "terms[0].volume")]
    [InlineData("""{"platform":"longbarrow","fields":{},"terms":[{"text":"bird","fit":"best"}]}""", "terms[0].fit")]
    [InlineData("""{"platform":"longbarrow","fields":{},"terms":[{"volume":5}]}""", "terms[0].text")]
    [InlineData("""{"platform":{"fields":[{"key":"t","shape":"lane"}]},"fields":{},"terms":[]}""", "platform.fields[0].shape")]
    public async Task What_is_wrong_is_a_problem_that_names_the_field(string body, string field)
    {
        using var response = await shop.Client.PostAsync("/api/engine/weigh", new StringContent(body, Encoding.UTF8, "application/json"));
        Assert.Equal(400, (int)response.StatusCode);
        Assert.Equal("application/problem+json", response.Content.Headers.ContentType!.MediaType);
        var problem = JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
        Assert.Contains(field, Keys(problem["errors"]!));
    }

    [Fact]
    public async Task The_api_describes_itself_and_is_well()
    {
        Assert.NotNull((await shop.Get("/openapi/v1.json"))["paths"]!["/api/engine/weigh"]);
        Assert.Equal("ok", await shop.Client.GetStringAsync("/healthz"));
        Assert.Equal(404, (int)(await shop.Client.GetAsync("/api/nothing")).StatusCode);
    }

    [Fact]
    public async Task Shape_answers_exactly_as_described()
    {
        var months = Enumerable.Range(0, 30).Select(i => (i + 4) % 12 is 2 or 3 ? 900 : 120 + i % 3).ToArray();
        var answer = await Ask("shape", $$"""{"months":[{{string.Join(',', months)}}],"from":"2024-05"}""");
        Assert.Equal(["shape", "peakMonths", "change12", "seasonalStrength", "p", "readyBy"], Keys(answer));
        Assert.Equal("seasonal", answer["shape"]!.GetValue<string>());
        Assert.Equal("[3,4]", answer["peakMonths"]!.ToJsonString());
        Assert.Equal("2027-01-18", answer["readyBy"]!.GetValue<string>());
        var burst = await Ask("shape", """{"months":[10,11,10,12,10,11,10,95,11,10,12,10],"from":"2025-01"}""");
        Assert.Equal("one-off", burst["shape"]!.GetValue<string>());
        Assert.Null(burst["seasonalStrength"]);
        Assert.Null(burst["readyBy"]);
    }

    [Theory]
    [InlineData("shape", """{"months":[1,2,3],"from":"2025-01"}""", "months")]
    [InlineData("shape", """{"from":"2025-01"}""", "months")]
    [InlineData("shape", """{"months":[1,2,3,4,5,6,7,8,9,10,-1,null],"from":"2025-01"}""", "months[10]")]
    [InlineData("shape", """{"months":[1,2,3,4,5,6,7,8,9,10,11,12],"from":"January"}""", "from")]
    [InlineData("weave", """{"terms":[{"text":"bird house"}]}""", "terms")]
    [InlineData("weave", """{"terms":[{"text":"bird house"},{"text":"…"}]}""", "terms[1].text")]
    [InlineData("weave", "{}", "terms")]
    public async Task What_is_wrong_with_a_year_or_a_weave_is_named(string what, string body, string field)
    {
        using var response = await shop.Client.PostAsync($"/api/engine/{what}", new StringContent(body, Encoding.UTF8, "application/json"));
        Assert.Equal(400, (int)response.StatusCode);
        Assert.Contains(field, Keys(JsonNode.Parse(await response.Content.ReadAsStringAsync())!["errors"]!));
    }

    [Fact]
    public async Task Weave_answers_with_the_shortest_phrase_and_what_it_serves()
    {
        var answer = await Ask(
            "weave",
            """{"terms":[{"text":"bird house kit","volume":30},{"text":"cedar bird house","volume":12},{"text":"house kit"}]}"""
        );
        Assert.Equal(
            ("cedar bird house kit", true, 42.0, 1),
            (
                answer["text"]!.GetValue<string>(),
                answer["whole"]!.GetValue<bool>(),
                answer["volume"]!.GetValue<double>(),
                answer["unknownVolume"]!.GetValue<int>()
            )
        );
    }

    private Task<JsonNode> Weigh(string body) => Ask("weigh", body);

    private async Task<JsonNode> Ask(string what, string body)
    {
        using var response = await shop.Client.PostAsync($"/api/engine/{what}", new StringContent(body, Encoding.UTF8, "application/json"));
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(response.IsSuccessStatusCode, text);
        return JsonNode.Parse(text)!;
    }

    private static string[] Keys(JsonNode node) => [.. node.AsObject().Select(p => p.Key)];
}

/// <summary>The fills and the check of the engine, over the API.</summary>
public sealed class EngineFillTests : IDisposable
{
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    private static readonly object Platform = new
    {
        id = "p",
        name = "P",
        search = new { folds = new[] { "diacritics", "plural" }, wordsCombine = true },
        fields = new object[]
        {
            new
            {
                key = "title",
                role = "title",
                shape = "line",
                indexed = true,
                weight = 0.8,
                front = true,
                limit = new { max = 40 },
            },
            new
            {
                key = "tags",
                role = "tags",
                shape = "phrases",
                indexed = true,
                weight = 0.6,
                limit = new { maxItems = 2, max = 16 },
            },
            new
            {
                key = "backend",
                role = "backend",
                shape = "words",
                indexed = true,
                weight = 0.4,
                limit = new { max = 18, unit = "bytes" },
            },
        },
    };

    private static readonly object[] Terms =
    [
        new { text = "cedar bird houses", volume = 900 },
        new { text = "pájaro casa", volume = 300 },
        new
        {
            text = "wren box",
            volume = 200,
            fit = "good",
        },
    ];

    [Fact]
    public async Task Moves_answer_exactly_as_described_and_each_gains_what_weighing_says()
    {
        var fields = new { title = "Garden house", tags = new[] { "house box" } };
        var answer = await shop.Post(
            "/api/engine/moves",
            new
            {
                platform = Platform,
                fields,
                terms = Terms,
                lead = "wren box",
                avoid = new[] { "casa" },
                facts = new { what = "bird house", materials = new[] { "oak" } },
                most = 3,
            }
        );
        Assert.Equal(["grip", "reach", "moves", "leftOut"], answer.AsObject().Select(p => p.Key));
        var moves = answer["moves"]!.AsArray();
        Assert.InRange(moves.Select(m => m!["slot"]!.GetValue<string>()).Distinct().Count(), 1, 3);
        Assert.Equal(
            """[{"text":"cedar bird houses","reason":"untrue"},{"text":"pájaro casa","reason":"avoided"}]""",
            System.Text.RegularExpressions.Regex.Unescape(answer["leftOut"]!.ToJsonString())
        );
        foreach (var move in moves)
        {
            Assert.Equal(
                ["kind", "field", "item", "slot", "text", "value", "gain", "reach", "loses"],
                move!.AsObject().Select(p => p.Key) is var keys && keys.Contains("item") ? keys : [.. keys.Take(2), "item", .. keys.Skip(2)]
            );
            var after = System.Text.Json.Nodes.JsonNode.Parse(System.Text.Json.JsonSerializer.Serialize(fields))!;
            after[move["field"]!.GetValue<string>()] = move["value"]!.DeepClone();
            var weighed = await shop.Post(
                "/api/engine/weigh",
                new
                {
                    platform = Platform,
                    fields = after,
                    terms = Terms,
                }
            );
            Assert.Equal(weighed["grip"]!.GetValue<double>() - answer["grip"]!.GetValue<double>(), move["gain"]!.GetValue<double>());
            Assert.Equal(weighed["reach"]!.GetValue<double>() - answer["reach"]!.GetValue<double>(), move["reach"]!.GetValue<double>());
            Assert.DoesNotContain("casa", move.ToJsonString());
            // "Cedar" is no material of the product by its facts.
            Assert.DoesNotContain("cedar", move.ToJsonString());
        }

        var refused = await shop.Post(
            "/api/engine/moves",
            new
            {
                platform = Platform,
                fields,
                terms = Terms,
                most = 501,
            },
            400
        );
        Assert.Contains("1 to 500", refused["detail"]!.GetValue<string>());
    }

    [Fact]
    public async Task Phrases_of_buyers_answer_exactly_as_described()
    {
        object Review(string text, double? stars = null) => new { text, stars };
        var answer = await shop.Post(
            "/api/engine/phrases",
            new { mine = Enumerable.Repeat(Review("It is easy to clean.", 4), 60), theirs = Enumerable.Repeat(Review("A wren came."), 60) }
        );
        var phrase = answer["phrases"]!.AsArray().Single(p => p!["text"]!.GetValue<string>() == "easy to clean")!;
        Assert.Equal(["text", "z", "mine", "theirs", "stars", "sentences"], phrase.AsObject().Select(p => p.Key));
        Assert.Equal(
            (60, 0, 4.0, "It is easy to clean."),
            (
                phrase["mine"]!.GetValue<int>(),
                phrase["theirs"]!.GetValue<int>(),
                phrase["stars"]!.GetValue<double>(),
                phrase["sentences"]![0]!.GetValue<string>()
            )
        );
        Assert.True(phrase["z"]!.GetValue<double>() > 0);
        var refused = await shop.Post(
            "/api/engine/phrases",
            new { mine = new[] { Review("x", 9) }, theirs = new[] { new { stars = 3 } } },
            400
        );
        Assert.Contains("from 0 to 5", refused["detail"]!.GetValue<string>());
        Assert.Equal(
            400,
            (int)
                (
                    await shop.Client.PostAsync(
                        "/api/engine/phrases",
                        new StringContent("{}", System.Text.Encoding.UTF8, "application/json")
                    )
                ).StatusCode
        );
    }

    [Fact]
    public async Task Words_answer_exactly_as_described()
    {
        var fill = await shop.Post(
            "/api/engine/fill/words",
            new
            {
                platform = Platform,
                fields = new { title = "Cedar bird" },
                field = "backend",
                terms = Terms,
                avoid = new[] { "casa" },
            }
        );
        Assert.Equal(
            """{"words":["wren","box","houses"],"text":"wren box houses","used":15,"limit":18,"gain":1040,"bound":1040,"opens":["cedar bird houses","wren box"],"left":["pájaro casa"],"leftOut":[{"text":"pájaro casa","reason":"avoided"}]}""",
            System.Text.RegularExpressions.Regex.Unescape(fill.ToJsonString())
        );
    }

    [Fact]
    public async Task Phrases_and_titles_answer_with_their_grip()
    {
        var phrases = await shop.Post(
            "/api/engine/fill/phrases",
            new
            {
                platform = Platform,
                fields = new { },
                field = "tags",
                terms = Terms,
                avoid = Array.Empty<string>(),
            }
        );
        Assert.Equal(2, phrases["items"]!.AsArray().Count);
        Assert.All(phrases["items"]!.AsArray(), i => Assert.InRange(i!.GetValue<string>().Length, 1, 16));
        var weighed = await shop.Post(
            "/api/engine/weigh",
            new
            {
                platform = Platform,
                fields = new { tags = phrases["items"] },
                terms = Terms,
            }
        );
        Assert.Equal(weighed["grip"]!.GetValue<double>(), phrases["grip"]!.GetValue<double>(), 9);

        var title = await shop.Post(
            "/api/engine/fill/title",
            new
            {
                platform = Platform,
                fields = new { title = "old" },
                field = "title",
                terms = Terms,
                lead = "wren box",
            }
        );
        var best = title["takes"]![0]!;
        Assert.Equal("Wren box, cedar bird houses, pájaro casa", best["text"]!.GetValue<string>());
        Assert.Equal((40, 3), (best["used"]!.GetValue<int>(), best["whole"]!.AsArray().Count));
    }

    [Fact]
    public async Task A_check_gives_findings_with_their_places_and_fixes()
    {
        var check = await shop.Post(
            "/api/engine/check",
            new
            {
                platform = Platform,
                fields = new { title = "Oak bird house, oak", tags = new[] { "bird box", "bird box" } },
                lead = "bird house",
                terms = Terms,
                facts = new { what = "bird house", materials = new[] { "cedar" } },
            }
        );
        var findings = check["findings"]!.AsArray();
        Assert.Equal(["id", "level", "field", "item", "start", "length", "why", "fix"], findings[0]!.AsObject().Select(k => k.Key));
        var repeat = findings.Single(f => f!["id"]!.GetValue<string>() == "title-repeat")!;
        Assert.Equal(
            (16, 3, "Oak bird house"),
            (repeat["start"]!.GetValue<int>(), repeat["length"]!.GetValue<int>(), repeat["fix"]!["value"]!.GetValue<string>())
        );
        Assert.Contains(findings, f => f!["id"]!.GetValue<string>() == "claim");
        Assert.Equal(
            """["bird box"]""",
            findings.Single(f => f!["id"]!.GetValue<string>() == "same-tag")!["fix"]!["value"]!.ToJsonString()
        );
    }

    [Theory]
    [InlineData("fill/words", "nowhere", "field")]
    [InlineData("fill/words", "tags", "field")]
    [InlineData("fill/phrases", "title", "field")]
    [InlineData("fill/title", "tags", "field")]
    public async Task A_wrong_field_is_named(string what, string field, string key) => Assert.Contains(key, (
                await shop.Post(
                    $"/api/engine/{what}",
                    new
                    {
                        platform = Platform,
                        fields = new { },
                        field,
                        terms = Terms,
                    },
                    400
                )
            )["errors"]!.AsObject().Select(e => e.Key));

    [Fact]
    public async Task An_avoided_term_without_a_word_is_named() => Assert.Contains("avoid[1]", (
                await shop.Post(
                    "/api/engine/fill/words",
                    new
                    {
                        platform = Platform,
                        fields = new { },
                        field = "backend",
                        terms = Terms,
                        avoid = new[] { "a", "–" },
                    },
                    400
                )
            )["errors"]!.AsObject().Select(e => e.Key));
}
