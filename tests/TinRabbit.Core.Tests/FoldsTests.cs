using Humanizer;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

public class FoldsTests
{
    [Theory]
    [InlineData("pajaros", "pájaros", Folds.Diacritics)]
    [InlineData("womens", "women's", Folds.Possessive)]
    [InlineData("box", "boxes", Folds.Plural)]
    [InlineData("leaf", "leaves", Folds.Plural)]
    [InlineData("child", "children", Folds.Plural)]
    [InlineData("grey", "gray", Folds.Spelling)]
    [InlineData("colours", "colors", Folds.Spelling)]
    [InlineData("jewellery", "jewelry", Folds.Spelling)]
    [InlineData("personalised", "personalized", Folds.Spelling)]
    [InlineData("customising", "customizing", Folds.Spelling)]
    public void A_fold_makes_two_forms_the_same_and_no_other_fold_does(string one, string other, Folds fold)
    {
        Assert.Equal(Fold.Key(one, fold), Fold.Key(other, fold));
        var others = Fold.All.Where(f => f != fold).Aggregate((a, b) => a | b);
        Assert.NotEqual(Fold.Key(one, others), Fold.Key(other, others));
    }

    [Theory]
    [InlineData("glass", "glas")]
    [InlineData("bus", "bu")]
    [InlineData("brass", "bras")]
    [InlineData("series", "serie")]
    [InlineData("canvas", "canva")]
    [InlineData("lens", "len")]
    [InlineData("christmas", "christma")]
    [InlineData("iris", "iri")]
    [InlineData("women's", "women")]
    [InlineData("use", "us")]
    [InlineData("toe", "to")]
    [InlineData("news", "new")]
    public void What_only_looks_like_a_plural_stays(string word, string not) =>
        Assert.NotEqual(Fold.Key(word, Folds.Plural), Fold.Key(not, Folds.Plural));

    [Theory]
    [InlineData("colours", "color", Folds.Plural | Folds.Spelling)]
    [InlineData("women's", "woman", Folds.Plural | Folds.Possessive)]
    [InlineData("children's", "childs", Folds.Plural | Folds.Possessive)]
    [InlineData("jewelleries", "jewelry", Folds.Plural | Folds.Spelling | Folds.Diacritics)]
    public void Folds_add_up(string one, string other, Folds folds) => Assert.Equal(Fold.Key(one, folds), Fold.Key(other, folds));

    // Another library's plurals, over the nouns of this trade and the awkward ones of English.
    [Theory]
    [InlineData("box bird house nest feeder seed gift kit leaf shelf knife wolf calf scarf loaf thief wife life half elf")]
    [InlineData("child man woman person foot tooth goose mouse dormouse fireman grandchild ox")]
    [InlineData("glass dress bus lens gas virus octopus walrus hibiscus campus iris atlas canvas brush watch patch beach inch")]
    [InlineData("cookie movie pie tie birdie hoodie pixie berry city story puppy toy key monkey donkey")]
    [InlineData("house horse rose vase nurse purse blouse cause phrase course prize maze size breeze axe cache moustache")]
    [InlineData("potato tomato hero echo photo logo piano studio shoe toe canoe horseshoe tiptoe video")]
    [InlineData("kiwi taxi ski emu menu glove sleeve olive stove hive wave curve valve cave")]
    [InlineData("quiz analysis oasis crisis cactus fungus larva vertebra criterion")]
    public void Plural_and_singular_share_a_stem(string nouns)
    {
        foreach (var noun in nouns.Split(' '))
            Assert.True(
                Plurals.Stem(noun) == Plurals.Stem(noun.Pluralize(false)),
                $"{noun}: {Plurals.Stem(noun)}, {noun.Pluralize(false)}: {Plurals.Stem(noun.Pluralize(false))}"
            );
    }

    [Fact]
    public void Different_words_of_the_trade_keep_different_stems()
    {
        var words = (
            "box bird house nest feeder seed gift kit leaf leave shelf life live glass glaze gas gaze bus base basis brass bra bras news new lens len pole poll "
            + "rose row pin pine plan plane bar bare car care cart carte wood woods wooden wool print prince bath bathe cloth clothe post poster stamp stand hose hoe shoe show"
        ).Split(' ');
        var clashes = words.GroupBy(Plurals.Stem).Where(g => g.Count() > 1).Select(g => string.Join('=', g)).ToArray();
        Assert.Equal(["bra=bras", "wood=woods"], clashes);
    }

    [Fact]
    public void The_spelling_table_leads_to_one_form_in_one_step() =>
        Assert.All(Spelling.Pairs, p => Assert.Equal(p.American, Spelling.ToAmerican(p.American)));

    [Fact]
    public void Neighbours_join_when_the_word_is_known_or_hyphened()
    {
        Assert.Equal("birdhouse", Joined("bird house"));
        Assert.Equal("birdhouses", Joined("bird houses"));
        Assert.Equal("twigbox", Joined("twig-box"));
        Assert.Null(Joined("twig box"));
        Assert.Null(Joined("house, bird"));

        static string? Joined(string text) => Tokens.Of(text) is [var first, var second] ? Fold.Join(first, second) : null;
    }
}
