using System.Reflection;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Features.Dig;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

/// <summary>Terms without numbers are measured in the background, within the budget that the source states.</summary>
public sealed class MeasuringTests : IDisposable
{
    private const string Us = "hedgerow-fair-us";
    private const string Other = "longbarrow-us";
    private readonly TestShop _shop = new(demo: true);

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task Picks_are_measured_in_every_market_of_the_product_and_what_was_pasted_too()
    {
        var product = await _shop.AddProduct("Bird house");
        await _shop.Post($"/api/products/{product}/listings/hedgerow-fair", new { });
        await _shop.Post($"/api/products/{product}/listings/longbarrow", new { });
        await _shop.Post(
            $"/api/products/{product}/picks",
            new
            {
                texts = new[] { "cedar bird house", "zebra saddle" },
                source = (string?)null,
                fit = (string?)null,
                home = (string?)null,
                note = (string?)null,
            }
        );
        await AddTerms(Us, "bird bath");

        await _shop.NumbersSettled();

        Assert.Equal(Source, await SourceOf(Us, "cedar bird house"));
        Assert.Equal(Source, await SourceOf(Other, "cedar bird house"));
        Assert.Equal(Source, await SourceOf("hedgerow-fair-gb", "cedar bird house"));
        Assert.Equal(Source, await SourceOf(Us, "bird bath"));
        // Nobody types it: it stays without numbers, and off the shelves of markets that do not know it.
        Assert.Null(await SourceOf(Other, "zebra saddle"));
    }

    [Fact]
    public async Task It_can_be_stopped_and_goes_on_where_it_was()
    {
        await _shop.Client.PostAsync("/api/measuring/stop", null, default);
        await AddTerms(Us, "bird bath");
        var view = await _shop.Get("/api/measuring");
        Assert.True(view["isStopped"]!.GetValue<bool>());
        Assert.False(view["isRunning"]!.GetValue<bool>());
        Assert.Null(await SourceOf(Us, "bird bath"));

        await _shop.Client.PostAsync("/api/measuring/resume", null, default);
        await _shop.NumbersSettled();

        Assert.Equal(Source, await SourceOf(Us, "bird bath"));
    }

    [Fact]
    public async Task A_source_is_never_asked_for_more_than_it_states_and_half_of_that_is_left_for_the_seller()
    {
        await _shop.Client.PostAsync("/api/measuring/stop", null, default);
        var market = DispatchProxy.Create<IMarket, MeteredMarket>();
        var metered = (MeteredMarket)market;
        metered.Market = _shop.Services.GetRequiredService<IMarket>();
        using var budget = new LookupBudget(market);
        var unknown = new UnknownTerms(market);
        var changes = new DataVersion();
        var shelves = new Shelves(market, changes, budget, unknown, new());
        var scopes = _shop.Services.GetRequiredService<IServiceScopeFactory>();
        using var service = new MeasuringService(
            scopes,
            market,
            shelves,
            unknown,
            changes,
            TimeProvider.System,
            _shop.Services.GetRequiredService<StartOptions>(),
            NullLogger<MeasuringService>.Instance
        );
        await AddTerms(Us, [.. Enumerable.Range(0, 8).Select(i => $"zebra saddle {i}")]);

        await service.Run(default);
        Assert.Equal(5, metered.Asked.Count);
        Assert.Equal((5, 8), (service.State.Done, service.State.All));

        // The rest of the day is for the seller; what is unknown is not asked for twice.
        await service.Run(default);
        Assert.Equal(5, metered.Asked.Count);
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        var shown = await shelves.MeasureTyped(db, Us, [.. Enumerable.Range(0, 9).Select(i => $"bird house {i}")], default);
        Assert.Equal(8, metered.Asked.Count);
        Assert.Empty(shown);
        var asked = await shelves.Measure(db, Us, ["owl saddle 1", "owl saddle 2", "owl saddle 3"], default);
        Assert.Equal(10, metered.Asked.Count);
        Assert.Equal(0, await budget.Left(db, default));
        Assert.Equal(3, asked.Count);
        // What could not be asked for is not taken for unknown.
        var isUnknown = await unknown.Of(db, Us, default);
        Assert.Equal([true, true, false], asked.Keys.Order(StringComparer.Ordinal).Select(isUnknown));

        // Another program on the same folder counts on.
        using var restarted = new LookupBudget(market);
        Assert.Equal(0, await restarted.Take(db, 1, LookupPurpose.Asked, default));
        Assert.Equal(metered.Asked.Distinct().Count(), metered.Asked.Count);
    }

