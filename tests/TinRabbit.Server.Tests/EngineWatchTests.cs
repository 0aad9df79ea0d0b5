namespace TinRabbit.Server.Tests;

/// <summary>The engine on what happened after a change, and on what a market found.</summary>
public sealed class EngineWatchTests(TestShop shop) : IClassFixture<TestShop>
{
    private static double[] Days(int count, Func<int, double> each) => [.. Enumerable.Range(0, count).Select(each)];

    [Fact]
    public async Task A_clear_rise_is_called_up_and_answers_exactly_as_described()
    {
        var answer = await shop.Post("/api/engine/compare", new { before = Days(28, d => 20 + d % 7), after = Days(28, d => 40 + d % 7) });
        Assert.Equal(["difference", "low", "high", "verdict"], answer.AsObject().Select(p => p.Key));
        Assert.Equal("up", answer["verdict"]!.GetValue<string>());
        Assert.InRange(answer["difference"]!.GetValue<double>(), answer["low"]!.GetValue<double>(), answer["high"]!.GetValue<double>());
    }

    [Fact]
    public async Task With_a_control_that_rose_as_much_nothing_is_claimed()
    {
        var answer = await shop.Post(
            "/api/engine/compare",
            new
            {
                before = Days(28, d => 20 + d * 5 % 7),
                after = Days(28, d => 44 + d * 3 % 7),
                control = new { before = Days(28, d => 200 + d * 3 % 11), after = Days(28, d => 400 + d * 7 % 11) },
            }
        );
        Assert.Equal("unclear", answer["verdict"]!.GetValue<string>());
        var few = await shop.Post("/api/engine/compare", new { before = Days(28, _ => 5), after = Days(2, _ => 9) });
        Assert.Null(few["difference"]);
        Assert.Equal(5, few["daysNeeded"]!.GetValue<int>());
    }

    [Fact]
    public async Task What_is_no_count_is_named_by_its_place()
    {
        var refused = await shop.Post("/api/engine/compare", new { before = new[] { 1, -2 }, after = new[] { 3 } }, 400);
        Assert.Contains("before[1]", refused["errors"]!.AsObject().Select(e => e.Key));
        var missing = await shop.Post("/api/engine/compare", new { before = new[] { 1 }, control = new { before = new[] { 1 } } }, 400);
        Assert.Equal(["after", "control.after"], missing["errors"]!.AsObject().Select(e => e.Key).Order());
    }

    private static object Observed(string text, bool found, int? place = null) =>
        new
        {
            text,
            found,
            place,
        };

    [Fact]
    public async Task A_wrong_fold_is_named_and_the_rank_correlation_needs_twenty_terms()
    {
        // Hedgerow Fair is said to take plurals literally; this market does not.
        var answer = await shop.Post(
            "/api/engine/explain",
            new
            {
                platform = "hedgerow-fair",
                fields = new { title = "Cedar bird houses, nest boxes", tags = new[] { "owl boxes" } },
                observed = new[]
                {
                    Observed("bird house", true, 3),
                    Observed("nest box", true),
                    Observed("owl box", true, 9),
                    Observed("cedar", true, 40),
                    Observed("zebra", false),
                },
            }
        );
        Assert.Equal(["foretold", "disagreements", "change", "n"], answer.AsObject().Select(p => p.Key));
        Assert.Equal([false, false, false, true, false], answer["foretold"]!.AsArray().Select(f => f!.GetValue<bool>()));
        Assert.Equal("{\"kind\":\"fold\",\"name\":\"plural\",\"on\":true,\"remaining\":0}", answer["change"]!.ToJsonString());
        Assert.Equal((3, 3), (answer["disagreements"]!.GetValue<int>(), answer["n"]!.GetValue<int>()));
    }

    [Fact]
    public async Task Grip_that_falls_with_the_place_correlates_and_a_bad_observation_is_named()
    {
        string[] words =
        [
            "ash",
            "beech",
            "cedar",
            "date",
            "elm",
            "fir",
            "gorse",
            "hazel",
            "ivy",
            "juniper",
            "kapok",
            "larch",
            "maple",
            "nutmeg",
            "oak",
            "pine",
            "quince",
            "rowan",
            "sorrel",
            "thyme",
        ];
        var answer = await shop.Post(
            "/api/engine/explain",
            new
            {
                platform = "hedgerow-fair",
                fields = new { title = string.Join(' ', words) },
                observed = words.Select((w, i) => Observed(w, true, i + 1)),
            }
        );
        // The further forward a word is, the firmer its grip: the order is the same.
        Assert.Equal(20, answer["n"]!.GetValue<int>());
        Assert.Equal(1, answer["rho"]!.GetValue<double>(), 1e-9);
        Assert.Null(answer["change"]);
        var refused = await shop.Post(
            "/api/engine/explain",
            new
            {
                platform = "hedgerow-fair",
                fields = new { },
                observed = new object[] { Observed("oak", true, 0), new { text = "ash" } },
            },
            400
        );
        Assert.Equal(["observed[0].place", "observed[1].found"], refused["errors"]!.AsObject().Select(e => e.Key).Order());
    }
}
