using Microsoft.Extensions.DependencyInjection;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Market.Http;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Tests;

/// <summary>What every market must do, whichever stands behind it.</summary>
public abstract class MarketContractTests : IAsyncLifetime
{
    private protected IMarket Market { get; private set; } = null!;

    /// <summary>A market that it knows.</summary>
    protected abstract string Place { get; }

    protected abstract Task<IMarket> Open();

    public async ValueTask InitializeAsync() => Market = await Open();

    public abstract ValueTask DisposeAsync();

    [Fact]
    public void It_says_what_it_is_and_which_markets_it_knows()
    {
        Assert.NotEmpty(Market.Name);
        Assert.Contains(Market.Places, p => p.Id == Place);
        Assert.Equal(Market.Places.Count, Market.Places.DistinctBy(p => p.Id).Count());
    }

    [Fact]
    public async Task An_unknown_market_is_refused()
    {
        await Assert.ThrowsAsync<KeyNotFoundException>(() => Market.Suggest("nowhere", "bird", 5, default));
        await Assert.ThrowsAsync<KeyNotFoundException>(() => Market.Measure("nowhere", ["bird"], default));
        await Assert.ThrowsAsync<KeyNotFoundException>(() => Market.Search("nowhere", "bird", 5, default));
    }
}

/// <summary>What a market must do that says what is offered and what is found: the abilities <c>suggest</c>, <c>search</c> and <c>reviews</c>.</summary>
public abstract class SeenMarketContractTests : MarketContractTests
{
    /// <summary>A term that it knows the results of, with the reviews of one of the first listings.</summary>
    protected abstract string Searched { get; }

    /// <summary>What is typed where it offers something.</summary>
    protected abstract string Typed { get; }

    /// <summary>Fewer suggestions than it has.</summary>
    protected const int Few = 5;

    [Fact]
    public void It_says_that_it_can() =>
        Assert.True(Market.Can.HasFlag(MarketAbilities.Suggest | MarketAbilities.Search | MarketAbilities.Reviews));

    [Fact]
    public async Task Suggestions_are_no_more_than_asked_for_and_unknown_is_not_none()
    {
        Assert.Equal(Few, (await Market.Suggest(Place, Typed, Few, default))!.Count);
        Assert.True(await Market.Suggest(Place, "zzz", Few, default) is null or []);
    }

    [Fact]
    public async Task What_a_search_shows_can_be_looked_up_again_and_has_reviews()
    {
        var page = (await Market.Search(Place, Searched, 5, default))!;
        string[] ids = [.. page.Results.Select(r => r.Id!)];
        var again = await Market.Listings(Place, [.. ids, "nothing"], default);
        Assert.Equal(page.Results.Select(r => (r.Title, r.Price)), again.Take(5).Select(r => (r!.Title, r.Price)));
        Assert.Null(again[5]);
        var reviews = await Market.Reviews(Place, [.. ids, "nothing"], 10, default);
        Assert.Equal(6, reviews.Count);
        Assert.True(reviews[5] is null or []);
        Assert.Contains(reviews, r => r?.Count > 0);
        Assert.All(reviews, r => Assert.True(r is null || r.Count <= 10));
        Assert.All(reviews.SelectMany(r => r ?? []), r => Assert.True(r.Text.Length > 0 && r.Stars is null or (>= 1 and <= 5)));
        Assert.Empty(await Market.Listings(Place, [], default));
        await Assert.ThrowsAsync<KeyNotFoundException>(() => Market.Listings("nowhere", ids, default));
        await Assert.ThrowsAsync<KeyNotFoundException>(() => Market.Reviews("nowhere", ids, 10, default));
    }

    [Fact]
    public async Task More_listings_than_one_question_may_have_are_looked_up_all_the_same()
    {
        var id = (await Market.Search(Place, Searched, 1, default))!.Results[0].Id!;
        var ids = Enumerable.Range(0, MarketContract.MostListings + 20).Select(i => i % 2 == 0 ? id : $"none {i}").ToArray();
        Assert.Equal(ids.Select(i => i == id), (await Market.Listings(Place, ids, default)).Select(r => r is not null));
        Assert.Equal(ids.Length, (await Market.Reviews(Place, ids, 1, default)).Count);
    }

    [Fact]
    public async Task A_search_finds_at_least_what_it_shows()
    {
        var page = (await Market.Search(Place, Searched, 7, default))!;
        Assert.Equal(7, page.Results.Count);
        Assert.True(page.Found >= 7);
        Assert.All(page.Results, r => Assert.NotEmpty(r.Title));
        Assert.Contains(page.Results, r => r.Tags.Count > 0 && r.Attributes.Count > 0);
    }

    [Fact]
    public async Task What_a_search_finds_is_unknown_or_nothing_where_nobody_knows_the_term() =>
        Assert.True(await Market.Search(Place, "zebra saddle", 7, default) is null or { Results.Count: 0 });
}

