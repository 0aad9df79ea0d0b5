using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Market;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Features.Watch;

/// <summary>The days of a listing: ranks of its terms, and figures in and out.</summary>
internal static class HistoryApi
{
    public static void MapHistory(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}").WithTags("Watch");
        api.MapGet("/history", GetHistory).WithName("GetHistory");
        api.MapPost("/figures/import", ImportFigures)
            .WithName("ImportFigures")
            .Accepts<byte[]>("application/octet-stream")
            .ProducesValidationProblem();
        api.MapGet("/figures/export.csv", ExportFigures).WithName("ExportFigures");
    }

    private static async Task<Results<Ok<HistoryView>, NotFound>> GetHistory(
        int id,
        string marketId,
        TinContext db,
        ListingHistory history,
        CancellationToken stop
    ) =>
        await db.Listings.AnyAsync(l => l.Id == id, stop)
            ? TypedResults.Ok(await history.Load(id, marketId, stop))
            : TypedResults.NotFound();

    private static async Task<Results<Ok<Changed>, NotFound>> ImportFigures(
        int id,
        string marketId,
        string? name,
        TinContext db,
        WatchImport import,
        HttpRequest request,
        CancellationToken stop
    ) =>
        await db.FindListing(id, stop) is { } listing
            ? TypedResults.Ok(await import.AddFigures(listing, marketId, name, request.Body, stop))
            : TypedResults.NotFound();

    private static async Task<Results<FileContentHttpResult, NotFound>> ExportFigures(
        int id,
        string marketId,
        TinContext db,
        CancellationToken stop
    ) =>
        await db.Listings.AnyAsync(l => l.Id == id, stop)
            ? CsvFile.Of(
                FigureTables.Csv(
                    (await db.SeriesOf(id, marketId, stop))
                        .Days.OrderBy(d => d.Key)
                        .Select(d => (new DayFigures(d.Key, d.Value.Views, d.Value.Clicks, d.Value.Sales), d.Value.Source))
                ),
                "daily figures.csv"
            )
            : TypedResults.NotFound();
}
