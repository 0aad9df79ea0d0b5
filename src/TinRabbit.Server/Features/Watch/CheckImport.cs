using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Imports what somebody found by searching: all or nothing, with one undo.</summary>
internal sealed class CheckImport(TinContext db, TableUpload upload, IMarket market, ChangeLog changes)
{
    /// <summary>Adds a table: one check for each day.</summary>
    public async Task<Changed> Add(ListingRow listing, string marketId, string? name, Stream body, CancellationToken stop)
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
