using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Hosting;

/// <summary>
/// After the start, while nobody asks yet: weighs a listing, so that the first key does not wait for its query to be compiled, and reads the
/// words of claims and the shelves that were used last, and a page, so that the first one that is brought in is quick. Nothing depends on it; what fails is logged.
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

    private const string FirstPage =
        "<h1>1–2 of 2 results for “a”</h1><ul><li><a href=/1><h3>One of two</h3></a><p>$1.00</p></li><li><a href=/2><h3>Two of two</h3></a><p>$2.00</p></li></ul>";

    protected override async Task ExecuteAsync(CancellationToken stop)
    {
        try
        {
            await Started(stop);
            var words = Task.Run(Facets.Load, stop);
            var reader = Task.Run(() => PageReader.Read(FirstPage, null, null, stop), stop);
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<TinContext>();
            if (options.OnlyThisComputer && server.Features.Get<IServerAddressesFeature>()?.Addresses.FirstOrDefault() is { } address)
                await WeighOnce(db, address, stop);
            await ReadShelves(db, stop);
            await words;
            await reader;
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

    private async Task WeighOnce(TinContext db, string address, CancellationToken stop)
    {
        if (
            await db.Listings.Where(l => db.Set<PickRow>().Any(p => p.ProductId == l.ProductId)).Select(l => l.Id).FirstOrDefaultAsync(stop)
            is not (> 0 and var id)
        )
            return;
        using var http = new HttpClient { BaseAddress = new(address) };
        using var answer = await http.PostAsJsonAsync($"/api/listings/{id}/weigh", new { marketId = market.Places[0].Id }, stop);
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
}
