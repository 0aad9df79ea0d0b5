using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Market.StandIn;
using TinRabbit.Server.Shop;

namespace TinRabbit.Server.Tests;

public class MarketTests
{
    private const string Us = "hedgerow-fair-us";

    private static StandInMarket Market(ulong seed = 7, int daysOn = 0) => new(seed, FirstStart.Shipped, new Clock(daysOn));

    [Fact]
    public void The_same_seed_gives_the_same_market()
    {
        Assert.Equal(Market().Suggest(Us, "bird h", 20), Market().Suggest(Us, "bird h", 20));
        Assert.Equal(Market().Measure(Us, "bird house")!.Months, Market().Measure(Us, "bird house")!.Months);
        Assert.NotEqual(Market().Measure(Us, "bird house")!.Months, Market(8).Measure(Us, "bird house")!.Months);
    }

    [Fact]
    public void Suggestions_begin_a_word_with_what_is_typed()
    {
        var offered = Market().Suggest(Us, "Nest b", 14);
        Assert.Equal(14, offered.Count);
        Assert.All(offered, o => Assert.Contains(" nest b", " " + o));
        Assert.Empty(Market().Suggest(Us, "zzz", 10));
        Assert.True(Market().Suggestions(Us, "bird house").Count() > 100);
    }

    [Fact]
    public void Measurements_hang_together()
    {
        var market = Market();
        foreach (var term in market.Suggestions(Us, "bird feeder"))
        {
            var m = market.Measure(Us, term)!;
            Assert.Equal(StandInMarket.Months, m.Months.Count);
            Assert.Equal(new DateOnly(2024, 5, 1), m.From);
            Assert.True(m.Volume >= 0 && m.Competition >= 0 && m.ClickCost is null or > 0);
        }

        Assert.Null(market.Measure(Us, "zebra saddle"));
    }

    [Fact]
    public void A_later_day_adds_months_and_changes_none()
    {
        var now = Market().Measure(Us, "bird house")!;
        var later = Market(daysOn: 30).Measure(Us, "bird house")!;
        Assert.Equal(now.From.AddMonths(1), later.From);
        Assert.Equal(now.Months.Skip(1), later.Months.SkipLast(1));
    }

    [Fact]
    public void Countries_type_their_own_spelling()
    {
        var market = Market();
        Assert.NotNull(market.Measure("longbarrow-us", "gray bird house"));
        Assert.Null(market.Measure("longbarrow-gb", "gray bird house"));
        Assert.NotNull(market.Measure("longbarrow-gb", "grey bird house"));
        Assert.Throws<KeyNotFoundException>(() => market.Suggest("nowhere", "bird", 5));
    }

    [Fact]
    public void It_makes_the_mistakes_of_real_sources()
    {
        var market = Market();
        var terms = new[] { "bird house", "birdhouse", "nest box", "nesting box", "bird feeder", "bat box", "bat house", "owl box", "bird bath", "bird lover" }.SelectMany(h => market.Suggestions("longbarrow-us", h)).Distinct().ToList();
        var measured = terms.ToDictionary(t => t, t => market.Measure("longbarrow-us", t)!);
        Assert.Contains(measured.Values, m => m.TitlesHolding > m.Competition);
        var families = terms.GroupBy(t => string.Join(' ', Tokens.Of(t).Select(w => Plurals.Stem(w.Word)))).Where(f => f.Count() > 1);
        Assert.Contains(families, f => f.Select(t => measured[t].Volume).Distinct().Count() == 1);
    }

    private sealed class Clock(int daysOn) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => new DateTimeOffset(2026, 11, 24, 9, 0, 0, TimeSpan.Zero).AddDays(daysOn);
    }
}
