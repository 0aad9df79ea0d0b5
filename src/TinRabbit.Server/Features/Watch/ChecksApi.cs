using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core;
using TinRabbit.Market;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

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
/// <param name="Disagreements">How many terms were found against the platform's profile, or were not found with it.</param>
public sealed record FoundView(IReadOnlyList<FoundTerm> Terms, IReadOnlyList<FoundCheckView> Checks, int Disagreements);

/// <summary>Terms that are no longer checked.</summary>
public sealed record UnfollowRequest([MaxLength(Bounds.FollowedTerms)] IReadOnlyList<int> Terms);

internal static class ChecksApi
{
    private const int ChecksShown = 14;

    public static void MapChecks(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/checks").WithTags("Watch");
        api.MapGet("/", GetFound).WithName("GetFound");
        api.MapPost("/", BeginCheck).RetriesRaces().WithName("BeginCheck").ProducesValidationProblem();
        api.MapGet("/{check:int}", GetCheck).WithName("GetCheck");
        api.MapPost("/{check:int}/stop", StopCheck).WithName("StopCheck");
        api.MapPost("/{check:int}/resume", ResumeCheck).WithName("ResumeCheck");
        api.MapDelete("/{check:int}", DeleteCheck).WithName("DeleteCheck");
        api.MapPost("/unfollow", Unfollow).WithName("UnfollowTerms").ProducesValidationProblem();
    }

    private static async Task<Results<Ok<FoundView>, NotFound>> GetFound(int id, string marketId, TinContext db, CancellationToken stop)
    {
        if (await db.FindListing(id, stop) is not { } listing)
            return TypedResults.NotFound();
        var terms = await FoundTerms.Of(db, listing, marketId, stop);
        var checks = await FoundChecks.Of(db, id, marketId).AsNoTracking().Take(ChecksShown).ToListAsync(stop);
        return TypedResults.Ok(
            new FoundView(terms, await Views(db, checks, stop), terms.Count(t => t.Found is { } found && found != t.Predicted))
        );
    }

    private static async Task<Results<Ok<FoundCheckView>, NotFound>> BeginCheck(
        int id,
        FoundCheckRequest request,
        TinContext db,
        IMarket market,
        CheckService service,
        CancellationToken stop
    )
    {
        if (await db.FindListing(id, stop) is null)
            return TypedResults.NotFound();
        var check = await FoundChecks.Begin(db, market, id, request.MarketId, request.Terms, stop);
        service.Queue(check.Id);
        return TypedResults.Ok((await Views(db, [check], stop))[0]);
    }

    private static async Task<Results<Ok<FoundCheckView>, NotFound>> GetCheck(int id, int check, TinContext db, CancellationToken stop) =>
        await Find(db, id, check).AsNoTracking().FirstOrDefaultAsync(stop) is { } row
            ? TypedResults.Ok((await Views(db, [row], stop))[0])
            : TypedResults.NotFound();

    private static async Task<Results<Ok<FoundCheckView>, NotFound>> StopCheck(
        int id,
        int check,
        TinContext db,
        CheckService service,
        CancellationToken stop
    )
    {
        if (await Find(db, id, check).FirstOrDefaultAsync(stop) is not { } row)
            return TypedResults.NotFound();
        if (row.State == CheckState.Running)
            row.State = CheckState.Stopped;
        await db.SaveChangesAsync(stop);
        service.Stop(check);
        return TypedResults.Ok((await Views(db, [row], stop))[0]);
    }

    private static async Task<Results<Ok<FoundCheckView>, NotFound>> ResumeCheck(
        int id,
        int check,
        TinContext db,
        CheckService service,
        CancellationToken stop
    )
    {
        if (await Find(db, id, check).FirstOrDefaultAsync(stop) is not { } row)
            return TypedResults.NotFound();
        if (row.State == CheckState.Stopped)
            (row.State, row.Problem) = (CheckState.Running, null);
        await db.SaveChangesAsync(stop);
        service.Queue(check);
        return TypedResults.Ok((await Views(db, [row], stop))[0]);
    }

    private static async Task<Results<Ok<Changed>, NotFound>> DeleteCheck(
        int id,
        int check,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    ) =>
        await Find(db, id, check).FirstOrDefaultAsync(stop) is { } row
            ? TypedResults.Ok(
                await changes.Delete(
                    ChangeMessages.Deleted("check", $"{row.Day:yyyy-MM-dd}"),
                    new(Screen.Watch, await db.ProductOf(id, stop), id),
                    [row],
                    stop
                )
            )
            : TypedResults.NotFound();

    private static async Task<Results<Ok<Changed>, NotFound>> Unfollow(
        int id,
        UnfollowRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var terms = await db.FollowedTerms.Where(t => t.ListingId == id && request.Terms.Contains(t.Id)).ToListAsync(stop);
        return terms.Count == 0
            ? TypedResults.NotFound()
            : TypedResults.Ok(
                await changes.Delete(
                    WatchMessages.Unfollowed([.. terms.Select(t => t.Text)]),
                    new(Screen.Watch, await db.ProductOf(id, stop), id),
                    terms,
                    stop
                )
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
