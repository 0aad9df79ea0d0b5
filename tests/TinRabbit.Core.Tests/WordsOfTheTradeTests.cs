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

    private static readonly FactWords Thing = new(
        "thing",
        new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Material] = ["nothing else"] }
    );

    [Fact]
    public void Every_word_of_the_facets_is_found_where_it_stands_alone()
    {
        foreach (var facet in Enum.GetValues<Facet>())
        foreach (var word in Facets.WordsOf(facet))
            // Style is taste; the others are called out before the product's noun, ambiguous ones too.
            Assert.True(
                (facet == Facet.Style ? Facets.ClaimsOf($"the {word} thing") : Facets.Unbacked($"the {word} thing", Thing)).Any(c =>
                    c.Facet == facet && c.Word == word
                ),
                word
            );
    }

    [Fact]
    public void A_list_without_a_value_backs_nothing_and_without_any_value_nothing_is_known()
    {
        Assert.Empty(Facets.Unbacked("blue box", new("box", new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Colour] = [""] })));
        Assert.Single(Facets.Unbacked("blue box", new("box", new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Size] = ["small"] })));
    }

    [Theory]
    [InlineData("sterling silver", "silver tray", "")] // silver is a colour and a material
    [InlineData("western red cedar", "red tray", "red")] // red is a colour alone
    [InlineData("western red cedar", "cedar tray", "")]
    public void A_word_of_two_facets_is_backed_by_facts_of_either(string material, string text, string claims)
    {
        var facts = new FactWords("tray", new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Material] = [material] });
        Assert.Equal(claims, string.Join('|', Facets.Unbacked(text, facts).Select(c => c.Word)));
    }

    [Theory]
    [InlineData("oak", "wooden tray", "")] // upward only
    [InlineData("wood", "oak tray", "oak")]
    [InlineData("oak", "pine tray", "pine")]
    [InlineData("half wool", "pure wool tray", "wool")]
    [InlineData("half wool", "wool tray", "")]
    [InlineData("21x15cm", "21 x 15 cm tray", "")]
    [InlineData("21 x 15 cm", "tray 15x21cm", "")]
    [InlineData("21 x 15 cm", "tray 22 cm", "22 cm")]
    [InlineData("20 cm", "tray 8 inch", "")] // rounded to centimetres
    [InlineData("navy", "blue tray", "")]
    [InlineData("blue", "navy blue tray", "navy blue")]
    [InlineData("set of 3", "tray, set of three", "")]
    [InlineData("set of 3", "6 piece tray", "6 piece")]
    [InlineData("organic cotton", "cotton tray", "")]
    [InlineData("organic", "recycled organic tray", "recycled")]
    [InlineData("moonstone", "moonstone tray", "")] // a word of the digest
    [InlineData("moonstone", "onyx tray", "onyx")]
    [InlineData("oak", "rustic striped tray", "")] // style and pattern are taste
    [InlineData("oak", "tray, rose and mint", "")] // ambiguous, and not before the noun
    [InlineData("oak", "rose tray", "rose")]
    [InlineData("oak", "tray for silver rings", "")] // another thing
    [InlineData("oak", "plastic free tray", "plastic free")]
    public void A_fact_backs_what_it_implies(string fact, string text, string claims)
    {
        foreach (var facet in new[] { Facet.Material, Facet.Property })
        {
            var facts = new FactWords(
                "tray",
                new Dictionary<Facet, IReadOnlyList<string>>
                {
                    [facet] = [fact],
                    [Facet.Colour] = [fact],
                    [Facet.Material] = [fact],
                }
            );
            Assert.Equal(claims, string.Join('|', Facets.Unbacked(text, facts).Select(c => c.Word)));
        }
    }

    [Fact]
    public void The_sellers_own_words_come_before_the_vocabulary()
    {
        var facts = new FactWords("tray", new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Material] = ["oak"] });
        var own = new Dictionary<string, Facet?> { [FactWords.OwnKeyOf("Linen")] = null, [FactWords.OwnKeyOf("Zellige")] = Facet.Material };
        Assert.Single(Facets.Unbacked("linen tray", facts));
        Assert.Empty(Facets.Unbacked("linen tray", facts with { Own = own }));
        Assert.Equal("zellige", Assert.Single(Facets.Unbacked("zellige tray", facts with { Own = own })).Word);
    }

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
        // One without a number may join.
        Assert.Equal(["hanging bird feeder", "copper bird feeder", "unknown bird feeder"], ideas[0].Terms.Select(t => t.Term.Text));
        Assert.Equal((1300, (70 + 66 + 99) / 3.0), (ideas[0].Volume, ideas[0].Headroom));
        Assert.Equal(["copper", "hanging"], ideas[0].Text.Split(' ').Where(w => w is "copper" or "hanging").Order());
    }

    [Fact]
    public void Words_of_the_own_brand_claim_nothing_where_the_whole_brand_stands()
    {
        var facts = new FactWords("chopping board", new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Material] = ["maple"] })
        {
            Brand = "Oak & Iron",
        };
        Assert.Empty(Facets.Unbacked("Maple chopping board by Oak and Iron", facts));
        Assert.Equal(["oak"], Facets.Unbacked("Oak and Iron board of oak", facts).Select(c => c.Word.ToLowerInvariant()));
        Assert.NotEmpty(Facets.Unbacked("Oak chopping board", facts));
        Assert.Equal([(0, 12), (14, 24)], Names.In("Oak and Iron, Oak & Iron", "Oak & Iron"));
        Assert.Empty(Names.In("Iron and oak", "Oak & Iron"));
    }
}
