using System.Text.Json.Nodes;
using CsvHelper;
using MiniExcelLibs;

namespace TinRabbit.Server.Tests;

/// <summary>What must hold whatever a seller does: nothing is lost, everything can be undone, and what goes out is what stood there.</summary>
public sealed class LawsTests : IDisposable
{
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    private const string Market = "longbarrow-us";
    private static readonly string[] Words = ["bird", "house", "owl", "box", "wren", "Pájaro", "kit", "nest-box", "28mm"];

    private static string Some(Random dice, int most) =>
        string.Join(' ', Enumerable.Range(0, 1 + dice.Next(most)).Select(_ => Words[dice.Next(Words.Length)]));

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public async Task Any_row_of_changes_to_picks_is_undone_one_by_one_to_where_it_began(int seed)
    {
        var dice = new Random(seed);
        var product = await shop.AddProduct();
        var states = new List<string> { await State() };
        for (var turn = 0; turn < 25; turn++)
        {
            var texts = Enumerable.Range(0, 1 + dice.Next(3)).Select(_ => Some(dice, 2)).ToArray();
            var changed = dice.Next(6) switch
            {
                0 => await shop.Post($"/api/products/{product}/picks/drop", new { texts }),
                1 => await shop.Put(
                    $"/api/products/{product}/picks/order",
                    new { keys = (await Keys()).OrderBy(_ => dice.Next()).ToArray() }
                ),
                2 => await shop.Pick(
                    product,
                    texts,
                    home: new[] { "title", "tags", "backend", "later", "avoid", "anywhere" }[dice.Next(6)],
                    note: Some(dice, 3)
                ),
                3 => await shop.Pick(product, texts, fit: new[] { "core", "good", "stretch" }[dice.Next(3)]),
                4 => await shop.SaveFacts(product, new { what = Some(dice, 1), materials = new[] { Some(dice, 1) } }),
                _ => await shop.Pick(product, texts),
            };
            var now = await State();
            // It says that it did something exactly when something is different.
            Assert.Equal(now != states[^1], changed["what"] is not null);
            if (now != states[^1])
                states.Add(now);
        }

        for (var i = states.Count - 1; i > 0; i--)
        {
            Assert.Equal(states[i], await State());
            Assert.NotNull((await shop.Post($"/api/changes/undo?sure=true&screen=pick&product={product}", new { }))["what"]);
        }

        Assert.Equal(states[0], await State());
        Assert.Null((await shop.Post($"/api/changes/undo?sure=true&screen=pick&product={product}", new { }))["what"]);

        async Task<string[]> Keys() =>
            [
                .. (await shop.Get($"/api/products/{product}/picks?marketId={Market}"))["picks"]!
                    .AsArray()
                    .Select(p => p!["key"]!.GetValue<string>()),
            ];

        async Task<string> State()
        {
            var picks = (await shop.Get($"/api/products/{product}/picks?marketId={Market}"))["picks"]!.AsArray();
            var facts = (await shop.Get("/api/shop"))["products"]!.AsArray().Single(p => p!["id"]!.GetValue<int>() == product)!["facts"]!;
            return string.Join('\n', picks.Select(p => $"{p!["text"]}|{p["home"]}|{p["fit"]}|{p["note"]}|{p["source"]}"))
                + "\n"
                + facts.ToJsonString();
        }
    }

    [Fact]
    public async Task The_words_that_stayed_and_went_are_the_old_text_and_those_that_stayed_and_came_the_new()
    {
        var dice = new Random(9);
        var listing = await shop.ListingOf(await shop.AddProduct(), "longbarrow");
        string Text() => string.Join(dice.Next(3) == 0 ? "\n" : ", ", Enumerable.Range(0, 1 + dice.Next(4)).Select(_ => Some(dice, 5)));
        for (var revision = 0; revision < 30; revision++)
        {
            var (before, after) = (Text(), Text());
            await shop.Put($"/api/listings/{listing}/copy", new { fields = new { description = before }, revision });
            await shop.Post($"/api/listings/{listing}/versions", new { name = $"v{revision}" });
            var version = (await shop.Get($"/api/listings/{listing}/versions"))[0]!["id"]!.GetValue<int>();
            var changes = (
                await shop.Post(
                    $"/api/listings/{listing}/versions/compare",
                    new
                    {
                        from = version,
                        to = 0,
                        fields = new { description = after },
                    }
                )
            ).AsArray();
            if (before == after)
            {
                Assert.Empty(changes);
                continue;
            }

            var words = Assert.Single(changes)!["words"]!.AsArray();
            string But(string gone) =>
                string.Concat(words.Where(w => w!["are"]!.GetValue<string>() != gone).Select(w => w!["text"]!.GetValue<string>()));
            Assert.Equal((before, after), (But("added"), But("removed")));
        }
    }

