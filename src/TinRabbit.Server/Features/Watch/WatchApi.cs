using TinRabbit.Server.Hosting;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>How a listing is watched in a market.</summary>
/// <param name="Now">The market's time.</param>
/// <param name="CanMoveClock">Whether that time is simulated and can be moved on.</param>
/// <param name="IsConnected">Whether the market can be asked where it finds the listing; otherwise what was found is pasted or imported.</param>
/// <param name="SentAt">When the listing was last sent or published there; null before.</param>
/// <param name="IndexUpdatesAt">When the market's search results show what was sent last; null where they do.</param>
/// <param name="HasChanged">Whether the listing has been edited since.</param>
/// <param name="Nights">Whether nights are booked there instead of things sold.</param>
public sealed record WatchView(
    DateTime Now,
    bool CanMoveClock,
    bool IsConnected,
    DateTime? SentAt,
    DateTime? IndexUpdatesAt,
    bool HasChanged,
    bool ChecksDaily,
    int PageSize,
    bool Nights
);

/// <summary>How to watch a listing.</summary>
/// <param name="PageSize">Results of one page of this market.</param>
public sealed record WatchRequest(string MarketId, bool ChecksDaily, int PageSize);

/// <summary>How far to move the simulated clock.</summary>
public sealed record ClockRequest(int Days);

/// <summary>The simulated clock after it was moved.</summary>
/// <param name="Problems">What could not be done on the days that passed.</param>
public sealed record ClockView(DateTime Now, IReadOnlyList<string> Problems);

/// <summary>How a listing is watched, and the simulated clock.</summary>
internal static class WatchApi
{
    private const int MostDays = 7;

    public static void MapWatch(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/watch");
        api.MapGet("/", GetWatch);
        api.MapPut("/", SaveWatch).RetriesRaces();
        app.MapPost("/api/clock", MoveClock).DisableRequestTimeout();
    }

    private static async Task<WatchView> GetWatch(int id, string marketId, TinContext db, IMarket market, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await View(db, market, listing, marketId, stop);
    }

    private static async Task<WatchView> SaveWatch(int id, WatchRequest request, TinContext db, IMarket market, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        if (request.PageSize is < 1 or > WatchRow.MostPageSize)
            throw new InvalidInputException([new("pageSize", $"Enter a number of results from 1 to {WatchRow.MostPageSize}.")]);
        var watch = await db.WatchOf(id, request.MarketId, stop);
        (watch.ChecksDaily, watch.PageSize) = (request.ChecksDaily, request.PageSize);
        await db.SaveChangesAsync(stop);
        return await View(db, market, listing, request.MarketId, stop);
    }

    // Day by day, so that nothing of the days between is missed: each has its check and its figures.
    private static async Task<ClockView> MoveClock(
        ClockRequest request,
        TinContext db,
        IMarket market,
        MarketSetup markets,
        DailyWatch daily,
        CancellationToken stop
    )
    {
        if (request.Days is < 1 or > MostDays)
            throw new InvalidInputException([new("days", $"Move the clock by 1 to {MostDays} days at once.")]);
        if (!market.CanMoveClock)
            throw new InvalidInputException([new("days", "Only the clock of the sample data can be moved.")]);
        var problems = new List<string>();
        for (var day = 0; day < request.Days; day++)
        {
            stop.ThrowIfCancellationRequested();
            // First the day that is here: its check would be lost otherwise.
            problems.AddRange(await daily.Run(stop));
            await markets.MoveClock(db, TimeSpan.FromDays(1), stop);
        }

        problems.AddRange(await daily.Run(stop));
        return new ClockView(market.Now, [.. problems.Distinct()]);
    }

    private static async Task<WatchView> View(TinContext db, IMarket market, ListingRow listing, string marketId, CancellationToken stop)
    {
        var watch = await db.Watches.AsNoTracking().FirstOrDefaultAsync(w => w.ListingId == listing.Id && w.MarketId == marketId, stop);
        var sent = await db
            .Sent.AsNoTracking()
            .Where(s => s.ListingId == listing.Id && s.MarketId == marketId)
            .OrderByDescending(s => s.Id)
            .FirstOrDefaultAsync(stop);
        var isPage = await db.Pages.AnyAsync(p => p.ListingId == listing.Id, stop);
        return new(
            market.Now,
            market.CanMoveClock,
            market.Can.HasFlag(MarketAbilities.Send) && listing.Platform.Like is null && !isPage,
            sent?.At,
            sent?.NoticedAt > market.Now ? sent.NoticedAt : null,
            sent is not null && sent.Copy != listing.Copy,
            watch?.ChecksDaily ?? true,
            watch?.PageSize ?? WatchRow.UsualPageSize,
            IsStay(listing.Platform)
        );
    }

    // Of the shipped platforms one lets stays; those made from it do, too.
    private static bool IsStay(PlatformRow platform) => (platform.Like ?? platform.Id) == "marsh-and-moor";
}
