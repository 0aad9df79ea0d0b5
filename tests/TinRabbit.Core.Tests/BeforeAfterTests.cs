using TinRabbit.Core.Comparing;

namespace TinRabbit.Core.Tests;

/// <summary>Whether a change helped: worked by hand, and how often it is wrong on series made at random.</summary>
public class BeforeAfterTests
{
    private static double[] Days(int count, Func<int, double> each) => [.. Enumerable.Range(0, count).Select(each)];

    [Fact]
    public void A_weekday_pattern_alone_is_no_difference()
    {
        var found = BeforeAfter.Of(new(Days(28, d => 10 + d % 7 * 5), Days(28, d => 10 + d % 7 * 5)));
        Assert.Equal((0.0, Verdict.Unclear, 28), (found.Difference!.Value, found.Verdict, found.Days));
        Assert.Null(found.DaysNeeded);
    }

    [Fact]
    public void The_difference_is_that_of_the_mean_logarithms_and_the_interval_is_Students()
    {
        // Logarithms 1 and 2 in turn by weeks before, 2 and 3 after: every residual is 0.5, and the same as the day before but at two ends.
        double Count(double log) => Math.Exp(log) - 1;
        var found = BeforeAfter.Of(new(Days(14, d => Count(d < 7 ? 1 : 2)), Days(14, d => Count(d < 7 ? 2 : 3))));
        Assert.Equal((Math.E - 1) * 100, found.Difference!.Value, 1e-9);
        // Lag 1: 2 windows of 12 products of +0.25 and one of −0.25, over 28 × 0.25; + 1/28 + 0.1.
        var autocorrelation = (2 * (12 - 1) * 0.25) / (28 * 0.25) + 1.0 / 28 + 0.1;
        var variance = 28 * 0.25 / (28 - 8) * 2 / 14 * (1 + Math.Min(0.9, autocorrelation)) / (1 - Math.Min(0.9, autocorrelation));
        // Student's t, 20 degrees of freedom, 97.5 %: 2.086.
        Assert.Equal(2.086 * Math.Sqrt(variance), Math.Log(found.High!.Value / 100 + 1) - 1, 0.001);
        Assert.Equal(variance, found.Effect!.Value.Variance, 1e-12);
    }

    [Fact]
    public void What_was_adjusted_before_adds_its_variance_which_no_days_lessen()
    {
        // A small rise among noise.
        var counts = new DailyCounts(Days(28, d => 40 + d * 7 % 11 * 3), Days(28, d => 43 + d * 5 % 11 * 3));
        var plain = BeforeAfter.Of(counts);
        var adjusted = BeforeAfter.Of(counts, adjusted: 0.01);
        Assert.Equal(plain.Difference, adjusted.Difference);
        Assert.Equal(plain.Effect!.Value.Variance + 0.01, adjusted.Effect!.Value.Variance, 1e-12);
        Assert.True(adjusted.High > plain.High && adjusted.Low < plain.Low);
        Assert.Equal((Verdict.Unclear, Verdict.Unclear), (plain.Verdict, adjusted.Verdict));
        Assert.True(plain.DaysNeeded > 0);
        // A tenth either way stays, so that a difference of this size is never told.
        Assert.Null(adjusted.DaysNeeded);
    }

    [Fact]
    public void Windows_are_equal_whole_weeks_next_to_the_change_and_no_longer_than_four()
    {
        // What is far away is no part of it.
        double[] before = [.. Days(40, _ => 1000), .. Days(28, d => 10 + d % 3)];
        double[] after = [.. Days(28, d => 20 + d % 3), .. Days(40, _ => 1000)];
        var found = BeforeAfter.Of(new(before, after));
        Assert.Equal(28, found.Days);
        Assert.InRange(found.Difference!.Value, 70, 110);
        Assert.Equal(Verdict.Up, found.Verdict);
        Assert.Equal(14, BeforeAfter.Of(new(Days(20, d => d % 2), Days(50, d => d % 2))).Days);
    }

    [Fact]
    public void Less_than_a_week_says_how_many_days_are_missing_and_invents_nothing()
    {
        var found = BeforeAfter.Of(new(Days(28, _ => 5), Days(3, _ => 9)));
        Assert.Equal((null, null, Verdict.Unclear, 4), (found.Difference, found.Low, found.Verdict, found.DaysNeeded));
        // A week before the change will not come any more.
        Assert.Null(BeforeAfter.Of(new(Days(3, _ => 5), Days(28, _ => 9))).DaysNeeded);
        Assert.Null(BeforeAfter.Of(new([], [])).Effect);
    }

