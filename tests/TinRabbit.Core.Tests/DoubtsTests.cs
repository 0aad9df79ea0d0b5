using TinRabbit.Core.Measures;

namespace TinRabbit.Core.Tests;

public class DoubtsTests
{
    // Forty terms whose competition follows volume closely.
    private static readonly MarketStatistics Shelf = MarketStatistics.Compute(
        Enumerable.Range(1, 40).Select(i => new ReadingNumbers(i * 100, i * 50 * (1 + i % 3 * 0.05), i * 4))
    );

    [Fact]
    public void A_reading_that_sits_is_not_doubted() =>
        Assert.Empty(Doubts.Check(new(1000, 520, 40, [.. Enumerable.Repeat(1000, 30)], 10, [900, 80]), Shelf));

    [Theory]
    [InlineData(1000, 520, 900, DoubtKind.Titles)]
    [InlineData(3900, 2000, 5, DoubtKind.Untitled, DoubtKind.FewTitles)]
    [InlineData(1000, 12, 11, DoubtKind.Competition)]
    [InlineData(1000, 90000, 40, DoubtKind.Competition)]
    [InlineData(1000, 520, 1, DoubtKind.FewTitles)] // fewer than one for 500 searches
    [InlineData(1000, 520, 3, DoubtKind.FewTitles)] // fewer than a tenth of the forty that this shelf expects
    [InlineData(1000, 520, 5)]
    [InlineData(290, 145, 0)] // too few searches to tell
    public void What_does_not_sit_is_named(int volume, int competition, int titles, params DoubtKind[] kinds) =>
        Assert.Equal(kinds, Doubts.Check(new(volume, competition, titles, null, null, []), Shelf).Select(d => d.Kind));

    [Fact]
    public void Grouped_forms_another_history_and_old_age_are_named_with_their_figures()
    {
        var doubts = Doubts.Check(
            new(1300, 650, 40, [.. Enumerable.Repeat(9000, 18), .. Enumerable.Repeat(500, 12)], 91.5, [1300, 1300]),
            Shelf
        );
        Assert.Equal([DoubtKind.Grouped, DoubtKind.History, DoubtKind.Old], doubts.Select(d => d.Kind));
        Assert.Contains("1,300", doubts[0].Why);
        Assert.Contains("average 500 searches, not 1,300", doubts[1].Why);
        Assert.Contains("91 days", doubts[2].Why);
    }

    [Fact]
    public void The_unknown_is_not_doubted() => Assert.Empty(Doubts.Check(new(null, null, null, null, null, [5]), Shelf));

    [Fact]
    public void A_small_shelf_has_no_line_to_be_off() =>
        Assert.Empty(
            Doubts.Check(
                new(290, 2, 1, null, null, []),
                MarketStatistics.Compute(Enumerable.Range(1, 29).Select(i => new ReadingNumbers(i * 100, i * 50)))
            )
        );

    [Fact]
    public void Ranks_are_those_of_the_sorted_values()
    {
        var random = new Random(7);
        for (var n = 1; n < 60; n++)
        {
            var values = Enumerable.Range(0, n).Select(_ => (double?)random.Next(12)).ToList();
            var sorted = values.Order().ToArray();
            var norm = MarketStatistics.Compute(values.Select(v => new ReadingNumbers(v, v)));
            Assert.Equal(sorted[Math.Max(0, (int)Math.Ceiling(n / 3.0) - 1)], norm.LowTo);
            Assert.Equal(sorted[Math.Max(0, (int)Math.Ceiling(n * 2 / 3.0) - 1)], norm.MediumTo);
        }
    }
}
