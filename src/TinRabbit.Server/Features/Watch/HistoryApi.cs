using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Watch;

/// <summary>The days of a listing: ranks of its terms, and its figures.</summary>
internal static class HistoryApi
{
    public static void MapHistory(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}");
        api.MapGet("/history", GetHistory);
        api.MapGet("/figures/export.csv", ExportFigures);
    }

    private static async Task<HistoryView> GetHistory(
        int id,
        string marketId,
        TinContext db,
        ListingHistory history,
        CancellationToken stop
    ) => await db.Listings.AnyAsync(l => l.Id == id, stop) ? await history.Load(id, marketId, stop) : throw new NotThereException();

    private static async Task<FileContentHttpResult> ExportFigures(int id, string marketId, TinContext db, CancellationToken stop) =>
        await db.Listings.AnyAsync(l => l.Id == id, stop)
            ? CsvFile.Of(
                FigureTables.Csv(
                    (await db.SeriesOf(id, marketId, stop))
                        .Days.OrderBy(d => d.Key)
                        .Select(d => (new DayFigures(d.Key, d.Value.Views, d.Value.Clicks, d.Value.Sales), d.Value.Source))
                ),
                "daily figures.csv"
            )
            : throw new NotThereException();
}
