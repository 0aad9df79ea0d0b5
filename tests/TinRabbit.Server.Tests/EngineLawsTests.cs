using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>The engine's fills over the API on profiles and terms drawn by lot: what they say of themselves is what a weighing says of them.</summary>
public sealed class EngineLawsTests(TestShop shop) : IClassFixture<TestShop>
{
    private static readonly string[] Words =
    [
        "bird",
        "birds",
        "house",
        "box",
        "boxes",
        "cedar",
        "pájaro",
        "casa",
        "鳥の家",
        "for",
        "kit",
        "women's",
        "grey",
        "gray",
        "nest",
        "wren",
        "5.5",
    ];

    private static T One<T>(Random dice, params T[] of) => of[dice.Next(of.Length)];

    private static string Text(Random dice, int most) =>
        string.Join(' ', Enumerable.Range(0, 1 + dice.Next(most)).Select(_ => One(dice, Words)));

    private static object Platform(Random dice) =>
        new
        {
            id = "drawn",
            name = "Drawn",
            search = new
            {
                folds = One(
                    dice,
                    [],
                    ["diacritics"],
                    ["diacritics", "plural"],
                    new[] { "diacritics", "plural", "possessive", "compound", "spelling" }
                ),
                ignoredWords = One(dice, [], new[] { "for" }),
                wordsCombine = dice.Next(3) > 0,
            },
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
                    limit = new { max = dice.Next(5, 60), unit = One(dice, "characters", "bytes") },
                },
                new
                {
                    key = "tags",
                    role = "tags",
                    shape = "phrases",
                    indexed = true,
                    weight = 0.6,
                    limit = new
                    {
                        maxItems = dice.Next(1, 5),
                        max = dice.Next(4, 24),
                        unit = One(dice, "characters", "bytes"),
                    },
                },
                new
                {
                    key = "backend",
                    role = "backend",
                    shape = "words",
                    indexed = true,
                    weight = 0.4,
                    limit = new { max = dice.Next(1, 60), unit = One(dice, "characters", "bytes") },
                },
            },
        };

    private static int Measure(string text, JsonNode limit) =>
        limit["unit"]!.GetValue<string>() == "bytes" ? System.Text.Encoding.UTF8.GetByteCount(text) : text.EnumerateRunes().Count();

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task Fills_fit_and_say_of_themselves_what_a_weighing_says(int seed)
    {
        var dice = new Random(seed);
        for (var turn = 0; turn < 25; turn++)
        {
            var platform = Platform(dice);
            var limits = JsonNode.Parse(System.Text.Json.JsonSerializer.Serialize(platform))!["fields"]!
                .AsArray()
                .ToDictionary(f => f!["key"]!.GetValue<string>(), f => f!["limit"]!);
            object[] terms =
            [
                .. Enumerable
                    .Range(0, dice.Next(1, 12))
                    .Select(_ => Text(dice, 3))
                    .Distinct()
                    .Select(t => new
                    {
                        text = t,
                        volume = dice.Next(5) == 0 ? (double?)null : dice.Next(1, 2000),
                        fit = One(dice, "core", "good", "stretch"),
                    }),
            ];
            var fields = new JsonObject { ["title"] = dice.Next(2) == 0 ? "" : Text(dice, 3) };
            // Something may stand already in the field that is filled, where it fits.
            if (
                dice.Next(3) == 0
                && Text(dice, 2) is var loose
                && Measure(loose, limits["backend"]) <= limits["backend"]["max"]!.GetValue<int>()
            )
                fields["backend"] = loose;
            if (dice.Next(3) == 0 && Text(dice, 2) is var tag && Measure(tag, limits["tags"]) <= limits["tags"]["max"]!.GetValue<int>())
                fields["tags"] = new JsonArray(tag);
            var before = await Weigh(fields);

            var words = await shop.Post(
                "/api/engine/fill/words",
                new
                {
                    platform,
                    fields,
                    field = "backend",
                    terms,
                    avoid = Array.Empty<string>(),
                }
            );
            var text = words["text"]!.GetValue<string>();
            Assert.StartsWith(fields["backend"]?.GetValue<string>() ?? "", text);
            Assert.Equal(Measure(text, limits["backend"]), words["used"]!.GetValue<int>());
            Assert.True(words["used"]!.GetValue<int>() <= limits["backend"]["max"]!.GetValue<int>());
            Assert.True(words["gain"]!.GetValue<double>() <= words["bound"]!.GetValue<double>() + 1e-6);
            var with = await Weigh(With(fields, "backend", text));
            Assert.Equal(Opened(before, with), Texts(words["opens"]!));
            Assert.Equal(Missing(with), Texts(words["left"]!));

            var phrases = await shop.Post(
                "/api/engine/fill/phrases",
                new
                {
                    platform,
                    fields,
                    field = "tags",
                    terms,
                    avoid = Array.Empty<string>(),
                }
            );
            var items = phrases["items"]!.AsArray();
            Assert.Superset(
                fields["tags"]?.AsArray().Select(i => i!.GetValue<string>()).ToHashSet() ?? [],
                items.Select(i => i!.GetValue<string>()).ToHashSet()
            );
            Assert.True(items.Count <= limits["tags"]["maxItems"]!.GetValue<int>());
            Assert.All(
                items,
                i => Assert.InRange(Measure(i!.GetValue<string>(), limits["tags"]), 1, limits["tags"]["max"]!.GetValue<int>())
            );
            with = await Weigh(With(fields, "tags", items));
            Assert.Equal(with["grip"]!.GetValue<double>(), phrases["grip"]!.GetValue<double>(), 9);
            Assert.Equal(Opened(before, with), Texts(phrases["opens"]!));

            foreach (
                var take in (
                    await shop.Post(
                        "/api/engine/fill/title",
                        new
                        {
                            platform,
                            fields,
                            field = "title",
                            terms,
                            avoid = Array.Empty<string>(),
                        }
                    )
                )["takes"]!.AsArray()
            )
            {
                var title = take!["text"]!.GetValue<string>();
                Assert.Equal(Measure(title, limits["title"]), take["used"]!.GetValue<int>());
                Assert.True(take["used"]!.GetValue<int>() <= limits["title"]["max"]!.GetValue<int>());
                with = await Weigh(With(fields, "title", title));
                Assert.Equal(with["grip"]!.GetValue<double>(), take["grip"]!.GetValue<double>(), 9);
                Assert.Equal(
                    with["terms"]!
                        .AsArray()
                        .Where(t => t!["fields"]!["title"]?.GetValue<string>() == "whole")
                        .Select(t => t!["text"]!.GetValue<string>())
                        .Order(StringComparer.Ordinal),
                    Texts(take["whole"]!)
                );
            }

            Task<JsonNode> Weigh(JsonObject of) =>
                shop.Post(
                    "/api/engine/weigh",
                    new
                    {
                        platform,
                        fields = of,
                        terms,
                    }
                );
        }

        static JsonObject With(JsonObject fields, string key, JsonNode value)
        {
            var with = (JsonObject)fields.DeepClone();
            with[key] = value.DeepClone();
            return with;
        }

        static string[] Texts(JsonNode list) => [.. list.AsArray().Select(t => t!.GetValue<string>()).Order(StringComparer.Ordinal)];

        static IEnumerable<(string Text, bool Held)> Terms(JsonNode weighed) =>
            weighed["terms"]!.AsArray().Select(t => (t!["text"]!.GetValue<string>(), t["grade"]!.GetValue<string>() != "missing"));

        static string[] Missing(JsonNode weighed) =>
            [.. Terms(weighed).Where(t => !t.Held).Select(t => t.Text).Order(StringComparer.Ordinal)];

        static string[] Opened(JsonNode before, JsonNode after) =>
            [
                .. Terms(before)
                    .Zip(Terms(after))
                    .Where(t => !t.First.Held && t.Second.Held)
                    .Select(t => t.First.Text)
                    .Order(StringComparer.Ordinal),
            ];
    }
}
