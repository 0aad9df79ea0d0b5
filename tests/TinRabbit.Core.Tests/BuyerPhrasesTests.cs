using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Reviews;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Phrases that tell two sets of reviews apart: worked by hand, and as laws over reviews made at random.</summary>
public class BuyerPhrasesTests
{
    private static readonly string[] Vocabulary = ["sturdy", "roof", "wren", "box", "the", "of", "easy", "to", "clean", "5.5"];

    private static Gen<Review[]> Reviews(int most) =>
        from count in Gen.Choose(0, most)
        from reviews in (
            from words in Gen.Choose(1, 8).SelectMany(n => Gen.Elements(Vocabulary).ListOf(n))
            from cut in Gen.Choose(0, 8)
            from stars in Gen.Elements<double?>(null, 1, 4, 5)
            select new Review(string.Join(' ', words.Take(cut)) + ". " + string.Join(' ', words.Skip(cut)), stars)
        ).ListOf(count)
        select reviews.ToArray();

    private static Review[] Times(int count, string text, double? stars = null) => [.. Enumerable.Repeat(new Review(text, stars), count)];

    [Fact]
    public void Of_one_side_alone_the_most_frequent_phrases_are_told_with_their_stars()
    {
        var reviews = (Review[])
            [.. Times(5, "Easy to clean").Select(r => r with { Stars = 5 }), .. Times(3, "It leaks").Select(r => r with { Stars = 1 })];
        var phrases = BuyerPhrases.Frequent(reviews, areMine: false, most: 10);
        Assert.Equal(["easy to clean", "leaks"], phrases.Select(p => p.Text));
        Assert.Equal([(0, 5, 5.0), (0, 3, 1.0)], phrases.Select(p => (p.Mine, p.Theirs, p.Stars!.Value)));
        Assert.All(phrases, p => Assert.Equal(0, p.Z));
        Assert.Single(BuyerPhrases.Frequent(reviews, areMine: true, most: 1));
    }

    [Fact]
    public void The_figures_are_those_worked_out_by_hand()
    {
        Review[] mine = [.. Times(120, "Sturdy.", 5), .. Times(30, "Wobbly!", 2)];
        Review[] theirs = [.. Times(20, "Sturdy.", 4), .. Times(90, "Wobbly.")];
        var phrases = BuyerPhrases.Of(mine, theirs);
        Assert.Equal(["sturdy", "wobbly"], phrases.Select(p => p.Text).Order());
        var sturdy = phrases.Single(p => p.Text == "sturdy");
        // 140 of the 260 phrases are "sturdy": its prior is 500·140/260.
        var prior = 500 * 140.0 / 260;
        var odds = Math.Log((120 + prior) / (150 + 500 - 120 - prior)) - Math.Log((20 + prior) / (110 + 500 - 20 - prior));
        Assert.Equal(odds / Math.Sqrt(1 / (120 + prior) + 1 / (20 + prior)), sturdy.Z, 1e-12);
        Assert.Equal((120, 20), (sturdy.Mine, sturdy.Theirs));
        Assert.Equal((120 * 5 + 20 * 4) / 140.0, sturdy.Stars!.Value, 1e-12);
        Assert.Equal(["Sturdy."], sturdy.Sentences);
        Assert.Equal(["Wobbly."], phrases.Single(p => p.Text == "wobbly").Sentences);
    }

    [Fact]
    public void A_phrase_that_occurs_only_inside_a_longer_one_is_left_out()
    {
        var phrases = BuyerPhrases.Of(Times(60, "It is easy to clean"), Times(60, "A wren came"));
        Assert.Equal(["easy to clean", "wren came"], phrases.Select(p => p.Text).Order());
        var apart = BuyerPhrases.Of([.. Times(60, "It is easy to clean"), .. Times(60, "Easy")], Times(120, "A wren came"));
        Assert.Contains("easy", apart.Select(p => p.Text));
        Assert.DoesNotContain("clean", apart.Select(p => p.Text));
    }

