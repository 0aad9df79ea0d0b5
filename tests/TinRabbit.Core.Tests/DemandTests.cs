using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Comparing;

namespace TinRabbit.Core.Tests;

/// <summary>What searches by month say about a day.</summary>
public class DemandTests
{
    private static readonly DateOnly January = new(2024, 1, 1);

    // January 100, February 200, … December 1,200.
    private static int[] Rising(int years) => [.. Enumerable.Range(0, 12 * years).Select(m => 100 * (m % 12 + 1))];

    private static Demand Of(params (int[] Months, DateOnly From, double Weight)[] terms) =>
        Demand.Of(terms.Select(t => ((IReadOnlyList<int>)t.Months, t.From, t.Weight)))!;

    [Theory]
    [InlineData("2026-04-16", 400 + 100 * 0.5 / 30)] // noon of the 15th is the middle of April
    [InlineData("2026-04-30", 400 + 100 * 14.5 / 30)]
    [InlineData("2026-05-01", 400 + 100 * (0.5 + 0.5 / 31))]
    [InlineData("2026-12-31", 1200 - 1100 * 15.0 / 31)]
    [InlineData("2026-01-01", 1200 - 1100 * (0.5 + 0.5 / 31))]
    public void A_day_lies_between_the_middles_of_two_months(string day, double demand) =>
        Assert.Equal(demand, Of((Rising(2), January, 1)).On(DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture)), 1e-9);

    [Fact]
    public void A_history_that_begins_in_another_month_says_the_same()
    {
        var july = Rising(3)[6..];
        Assert.Equal(Of((Rising(2), January, 1)).On(new(2026, 8, 9)), Of((july, January.AddMonths(6), 1)).On(new(2026, 8, 9)), 1e-9);
    }

    [Fact]
    public void Growth_from_year_to_year_makes_no_step_at_the_turn_of_the_year()
    {
        // 60% more each year, without a season: every day is as good as any other, but for what the months grow within a year.
        int[] months = [.. Enumerable.Range(0, 24).Select(m => (int)Math.Round(10_000 * Math.Pow(1.6, m / 12.0)))];
        var demand = Of((months, January, 1));
        Assert.All(
            Enumerable.Range(0, 365),
            d => Assert.InRange(demand.On(new DateOnly(2026, 1, 1).AddDays(d)), 0.999 * months[^1], 1.001 * months[^1])
        );
    }

    [Fact]
    public void Terms_count_by_their_weight_and_those_of_less_than_a_year_do_not()
    {
        int[] flat = [.. Enumerable.Repeat(300, 12)];
        var day = new DateOnly(2026, 4, 16);
        Assert.Equal(
            Of((Rising(2), January, 1)).On(day) / 2 + 900,
            Of((Rising(2), January, 0.5), (flat, January, 3), (flat[..11], January, 9)).On(day),
            1e-9
        );
        Assert.Null(Demand.Of([(flat[..11], January, 1)]));
        Assert.Null(Demand.Of([]));
        Assert.Null(Demand.Of([([.. flat[..11], 0], January, 1)])); // a month without any says nothing of a ratio
    }

    [Fact]
    public void No_day_is_above_the_best_month_or_below_the_worst() =>
        Prop.ForAll(
                Gen.Choose(1, 10_000).ArrayOf(12).ToArbitrary(),
                Gen.Choose(0, 5_000).ToArbitrary(),
                (months, day) =>
                    Of((months, January, 1)).On(new DateOnly(2020, 1, 1).AddDays(day)) is var demand
                    && demand >= months.Min() - 1e-6
                    && demand <= months.Max() + 1e-6
            )
            .QuickCheckThrowOnFailure();
}
