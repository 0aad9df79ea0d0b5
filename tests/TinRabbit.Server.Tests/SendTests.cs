using System.Reflection;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using TinRabbit.Market;
using TinRabbit.Server.Features.Write;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Tests;

/// <summary>A listing is sent once: whatever happens at the same time, and across a crash.</summary>
public sealed class SendTests : IDisposable
{
    private const string Us = "longbarrow-us";
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private async Task<int> Listing(string title = "Cedar bird house kit")
    {
        var listing = await _shop.ListingOf(await _shop.AddProduct(), "longbarrow");
        await _shop.Put($"/api/listings/{listing}/copy", new { fields = TextOf(title), revision = 0 });
        return listing;
    }

    private static object TextOf(string title) =>
        new
        {
            title,
            description = "A kit.",
            backend = "",
        };

    private (IMarket Market, CountingMarket Counts) Counted()
    {
        var market = DispatchProxy.Create<IMarket, CountingMarket>();
        ((CountingMarket)market).Market = _shop.Services.GetRequiredService<IMarket>();
        return (market, (CountingMarket)market);
    }

    private async Task<T> With<T>(IMarket market, Func<ListingSender, TinContext, Task<T>> use)
    {
        await using var scope = _shop.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        return await use(new(db, new ListingEditor(db), market, scope.ServiceProvider.GetRequiredService<ChangeLog>()), db);
    }

    private Task<SentRow> Send(IMarket market, int listing) =>
        With(market, async (sender, db) => await sender.Send((await db.FindListing(listing, default))!, Us, default));

    private async Task<(int Sent, int Waiting, int Notes)> Stored(int listing) =>
        await With(
            Counted().Market,
            async (_, db) =>
                (
                    await db.Sent.CountAsync(s => s.ListingId == listing),
                    await db.Outbox.CountAsync(o => o.ListingId == listing),
                    await db.Notes.CountAsync(n => n.ListingId == listing)
                )
        );

    [Fact]
    public async Task Sends_at_once_reach_the_market_once_each_and_are_told_once_each()
    {
        var listing = await Listing();
        var (market, counts) = Counted();
        await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Task.Run(() => Send(market, listing))));
        Assert.Equal(6, counts.Sends.Count);
        var stored = await Stored(listing);
        Assert.Equal((6, 0), (stored.Sent, stored.Waiting));
        // The first begins the journal; the others changed nothing.
        Assert.Equal(1, stored.Notes);
    }

    [Fact]
    public async Task A_send_that_a_crash_cut_off_is_finished_at_the_next_start_with_the_time_that_it_had()
    {
        var listing = await Listing();
        var (market, counts) = Counted();
        counts.After = () => throw new IOException("The computer went off.");
        await Assert.ThrowsAsync<IOException>(() => Send(market, listing));
        Assert.Equal((0, 1, 0), await Stored(listing));

        // What is written meanwhile is not what was sent.
        await _shop.Put($"/api/listings/{listing}/copy", new { fields = TextOf("Another text"), revision = 1 });
        counts.After = () => { };
        await With(
            market,
            async (sender, _) =>
            {
                await sender.SendPending(default);
                return 0;
            }
        );
        Assert.Equal(2, counts.Sends.Count);
        Assert.Equal(counts.Sends[0].At, counts.Sends[1].At);
        Assert.Equal(counts.Sends[0].Title, counts.Sends[1].Title);
        Assert.Equal((1, 0, 1), await Stored(listing));
        // The market has taken it once: the same listing with the same time is the same send.
        var sent = (JsonArray)await _shop.Get($"/api/listings/{listing}/sent");
        Assert.True(Assert.Single(sent)!["changed"]!.GetValue<bool>());
    }

    [Fact]
    public async Task The_start_itself_finishes_what_waits()
    {
        var listing = await Listing();
        var (market, counts) = Counted();
        counts.After = () => throw new IOException("The computer went off.");
        await Assert.ThrowsAsync<IOException>(() => Send(market, listing));
        _shop.Restart();
        for (var i = 0; i < 4800 && (await Stored(listing)).Sent == 0; i++)
            await Task.Delay(25);
        Assert.Equal((1, 0, 1), await Stored(listing));
    }

    [Fact]
    public async Task A_send_for_a_market_that_is_gone_waits_and_keeps_no_other_from_being_finished()
    {
        var (first, second) = (await Listing(), await Listing("Owl box"));
        var (market, counts) = Counted();
        counts.After = () => throw new IOException("The computer went off.");
        await Assert.ThrowsAsync<IOException>(() => Send(market, first));
        await Assert.ThrowsAsync<IOException>(() => Send(market, second));
        await With(
            market,
            async (_, db) =>
                await db.Outbox.Where(o => o.ListingId == first).ExecuteUpdateAsync(o => o.SetProperty(x => x.MarketId, "gone-us"))
        );
        counts.After = () => { };
        await With(
            market,
            async (sender, _) =>
            {
                await sender.SendPending(default);
                return 0;
            }
        );
        Assert.Equal((0, 1, 0), await Stored(first));
        Assert.Equal((1, 0, 1), await Stored(second));
        // Nor does it keep the program from starting.
        _shop.Restart();
        await _shop.Get("/api/shop");
    }

    [Fact]
    public async Task What_a_market_does_not_take_is_not_sent_later_by_itself()
    {
        var listing = await Listing();
        var (market, counts) = Counted();
        counts.Before = () => throw new MarketException("The market is away.");
        await Assert.ThrowsAsync<MarketException>(() => Send(market, listing));
        Assert.Equal((0, 0, 0), await Stored(listing));
    }

    [Fact]
    public void What_is_done_again_after_a_race_does_nothing_outside_the_database()
    {
        var retried = _shop
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.Where(e => e.Metadata.Contains(RaceRetry.Marker))
            .Select(e => e.Metadata.GetMetadata<MethodInfo>()!)
            .ToList();
        Assert.True(retried.Count > 30);
        string[] outside = [nameof(ListingSender), "PictureFiles", "HttpRequest"];
        Assert.Equal([], retried.Where(m => m.GetParameters().Any(p => outside.Contains(p.ParameterType.Name))).Select(m => m.Name));
    }

    /// <summary>A market that counts what is sent to it, and that something can happen to.</summary>
    public class CountingMarket : DispatchProxy
    {
        internal IMarket Market { get; set; } = null!;
        internal List<(DateTime At, string Title)> Sends { get; } = [];
        internal Action Before { get; set; } = () => { };
        internal Action After { get; set; } = () => { };

        protected override object? Invoke(MethodInfo? targetMethod, object?[]? args)
        {
            if (targetMethod!.Name != nameof(IMarket.Send))
                return targetMethod.Invoke(Market, args);
            Before();
            var answer = targetMethod.Invoke(Market, args);
            lock (Sends)
                Sends.Add(((DateTime)args![2]!, $"{((Sending)args[1]!).Copy["title"]}"));
            After();
            return answer;
        }
    }
}