    [Fact]
    public void What_the_control_did_too_is_taken_off()
    {
        var market = new DailyCounts(Days(28, d => 100 + d % 5), Days(28, d => 200 + d % 5));
        var found = BeforeAfter.Of(new(Days(28, d => 20 + d % 4), Days(28, d => 41 + d % 4)), market);
        Assert.InRange(found.Difference!.Value, -6, 6);
        Assert.Equal(Verdict.Unclear, found.Verdict);
        Assert.Equal(7, BeforeAfter.Of(new(Days(28, _ => 1), Days(28, _ => 2)), new(Days(8, _ => 1), Days(28, _ => 1))).Days);
    }

    // Weekdays, a day like the day before, and counts of chance: as views of a listing are.
    private static (double[] Before, double[] After) Series(Random random, double rise, double correlation = 0.4)
    {
        var state = 0.0;
        double Day(int day, double factor)
        {
            state = correlation * state + Math.Sqrt(1 - correlation * correlation) * Normal(random);
            return Poisson(random, 40 * factor * (1 + 0.3 * Math.Sin(day * 2 * Math.PI / 7)) * Math.Exp(0.2 * state));
        }

        var before = Days(28, d => Day(d, 1));
        return (before, Days(28, d => Day(d + 28, rise)));
    }

    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    private static double Poisson(Random random, double mean)
    {
        var (limit, product, count) = (Math.Exp(-mean), random.NextDouble(), 0);
        for (; product > limit; count++)
            product *= random.NextDouble();
        return count;
    }

    [Theory]
    [InlineData(0.0)]
    [InlineData(0.3)]
    [InlineData(0.5)]
    public void A_change_without_effect_is_called_up_or_down_in_at_most_nine_of_a_hundred(double correlation)
    {
        var random = new Random(11);
        var wrong = Enumerable
            .Range(0, 1000)
            .Count(_ =>
                Series(random, 1, correlation) is var (before, after) && BeforeAfter.Of(new(before, after)).Verdict != Verdict.Unclear
            );
        Assert.InRange(wrong, 1, 90);
    }

    [Fact]
    public void At_least_eighty_five_of_a_hundred_real_rises_of_a_third_are_found()
    {
        var random = new Random(12);
        var found = Enumerable
            .Range(0, 1000)
            .Count(_ => Series(random, 1.35) is var (before, after) && BeforeAfter.Of(new(before, after)).Verdict == Verdict.Up);
        Assert.InRange(found, 850, 1000);
    }

    [Fact]
    public void The_days_needed_are_enough_when_they_have_passed()
    {
        var random = new Random(13);
        var (before, after) = Series(random, 1.12);
        var now = BeforeAfter.Of(new(before[^14..], after[..14]));
        Assert.Equal(Verdict.Unclear, now.Verdict);
        // The interval of a window longer by the root of the days leaves out 0.
        var half = Math.Log(now.High!.Value / 100 + 1) - now.Effect!.Value.Log;
        var days = 14 + now.DaysNeeded!.Value;
        Assert.True(half * Math.Sqrt(14.0 / days) <= Math.Abs(now.Effect.Value.Log));
        Assert.Equal(0, days % 7);
    }

    [Fact]
    public void Pooled_changes_are_weighed_by_DerSimonian_and_Laird()
    {
        // Worked by hand: weights 25, 100, 25; mean 0.2; Q = 25·0.16 + 100·0 + 25·0.16 = 8; C = 150 − (625 + 10,000 + 625)/150 = 75.
        var pooled = PooledDifference.Of([(-0.2, 0.04), (0.2, 0.01), (0.6, 0.04)]);
        Assert.Equal((8 - 2) / 75.0, pooled.Between!.Value, 1e-12);
        Assert.Equal((Math.Exp(0.2) - 1) * 100, pooled.Difference!.Value, 1e-9);
        var half = 1.959964 / Math.Sqrt(2 / (0.04 + 0.08) + 1 / (0.01 + 0.08));
        Assert.Equal((Math.Exp(0.2 - half) - 1) * 100, pooled.Low!.Value, 1e-9);
        Assert.Equal((3, Verdict.Unclear), (pooled.Count, pooled.Verdict));
        // Alike, they vary no more than chance.
        Assert.Equal(0, PooledDifference.Of([(0.3, 0.01), (0.31, 0.01), (0.29, 0.01)]).Between);
        Assert.Equal(Verdict.Up, PooledDifference.Of([(0.3, 0.01), (0.31, 0.01), (0.29, 0.01)]).Verdict);
        Assert.Null(PooledDifference.Of([(0.3, 0.01), (0.31, 0.01)]).Difference);
    }
}
