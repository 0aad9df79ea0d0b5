using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Shop;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Weigh;

namespace TinRabbit.Server.Hosting;

/// <summary>
/// After the start, while nobody asks yet: weighs a listing and fills a field, so that their code is compiled, and reads the shelves that were
/// used last. Nothing depends on it; what fails is logged.
/// </summary>
internal sealed class WarmUpService(
    IServiceScopeFactory scopes,
    IMarket market,
    Shelves shelves,
    StartOptions options,
    IServer server,
    IHostApplicationLifetime lifetime,
    ILogger<WarmUpService> log
) : BackgroundService
{
    private const int ShelvesRead = 4;

    protected override async Task ExecuteAsync(CancellationToken stop)
    {
        try
        {
            await Started(stop);
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<TinContext>();
            if (options.OnlyThisComputer && server.Features.Get<IServerAddressesFeature>()?.Addresses.FirstOrDefault() is { } address)
                await WarmUp.Weigh(db, market.Places[0].Id, address, stop);
            await ReadShelves(db, stop);
            Fill(stop);
        }
        catch (OperationCanceledException) { }
        catch (Exception e)
        {
            log.LogWarning(e, "Preparing the first answers failed; they will take longer.");
        }
    }

    private async Task Started(CancellationToken stop)
    {
        var started = new TaskCompletionSource();
        await using var whenStarted = lifetime.ApplicationStarted.Register(started.SetResult);
        await started.Task.WaitAsync(stop);
    }

    private async Task ReadShelves(TinContext db, CancellationToken stop)
    {
        var used = await db
            .Digs.GroupBy(d => d.MarketId)
            .OrderByDescending(g => g.Max(d => d.At))
            .Select(g => g.Key)
            .Take(ShelvesRead)
            .ToListAsync(stop);
        foreach (var marketId in used.Where(shelves.Knows))
            await shelves.Query(db, marketId, s => s.Search(new(Take: 0)), stop);
        await market.Prepare(used.Count > 0 ? [.. used.Where(shelves.Knows)] : [market.Places[0].Id], stop);
    }

    private static void Fill(CancellationToken stop)
    {
        var nothing = new Dictionary<string, FieldValue>();
        WantedTerm[] some = [.. Demo.NestBoxPicks.Select((p, i) => new WantedTerm(p.Text, 100 + i))];
        foreach (var platform in ShippedPlatforms.All)
        foreach (var field in platform.Fields.Where(f => f.Indexed))
        {
            stop.ThrowIfCancellationRequested();
            if (field.Shape == FieldShape.Phrases)
                TagsFill.Of(new(platform, nothing, field.Key, some, ["bluebird house"]), stop);
            else if (field is { Role: "title", Shape: FieldShape.Line })
                TitleFill.Of(new(platform, nothing, field.Key, some, ["bluebird house"]), stop);
            else if (field.Shape is FieldShape.Words or FieldShape.Lines)
                WordsFill.Of(new(platform, nothing, field.Key, some, ["bluebird house"]), stop);
        }
    }
}
