using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

public class FamilyTests
{
    [Theory]
    [InlineData("bird house", "birdhouses")]
    [InlineData("bird house", "bird-house")]
    [InlineData("nest box with camera", "nestboxes with cameras")]
    [InlineData("grey bird box", "gray bird boxes")]
    [InlineData("28mm nest box", "28 mm nest boxes")]
    [InlineData("set of three", "set of 3")]
    [InlineData("5x7 print", "5 x 7 print")]
    [InlineData("women's shirt", "womens shirts")]
    [InlineData("casa para pájaros", "casa para pajaros")]
    public void Forms_of_one_term_are_one_family(string one, string other) => Assert.Equal(Family.Key(one), Family.Key(other));

    [Theory]
    [InlineData("bird house", "house bird")]
    [InlineData("bird house", "bird houses kit")]
    [InlineData("bird box", "bird house")]
    [InlineData("28mm nest box", "32mm nest box")]
    public void Other_terms_are_not(string one, string other) => Assert.NotEqual(Family.Key(one), Family.Key(other));

    [Theory]
    [InlineData("bird house", "bird house|birdhouse|bird houses|birdhouses")]
    [InlineData("birdhouse kit", "birdhouse kit|bird house kit|birdhouse kits|bird house kits")]
    [InlineData("grey shirt", "grey shirt|gray shirt|grey shirts|gray shirts")]
    [InlineData("28mm box", "28mm box|28 mm box|28mm boxes|28 mm boxes")]
    [InlineData("gift for child", "gift for child|gifts for child|gift for children|gifts for children")]
    public void Forms_are_offered_the_term_itself_first(string term, string forms)
    {
        var offered = Family.Forms(term);
        Assert.Equal(forms.Split('|')[0], offered[0]);
        Assert.Equal(forms.Split('|').Order(), offered.Order());
    }

    [Fact]
    public void Every_form_is_of_the_family() =>
        Assert.All(
            [
                "nesting boxes",
                "colour wall chart",
                "5x7 print",
                "bird lover's gift",
                "three nest boxes",
                "jewellery box",
                "casa para pájaros",
                "🐦 feeder",
            ],
            term => Assert.All(Family.Forms(term), form => Assert.Equal(Family.Key(term), Family.Key(form)))
        );

    [Theory]
    [InlineData("birdhouses", "birdhouses|bird houses|birdhouse")]
    [InlineData("grey bird house", "grey bird house|grey birdhouse|gray bird house|grey bird houses")]
    [InlineData("owl", "owl|owls")]
    public void Forms_near_a_term_are_one_change_away_and_among_all_of_its_forms(string text, string near)
    {
        Assert.Equal(near, string.Join('|', Family.OneChangeForms(text)));
        Assert.All(Family.OneChangeForms(text), f => Assert.Contains(f, Family.Forms(text)));
    }
}
