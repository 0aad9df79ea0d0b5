using System.Text.Json;
using System.Text.Json.Nodes;
using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Profiles and copies as JSON: what goes out comes in again, and what is wrong is named by its key.</summary>
public class PlatformJsonTests
{
    private const string Good = """
        {
          "id": "fair", "name": "The fair", "language": "en", "spelling": "en-GB",
          "search": { "folds": ["diacritics", "plural"], "ignoredWords": ["for"], "wordsCombine": true, "indexDelayHours": 6 },
          "fields": [
            { "key": "title", "label": "Title", "role": "title", "shape": "line", "indexed": true, "weight": 0.8, "front": true, "required": true, "limit": { "max": 80, "unit": "bytes" }, "shows": 40 },
            { "key": "tags", "label": "Tags", "role": "tags", "shape": "phrases", "indexed": true, "weight": 0.6, "limit": { "max": 20, "maxItems": 10 } },
            { "key": "category", "label": "Category", "role": "category", "shape": "path", "tree": [{ "name": "Garden", "under": [{ "name": "Birds" }] }, { "name": "Home" }] },
            { "key": "attributes", "label": "Attributes", "role": "attributes", "shape": "choices", "attributes": [{ "name": "Colour", "options": ["red"] }, { "name": "Hole", "category": "Birds" }] }
          ],
          "banned": ["free shipping"], "checks": { "unusedShare": 0.3 }
        }
        """;

    private static Platform Read(string json) => PlatformJson.Read(json);

    private static string[] WrongKeys(Action read) => [.. Assert.Throws<InvalidInputException>(read).Problems.Select(p => p.Path)];

    // The good profile with one key set to something else; "fields.0.limit.max" is a path into it.
    private static string With(string path, string value)
    {
        var json = JsonNode.Parse(Good)!;
        var steps = path.Split('.');
        var at = json;
        foreach (var step in steps[..^1])
            at = int.TryParse(step, out var number) ? at![number] : at![step];
        if (int.TryParse(steps[^1], out var last))
            at!.AsArray()[last] = JsonNode.Parse(value);
        else
            at![steps[^1]] = JsonNode.Parse(value);
        return json.ToJsonString();
    }

    [Fact]
    public void A_good_profile_is_read_as_it_says()
    {
        var platform = Read(Good);
        Assert.Equal(("fair", "The fair", "en-GB"), (platform.Id, platform.Name, platform.Spelling));
        Assert.Equal(
            (Folds.Diacritics | Folds.Plural, true, 6.0),
            (platform.Search.Folds, platform.Search.WordsCombine, platform.Search.IndexDelayHours)
        );
        Assert.Equal(new Limit(80, Unit.Bytes, null), platform.Fields[0].Limit);
        Assert.Equal(new Limit(20, Unit.Characters, 10), platform.Fields[1].Limit);
        Assert.Equal(["title", "tags"], platform.IndexedFields.Select(f => f.Key));
        Assert.Equal("Birds", Category.At(platform.Fields[2].Tree, ["garden", " Birds "])!.Name);
        Assert.Null(Category.At(platform.Fields[2].Tree, ["Birds"]));
        Assert.True(platform.Fields[3].Attributes[1].OpenIn(["Garden", "birds"]));
        Assert.False(platform.Fields[3].Attributes[1].OpenIn(["Home"]));
        Assert.True(platform.Fields[3].Attributes[0].OpenIn([]));
        Assert.Equal(0.3, platform.Checks["unusedShare"]);
    }

    [Fact]
    public void What_goes_out_comes_in_again()
    {
        var once = PlatformJson.Write(Read(Good)).ToJsonString();
        Assert.Equal(once, PlatformJson.Write(Read(once)).ToJsonString());
    }

