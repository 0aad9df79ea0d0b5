using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Market.StandIn;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Tests;

public class MarketTests
{
    private const string Us = "hedgerow-fair-us";

    private static StandInMarket Market(ulong seed = 7, int daysOn = 0) => new(seed, ShippedPlatforms.All, new Clock(daysOn));

    [Fact]
    public void A_listing_has_the_same_drawing_each_time_and_shows_what_it_is()
    {
        string Shape(string title) => System.Text.RegularExpressions.Regex.Replace(Drawings.Of(title), "hsl\\([^)]*\\)", "");
        Assert.Equal(Drawings.Of("Cedar bird bath"), Drawings.Of("Cedar bird bath"));
        Assert.Equal(Shape("Oak bird bath"), Shape("Cedar bird bath"));
        Assert.NotEqual(Shape("Larch bat box"), Shape("Cedar bird bath"));
        Assert.NotEqual(Drawings.Of("Oak bird bath"), Drawings.Of("Cedar bird bath"));
        Assert.Equal("svg", System.Xml.Linq.XDocument.Parse(Drawings.Of("<b>A \"box\" & more</b>")).Root!.Name.LocalName);
    }

    [Fact]
    public void The_same_seed_gives_the_same_market()
    {
        Assert.Equal(Market().Suggest(Us, "bird h", 20), Market().Suggest(Us, "bird h", 20));
        Assert.Equal(Market().Measure(Us, "bird house")!.Months, Market().Measure(Us, "bird house")!.Months);
        Assert.NotEqual(Market().Measure(Us, "bird house")!.Months, Market(8).Measure(Us, "bird house")!.Months);
    }

    [Fact]
    public void Months_later_some_prices_are_others_and_buyers_have_gone_on_rating()
    {
        string[] ids = [.. Market().Search(Us, "bird house", 60).Results.Select(r => r.Id!)];
        var (now, later) = (Market().ListingsOf(Us, ids), Market(daysOn: 200).ListingsOf(Us, ids));
        Assert.Equal(now.Select(r => r!.Price), Market().ListingsOf(Us, ids).Select(r => r!.Price));
        Assert.InRange(now.Zip(later).Count(r => r.First!.Price != r.Second!.Price), 10, 55);
        Assert.All(now.Zip(later), r => Assert.True(r.First!.Ratings <= r.Second!.Ratings && r.First.Title == r.Second.Title));
        Assert.Contains(now.Zip(later), r => r.First!.Ratings < r.Second!.Ratings);
    }

    [Fact]
    public void Buyers_of_a_listing_return_to_the_same_things_and_a_listing_that_was_sent_has_reviews_too()
    {
        var market = Market();
        var id = market.Search(Us, "bird house", 20).Results.MaxBy(r => r.Ratings)!.Id!;
        var reviews = Assert.Single(market.ReviewsOf(Us, [id], 200));
        Assert.Equal(reviews, Assert.Single(Market().ReviewsOf(Us, [id], 200)));
        var usual = reviews.SelectMany(r => r.Text.Split(". ")).Select(s => s.TrimEnd('.')).CountBy(s => s).Max(s => s.Value);
        Assert.True(usual >= 5, $"{usual}");
        Assert.Equal(reviews.OrderByDescending(r => r.At).Select(r => r.At), reviews.Select(r => r.At));
        Assert.Equal(3, Assert.Single(market.ReviewsOf(Us, [id], 3)).Count);

        Assert.Empty(Assert.Single(market.ReviewsOf(Us, [Sending.IdAtMarket("9")], 50)));
        var copy = new Dictionary<string, Core.Platforms.FieldValue> { ["title"] = new Core.Platforms.FieldValue.Text("Cedar bird house") };
        market.Send(Us, new("9", "Plover & Pine", copy), new Clock(0).GetUtcNow().UtcDateTime);
        Assert.NotEmpty(Assert.Single(market.ReviewsOf(Us, [Sending.IdAtMarket("9")], 50)));
    }

    [Fact]
    public void A_listing_that_is_sent_is_found_once_the_index_has_noticed_it()
    {
        var market = Market();
        var now = new Clock(0).GetUtcNow().UtcDateTime;
        Sending Listing(string title) =>
            new(
                "1",
                "Plover & Pine",
                new Dictionary<string, Core.Platforms.FieldValue> { ["title"] = new Core.Platforms.FieldValue.Text(title) }
            );
        Assert.Equal(now.AddHours(6), market.Send(Us, Listing("Zebra saddle"), now));
        Assert.Empty(market.Search(Us, "zebra saddle", 10).Results);
        Assert.Equal(now.AddHours(-2), market.Send(Us, Listing("Zebra saddle"), now.AddHours(-8)));
        Assert.Equal("Zebra saddle", Assert.Single(market.Search(Us, "zebra saddle", 10).Results).Title);
        Assert.Empty(market.Search(Us, "zebra saddles", 10).Results);
        Assert.Empty(market.Search("hedgerow-fair-gb", "zebra saddle", 10).Results);
    }

