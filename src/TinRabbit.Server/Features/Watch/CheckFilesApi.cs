using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Found checks in and out as tables: what somebody found by searching, and everything that was found.</summary>
internal static class CheckFilesApi
{
    public static void MapCheckFiles(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/checks");
        api.MapPost("/import", ImportChecks).TakesFile();
        api.MapGet("/export.csv", ExportChecks);
        api.MapGet("/sheet.csv", ExportSheet);
    }

    private static async Task<Changed> ImportChecks(
        int id,
        string marketId,
        string? name,
        TinContext db,
        CheckImport import,
        HttpRequest request,
        CancellationToken stop
    )
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        return await import.Add(listing, marketId, name, request.Body, stop);
    }

    // The terms of a watch with room for what one finds: filled in, it is a check.
    private static async Task<FileContentHttpResult> ExportSheet(int id, string marketId, TinContext db, CancellationToken stop)
    {
        await db.FindListing(id, stop).OrNotThere();
        var terms = (await FoundChecks.TermsOf(db, id, marketId, stop)).DistinctBy(Tokens.Key);
        return CsvFile.Of(
            CsvText.Of(["term", "rank", "results", "date"], terms.Select(t => (IEnumerable<string>)[t, "", "", ""])),
            "ranks to fill in.csv"
        );
    }

    private static async Task<FileContentHttpResult> ExportChecks(int id, string marketId, TinContext db, CancellationToken stop)
    {
        await db.FindListing(id, stop).OrNotThere();
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