    [Theory]
    [InlineData("id", "\"The Fair\"", "platform.id")]
    [InlineData("name", "7", "platform.name")]
    [InlineData("search", "[]", "platform.search")]
    [InlineData("search.folds", "\"plural\"", "platform.search.folds")]
    [InlineData("search.folds.0", "\"case\"", "platform.search.folds[0]")]
    [InlineData("search.folds.0", "3", "platform.search.folds[0]")]
    [InlineData("search.wordsCombine", "\"yes\"", "platform.search.wordsCombine")]
    [InlineData("search.indexDelayHours", "-1", "platform.search.indexDelayHours")]
    [InlineData("search.synonyms", "true", "platform.search.synonyms")]
    [InlineData("fields", "{}", "platform.fields")]
    [InlineData("fields.0", "\"title\"", "platform.fields[0]")]
    [InlineData("fields.0.key", "\"\"", "platform.fields[0].key")]
    [InlineData("fields.1.key", "\"title\"", "platform.fields[1].key")]
    [InlineData("fields.0.shape", "\"Line\"", "platform.fields[0].shape")]
    [InlineData("fields.0.weight", "1.2", "platform.fields[0].weight")]
    [InlineData("fields.0.weight", "\"heavy\"", "platform.fields[0].weight")]
    [InlineData("fields.0.indexed", "1", "platform.fields[0].indexed")]
    [InlineData("fields.0.limit", "80", "platform.fields[0].limit")]
    [InlineData("fields.0.limit", "{}", "platform.fields[0].limit")]
    [InlineData("fields.0.limit.max", "0", "platform.fields[0].limit.max")]
    [InlineData("fields.0.limit.max", "80.5", "platform.fields[0].limit.max")]
    [InlineData("fields.0.limit.unit", "\"letters\"", "platform.fields[0].limit.unit")]
    [InlineData("fields.1.limit.maxItems", "-3", "platform.fields[1].limit.maxItems")]
    [InlineData("fields.0.limit.minimum", "3", "platform.fields[0].limit.minimum")]
    [InlineData("fields.0.shows", "0", "platform.fields[0].shows")]
    [InlineData("fields.0.colour", "\"red\"", "platform.fields[0].colour")]
    [InlineData("fields.2.tree", "\"Garden\"", "platform.fields[2].tree")]
    [InlineData("fields.2.tree.1", "{}", "platform.fields[2].tree[1].name")]
    [InlineData("fields.2.tree.0.under", "[{\"name\":\" \"}]", "platform.fields[2].tree[0].under[0].name")]
    [InlineData("fields.2.tree.0.over", "[]", "platform.fields[2].tree[0].over")]
    [InlineData("fields.3.attributes.0.options", "[1]", "platform.fields[3].attributes[0].options[0]")]
    [InlineData("fields.3.attributes.1", "{\"category\":\"Birds\"}", "platform.fields[3].attributes[1].name")]
    [InlineData("banned", "\"free\"", "platform.banned")]
    [InlineData("checks.unusedShare", "\"0.3\"", "platform.checks.unusedShare")]
    [InlineData("limits", "[]", "platform.limits")]
    public void What_is_wrong_is_named_by_its_key(string path, string value, string wrong) =>
        Assert.Equal([wrong], WrongKeys(() => Read(With(path, value))));

    [Fact]
    public void Half_a_character_is_named() =>
        Assert.Equal(["platform.name"], WrongKeys(() => Read(Good.Replace("The fair", "half \\ud83d"))));

    [Fact]
    public void A_searched_field_without_its_weight_is_named()
    {
        var json = JsonNode.Parse(Good)!;
        json["fields"]![0]!.AsObject().Remove("weight");
        Assert.Equal(["platform.fields[0].weight"], WrongKeys(() => Read(json.ToJsonString())));
    }

    [Fact]
    public void All_that_is_wrong_is_told_at_once()
    {
        var json = With("fields.0.limit.max", "0")
            .Replace("\"plural\"", "\"plurals\"")
            .Replace("\"unusedShare\":0.3", "\"unusedShare\":true");
        Assert.Equal(
            ["platform.checks.unusedShare", "platform.fields[0].limit.max", "platform.search.folds[1]"],
            WrongKeys(() => Read(json)).Order(StringComparer.Ordinal)
        );
    }

