using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

public sealed class WordRunsTests
{
    [Fact]
    public void Runs_are_every_phrase_of_up_to_five_words_that_no_stop_word_begins_or_ends()
    {
        Assert.Equal(["house", "house for birds", "birds"], WordRuns.In("House for birds"));
        var runs = WordRuns.In("one two three four five six");
        Assert.Equal(5 + 5 + 4 + 3 + 2 + 1, runs.Count);
        Assert.Contains("one two three four five", runs);
        Assert.DoesNotContain("one two three four five six", runs);
        Assert.Equal(["bird"], WordRuns.In("Bird, bird").Where(r => !r.Contains(' ', StringComparison.Ordinal)));
    }

    [Fact]
    public void Other_orders_are_of_two_and_three_words_the_nearest_first_and_no_runs()
    {
        // "bird house" and "house cedar" are runs already.
        Assert.Equal(
            ["house bird", "cedar house", "bird cedar", "cedar bird"],
            WordRuns.OtherOrders("bird house cedar").TakeWhile(o => o.Split(' ').Length == 2)
        );
        var orders = WordRuns.OtherOrders("a b c d e f g h i j k l m n o p q r s t u v w x y z");
        Assert.Equal(WordRuns.MostOrders, orders.Count);
        Assert.Empty(orders.Intersect(WordRuns.In("b c d e f g h i j k l m n o p q r s t u v w x y z")));
        Assert.Equal(orders.Count, orders.Distinct().Count());
    }

    [Fact]
    public void A_long_text_makes_no_more_orders_than_allowed_and_an_empty_one_none()
    {
        Assert.Empty(WordRuns.In(" - "));
        Assert.Empty(WordRuns.OtherOrders("bird"));
        Assert.True(WordRuns.OtherOrders(string.Join(' ', Enumerable.Range(0, 2_000).Select(i => $"w{i}"))).Count <= WordRuns.MostOrders);
    }
}
