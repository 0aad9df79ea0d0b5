using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Comparing;
using TinRabbit.Core.Watching;

namespace TinRabbit.Core.Tests;

/// <summary>What a change did to ranks: the test worked by hand, and how often it is wrong where nothing happened.</summary>
public class RankEffectTests
{
    [Fact]
    public void The_test_is_exact_for_few_differences_and_shares_ranks_among_equals()
    {
        // All six above 0: 2 of 64 choices of signs are as far from the mean.
        Assert.Equal(new SignedRankTest(6, 21, 2 / 64.0), SignedRankTest.Of([1, 2, 3, 4, 5, 6]));
        // The smallest below 0: sums 0, 1, 20 and 21.
        Assert.Equal(new SignedRankTest(6, 20, 4 / 64.0), SignedRankTest.Of([-1, 2, 3, 4, 5, 6]));
        // Zeros are left out; two equal sizes have rank 1.5 each: sums 1.5 or less are 0, 1.5, 1.5, and 3 of the other end.
        Assert.Equal(new SignedRankTest(4, 8.5, 6 / 16.0), SignedRankTest.Of([0, -1, 1, 3, 4]));
        Assert.Equal(new SignedRankTest(0, 0, 1), SignedRankTest.Of([0, 0]));
    }

    [Fact]
    public void The_normal_distribution_goes_on_where_the_exact_one_ends()
    {
        // 24 and 25 differences of alternating signs with a slight lean.
        double P(int count) => SignedRankTest.Of(Enumerable.Range(1, count).Select(i => i % 3 == 0 ? -(double)i : i)).P;
        Assert.InRange(P(25) / P(24), 0.5, 1.5);
        Prop.ForAll(
                Gen.Choose(-50, 50).ArrayOf().ToArbitrary(),
                numbers =>
                {
                    var test = SignedRankTest.Of(numbers.Select(n => (double)n));
                    var mirrored = SignedRankTest.Of(numbers.Select(n => -(double)n));
                    Assert.InRange(test.P, 0, 1);
                    Assert.Equal(test.P, mirrored.P, 1e-9);
                    Assert.Equal(test.Count * (test.Count + 1) / 2.0, test.Positive + mirrored.Positive, 1e-9);
                }
            )
            .QuickCheckThrowOnFailure();
    }

    private static IReadOnlyList<int?> Ranks(Random random, double place, int days) =>
        [.. Enumerable.Range(0, days).Select(_ => (int?)Math.Max(1, (int)Math.Round(place * Math.Exp(0.25 * Gauss(random)))))];

    private static double Gauss(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    private static RankEffect Made(Random random, int terms, double factor) =>
        RankEffect.Of(
            Enumerable
                .Range(0, terms)
                .ToDictionary(
                    i => $"term {i}",
                    _ =>
                    {
                        var place = Math.Exp(1 + 4 * random.NextDouble());
                        return (Ranks(random, place, 14), Ranks(random, place * factor, 14));
                    }
                )
        );

    [Theory]
    [InlineData(6)]
    [InlineData(20)]
    [InlineData(40)]
    public void Where_nothing_happened_it_says_so_in_at_least_91_of_100(int terms)
    {
        var random = new Random(terms);
        Assert.InRange(Enumerable.Range(0, 400).Count(_ => Made(random, terms, 1).Verdict != Verdict.Unclear), 0, 36);
    }

    [Fact]
    public void Ranks_that_halve_are_told_and_the_direction_is_right()
    {
        var random = new Random(7);
        for (var i = 0; i < 50; i++)
        {
            var better = Made(random, 12, 0.5);
            Assert.Equal(Verdict.Up, better.Verdict);
            Assert.True(better.After < better.Before && better.Better > better.Worse);
            Assert.Equal(Verdict.Down, Made(random, 12, 2).Verdict);
        }
    }

    [Fact]
    public void Few_terms_or_days_say_nothing_and_terms_won_and_lost_are_named()
    {
        IReadOnlyList<int?> at(params int?[] ranks) => ranks;
        var found = RankEffect.Of(
            new Dictionary<string, (IReadOnlyList<int?>, IReadOnlyList<int?>)>
            {
                ["won"] = (at(null, null, null, 90), at(40, 41, null, 39)),
                ["lost"] = (at(5, 6, 7), at(null, null, 8)),
                ["never"] = (at(null, null), at((int?)null)),
                ["both"] = (at(10, 12, null, 14), at(4, 5, 6)),
                ["new"] = (at(), at(3, 3, 3)),
            }
        );
        Assert.Equal((1, 12.0, 5.0, Verdict.Unclear), (found.Terms, found.Before!.Value, found.After!.Value, found.Verdict));
        Assert.Null(found.P);
        Assert.Equal(["won"], found.Gained);
        Assert.Equal(["lost"], found.Lost);
        // Six terms on two days each: too few days.
        Assert.Null(RankEffect.Of(Enumerable.Range(0, 6).ToDictionary(i => $"{i}", _ => (at(9, 9), at(1, 1)))).P);
        Assert.NotNull(RankEffect.Of(Enumerable.Range(0, 6).ToDictionary(i => $"{i}", _ => (at(9, 9, 9), at(1, 1, 1)))).P);
    }
}