    [Theory]
    [InlineData("{")]
    [InlineData("")]
    [InlineData("nest box")]
    public void What_is_no_json_says_so(string text) => Assert.Single(Assert.Throws<InvalidInputException>(() => Read(text)).Problems);

    [Theory]
    [InlineData("""{"title":["a"]}""", "fields.title")]
    [InlineData("""{"title":{"a":"b"}}""", "fields.title")]
    [InlineData("""{"title":3}""", "fields.title")]
    [InlineData("""{"tags":["a",3]}""", "fields.tags[1]")]
    [InlineData("""{"tags":true}""", "fields.tags")]
    [InlineData("""{"attributes":"red"}""", "fields.attributes")]
    [InlineData("""{"attributes":["red"]}""", "fields.attributes")]
    [InlineData("""{"attributes":{"Colour":3}}""", "fields.attributes.Colour")]
    [InlineData("""{"attributes":{"Colour":["red",3]}}""", "fields.attributes.Colour[1]")]
    [InlineData("""{"titel":"a"}""", "fields.titel")]
    [InlineData("[]", "fields")]
    [InlineData("""{"title":"nest \ud83d box"}""", "fields.title")]
    [InlineData("""{"tags":["a","\udc26"]}""", "fields.tags[1]")]
    [InlineData("""{"attributes":{"Colour":"\udc26"}}""", "fields.attributes.Colour")]
    public void A_copy_of_the_wrong_shape_is_refused_by_its_field(string json, string wrong)
    {
        using var copy = JsonDocument.Parse(json);
        Assert.Equal([wrong], WrongKeys(() => CopyJson.Read(copy.RootElement, Read(Good))));
    }

    [Fact]
    public void One_tag_may_be_written_as_a_text_and_nothing_as_null()
    {
        using var copy = JsonDocument.Parse("""{"tags":"bird house","title":null,"category":"Garden"}""");
        var read = CopyJson.Read(copy.RootElement, Read(Good));
        Assert.Equal(["bird house"], read["tags"].Units(FieldShape.Phrases));
        Assert.False(read.ContainsKey("title"));
    }

    private static readonly Gen<string> Text = Gen.Elements(
            "",
            " ",
            "Cedar",
            "pájaro 🐦",
            "a\nb",
            "\"quoted\"",
            "ﬁnch",
            "</script>",
            "=1+1"
        )
        .Select(t => t);

    [Fact]
    public void Any_copy_survives_the_way_out_and_in() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(300),
            Prop.ForAll(
                (
                    from title in Text
                    from tags in Gen.Choose(0, 4).SelectMany(n => Text.ListOf(n))
                    from path in Gen.Choose(0, 3).SelectMany(n => Text.ListOf(n))
                    from colours in Gen.Choose(1, 3).SelectMany(n => Text.ListOf(n))
                    select (title, tags: tags.ToArray(), path: path.ToArray(), colours: colours.ToArray())
                ).ToArbitrary(),
                c =>
                {
                    var platform = Read(Good);
                    var copy = new Dictionary<string, FieldValue>
                    {
                        ["title"] = new FieldValue.Text(c.title),
                        ["tags"] = new FieldValue.Items(c.tags),
                        ["category"] = new FieldValue.Items(c.path),
                        ["attributes"] = new FieldValue.Choices(new Dictionary<string, IReadOnlyList<string>> { ["Colour"] = c.colours }),
                    };
                    var json = new JsonObject([.. copy.Select(f => KeyValuePair.Create(f.Key, CopyJson.WriteValue(f.Value)))]);
                    using var written = JsonDocument.Parse(json.ToJsonString());
                    var again = CopyJson.Read(written.RootElement, platform);
                    return platform.Fields.All(f => again[f.Key].Units(f.Shape).SequenceEqual(copy[f.Key].Units(f.Shape)));
                }
            )
        );
}
