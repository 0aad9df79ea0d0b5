using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What to check.</summary>
/// <param name="Terms">The terms; null for the picks and every term that was checked before.</param>
public sealed record FoundCheckRequest(string MarketId, [MaxLength(Bounds.FollowedTerms), Term] IReadOnlyList<string>? Terms = null);

/// <summary>A found check.</summary>
/// <param name="Day">The day that its ranks are of, in the market's time.</param>
/// <param name="Done">Terms that were asked for.</param>
/// <param name="All">Its terms.</param>
/// <param name="Problem">Why it went no further.</param>
public sealed record FoundCheckView(
    int Id,
    DateTime At,
    DateOnly Day,
    string Source,
    bool IsDaily,
    CheckState State,
    int Done,
    int All,
    string? Problem
);

/// <summary>The terms of a listing with what was found, and its last checks.</summary>
/// <param name="Checks">The last one first.</param>
public sealed record FoundView(IReadOnlyList<FoundTerm> Terms, IReadOnlyList<FoundCheckView> Checks);

/// <summary>Terms that are no longer checked.</summary>
public sealed record UnfollowRequest([MaxLength(Bounds.FollowedTerms)] IReadOnlyList<int> Terms);

internal static class ChecksApi
{
    private const int ChecksShown = 14;

    public static void MapChecks(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/checks");
        api.MapGet("/", GetFound);
        api.MapPost("/", BeginCheck).RetriesRaces();
        api.MapGet("/{check:int}", GetCheck);
        api.MapPost("/{check:int}/stop", StopCheck);
        api.MapPost("/{check:int}/resume", ResumeCheck);
        api.MapDelete("/{check:int}", DeleteCheck);
        api.MapPost("/unfollow", UnfollowTerms);
    }

    private static async Task<FoundView> GetFound(int id, string marketId, TinContext db, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var terms = await FoundTerms.Of(db, listing, marketId, stop);
        var checks = await FoundChecks.Of(db, id, marketId).AsNoTracking().Take(ChecksShown).ToListAsync(stop);
        return new(terms, await Views(db, checks, stop));
    }

    private static async Task<FoundCheckView> BeginCheck(
        int id,
        FoundCheckRequest request,
        TinContext db,
        IMarket market,
        CheckService service,
        CancellationToken stop
    )
    {
        await db.FindListing(id, stop).OrNotThere();
        var check = await FoundChecks.Begin(db, market, id, request.MarketId, request.Terms, stop);
        service.Queue(check.Id);
        return (await Views(db, [check], stop))[0];
    }

    private static async Task<FoundCheckView> GetCheck(int id, int check, TinContext db, CancellationToken stop)
    {
        var row = await Find(db, id, check).AsNoTracking().FirstOrDefaultAsync(stop).OrNotThere();
        return (await Views(db, [row], stop))[0];
    }

    private static async Task<FoundCheckView> StopCheck(int id, int check, TinContext db, CheckService service, CancellationToken stop)
    {
        var row = await Find(db, id, check).FirstOrDefaultAsync(stop).OrNotThere();
        if (row.State == CheckState.Running)
            row.State = CheckState.Stopped;
        await db.SaveChangesAsync(stop);
        service.Stop(check);
        return (await Views(db, [row], stop))[0];
    }

    private static async Task<FoundCheckView> ResumeCheck(int id, int check, TinContext db, CheckService service, CancellationToken stop)
    {
        var row = await Find(db, id, check).FirstOrDefaultAsync(stop).OrNotThere();
        if (row.State == CheckState.Stopped)
            (row.State, row.Problem) = (CheckState.Running, null);
        await db.SaveChangesAsync(stop);
        service.Queue(check);
        return (await Views(db, [row], stop))[0];
    }

    private static async Task<Changed> DeleteCheck(int id, int check, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var row = await Find(db, id, check).FirstOrDefaultAsync(stop).OrNotThere();
        return await changes.Delete(
            ChangeMessages.Deleted("check", $"{row.Day:yyyy-MM-dd}"),
            new(Screen.Watch, await db.ProductOf(id, stop), id),
            [row],
            stop
        );
    }

    private static async Task<Changed> UnfollowTerms(
        int id,
        UnfollowRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var terms = await db.FollowedTerms.Where(t => t.ListingId == id && request.Terms.Contains(t.Id)).ToListAsync(stop);
        return terms.Count == 0
            ? throw new NotThereException()
            : await changes.Delete(
                WatchMessages.Unfollowed([.. terms.Select(t => t.Text)]),
                new(Screen.Watch, await db.ProductOf(id, stop), id),
                terms,
                stop
            );
    }

    private static IQueryable<CheckRow> Find(TinContext db, int listingId, int check) =>
        db.Checks.Where(c => c.Id == check && c.ListingId == listingId);

    private static async Task<List<FoundCheckView>> Views(TinContext db, IReadOnlyList<CheckRow> checks, CancellationToken stop)
    {
        var ids = checks.Select(c => c.Id).ToList();
        var counts = await db
            .Finds.Where(f => ids.Contains(f.CheckId))
            .GroupBy(f => f.CheckId)
            .Select(g => new
            {
                g.Key,
                All = g.Count(),
                Done = g.Count(f => f.IsDone),
            })
            .ToDictionaryAsync(g => g.Key, stop);
        return
        [
            .. checks.Select(c => new FoundCheckView(
                c.Id,
                c.At,
                c.Day,
                c.Source,
                c.IsDaily,
                c.State,
                counts.GetValueOrDefault(c.Id)?.Done ?? 0,
                counts.GetValueOrDefault(c.Id)?.All ?? 0,
                c.Problem
            )),
        ];
    }
}
