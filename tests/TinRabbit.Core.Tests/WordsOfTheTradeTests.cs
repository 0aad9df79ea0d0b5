using TinRabbit.Core.Measures;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>What words say of a product, words alike, another language, and what could be made of picks.</summary>
public class WordsOfTheTradeTests
{
    private static readonly FactWords Facts = new(
        "nest box",
        new Dictionary<Facet, IReadOnlyList<string>>
        {
            [Facet.Material] = ["western red cedar", "brass"],
            [Facet.Colour] = ["natural"],
            [Facet.Size] = ["small", "28 mm hole"],
            [Facet.Audience] = ["gardeners", "children"],
        }
    );

    [Theory]
    [InlineData("cedar nest box", "")] // western red cedar is cedar
    [InlineData("wooden nest box", "")] // and it is wood
    [InlineData("red nest box", "Colour red")] // but the box is not red
    [InlineData("western red cedar nest box", "")]
    [InlineData("28mm hole wren house", "")]
    [InlineData("32 mm nest box", "Size 32 mm")]
    [InlineData("nest box for kids", "")] // kids are children
    [InlineData("bird lover gift for mom", "Audience bird lover|Audience mom")]
    [InlineData("copper bird house, white", "Material copper|Colour white")]
    [InlineData("rustic nest box", "")] // style is taste
    [InlineData("nest box for small birds", "")]
    [InlineData("robin and blue tit nest box", "")] // a blue tit is not a colour
    [InlineData("Christmas nest box", "Occasion Christmas")]
    [InlineData("2 in 1 nest box", "")]
    public void A_claim_that_the_facts_lack_is_called_out(string text, string claims)
    {
        var unbacked = Facets.Unbacked(text, Facts);
        Assert.Equal(claims, string.Join('|', unbacked.Select(c => $"{c.Facet} {c.Word}")));
        Assert.All(unbacked, c => Assert.Equal(c.Word, text.Substring(c.Start, c.Length)));
    }

    [Fact]
    public void Every_word_of_the_facets_is_found_where_it_stands_alone()
    {
        foreach (var facet in Enum.GetValues<Facet>())
        foreach (var word in Facets.WordsOf(facet))
            Assert.Contains(Facets.ClaimsOf($"the {word} thing"), c => c.Facet == facet && c.Word == word);
    }

    [Fact]
    public void Nothing_said_of_a_facet_backs_nothing() =>
        Assert.Single(Facets.Unbacked("blue box", new("box", new Dictionary<Facet, IReadOnlyList<string>>())));

    [Theory]
    [InlineData("cedar bird house", "house")]
    [InlineData("bird house for small birds", "house")]
    [InlineData("casas para pájaros", "casas")]
    [InlineData("for sale", "sale")]
    [InlineData("owl", "owl")]
    public void A_term_is_about_the_word_before_what_joins(string text, string about)
    {
        var words = text.Split(' ');
        Assert.Equal(about, words[StopWords.About(words)]);
    }

    [Theory]
    [InlineData("bird house", "casa para pájaros")]
    [InlineData("cedar bird house", "casa para pájaros de cedro")]
    [InlineData("small bird house for garden", "casa para pájaros pequeña para jardín")]
    [InlineData("window bird feeder", "comedero para pájaros de ventana")]
    public void A_term_is_turned_head_first(string from, string to) => Assert.Equal(to, Glossary.Translate(from, "es").To);

    [Fact]
    public void A_word_that_the_glossary_lacks_is_named_and_nothing_is_made_up()
    {
        var turned = Glossary.Translate("gothic bird house", "es");
        Assert.Null(turned.To);
        Assert.Equal(["gothic"], turned.Unknown);
        Assert.Equal(["zebra", "saddle"], Glossary.Translate("zebra saddle", "es").Unknown);
        Assert.Throws<KeyNotFoundException>(() => Glossary.Translate("bird house", "xx"));
    }

    [Fact]
    public void Words_alike_come_by_their_part_of_speech_and_kind()
    {
        var house = Thesaurus.Of("house");
        Assert.Contains(house, a => a is { Part: "noun", Likeness: Relation.Narrower });
        Assert.Contains(house, a => a is { Part: "verb" });
        Assert.Contains(Thesaurus.Of("tiny"), a => a is { Word: "small", Part: "adjective" });
        Assert.Contains(Thesaurus.Of("present"), a => a is { Word: "gift", Part: "noun" });
        Assert.Contains(Thesaurus.Of("bird house"), a => a.Word == "shelter"); // as birdhouse
        Assert.DoesNotContain(house, a => a.Word == "house");
        Assert.Empty(Thesaurus.Of("qwrtz"));
    }

    [Fact]
    public void Compatible_picks_of_high_headroom_become_one_idea()
    {
        UnservedTerm Pick(string text, double volume, double headroom) => new(new(text, volume, 10, headroom), "Window feeder");
        var ideas = Ideas.Find([
            Pick("copper bird feeder", 400, 70),
            Pick("hanging bird feeder", 900, 66),
            Pick("glass bird feeder", 300, 64),
            Pick("bird feeders", 100, 40),
            Pick("bird bath", 500, 80),
            Pick("hanging bird feeders", 50, 90),
            new(new("unknown bird feeder", null, null, 99), "x"),
        ]);
        Assert.Equal(
            ["bird feeder", "bird bath", "bird feeder"],
            ideas.Select(i => string.Join(' ', i.Terms[0].Term.Text.Split(' ')[^2..]))
        );
        // Hanging goes with copper; glass is another material, and a thing of its own. One of each family is enough.
        Assert.Equal(["hanging bird feeder", "copper bird feeder"], ideas[0].Terms.Select(t => t.Term.Text));
        Assert.Equal((1300, 68), (ideas[0].Volume, ideas[0].Headroom));
        Assert.Equal(["copper", "hanging"], ideas[0].Text.Split(' ').Where(w => w is "copper" or "hanging").Order());
    }
}
