using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

public class WeaveTests
{
    private static readonly Gen<string[]> Terms =
        from count in Gen.Choose(2, 5)
        from terms in Gen.Choose(1, 3)
            .SelectMany(n => Gen.Elements("bird", "house", "kit", "cedar", "box", "for", "Pájaro").ListOf(n))
            .Select(w => string.Join(' ', w))
            .ListOf(count)
        select terms.ToArray();

    [Theory]
    [InlineData("cedar bird house", "bird house kit", "cedar bird house kit")]
    [InlineData("bird house", "wooden bird house", "wooden bird house")]
    [InlineData("nest-box kit", "Nest box", "nest box kit")]
    [InlineData("casa para pájaros", "pajaros de madera", "casa para pájaros de madera")]
    public void What_terms_share_is_said_once(string one, string other, string text) =>
        Assert.Equal(text, Weave.Of([new(one), new(other)]).Text);

    [Fact]
    public void The_shorter_phrase_that_only_has_the_words_is_given_too()
    {
        var weave = Weave.Of([new("bird house gift", 300), new("gift bird"), new("house bird", 20)]);
        Assert.Equal(320, weave.Volume);
        Assert.Equal(1, weave.UnknownVolume);
        Assert.Equal(3, Tokens.Of(weave.Together).Count);
    }

    [Fact]
    public void Each_term_is_whole_and_no_order_of_joining_is_shorter() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(300),
            Prop.ForAll(
                Terms.ToArbitrary(),
                terms =>
                {
                    var weave = Weave.Of([.. terms.Select(t => new WantedTerm(t))]);
                    var woven = $" {string.Join(' ', Tokens.Of(weave.Text).Select(t => Fold.Letters(t.Word)))} ";
                    return terms.All(t =>
                            woven.Contains(
                                $" {string.Join(' ', Tokens.Of(t).Select(w => Fold.Letters(w.Word)))} ",
                                StringComparison.Ordinal
                            )
                        )
                        && Tokens.Of(weave.Text).Count
                            == Orders(terms)
                                .Min(o => o.Select(t => Tokens.Of(t).Select(w => w.Word).ToArray()).Aggregate(Superstring.Join).Length);
                }
            )
        );

    [Fact]
    public void Too_few_too_many_and_empty_terms_are_named()
    {
        Assert.Equal("terms", Path([new("bird")]));
        Assert.Equal("terms", Path([.. Enumerable.Repeat(new WantedTerm("bird"), 7)]));
        Assert.Equal("terms[1].text", Path([new("bird"), new("…")]));

        static string Path(WantedTerm[] terms) => Assert.Throws<InvalidInputException>(() => Weave.Of(terms)).Problems.Single().Path;
    }

    private static IEnumerable<string[]> Orders(string[] terms) =>
        terms.Length == 1
            ? [terms]
            : terms.SelectMany((t, i) => Orders([.. terms[..i], .. terms[(i + 1)..]]).Select(rest => (string[])[t, .. rest]));
}
