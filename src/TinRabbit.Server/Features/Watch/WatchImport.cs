using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Imports what the seller has of a listing day by day: all or nothing, with one undo.</summary>
internal sealed class WatchImport(TinContext db, TableUpload upload, IMarket market, ChangeLog changes)
{
    /// <summary>Adds daily figures from a table.</summary>
    public async Task<Changed> AddFigures(ListingRow listing, string marketId, string? name, Stream body, CancellationToken stop)
    {
        var days = await upload.Read(body, file => FigureTables.Read(file, market.LastDay, stop), "There is no day in it.", stop);
        var source = ImportFiles.SourceOf(name);
        var rows = days.Select(d => FigureRow.Of(listing.Id, marketId, d, source)).ToList();
        var watch = await WatchBefore.Of(db, listing.Id, marketId, stop);
        await db.InOneWrite(
            async () =>
            {
                await db.WatchOf(listing.Id, marketId, stop);
                db.Figures.AddRange(rows);
                await db.SaveChangesAsync(stop);
            },
            stop
        );
        return await changes.Save(
            WatchMessages.AddedFigures(rows.Count),
            new(Screen.Watch, listing.ProductId, listing.Id),
            [RemoveRows.Of<FigureRow>(rows.Select(r => r.Id)), watch],
            stop
        );
    }

    /// <summary>Adds what somebody found by searching, from a table: one check for each day.</summary>
    public async Task<Changed> AddChecks(ListingRow listing, string marketId, string? name, Stream body, CancellationToken stop)
    {
        var rows = await upload.Read(body, file => CheckTables.Read(file, market.LastDay, stop), "There is no term in it.", stop);
        var steps = await ObservedChecks.Add(db, market, listing.Id, marketId, rows, ImportFiles.SourceOf(name), stop);
        return await changes.Save(
            WatchMessages.AddedChecks(
                rows.Select(r => Tokens.Key(r.Term)).Distinct().Count(),
                rows.Select(r => r.Day ?? market.Today).Distinct().Count()
            ),
            new(Screen.Watch, listing.ProductId, listing.Id),
            steps,
            stop
        );
    }
}
