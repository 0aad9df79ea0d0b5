using TinRabbit.Server.Demo;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Hosting;

/// <summary>Makes the shop ready before the first request: the database, what a first start puts in, what an interrupted program left, and the market.</summary>
internal sealed class ShopSetupService(
    IServiceScopeFactory scopes,
    DataFolder folder,
    StartOptions options,
    IMarket market,
    MarketSetup markets,
    Shelves shelves,
    WriteGate writes,
    TimeProvider clock,
    ILogger<ShopSetupService> log
) : IHostedService
{
    /// <exception cref="StartProblem">The database cannot be used.</exception>
    public async Task StartAsync(CancellationToken stop)
    {
        var began = clock.GetTimestamp();
        var seeder = new ShopSeeder(market, shelves, new(folder), writes, options.Demo);
        await DatabaseSetup.Prepare(folder, seeder.Fill, seeder.IsUnfinished, Console.WriteLine, stop);
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        try
        {
            await ShopSeeder.AddShippedPlatforms(db);
            await TermImport.RemoveUnfinished(db, writes);
            TermImport.RemoveOldFiles(folder.Imports, clock.GetUtcNow().UtcDateTime);
            await markets.Remind(db, stop);
            if (options.Shop is not null && !await db.Products.IgnoreQueryFilters().AnyAsync(stop))
                await scope.ServiceProvider.GetRequiredService<BinderyShop>().Fill(() => markets.KnowPlaces(db, stop), stop);
        }
        catch (Exception e) when (DatabaseSetup.Explain(e, folder) is { } why)
        {
            throw new StartProblem(why, e);
        }

        log.LogInformation(
            "The shop is ready after {Milliseconds:0} ms: version {Version}, {Markets} markets of the source {Source}.",
            clock.GetElapsedTime(began).TotalMilliseconds,
            typeof(ShopSetupService).Assembly.GetName().Version,
            market.Places.Count,
            market.Name
        );
    }

    public Task StopAsync(CancellationToken stop)
    {
        log.LogInformation("The shop is closed.");
        return Task.CompletedTask;
    }
}
