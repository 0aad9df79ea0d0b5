using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

public class MatchingTests
{
    private static readonly Platform Literal = Samples.Platform(Folds.Diacritics);
    private static readonly Platform Folding = Samples.Platform(
        Folds.Diacritics | Folds.Plural | Folds.Possessive | Folds.Spelling | Folds.Compound,
        ignored: ["for", "the", "a"]
    );

    [Theory]
    [InlineData("Cedar bird house kit", "bird house", Grade.Whole)]
    [InlineData("Cedar bird houses", "bird house", Grade.Missing)]
    [InlineData("House for a small bird", "bird house", Grade.Together)]
    [InlineData("CEDAR BIRD-HOUSE", "bird house", Grade.Whole)]
    [InlineData("Birdhouse", "bird house", Grade.Missing)]
    [InlineData("Casa para pajaros", "casa para pájaros", Grade.Whole)]
    [InlineData("bird bird house", "bird house bird", Grade.Together)]
    [InlineData("bird house bird", "bird house bird", Grade.Whole)]
    public void A_literal_platform_wants_the_very_words(string title, string term, Grade grade) =>
        Assert.Equal(grade, Match(Literal, term, ("title", title)).Grade);

    [Theory]
    [InlineData("Cedar bird houses", "bird house", Grade.Inflected)]
    [InlineData("Cedar birdhouse", "bird house", Grade.Inflected)]
    [InlineData("Cedar bird house", "birdhouse", Grade.Inflected)]
    [InlineData("Kit for a birdhouse", "bird house kit", Grade.Together)]
    [InlineData("Bird house kits", "birdhouse kit", Grade.Inflected)]
    [InlineData("twig-box", "twigbox", Grade.Inflected)]
    [InlineData("twigbox", "twig-box", Grade.Inflected)]
    [InlineData("twig box", "twigbox", Grade.Missing)]
    [InlineData("gift bird lover", "gift for bird lover", Grade.Together)]
    [InlineData("gift for bird lovers", "gift for bird lover", Grade.Inflected)]
    [InlineData("Women’s gray jewelry", "womens grey jewellery", Grade.Inflected)]
    [InlineData("for the", "for the", Grade.Whole)]
    [InlineData("the for", "for the", Grade.Missing)]
    public void A_folding_platform_sees_through_forms(string title, string term, Grade grade) =>
        Assert.Equal(grade, Match(Folding, term, ("title", title)).Grade);

    [Fact]
    public void Words_in_several_fields_are_spread_or_apart()
    {
        var spread = Match(Literal, "bird house kit", ("title", "bird house"), ("tags", new[] { "cedar", "kit" }));
        Assert.Equal(Grade.Spread, spread.Grade);
        Assert.Equal([Grade.Missing, Grade.Missing, Grade.Missing], spread.Fields);
        Assert.Equal((0.8 + 0.8 + 0.6) / 3, spread.Spread, 12);
        Assert.Equal(["title 0 4", "title 5 5", "tags 0 3"], spread.Spans.Select(s => $"{s.Field} {s.Start} {s.Length}"));
        Assert.Equal(1, spread.Spans[2].Item);

        var apart = Match(
            Literal with
            {
                Search = Literal.Search with { WordsCombine = false },
            },
            "bird house kit",
            ("title", "bird house"),
            ("tags", new[] { "kit" })
        );
        Assert.Equal(Grade.Missing, apart.Grade);
        Assert.True(apart.Apart);
        Assert.Empty(apart.Missing);
    }

    [Fact]
    public void A_phrase_does_not_run_from_one_tag_into_the_next() =>
        Assert.Equal(Grade.Spread, Match(Literal, "bird house", ("tags", new[] { "cedar bird", "house kit" })).Grade);

    [Fact]
    public void Missing_words_are_named_once_and_ignored_ones_not_at_all() =>
        Assert.Equal(["blue", "tit"], Match(Folding, "blue tit box for the blue tit", ("title", "nest boxes")).Missing);

    [Fact]
    public void Only_the_first_characters_count_and_not_a_word_that_the_cut_falls_within()
    {
        var platform = Literal with { Fields = [.. Literal.Fields.Select(f => f.Key == "description" ? f with { IndexedFirst = 10 } : f)] };
        Assert.Equal(Grade.Whole, Match(platform, "wren", ("description", "🏡 a wren nest box")).Grade); // scalars 0–7
        Assert.Equal(["nest"], Match(platform, "wren nest", ("description", "🏡 a wren nest box")).Missing); // the cut falls within "nest"
        Assert.Equal(Grade.Whole, Match(platform, "nest", ("description", "🏡 in: nest box")).Grade); // ends on the cut
    }

    [Fact]
    public void Spans_are_in_the_original_text()
    {
        var title = "🏡 ﬁne Pa\u0301jaros’ “Bird–Houses” ½ bird houses";
        var match = Match(Folding, "bird house", ("title", title));
        Assert.Equal(["Bird–Houses", "bird houses"], match.Spans.Select(s => title.Substring(s.Start, s.Length)));
    }

    [Theory]
    [InlineData("boxes", "box", "box/boxes/plural")]
    [InlineData("women's gift", "womens gift", "womens/women's/possessive")]
    [InlineData("gray box", "grey box", "grey/gray/spelling")]
    [InlineData("birdhouse", "bird house kit", "bird house/birdhouse/compound")]
    [InlineData("bird house", "birdhouse", "birdhouse/bird house/compound")]
    [InlineData("grays", "grey", "grey/grays/plural+spelling")]
    [InlineData("cedar", "oak", "")]
    public void A_near_miss_names_the_fold_that_would_help(string title, string term, string near)
    {
        var copy = Samples.Copy(("title", title));
        var index = ListingIndex.Build(Literal, copy);
        var matcher = new Matcher(TermSet.Prepare(Literal, [term]), index);
        Assert.Equal(
            near,
            string.Join(
                ' ',
                new NearMisses(index).Of(matcher.PreparedOf(0), matcher.Explain(0).Missing).Select(n => $"{n.Needs}/{n.Has}/{n.Fold}")
            )
        );
    }

    [Fact]
    public void A_term_without_a_word_is_refused_by_name()
    {
        var problem = Assert.Single(Assert.Throws<InvalidInputException>(() => TermSet.Prepare(Literal, ["bird", "…"])).Problems);
        Assert.Equal("terms[1].text", problem.Path);
    }

    private static Match Match(Platform platform, string term, params (string Field, object Value)[] copy) =>
        new Matcher(TermSet.Prepare(platform, [term]), ListingIndex.Build(platform, Samples.Copy(copy))).Explain(0);
}