    [Fact]
    public async Task Whatever_is_written_goes_out_as_it_stood_in_every_format()
    {
        string[] texts =
        [
            "Plain",
            "comma, and \"quotes\"",
            "two\nlines",
            "semi;colon\tand tab",
            "pájaro ñandú 鳥の家 🐦",
            "<b>bold</b> & more",
            " spaces around ",
            "0123",
            "1e5",
            "TRUE",
            "https://shop.example",
        ];
        var product = await shop.AddProduct("Laws, \"of\" files");
        var listing = await shop.ListingOf(product, "hedgerow-fair");
        for (var i = 0; i < texts.Length; i++)
        {
            await shop.Put(
                $"/api/listings/{listing}/copy",
                new
                {
                    fields = new
                    {
                        title = texts[i],
                        tags = new[] { texts[i], "", "b" },
                        description = texts[^(i + 1)],
                    },
                    revision = i,
                }
            );
            using var csv = CsvReader.FromText(
                (await shop.Client.GetStringAsync($"/api/listings/{listing}/export.csv")).TrimStart('\uFEFF')
            );
            Assert.True(csv.Read());
            string Cell(string column) => csv.GetString(column);
            Assert.Equal((texts[i], $"{texts[i]}, b", texts[^(i + 1)]), (Cell("title"), Cell("tags"), Cell("description")));
            Assert.Equal("Laws, \"of\" files", Cell("product"));

            using var book = new MemoryStream(await shop.Client.GetByteArrayAsync($"/api/listings/{listing}/export.xlsx"));
            var row = (IDictionary<string, object>)book.Query(useHeaderRow: true).Single();
            Assert.Equal((texts[i], texts[^(i + 1)]), (row["title"].ToString(), row["description"].ToString()));

            var json = JsonNode.Parse(await shop.Client.GetStringAsync($"/api/listings/{listing}/export.json"))!;
            Assert.Equal(texts[i], json["fields"]!["title"]!.GetValue<string>());
            Assert.Equal([texts[i], "", "b"], json["fields"]!["tags"]!.AsArray().Select(t => t!.GetValue<string>()));
        }
    }

    [Fact]
    public async Task Loose_words_go_out_with_one_space_between_them()
    {
        var listing = await shop.ListingOf(await shop.AddProduct(), "longbarrow");
        await shop.Put($"/api/listings/{listing}/copy", new { fields = new { backend = "  owl \n box  roost " }, revision = 0 });
        Assert.Contains(",owl box roost,", await shop.Client.GetStringAsync($"/api/listings/{listing}/export.csv"));
    }

    [Fact]
    public async Task Every_fill_of_a_draft_fits_and_opens_what_a_weighing_says()
    {
        var dice = new Random(4);
        var product = await shop.AddProduct();
        await shop.Dig(product, Market, "bird house");
        await shop.Pick(product, [.. Enumerable.Range(0, 25).Select(_ => Some(dice, 4))]);
        foreach (var platform in new[] { "longbarrow", "hedgerow-fair" })
        {
            var listing = await shop.ListingOf(product, platform);
            var market = $"{platform}-us";
            var fields = (await shop.Get($"/api/listings/{listing}"))["fields"]!.AsArray();
            for (var turn = 0; turn < 4; turn++)
            {
                var draft = new JsonObject { ["title"] = Some(dice, 6) };
                foreach (
                    var field in fields.Where(f =>
                        f!["indexed"]!.GetValue<bool>() && f["shape"]!.GetValue<string>() is "phrases" or "words" or "lines"
                        || f!["role"]!.GetValue<string>() == "title"
                    )
                )
                {
                    var key = field!["key"]!.GetValue<string>();
                    var fill = await shop.Post($"/api/listings/{listing}/fill/{key}", new { marketId = market, fields = draft });
                    if (fill["value"] is not { } value)
                        continue;
                    var before = await shop.Post($"/api/listings/{listing}/weigh", new { marketId = market, fields = draft });
                    draft[key] = value.DeepClone();
                    var after = await shop.Post($"/api/listings/{listing}/weigh", new { marketId = market, fields = draft });
                    Assert.Equal(0, after["rooms"]![key]!["over"]!.GetValue<int>());
                    if (key != "title")
                        Assert.True(after["grip"]!.GetValue<double>() >= before["grip"]!.GetValue<double>() - 1e-9, $"{platform} {key}");
                }
            }
        }
    }
}