    [Fact]
    public async Task Suggestions_begin_a_word_with_what_is_typed()
    {
        var offered = Market().Suggest(Us, "Nest b", 14);
        Assert.Equal(14, offered.Count);
        Assert.All(offered, o => Assert.Contains(" nest b", " " + o));
        Assert.Empty(Market().Suggest(Us, "zzz", 10));
        Assert.True((await Market().Suggestions(Us, "bird house", default)).Count > 100);
    }

    [Fact]
    public async Task Measurements_hang_together()
    {
        var market = Market();
        foreach (var term in await market.Suggestions(Us, "bird feeder", default))
        {
            var m = market.Measure(Us, term)!;
            Assert.Equal(StandInMarket.Months, m.Months!.Count);
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
        Assert.Equal(now.From!.Value.AddMonths(1), later.From);
        Assert.Equal(now.Months!.Skip(1), later.Months!.SkipLast(1));
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
        var terms = new[]
        {
            "bird house",
            "birdhouse",
            "nest box",
            "nesting box",
            "bird feeder",
            "bat box",
            "bat house",
            "owl box",
            "bird bath",
            "bird lover",
        }
            .SelectMany(h => market.Suggestions("longbarrow-us", h, default).Result)
            .Distinct()
            .ToList();
        var measured = terms.ToDictionary(t => t, t => market.Measure("longbarrow-us", t)!);
        Assert.Contains(measured.Values, m => m.TitlesHolding > m.Competition);
        var families = terms.GroupBy(t => string.Join(' ', Tokens.Of(t).Select(w => Plurals.Stem(w.Word)))).Where(f => f.Count() > 1);
        Assert.Contains(families, f => f.Select(t => measured[t].Volume).Distinct().Count() == 1);
    }

    [Fact]
    public async Task The_alphabet_is_walked_after_the_head_and_nothing_comes_twice()
    {
        var steps = await Market().WalkAlphabet(Us, "bird house", default).ToListAsync();
        Assert.Equal(Walk.Steps, steps.Count);
        Assert.Equal(("", "", "a", "z"), (Walk.Letter(0), Walk.Letter(1), Walk.Letter(2), Walk.Letter(Walk.Steps - 1)));
        var all = steps.SelectMany(s => s).ToList();
        Assert.Equal(all.Count, all.Distinct().Count());
        for (var step = 2; step < steps.Count; step++)
            Assert.All(steps[step], t => Assert.Contains($"bird house {Walk.Letter(step)}", t));
    }

    [Fact]
    public void A_search_gives_what_has_the_words_and_more_of_it_than_it_shows()
    {
        var market = Market();
        var page = market.Search(Us, "cedar bird house", 10);
        Assert.Equal(10, page.Results.Count);
        Assert.True(page.Found > 10);
        Assert.All(
            page.Results,
            r =>
                Assert.All(
                    new[] { "cedar", "bird", "house" },
                    w => Assert.Contains(w, $"{r.Title} {string.Join(' ', r.Tags)}".ToLowerInvariant())
                )
        );
        Assert.All(
            page.Results,
            r => Assert.True(r is { Price: > 0, Shipping: >= 0, Rating: >= 1 and <= 5, Photos: > 0, Sales: >= 0, Occupancy: null })
        );
        Assert.Equal(0, market.Search(Us, "zebra saddle", 10).Found);
        Assert.Empty(market.Search("web-us", "bird house", 10).Results); // web search is a source of numbers, not a place to list
    }

    [Fact]
    public void What_sellers_use_is_counted_by_whole_phrases_in_titles_and_tags()
    {
        Result Rival(string title, string[] tags, decimal price, int ratings, int sales) =>
            new("Shop", title, tags, price, 0, 4.5, ratings, 5, sales, null, new Dictionary<string, string>());
        var page = new SearchPage(
            4,
            [
                Rival("Cedar bird house, gift for her", ["wren house"], 10, 100, 10),
                Rival("Cedar Bird-House | small", ["gift"], 20, 300, 30),
                Rival("House for a bird, cedar", ["bird house kit"], 30, 200, 20),
                Rival("Bird feeder", [], 40, 0, 0),
            ]
        );
        var used = SellersUse.Of(page, ["bird house", "cedar bird house", "wren house", "owl"]);
        Assert.Equal([3, 2, 1, null], used.Select(u => u?.Count));
        Assert.Equal((4, 20m, 200.0, 20.0), (used[0]!.Among, used[0]!.Price, used[0]!.Ratings, used[0]!.Sales!.Value));
        Assert.Null(used[0]!.Occupancy);
        // A phrase does not run over a seller's own cut, and small words neither begin nor end one.
        var terms = SellersUse.TermsOf(page, 20);
        Assert.Equal("bird", terms[0]);
        Assert.Contains("cedar", terms);
        Assert.DoesNotContain("for", terms);
        Assert.DoesNotContain("house gift", terms);
    }

    private sealed class Clock(int daysOn) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => new DateTimeOffset(2026, 11, 24, 9, 0, 0, TimeSpan.Zero).AddDays(daysOn);
    }
}