    [Fact]
    public void A_phrase_stays_within_its_sentence_and_has_no_small_word_at_its_ends()
    {
        Assert.Equal(["roof", "roof of cedar", "cedar", "5.5", "5.5 inches", "inches"], BuyerPhrases.In("The roof of cedar. 5.5 inches"));
        Assert.Equal(["Dry 5.5 months!?", "Good…", "Yes"], Sentences.Of("Dry 5.5 months!? Good… \n Yes"));
    }

    [Fact]
    public void The_markets_reviews_are_the_prior()
    {
        Review[] mine = [.. Times(80, "Lovely box"), .. Times(80, "Lovely")];
        var theirs = Times(160, "Square box");
        var lovely = BuyerPhrases.Of(mine, theirs, [.. mine, .. theirs, .. Times(2_000, "Lovely thing")]).Single(p => p.Text == "lovely");
        // 2,160 of the market's 6,800 phrases are "lovely", and 160 of the 320 and none of the 480 phrases of the two sets.
        var prior = 500 * 2_160.0 / 6_800;
        var odds = Math.Log((160 + prior) / (320 + 500 - 160 - prior)) - Math.Log(prior / (480 + 500 - prior));
        Assert.Equal(odds / Math.Sqrt(1 / (160 + prior) + 1 / prior), lovely.Z, 1e-9);
    }

    [Fact]
    public void Both_ways_the_same_phrases_are_found_and_each_is_where_it_is_said() =>
        Prop.ForAll(
                Reviews(60).ToArbitrary(),
                Reviews(60).ToArbitrary(),
                (mine, theirs) =>
                {
                    var (there, back) = (BuyerPhrases.Of(mine, theirs), BuyerPhrases.Of(theirs, mine));
                    Assert.Equal(there.Select(p => (p.Text, p.Mine, p.Theirs)), back.Select(p => (p.Text, p.Theirs, p.Mine)));
                    foreach (var (phrase, other) in there.Zip(back))
                    {
                        Assert.Equal(phrase.Z, -other.Z, 1e-9);
                        Assert.True(Math.Abs(phrase.Z) >= BuyerPhrases.LeastZ && phrase.Mine + phrase.Theirs >= BuyerPhrases.LeastReviews);
                        Assert.Equal(phrase.Mine, mine.Count(r => BuyerPhrases.In(r.Text).Contains(phrase.Text)));
                        Assert.InRange(phrase.Sentences.Count, 1, 3);
                        Assert.All(phrase.Sentences, s => Assert.True(Tokens.HasPhrase(s, phrase.Text)));
                        Assert.InRange(phrase.Text.Split(' ').Length, 1, BuyerPhrases.MostWords);
                        Assert.False(BuyerPhrases.IsSmall(phrase.Text.Split(' ')[0]) || BuyerPhrases.IsSmall(phrase.Text.Split(' ')[^1]));
                    }

                    Assert.Equal(there.OrderByDescending(p => Math.Abs(p.Z)).Select(p => Math.Abs(p.Z)), there.Select(p => Math.Abs(p.Z)));
                }
            )
            .QuickCheckThrowOnFailure();

    [Theory]
    [InlineData("clear acrylic", true)]
    [InlineData("mother's day gift", true)]
    [InlineData("second day", false)]
    [InlineData("real cedar", false)]
    [InlineData("easy to wash", false)]
    public void A_phrase_is_true_by_the_facts_where_it_claims_what_they_have(string text, bool expected)
    {
        var facts = new FactWords(
            "window bird feeder",
            new Dictionary<Facet, IReadOnlyList<string>>
            {
                [Facet.Material] = ["acrylic", "oak"],
                [Facet.Colour] = ["clear"],
                [Facet.Occasion] = ["mother's day"],
            }
        );
        Assert.Equal(expected, new BuyerPhrase(text, -3, 0, 9, 5, []).IsTrueBy(facts));
    }

    [Theory]
    [InlineData(4.0, ReviewTone.Praise)]
    [InlineData(3.9, ReviewTone.Mixed)]
    [InlineData(3.0, ReviewTone.Complaint)]
    [InlineData(null, ReviewTone.Mixed)]
    public void Stars_say_whether_it_is_praise(double? stars, ReviewTone expected) =>
        Assert.Equal(expected, new BuyerPhrase("oak perch", 3, 5, 0, stars, []).Tone);
}
