using TinRabbit.Core.Shapes;

namespace TinRabbit.Core.Tests;

public class ShapesTests
{
    private static readonly DateOnly From = new(2024, 5, 1);
    private static readonly double[] Spring = [0.95, 1.5, 2.05, 1.75, 1.2, 0.85, 0.65, 0.55, 0.5, 0.55, 0.65, 0.8];

    [Fact]
    public void A_spring_term_is_seasonal_and_says_when_to_be_ready()
    {
        var shape = YearShape.Of(Series(30, 900, Spring), From)!;
        Assert.Equal(Shape.Seasonal, shape.Shape);
        Assert.Equal([2, 3, 4], shape.PeakMonths);
        Assert.Equal(new DateOnly(2026, 12, 21), shape.ReadyBy); // six weeks before February, after the history's last month
        Assert.InRange(shape.SeasonalStrength!.Value, 0.9, 1);
    }

    [Fact]
    public void A_season_around_new_year_is_one_run()
    {
        var shape = YearShape.Of(Series(36, 900, [2.2, 1, 0.8, 0.7, 0.7, 0.7, 0.7, 0.7, 0.8, 0.9, 1.2, 2.5]), From)!;
        Assert.Equal([12, 1], shape.PeakMonths);
    }

    [Theory]
    [InlineData(0.03, Shape.Rising)]
    [InlineData(-0.035, Shape.Fading)]
    [InlineData(0.004, Shape.Steady)]
    public void A_trend_is_named_when_it_is_sure_and_large(double monthly, Shape shape) =>
        Assert.Equal(shape, YearShape.Of(Series(30, 800, null, monthly), From)!.Shape);

    [Fact]
    public void Most_months_empty_is_sparse_before_anything_else() =>
        Assert.Equal(Shape.Sparse, YearShape.Of([.. Enumerable.Range(0, 24).Select(i => i % 12 == 3 ? 90.0 : i % 2 * 5)], From)!.Shape);

    [Fact]
    public void A_burst_is_a_one_off_unless_the_other_year_has_it_too()
    {
        double[] Burst(params int[] at) => [.. Enumerable.Range(0, 30).Select(i => at.Contains(i) ? 2000 : 100 + i % 3 * 5.0)];
        Assert.Equal(Shape.OneOff, YearShape.Of(Burst(14), From)!.Shape);
        Assert.Equal(Shape.OneOff, YearShape.Of(Burst(14, 15), From)!.Shape);
        Assert.NotEqual(Shape.OneOff, YearShape.Of(Burst(14, 15, 16), From)!.Shape);
        Assert.NotEqual(Shape.OneOff, YearShape.Of(Burst(14, 26), From)!.Shape);
        Assert.NotEqual(Shape.OneOff, YearShape.Of(Burst(10, 20), From)!.Shape); // two that do not touch
    }

    [Fact]
    public void A_trend_says_the_last_month_the_last_quarter_and_the_same_year_as_its_shape()
    {
        int[] months = [.. Series(30, 900, Spring).Select(m => (int)m)];
        var (trend, year) = (MonthTrend.Of(months, From)!, YearShape.Of([.. months.Select(m => (double)m)], From)!);
        Assert.Equal((months[^1], year.Change12, year.Shape), (trend.LastMonth, trend.Change12, trend.Shape));
        Assert.Equal(year.PeakMonths, trend.PeakMonths);
        var (before, after) = (months[24] + months[25] + months[26], months[27] + months[28] + months[29]);
        Assert.Equal(100.0 * after / before - 100, trend.Change3!.Value, 1e-9);
        // What cannot be said is not said.
        Assert.Null(MonthTrend.Of([], From));
        Assert.Equal(
            (5.0, null, null),
            MonthTrend.Of([1, 5], From) is { } short2 ? (short2.LastMonth, short2.Change3, short2.Change12) : default
        );
        Assert.Null(MonthTrend.Of([0, 0, 0, 7, 7, 7], From)!.Change3);
        Assert.Empty(MonthTrend.Of(months, null)!.PeakMonths);
    }

    [Fact]
    public void Under_a_year_nothing_is_named() => Assert.Null(YearShape.Of(new double[11], From));

    [Fact]
    public void Nothing_at_all_and_nothing_moving_have_names_too()
    {
        Assert.Equal(Shape.Sparse, YearShape.Of(new double[12], From)!.Shape);
        var flat = YearShape.Of([.. Enumerable.Repeat(40.0, 26)], From)!;
        Assert.Equal((Shape.Steady, 1.0, 0.0), (flat.Shape, flat.P, flat.SeasonalStrength!.Value));
    }

    // A hundred made-up histories of known kind, with noise of up to an eighth.
    [Fact]
    public void Known_shapes_are_named_rightly_through_noise()
    {
        var right = 0;
        for (var seed = 0; seed < 100; seed++)
        {
            var random = new Random(seed);
            var kind = (Shape)(seed % 6);
            var (count, level) = (24 + random.Next(24), 60 * Math.Exp(5 * random.NextDouble()));
            var season = Enumerable
                .Range(0, 12)
                .Select(m => 1 + (0.5 + random.NextDouble() * 0.4) * Math.Cos((m - seed) * Math.PI / 6))
                .ToArray();
            var series = kind switch
            {
                Shape.Sparse =>
                [
                    .. Enumerable.Range(0, count).Select(_ => random.NextDouble() < 0.55 ? 0 : Math.Round(random.NextDouble() * 30)),
                ],
                Shape.Seasonal => Series(count, level, season, 0.006 * (random.NextDouble() - 0.5), random),
                Shape.Rising => Series(count, level, null, 0.03 + 0.03 * random.NextDouble(), random),
                Shape.Fading => Series(count, level, null, -0.03 - 0.03 * random.NextDouble(), random),
                _ => Series(count, level, null, 0, random),
            };
            if (kind == Shape.OneOff)
                series[3 + random.Next(count - 6)] *= 6 + 10 * random.NextDouble();
            if (YearShape.Of(series, From.AddMonths(seed))!.Shape == kind)
                right++;
        }

        Assert.InRange(right, 95, 100);
    }

    [Fact]
    public void The_trend_line_and_test_agree_with_worked_examples()
    {
        var (slope, at0) = Trend.TheilSen([1, 3, 5, 90, 9]);
        Assert.Equal((2.0, 1.0), (slope, at0));
        Assert.Equal(1, Trend.MannKendall([4, 4, 4, 4]));
        Assert.Equal(0.0275, Trend.MannKendall([1, 2, 3, 4, 5]), 4); // S = 10, variance 50/3, z = 9/4.0825
    }

    private static double[] Series(int count, double level, double[]? season = null, double monthly = 0, Random? noise = null) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(i =>
                    Math.Round(
                        level
                            * (season?[(From.Month - 1 + i) % 12] ?? 1)
                            * Math.Exp(monthly * i)
                            * (1 + (noise is null ? 0.01 * (i * 7 % 5 - 2) : 0.25 * (noise.NextDouble() - 0.5)))
                    )
                ),
        ];
}
