using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
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

    /// <summary>Adds what somebody found by searching, from a table or from results pages that they saved: one check for each day.</summary>
    public async Task<Changed> AddChecks(ListingRow listing, string marketId, string? name, Stream body, CancellationToken stop)
    {
        var shop = await db.Shops.OrderBy(s => s.Id).Select(s => s.Name).FirstAsync(stop);
        var title = listing.Copy.TextOf(listing.Platform.Profile, "title");
        var rows = await upload.Read(
            body,
            async file =>
                await SavedPages.Are(file, stop)
                    ? await FoundPages.Read(file, title, shop, stop)
                    : CheckTables.Read(file, market.LastDay, stop),
            "There is no term in it.",
            stop
        );
        var source = ImportFiles.SourceOf(name);
        var added = new List<CheckRow>();
        var watch = await WatchBefore.Of(db, listing.Id, marketId, stop);
        var followed = await Followed(listing.Id, marketId, stop);
        await db.InOneWrite(
            async () =>
            {
                await db.WatchOf(listing.Id, marketId, stop);
                var ids = await FoundChecks.Follow(db, listing.Id, marketId, rows.Select(r => r.Term), stop);
                foreach (var day in rows.GroupBy(r => r.Day ?? market.Today).OrderBy(g => g.Key))
                    added.Add(await AddCheck(CheckOf(listing.Id, marketId, day.Key, source), day, ids, stop));
            },
            stop
        );
        return await changes.Save(
            WatchMessages.AddedChecks(rows.Select(r => Tokens.Key(r.Term)).Distinct().Count(), added.Count),
            new(Screen.Watch, listing.ProductId, listing.Id),
            [
                RemoveRows.Of<CheckRow>(added.Select(c => c.Id)),
                RemoveRows.Of<FollowedTermRow>((await Followed(listing.Id, marketId, stop)).Except(followed)),
                watch,
            ],
            stop
        );
    }

    private CheckRow CheckOf(int listingId, string marketId, DateOnly day, string source) =>
        new()
        {
            ListingId = listingId,
            MarketId = marketId,
            At = market.TimeOf(day),
            Day = day,
            Source = source,
            State = CheckState.Finished,
        };

    // Where a term is there twice, the last line counts.
    private async Task<CheckRow> AddCheck(
        CheckRow check,
        IEnumerable<ObservedRow> rows,
        Dictionary<string, int> ids,
        CancellationToken stop
    )
    {
        db.Checks.Add(check);
        await db.SaveChangesAsync(stop);
        db.Finds.AddRange(
            rows.Where(r => Tokens.Key(r.Term).Length > 0)
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
        return check;
    }

    private Task<List<int>> Followed(int listingId, string marketId, CancellationToken stop) =>
        db.FollowedTerms.Where(t => t.ListingId == listingId && t.MarketId == marketId).Select(t => t.Id).ToListAsync(stop);
}