    [Fact]
    public async Task A_number_corrected_while_the_market_is_asked_stays()
    {
        await _shop.Client.PostAsync("/api/measuring/stop", null, default);
        var market = DispatchProxy.Create<IMarket, MeteredMarket>();
        var metered = (MeteredMarket)market;
        metered.Market = _shop.Services.GetRequiredService<IMarket>();
        metered.WhileAsked = () =>
            Task.Run(async () =>
                    await _shop.Post(
                        $"/api/markets/{Us}/correct",
                        new
                        {
                            text = "bird bath",
                            volume = 77,
                            competition = (long?)null,
                            titlesHolding = (long?)null,
                            clickCost = (decimal?)null,
                        }
                    )
                )
                .GetAwaiter()
                .GetResult();
        using var budget = new LookupBudget(market);
        var shelves = new Shelves(market, new(), budget, new(market), new());
        await AddTerms(Us, "bird bath");
        await using var scope = _shop.Services.GetRequiredService<IServiceScopeFactory>().CreateAsyncScope();
        await shelves.MeasureInBackground(scope.ServiceProvider.GetRequiredService<TinContext>(), Us, ["bird bath"], default);
        Assert.Equal(["bird bath"], metered.Asked);
        Assert.Equal(Shelves.ByHand, await SourceOf(Us, "bird bath"));
    }

    [Fact]
    public async Task What_a_market_does_not_know_is_not_asked_for_again_after_a_restart()
    {
        await AddTerms(Us, "zebra saddle");
        await _shop.NumbersSettled();
        Assert.True((await _shop.Get("/api/measuring"))["measured"]!.GetValue<int>() > 0);

        _shop.Restart();
        await _shop.NumbersSettled();

        Assert.Equal(0, (await _shop.Get("/api/measuring"))["measured"]!.GetValue<int>());
        await using var scope = _shop.Services.GetRequiredService<IServiceScopeFactory>().CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        var isUnknown = await _shop.Services.GetRequiredService<UnknownTerms>().Of(db, Us, default);
        Assert.True(isUnknown("zebra saddle"));
        Assert.False(isUnknown("bird bath"));
    }

    [Fact]
    public async Task No_made_up_number_gets_into_a_shop_of_ones_own_by_itself()
    {
        using var own = new TestShop();
        var product = await own.AddProduct("Bird house");
        await own.Pick(product, ["cedar bird house"]);
        Assert.False((await own.Get("/api/measuring"))["isRunning"]!.GetValue<bool>());
        await Task.Delay(1500);
        Assert.Equal(0, (await own.Get("/api/measuring"))["measured"]!.GetValue<int>());
    }

    private const string Source = "Sample data";

    private async Task AddTerms(string market, params string[] texts)
    {
        await using var scope = _shop.Services.GetRequiredService<IServiceScopeFactory>().CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        db.Terms.AddRange(
            texts.Select(t => new TermRow
            {
                MarketId = market,
                Text = t,
                Key = Tokens.Key(t),
            })
        );
        await db.SaveChangesAsync();
        _shop.Services.GetRequiredService<Shelves>().Evict(market);
    }

    private async Task<string?> SourceOf(string market, string key)
    {
        await using var scope = _shop.Services.GetRequiredService<IServiceScopeFactory>().CreateAsyncScope();
        var terms = await Shelves.TermsOf(scope.ServiceProvider.GetRequiredService<TinContext>(), market, [key], default);
        return terms.GetValueOrDefault(key)?.Reading?.Source;
    }

    /// <summary>A market that measures ten terms a day.</summary>
    public class MeteredMarket : DispatchProxy
    {
        internal IMarket Market { get; set; } = null!;
        internal List<string> Asked { get; } = [];
        internal Action WhileAsked { get; set; } = () => { };

        protected override object? Invoke(MethodInfo? targetMethod, object?[]? args)
        {
            if (targetMethod!.Name == "get_TermsPerDay")
                return 10;
            if (targetMethod.Name == nameof(IMarket.Measure))
            {
                Asked.AddRange((IReadOnlyList<string>)args![1]!);
                WhileAsked();
            }

            return targetMethod.Invoke(Market, args);
        }
    }
}