/// <summary>What a market must do that can be asked everything. Another source is tested by deriving from this.</summary>
public abstract class WholeMarketContractTests : SeenMarketContractTests
{
    private const string Us = "hedgerow-fair-us";

    protected override string Place => Us;

    protected override string Searched => "bird house";

    protected override string Typed => "bird h";

    [Fact]
    public void It_is_the_sample_data()
    {
        Assert.Equal(("Sample data", true, MarketAbilities.All), (Market.Name, Market.IsSimulated, Market.Can));
        Assert.Contains(Market.Places, p => p is { Id: Us, PlatformId: "hedgerow-fair", Country: "us", Currency: "USD" });
    }

    [Fact]
    public async Task There_is_one_measurement_for_each_term_in_its_order_and_none_where_nobody_types_it()
    {
        var all = await Market.Measure(Us, ["bird house", "zebra saddle", "nest box"], default);
        Assert.Equal([true, false, true], all.Select(m => m is not null));
        Assert.Equal((await Market.Measure(Us, ["nest box"], default))[0]!.Months, all[2]!.Months);
        Assert.All(all.OfType<Measurement>(), m => Assert.True(m is { Volume: >= 0, Competition: >= 0, Months.Count: > 0 }));
        Assert.Empty(await Market.Measure(Us, [], default));
    }

    [Fact]
    public async Task More_terms_than_one_question_may_have_are_measured_all_the_same()
    {
        var terms = Enumerable.Range(0, MarketContract.MostTerms + 20).Select(i => i % 2 == 0 ? "bird house" : $"nothing {i}").ToArray();
        var all = await Market.Measure(Us, terms, default);
        Assert.Equal(terms.Select(t => t == "bird house"), all.Select(m => m is not null));
    }

    [Fact]
    public async Task A_listing_that_was_sent_is_found_when_the_index_has_noticed_it()
    {
        var copy = new Dictionary<string, FieldValue>
        {
            ["title"] = new FieldValue.Text("Zebra saddle"),
            ["tags"] = new FieldValue.Items(["zebra saddle"]),
        };
        var now = DateTime.UtcNow;
        Assert.Equal(now.AddHours(6), await Market.Send(Us, new("7", "Plover & Pine", copy), now, default), TimeSpan.FromSeconds(1));
        Assert.Empty((await Market.Search(Us, "zebra saddle", 10, default))!.Results);
        await Market.Send(Us, new("7", "Plover & Pine", copy), now.AddHours(-8), default);
        Assert.Equal("Zebra saddle", Assert.Single((await Market.Search(Us, "zebra saddle", 10, default))!.Results).Title);
    }

    [Fact]
    public async Task It_says_where_it_finds_a_listing_that_was_sent_and_what_happened_to_it()
    {
        var copy = new Dictionary<string, FieldValue>
        {
            ["title"] = new FieldValue.Text("Cedar nest box"),
            ["tags"] = new FieldValue.Items(["nest box"]),
        };
        var id = Sending.IdAtMarket("7");
        Assert.Equal([new FoundAt(false, null, 0)], (await Market.Find(Us, id, ["zebra saddle"], default)));
        Assert.Empty(await Market.Figures(Us, id, new(2026, 1, 1), new(2026, 1, 9), default));
        await Market.Send(Us, new("7", "Plover & Pine", copy), DateTime.UtcNow.AddDays(-40), default);
        var terms = Enumerable.Range(0, MarketContract.MostTerms + 5).Select(i => i % 2 == 0 ? "nest box" : $"nothing {i}").ToArray();
        var found = await Market.Find(Us, id, terms, default);
        Assert.Equal(terms.Select(t => t == "nest box"), found.Select(f => f!.Found));
        Assert.All(found.Where(f => f!.Found), f => Assert.InRange(f!.Rank!.Value, 1, f.Results!.Value));

        var today = DateOnly.FromDateTime(DateTime.UtcNow);
        var days = await Market.Figures(Us, id, today.AddDays(-MarketContract.MostDays - 50), today, default);
        Assert.Equal(Enumerable.Range(-days.Count, days.Count).Select(today.AddDays), days.Select(d => d.Day));
        Assert.InRange(days.Count, 39, 40);
        Assert.All(days, d => Assert.True(d is { Views: >= 0, Clicks: >= 0, Sales: >= 0 } && d.Clicks <= d.Views));
        await Assert.ThrowsAsync<KeyNotFoundException>(() => Market.Find("nowhere", id, terms, default));
        await Assert.ThrowsAsync<KeyNotFoundException>(() => Market.Figures("nowhere", id, today, today, default));
    }

    [Fact]
    public async Task A_platform_of_the_sellers_own_gets_markets()
    {
        var own = ShippedPlatforms.All.First(p => p.Id == "hedgerow-fair") with { Id = "my-stall", Name = "My stall" };
        await Market.Open(own, "hedgerow-fair", default);
        var place = Market.Places.First(p => p.PlatformId == "my-stall");
        Assert.NotNull((await Market.Measure(place.Id, ["bird house"], default))[0]);
    }

