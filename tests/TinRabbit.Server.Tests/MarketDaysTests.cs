using TinRabbit.Core.Comparing;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Watching;
using TinRabbit.Market;
using TinRabbit.Market.StandIn;
using TinRabbit.Server.Features.Watch;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

/// <summary>What happens in the sample data as days pass.</summary>
public class MarketDaysTests
{
    private const string Us = "hedgerow-fair-us";
    private static readonly string[] Terms = ["cedar bird house", "bird house", "wren nest box"];

    // What a seller would check the good text for.
    private static readonly string[] Watched =
    [
        .. Terms,
        "bird houses",
        "birdhouse",
        "wooden bird house",
        "garden bird house",
        "small bird house",
        "nesting box",
        "nest box",
        "wren house",
        "bird box",
    ];

    private static StandInMarket Market(ulong seed = 7) => new(seed, ShippedPlatforms.All, new Clock());

    // A day like any other, the same at every run.
    private sealed class Clock : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => new(2026, 11, 26, 10, 0, 0, TimeSpan.Zero);
    }

    private static Dictionary<string, FieldValue> Copy(string title, params string[] tags) =>
        new() { ["title"] = new FieldValue.Text(title), ["tags"] = new FieldValue.Items(tags) };

    private static readonly Dictionary<string, FieldValue> Poor = Copy("Garden thing", "bird house");
    private static readonly Dictionary<string, FieldValue> Good = Copy(
        "Cedar bird house, wren nest box, small wooden bird house for garden",
        "bird house",
        "cedar bird house",
        "wren nest box",
        "nesting box",
        "garden bird house"
    );

    private static int?[] Ranks(StandInMarket market, string id = "5") =>
        [.. market.Find(Us, Sending.IdAtMarket(id), Terms).Select(f => f.Rank)];

    private static long Views(StandInMarket market, int days, string id = "5")
    {
        var yesterday = DateOnly.FromDateTime(market.Now).AddDays(-1);
        return market.Figures(Us, Sending.IdAtMarket(id), yesterday.AddDays(1 - days), yesterday).Sum(d => d.Views!.Value);
    }

    [Fact]
    public void A_better_text_is_found_when_the_index_knows_it_and_climbs_over_days()
    {
        var market = Market();
        market.Send(Us, new("5", "Plover & Pine", Poor), market.Now.AddDays(-90));
        var before = Ranks(market);
        Assert.Equal([false, true, false], before.Select(r => r is not null));
        var views = Views(market, 14);

        market.Send(Us, new("5", "Plover & Pine", Good), market.Now);
        Assert.Equal(before, Ranks(market));
        market.MoveClock(TimeSpan.FromDays(1));
        var next = Ranks(market);
        Assert.All(next, r => Assert.NotNull(r));
        market.MoveClock(TimeSpan.FromDays(30));
        var later = Ranks(market);
        Assert.All(next.Zip(later), r => Assert.True(r.Second < r.First, $"{r.First} → {r.Second}"));
        Assert.True(Views(market, 14) > 3 * views, $"{views} → {Views(market, 14)}");

        market.Send(Us, new("5", "Plover & Pine", Poor), market.Now);
        market.MoveClock(TimeSpan.FromDays(10));
        var fallen = Ranks(market);
        Assert.Equal([false, true, false], fallen.Select(r => r is not null));
        Assert.True(fallen[1] > later[1]);
    }

    [Fact]
    public void The_rank_is_the_place_among_the_results_that_a_search_shows()
    {
        var market = Market();
        market.Send(Us, new("5", "Plover & Pine", Good), market.Now.AddDays(-60));
        market.Send(Us, new("6", "Plover & Pine", Copy("Cedar bird house")), market.Now.AddDays(-60));
        foreach (
            var (id, title) in new[]
            {
                ("5", "Cedar bird house, wren nest box, small wooden bird house for garden"),
                ("6", "Cedar bird house"),
            }
        )
        {
            var found = Assert.Single(market.Find(Us, Sending.IdAtMarket(id), ["cedar bird house"]));
            var page = market.Search(Us, "cedar bird house", 5000);
            Assert.Equal(found.Rank, page.Results.ToList().FindIndex(r => r.Id == Sending.IdAtMarket(id)) + 1);
            Assert.Equal(found.Results, page.Found);
            Assert.Equal(title, page.Results[found.Rank!.Value - 1].Title);
        }
    }

    [Fact]
    public void Days_that_are_over_stay_as_they_were_whatever_is_sent_later_and_after_a_restart()
    {
        var market = Market();
        market.Send(Us, new("5", "Plover & Pine", Good), market.Now.AddDays(-60));
        var today = DateOnly.FromDateTime(market.Now);
        IReadOnlyList<DayFigures> Days(StandInMarket of) => of.Figures(Us, Sending.IdAtMarket("5"), today.AddDays(-60), today.AddDays(-1));
        var before = Days(market);
        market.Send(Us, new("5", "Plover & Pine", Poor), market.Now);
        Assert.Equal(before, Days(market));
        var again = Market();
        var sent = market.Now.AddDays(-60);
        again.Send(Us, new("5", "Plover & Pine", Good), sent);
        again.Send(Us, new("5", "Plover & Pine", Good), sent);
        Assert.Equal(before.Select(d => (d.Day, d.Views)), Days(again).Select(d => (d.Day, d.Views)));
        Assert.NotEqual(before.Select(d => d.Views), Sent(Market(8), today).Select(d => d.Views));

        static IReadOnlyList<DayFigures> Sent(StandInMarket other, DateOnly today)
        {
            other.Send(Us, new("5", "Plover & Pine", Good), other.Now.AddDays(-60));
            return other.Figures(Us, Sending.IdAtMarket("5"), today.AddDays(-60), today.AddDays(-1));
        }
    }

    [Fact]
    public void The_clock_goes_on_and_never_back()
    {
        var market = Market();
        var before = market.Now;
        market.MoveClock(TimeSpan.FromDays(7));
        Assert.InRange(market.Now - before, TimeSpan.FromDays(7), TimeSpan.FromDays(7) + TimeSpan.FromMinutes(1));
        Assert.Throws<ArgumentOutOfRangeException>(() => market.MoveClock(TimeSpan.FromDays(-1)));
    }

    // Whole simulated markets: the shop's own comparison, as the screen shows it, in seasons that rise, fall and stay.
    [Theory]
    [InlineData("2026-11-26", true)]
    [InlineData("2026-03-10", true)]
    [InlineData("2025-12-28", true)]
    [InlineData("2026-04-25", true)]
    [InlineData("2026-06-10", true)]
    [InlineData("2026-11-26", false)]
    public void A_change_without_effect_is_called_up_or_down_in_at_most_9_of_100_seeds_and_a_better_text_is_seen_to_help(
        string day,
        bool knowsDemand
    )
    {
        var (called, helped) = (0, 0);
        var now = DateTime.SpecifyKind(DateTime.Parse(day, System.Globalization.CultureInfo.InvariantCulture), DateTimeKind.Utc);
        Parallel.For(
            0,
            100,
            seed =>
            {
                var effect = Effect((ulong)seed, Good, now, knowsDemand);
                Assert.Equal(knowsDemand, effect.Demand is not null);
                Interlocked.Add(ref called, effect.Found.Verdict == Verdict.Unclear ? 0 : 1);
            }
        );
        for (var seed = 0; seed < 10; seed++)
            helped += Effect((ulong)seed, Poor, now, knowsDemand).Found.Verdict == Verdict.Up ? 1 : 0;
        Assert.True(called <= 9, $"{called} of 100 changes without effect were called up or down");
        Assert.True(helped >= 8, $"{helped} of 10 better texts were seen to help");
    }

    // A listing that was changed 29 days ago from a text to the good one, compared by the demand for its terms or beside one that was not changed.
    private static ChangeEffect Effect(ulong seed, Dictionary<string, FieldValue> before, DateTime now, bool knowsDemand)
    {
        const string place = "hedgerow-fair-gb";
        var market = Market(seed);
        market.Send(place, new("1", "Plover & Pine", before), now.AddDays(-200));
        market.Send(
            place,
            new("2", "Plover & Pine", Copy("Bird house for the garden, nest box", "bird house", "nest box")),
            now.AddDays(-200)
        );
        market.Send(place, new("1", "Plover & Pine", Good), now.AddDays(-29));
        var today = DateOnly.FromDateTime(now);
        DailySeries Of(int id) =>
            new(
                id,
                place,
                market
                    .Figures(place, Sending.IdAtMarket($"{id}"), today.AddDays(-80), today.AddDays(-1))
                    .ToDictionary(d => d.Day, d => new DayMetrics(d.Views, d.Clicks, d.Sales))
            );
        var note = new ChangeNote(1, null, 1, place, now.AddDays(-29), now.AddDays(-29).AddHours(6));
        var demands = new Dictionary<(int, string), Demand>();
        if (knowsDemand)
            demands[(1, place)] = Demand.Of(
                Watched
                    .Zip(market.Find(place, Sending.IdAtMarket("1"), Watched))
                    .Where(t => t.Second.Found)
                    .Select(t =>
                        (market.Measure(place, t.First)!.Months!, market.Measure(place, t.First)!.From!.Value, 1.0 / t.Second.Rank!.Value)
                    )
            )!;
        return new ChangeEffects([Of(1), Of(2)], demands, [note], new Dictionary<int, int>()).Of(note, DailyMeasure.Views);
    }
}
