using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Weigh;

internal static class RivalsApi
{
    private const int Offered = 40;
    private const string Pasted = "Pasted";

    public static void MapRivals(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/rivals");
        api.MapGet("/found", FindRivals);
        api.MapPost("/", AddRivals).RetriesRaces();
        api.MapPost("/paste", PasteRival).RetriesRaces();
        api.MapPost("/refresh", RefreshRivals);
        api.MapDelete("/{rivalId:int}", RemoveRival);
        api.MapGet("/export.csv", ExportRivals);
    }

    private static async Task<FoundRivals> FindRivals(
        int id,
        string marketId,
        string? term,
        TinContext db,
        PreparedPicksCache ready,
        TopListings top,
        CancellationToken stop
    )
    {
        var open = await OpenDraft.Open(db, ready, id, new(marketId, null), stop).OrNotThere();
        if (DraftRivals.TermOf(open, term) is not { } searched || Tokens.Of(searched).Count == 0)
            return new FoundRivals("", null, []);
        if (await top.Of(marketId, searched, stop) is not { } page)
            return new(searched, null, null);
        var saved = (await Saved(db, id, marketId).Select(r => r.MarketListing).ToListAsync(stop)).ToHashSet();
        var shop = await db.Shops.OrderBy(s => s.Id).Select(s => s.Name).FirstAsync(stop);
        return new FoundRivals(
            searched,
            page.Found,
            [.. page.Ranked().Take(Offered).Select(r => View(r, open, r.Id is not null && saved.Contains(r.Id), r.Shop == shop, stop))],
            page.Seen
        );
    }

    private static FoundRival View(Result result, OpenDraft open, bool isSaved, bool isMine, CancellationToken stop)
    {
        var weighed = Weigher.Weigh(open.Picks.Terms, ResultCopy.Of(result, open.Platform), open.Picks.Wanted, stop);
        return new(
            result.Id,
            result.Shop,
            result.Title,
            result.Price,
            result.Rating,
            result.Ratings,
            result.Sales,
            result.Occupancy,
            weighed.Grip,
            weighed.Reach,
            isSaved,
            isMine
        );
    }

    private static async Task<Changed> AddRivals(
        int id,
        RivalsRequest request,
        TinContext db,
        IMarket market,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var platform = listing.Platform.Profile;
        var there = await Saved(db, id, request.MarketId).Select(r => r.MarketListing).ToListAsync(stop);
        var ids = request.Ids.Distinct().Except(there.OfType<string>()).ToList();
        var found = await market.Listings(request.MarketId, ids, stop);
        if (ids.Where((_, i) => found[i] is null).FirstOrDefault() is { } unknown)
            throw new InvalidInputException([new("ids", $"The market has no listing “{unknown}” any more. Search again.")]);
        var now = db.Now;
        var rows = found.Select(
            (r, i) => SavedRivals.Row(id, request.MarketId, ids[i], market.Name, RivalStates.Of(r!, platform), now, now)
        );
        return await Add(db, changes, listing, [.. rows], stop);
    }

    private static async Task<Changed> PasteRival(int id, PastedRival request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var state = StateOf(request, listing.Platform.Profile);
        if (request.RivalId is not { } rivalId)
            return await Add(db, changes, listing, [SavedRivals.Row(id, request.MarketId, null, Pasted, state, db.Now, db.Now)], stop);
        var rival = await Saved(db, id, request.MarketId).FirstOrDefaultAsync(r => r.Id == rivalId, stop).OrNotThere();
        (rival.Latest, rival.SeenAt) = (state, db.Now);
        await db.SaveChangesAsync(stop);
        return new(null);
    }

    private static RivalState StateOf(PastedRival pasted, Platform platform)
    {
        var copy = CopyJson.Read(pasted.Fields, platform);
        if (copy.All(c => c.Value.IsEmpty(platform.Find(c.Key)!.Shape)))
            throw new InvalidInputException([new("fields", "Paste at least the title of the rival’s listing.")]);
        if (pasted is { Rating: not (null or (>= 1 and <= 5)) })
            throw new InvalidInputException([new("rating", "Stars go from 1 to 5.")]);
        if (pasted is { Price: < 0 } or { Ratings: < 0 } or { Sales: < 0 })
            throw new InvalidInputException([new("price", "Price, ratings and sales are 0 or more.")]);
        return new(pasted.Shop.Trim(), ListingText.Of(copy), pasted.Price, pasted.Rating, pasted.Ratings, Sales: pasted.Sales);
    }

    private static async Task<Refreshed> RefreshRivals(
        int id,
        RefreshRequest request,
        TinContext db,
        IMarket market,
        CancellationToken stop
    )
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var platform = listing.Platform.Profile;
        var rivals = await Saved(db, id, request.MarketId).ToListAsync(stop);
        var fromMarket = rivals.Where(r => r.MarketListing is not null).ToList();
        var found = await market.Listings(request.MarketId, [.. fromMarket.Select(r => r.MarketListing!)], stop);
        foreach (var (rival, result) in fromMarket.Zip(found))
            if (result is not null)
                (rival.Latest, rival.SeenAt) = (RivalStates.Of(result, platform), db.Now);
        await db.SaveChangesAsync(stop);
        var changed = fromMarket.Where((r, i) => found[i] is not null && r.Latest != r.First).Count();
        var gone = found.Count(r => r is null);
        return new(found.Count - gone, changed, gone, rivals.Count - fromMarket.Count);
    }

    private static async Task<Changed> RemoveRival(int id, int rivalId, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var rival = await db.Rivals.FirstOrDefaultAsync(r => r.Id == rivalId && r.ListingId == id, stop).OrNotThere();
        return await changes.Delete(
            WeighMessages.RemovedRival(NameOf(rival)),
            new(Screen.Weigh, listing.ProductId, id),
            [rival, .. await db.Reviews.Where(r => r.RivalId == rivalId).ToListAsync(stop)],
            stop
        );
    }

    private static async Task<FileContentHttpResult> ExportRivals(int id, string marketId, TinContext db, CancellationToken stop)
    {
        var listing = await db.FindListing(id, stop).OrNotThere();
        var rivals = await Saved(db, id, marketId).AsNoTracking().OrderBy(r => r.Id).ToListAsync(stop);
        return CsvFile.Of(RivalTables.Csv(rivals, listing.Platform.Profile), "rivals.csv");
    }

    /// <summary>The rivals of a listing in one market.</summary>
    internal static IQueryable<RivalRow> Saved(TinContext db, int listingId, string marketId) =>
        db.Rivals.Where(r => r.ListingId == listingId && r.MarketId == marketId);

    private static async Task<Changed> Add(
        TinContext db,
        ChangeLog changes,
        ListingRow listing,
        IReadOnlyList<RivalRow> rivals,
        CancellationToken stop
    )
    {
        if (rivals.Count == 0)
            return new(null);
        await SavedRivals.Add(db, listing.Id, rivals, stop);
        return await changes.Save(
            WeighMessages.AddedRivals([.. rivals.Select(NameOf)]),
            new(Screen.Weigh, listing.ProductId, listing.Id),
            [RemoveRows.Of<RivalRow>(rivals.Select(r => r.Id))],
            stop
        );
    }

    private static string NameOf(RivalRow rival) => rival.Latest.Shop.Length > 0 ? rival.Latest.Shop : rival.Source;
}