    [Fact]
    public async Task A_question_can_be_stopped() =>
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => Market.Measure(Us, ["bird house"], new(canceled: true)));
}

/// <summary>The sample data, asked directly.</summary>
public sealed class StandInContractTests : WholeMarketContractTests
{
    protected override Task<IMarket> Open() => Task.FromResult<IMarket>(MarketSource.StandIn(TimeProvider.System));

    public override ValueTask DisposeAsync() => ValueTask.CompletedTask;
}

/// <summary>The same, asked through HTTP.</summary>
public sealed class HttpContractTests : WholeMarketContractTests
{
    private Microsoft.AspNetCore.Builder.WebApplication _source = null!;

    protected override async Task<IMarket> Open()
    {
        _source = MarketServer.Build(MarketSource.StandIn(TimeProvider.System), System.Net.IPAddress.Loopback, 0);
        await _source.StartAsync();
        return await HttpMarket.Connect(new(_source.Urls.First()), TimeSpan.FromSeconds(30), default);
    }

    public override async ValueTask DisposeAsync() => await _source.DisposeAsync();
}

/// <summary>What a seller brought in, in files.</summary>
public sealed class RecordedContractTests : SeenMarketContractTests
{
    private readonly TestShop _shop = new(demo: false, isReal: true);

    protected override string Place => Bindery.Market;

    protected override string Searched => "notebook cover";

    protected override string Typed => "notebook cover";

    protected override async Task<IMarket> Open()
    {
        var bindery = await Bindery.Open(_shop);
        await bindery.Add(
            "results/notebook cover.html",
            "suggestions/notebook cover.txt",
            "listings/rival 1.html",
            "listings/rival 2.html"
        );
        return _shop.Services.GetRequiredService<IMarket>();
    }

    public override ValueTask DisposeAsync()
    {
        _shop.Dispose();
        return ValueTask.CompletedTask;
    }
}

/// <summary>A folder of files: what it can do is only what the files have.</summary>
public sealed class FolderContractTests : MarketContractTests
{
    private readonly string _folder = Directory.CreateTempSubdirectory("tin-rabbit-market-").FullName;

    protected override string Place => "longbarrow-us";

    protected override Task<IMarket> Open()
    {
        foreach (var file in Directory.GetFiles(Path.Combine(Repository.Root, "docs", "samples", "seed market")))
            File.Copy(file, Path.Combine(_folder, Path.GetFileName(file)));
        return Task.FromResult<IMarket>(new TinRabbit.Server.Markets.FolderMarket(_folder, TimeProvider.System));
    }

    public override ValueTask DisposeAsync()
    {
        Directory.Delete(_folder, true);
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task What_stands_in_no_file_is_unknown_and_a_changed_file_is_read_again()
    {
        Assert.False(Market.Can.HasFlag(MarketAbilities.Send));
        var measured = await Market.Measure(Place, ["tomato seeds", "zebra saddle"], default);
        Assert.Equal((22000, 8100), ((int)measured[0]!.Volume!, (int)measured[0]!.Competition!));
        Assert.Equal(Measurement.Unknown, measured[1]);
        Assert.Equal(["tomato seeds heirloom", "tomato seeds cherry"], await Market.Suggest(Place, "Tomato seeds", 2, default));
        Assert.Null(await Market.Suggest(Place, "zebra", 2, default));
        var page = (await Market.Search(Place, "tomato seeds", 5, default))!;
        Assert.Equal((8100, 5, "s1"), ((int)page.Found!, page.Results.Count, page.Results[0].Id));
        Assert.NotNull(page.Seen);
        Assert.Null(await Market.Search(Place, "zebra saddle", 5, default));
        var reviews = await Market.Reviews(Place, ["s1", "s3"], 5, default);
        Assert.Equal((2, true), (reviews[0]!.Count, reviews[1] is null));
        var days = await Market.Figures(Place, "p-101", new(2025, 9, 3), new(2025, 9, 4), default);
        Assert.Equal([new DateOnly(2025, 9, 3), new(2025, 9, 4)], days.Select(d => d.Day));
        Assert.Empty(await Market.Figures(Place, "p-102", new(2025, 9, 3), new(2025, 9, 4), default));

        var terms = Path.Combine(_folder, "terms.csv");
        await File.WriteAllTextAsync(terms, "term,searches\ntomato seeds,5\n");
        File.SetLastWriteTimeUtc(terms, DateTime.UtcNow.AddMinutes(1));
        Assert.Equal(5, (await Market.Measure(Place, ["tomato seeds"], default))[0]!.Volume);
        await File.WriteAllTextAsync(terms, "term,searches\ntomato seeds,many\n");
        File.SetLastWriteTimeUtc(terms, DateTime.UtcNow.AddMinutes(2));
        var e = await Assert.ThrowsAsync<MarketException>(() => Market.Measure(Place, ["tomato seeds"], default));
        Assert.Contains("“many” under “searches” isn’t a number", e.Message, StringComparison.Ordinal);
    }
}
