using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Found checks in and out as tables: what somebody found by searching, and everything that was found.</summary>
internal static class CheckFilesApi
{
    public static void MapCheckFiles(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/checks").WithTags("Watch");
        api.MapPost("/import", ImportChecks)
            .WithName("ImportChecks")
            .Accepts<byte[]>("application/octet-stream")
            .ProducesValidationProblem();
        api.MapGet("/export.csv", ExportChecks).WithName("ExportChecks");
    }

    private static async Task<Results<Ok<Changed>, NotFound>> ImportChecks(
        int id,
        string marketId,
        string? name,
        TinContext db,
        DataFolder data,
        IMarket market,
        ChangeLog changes,
        HttpRequest request,
        CancellationToken stop
    )
    {
        if (await db.FindListing(id, stop) is not { } listing)
            return TypedResults.NotFound();
        var rows = await ImportFiles.ReadOnce(data, db.Now, request.Body, file => CheckTables.Read(file, market.LastDay, stop), stop);
        if (rows.Count == 0)
            throw new InvalidInputException([new("file", "There is no term in it.")]);
        var source = ImportFiles.SourceOf(name);
        var added = new List<CheckRow>();
        var (watch, followed) = (await WatchBefore.Of(db, id, marketId, stop), await Followed(db, id, marketId, stop));
        await db.InOneWrite(
            async () =>
            {
                await db.WatchOf(id, marketId, stop);
                var ids = await FoundChecks.Follow(db, id, marketId, rows.Select(r => r.Term), stop);
                foreach (var day in rows.GroupBy(r => r.Day ?? market.Today).OrderBy(g => g.Key))
                {
                    var check = new CheckRow
                    {
                        ListingId = id,
                        MarketId = marketId,
                        At = day.Key == market.Today ? market.Now : day.Key.ToDateTime(new(12, 0), DateTimeKind.Utc),
                        Day = day.Key,
                        Source = source,
                        State = CheckState.Finished,
                    };
                    db.Checks.Add(check);
                    await db.SaveChangesAsync(stop);
                    // Where a term is there twice, the last line counts.
                    db.Finds.AddRange(
                        day.Where(r => Tokens.Key(r.Term).Length > 0)
                            .GroupBy(r => Tokens.Key(r.Term))
                            .Select(g => (Id: ids[g.Key], Row: g.Last()))
                            .Select(f => new FindRow
                            {
                                CheckId = check.Id,
                                TermId = f.Id,
                                IsDone = true,
                                Found = f.Row.Found,
                                Rank = f.Row.Rank,
                                Results = f.Row.Results,
                            })
                    );
                    await db.SaveChangesAsync(stop);
                    added.Add(check);
                }
            },
            stop
        );
        return TypedResults.Ok(
            await changes.Save(
                WatchMessages.AddedChecks(rows.Select(r => Tokens.Key(r.Term)).Distinct().Count(), added.Count),
                new(Screen.Watch, listing.ProductId, id),
                [
                    RemoveRows.Of<CheckRow>(added.Select(c => c.Id)),
                    RemoveRows.Of<FollowedTermRow>((await Followed(db, id, marketId, stop)).Except(followed)),
                    watch,
                ],
                stop
            )
        );
    }

    private static Task<List<int>> Followed(TinContext db, int listingId, string marketId, CancellationToken stop) =>
        db.FollowedTerms.Where(t => t.ListingId == listingId && t.MarketId == marketId).Select(t => t.Id).ToListAsync(stop);

    private static async Task<Results<FileContentHttpResult, NotFound>> ExportChecks(
        int id,
        string marketId,
        TinContext db,
        CancellationToken stop
    )
    {
        if (await db.FindListing(id, stop) is null)
            return TypedResults.NotFound();
        var finds = await (
            from find in db.Finds
            join check in db.Checks on find.CheckId equals check.Id
            join term in db.FollowedTerms.IgnoreQueryFilters() on find.TermId equals term.Id
            where check.ListingId == id && check.MarketId == marketId && check.DeletedAt == null && find.IsDone
            orderby check.Day, check.Id, term.Id
            select new { Row = new ObservedRow(term.Text, find.Found, find.Rank, find.Results, check.Day), check.Source }
        )
            .AsNoTracking()
            .ToListAsync(stop);
        return CsvFile.Of(CheckTables.Csv(finds.Select(f => (f.Row, f.Source))), "found checks.csv");
    }
}
