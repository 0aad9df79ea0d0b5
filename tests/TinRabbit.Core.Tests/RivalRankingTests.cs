using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Moves;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Rivals;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>A listing among its rivals, the words of their titles, and moving past one.</summary>
public class RivalRankingTests
{
    private static readonly Platform Platform = Samples.Platform(Folds.Diacritics);
    private static readonly WantedTerm[] Picks =
    [
        new("bird house", 900, null, 50, Fit.Core),
        new("nest box", 400, null, 50, Fit.Core),
        new("owl box", 100, null, 50, Fit.Good),
    ];

    private static RivalRanking Rank(string mine, params string[] rivals) =>
        RivalRanking.Of(
            TermSet.Prepare(Platform, [.. Picks.Select(p => p.Text)]),
            Picks,
            Samples.Copy(("title", mine)),
            [.. rivals.Select(r => Samples.Copy(("title", r)))]
        );

    [Fact]
    public void The_next_above_is_the_nearest_and_the_gap_is_what_it_has_more()
    {
        var ranking = Rank("Nest box", "Bird house, nest box, owl box", "Owl box", "Bird house");
        Assert.Equal([0, 2, 1], ranking.Order);
        Assert.Equal((2, 2), (ranking.Above, ranking.NextAbove));
        Assert.Equal(ranking.Rivals[2].Grip - ranking.Mine.Grip, ranking.Gap!.Value, 1e-12);
        Assert.Equal(["bird house"], ranking.HeldAlone(2, mine: false).Select(i => Picks[i].Text));
        Assert.Equal(["nest box"], ranking.HeldAlone(2, mine: true).Select(i => Picks[i].Text));
        Assert.Equal(["bird house", "owl box"], ranking.HeldAlone(0, mine: false).Select(i => Picks[i].Text));
    }

    [Fact]
    public void The_first_has_nobody_above()
    {
        var ranking = Rank("Bird house, nest box", "Owl box");
        Assert.Equal((0, null, null), (ranking.Above, ranking.NextAbove, ranking.Gap));
        // Who is as firm is not above.
        Assert.Equal(0, Rank("Bird house", "Bird house").Above);
        Assert.Null(Rank("Bird house").NextAbove);
    }

    private static readonly Gen<string> Title = Gen.Elements("bird house", "nest box", "owl box", "cedar", "bird", "box")
        .ListOf()
        .Select(words => string.Join(", ", words));

    [Fact]
    public void Each_is_weighed_as_the_listing_is_and_the_order_is_by_grip() =>
        Prop.ForAll(
                Title.ToArbitrary(),
                Title.NonEmptyListOf().ToArbitrary(),
                (mine, rivals) =>
                {
                    var ranking = Rank(mine, [.. rivals]);
                    foreach (var (title, weighed) in rivals.Zip(ranking.Rivals))
                        Assert.Equal(Weigher.Weigh(Platform, Samples.Copy(("title", title)), Picks).Grip, weighed.Grip);
                    var grips = ranking.Order.Select(i => ranking.Rivals[i].Grip).ToList();
                    Assert.Equal(grips.OrderDescending(), grips);
                    Assert.Equal(Enumerable.Range(0, rivals.Count), ranking.Order.Order());
                    Assert.Equal(ranking.Above, grips.Count(g => g > ranking.Mine.Grip));
                    Assert.True(ranking.Gap is null or > 0);
                    for (var i = 0; i < rivals.Count; i++)
                        Assert.Empty(ranking.HeldAlone(i, mine: true).Intersect(ranking.HeldAlone(i, mine: false)));
                }
            )
            .QuickCheckThrowOnFailure();

    [Fact]
    public void Moves_to_pass_say_whether_they_do_and_weigh_what_they_promise() =>
        Prop.ForAll(
                Title.ToArbitrary(),
                Title.ToArbitrary(),
                (mine, rival) =>
                {
                    var theirs = Weigher.Weigh(Platform, Samples.Copy(("title", rival)), Picks).Grip;
                    var input = new MovesInput(Platform, Samples.Copy(("title", mine)), Picks, []);
                    var pass = MovesToPass.Of(input, theirs);
                    Assert.InRange(pass.Moves.Count, 0, MovesToPass.MostMoves);
                    var after = pass.Moves.Aggregate(input, (i, m) => i.After(m));
                    var grip = Weigher.Weigh(Platform, after.Copy, Picks).Grip;
                    Assert.Equal(grip, pass.Grip, 1e-9);
                    Assert.Equal(grip > theirs, pass.Passes);
                    // Not one more than needed in this order.
                    if (pass.Moves.Count > 0)
                        Assert.True(grip - pass.Moves[^1].Gain <= theirs + 1e-9);
                    Assert.All(after.Copy, c => Assert.True(RoomUsed.Of(Platform.Find(c.Key)!, c.Value).Fits || c.Key == "title"));
                }
            )
            .QuickCheckThrowOnFailure();

    [Fact]
    public void Words_of_titles_are_counted_once_a_title_and_a_comma_parts_a_pair()
    {
        RivalListing[] rivals =
        [
            .. Enumerable.Range(0, 9).Select(i => Named("Cedar bird house, bird gift", 20, ratings: 10)),
            .. Enumerable.Range(0, 9).Select(i => Named("Box for the bird", 10, ratings: 10)),
        ];
        var words = RivalWords.Of(rivals, r => [r.Title]).ToDictionary(w => w.Text);
        Assert.Equal(18, words["bird"].Held);
        Assert.Equal(9, words["cedar bird"].Held);
        Assert.Equal(0.5, words["bird house"].Share);
        Assert.DoesNotContain("house bird", words.Keys);
        Assert.DoesNotContain("for", words.Keys);
        Assert.DoesNotContain("box for", words.Keys);
        Assert.Equal(
            [(RivalFigure.Price, true), (RivalFigure.Ratings, false)],
            words["cedar"].Differences.Select(d => (d.Figure, d.IsClear))
        );
        Assert.Equal(2, words["cedar"].Differences[0].Estimate!.Value, 1e-9);
        Assert.StartsWith("Too few to say: 18 with “bird”", words["bird"].Differences[0].Sentence, StringComparison.Ordinal);
        // Two titles are no pattern.
        Assert.DoesNotContain(
            RivalWords.Of([.. rivals[..9], Named("Owl", 1, 1), Named("Owl", 1, 1)], r => [r.Title]),
            w => w.Text == "owl"
        );
    }

    private static RivalListing Named(string title, double price, double ratings) =>
        new(new Dictionary<string, IReadOnlyList<string>>(), price) { Title = title, Ratings = ratings };
}
