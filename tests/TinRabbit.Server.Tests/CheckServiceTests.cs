using System.Reflection;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using TinRabbit.Market;
using TinRabbit.Server.Features.Watch;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

/// <summary>A found check of a market that goes away in the middle of it.</summary>
public sealed class CheckServiceTests : IDisposable
{
    private const string Us = "hedgerow-fair-us";
    private const int Terms = 120;
    private readonly TestShop _shop = new(demo: true);

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task A_daily_check_that_the_market_left_unanswered_says_so_and_goes_on_the_next_time()
    {
        var scopes = _shop.Services.GetRequiredService<IServiceScopeFactory>();
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        var listing = db.Listings.First(l => l.Product.Name == "Garden birds wall chart" && l.PlatformId == "hedgerow-fair").Id;
        db.FollowedTerms.AddRange(
            Enumerable
                .Range(0, Terms)
                .Select(t => new FollowedTermRow
                {
                    ListingId = listing,
                    MarketId = Us,
                    Key = $"bird poster {t}",
                    Text = $"bird poster {t}",
                })
        );
        await db.SaveChangesAsync();
        var market = DispatchProxy.Create<IMarket, LeavingMarket>();
        var leaving = (LeavingMarket)market;
        (leaving.Market, leaving.Listing, leaving.AnswersLeft) = (
            _shop.Services.GetRequiredService<IMarket>(),
            Sending.IdAtMarket($"{listing}"),
            1
        );
        leaving.Market.MoveClock(TimeSpan.FromDays(1));
        using var checks = new CheckService(scopes, market, NullLogger<CheckService>.Instance);
        using var daily = new DailyWatch(scopes, market, checks, NullLogger<DailyWatch>.Instance);

        await daily.Run(default);
        var path = $"/api/listings/{listing}/checks?marketId={Us}";
        var cutOff = (await _shop.Get(path))["checks"]![0]!;
        Assert.Equal(("stopped", "The market is away."), (cutOff["state"]!.GetValue<string>(), cutOff["problem"]!.GetValue<string>()));
        Assert.Equal(50, cutOff["done"]!.GetValue<int>());

        leaving.AnswersLeft = int.MaxValue;
        await daily.Run(default);
        var ended = (await _shop.Get(path))["checks"]![0]!;
        Assert.Equal(cutOff["id"]!.GetValue<int>(), ended["id"]!.GetValue<int>());
        Assert.Equal("finished", ended["state"]!.GetValue<string>());
        Assert.Null(ended["problem"]);
        Assert.Equal(ended["all"]!.GetValue<int>(), ended["done"]!.GetValue<int>());
        Assert.Equal(ended["all"]!.GetValue<int>(), leaving.Answered.Distinct().Count());
        Assert.Equal(leaving.Answered.Count, leaving.Answered.Distinct().Count());

        // It is the check of the day: there is no second one.
        await daily.Run(default);
        Assert.Equal(ended["id"]!.GetValue<int>(), (await _shop.Get(path))["checks"]![0]!["id"]!.GetValue<int>());
    }

    /// <summary>A market that answers some searches for a listing and then is away.</summary>
    public class LeavingMarket : DispatchProxy
    {
        internal IMarket Market { get; set; } = null!;
        internal string Listing { get; set; } = "";
        internal int AnswersLeft { get; set; }
        internal List<string> Answered { get; } = [];

        protected override object? Invoke(MethodInfo? targetMethod, object?[]? args)
        {
            if (targetMethod!.Name == nameof(IMarket.Find) && (string)args![1]! == Listing)
            {
                if (AnswersLeft-- <= 0)
                    throw new MarketException("The market is away.");
                Answered.AddRange((IReadOnlyList<string>)args[2]!);
            }

            return targetMethod.Invoke(Market, args);
        }
    }
}
