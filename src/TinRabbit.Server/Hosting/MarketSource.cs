using TinRabbit.Market.Http;
using TinRabbit.Market.StandIn;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Hosting;

/// <summary>Chooses where the numbers come from: the source of <c>--market</c>, the sample data of the demo, or the seller alone.</summary>
internal static class MarketSource
{
    /// <summary>The name that readings, checks and figures of the sample data bear.</summary>
    public const string SampleData = "Sample data";

    private const ulong Seed = 20261124;
    private static readonly TimeSpan Timeout = TimeSpan.FromSeconds(10);

    /// <summary>The sample data.</summary>
    public static StandInMarket StandIn(TimeProvider clock) => new(Seed, ShippedPlatforms.All, clock);

    /// <summary>A folder of files.</summary>
    /// <exception cref="StartProblem">It has no places, or a file cannot be read.</exception>
    public static IMarket OfFolder(string folder, TimeProvider clock)
    {
        try
        {
            return new FolderMarket(folder, clock);
        }
        catch (MarketException e)
        {
            throw new StartProblem(e.Message, e);
        }
    }

    /// <summary>What a shop has without a connection: the sample data in the demo, and nothing simulated in a seller's own.</summary>
    public static IMarket Own(bool isDemo, TimeProvider clock) => isDemo ? StandIn(clock) : new OfflineMarket(clock);

    /// <summary>Connects to a source. One that described itself at an earlier start may be unreachable now: the shop starts without its numbers.</summary>
    /// <param name="address">Where it is.</param>
    /// <param name="folder">Remembers what it said of itself.</param>
    /// <param name="tell">Is told what the seller should know.</param>
    /// <exception cref="StartProblem">It cannot be reached, and never was.</exception>
    public static async Task<IMarket> Connect(Uri address, DataFolder folder, Action<string> tell)
    {
        try
        {
            var market = await HttpMarket.Connect(address, Timeout, CancellationToken.None);
            Remember(folder.Market, new(address, market.Description));
            return market;
        }
        catch (MarketException e)
        {
            if (Recall(folder.Market) is not { } known || known.Address != address)
                throw new StartProblem($"{e.Message} Start without --market to use the sample data.", e);
            tell($"{e.Message} Tin Rabbit starts without its numbers.");
            return HttpMarket.Remembered(address, Timeout, known.Description);
        }
    }

    private sealed record Known(Uri Address, MarketContract.Description Description);

    private static void Remember(string file, Known known)
    {
        File.WriteAllText(file + ".new", JsonSerializer.Serialize(known, MarketContract.Json));
        File.Move(file + ".new", file, overwrite: true);
    }

    private static Known? Recall(string file)
    {
        try
        {
            return File.Exists(file) ? JsonSerializer.Deserialize<Known>(File.ReadAllText(file), MarketContract.Json) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
