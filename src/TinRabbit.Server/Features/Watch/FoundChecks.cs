using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Found checks as they are stored.</summary>
internal static class FoundChecks
{
    /// <summary>Adds a check of a listing that was sent to a market, and watches it there.</summary>
    /// <param name="db">The database.</param>
    /// <param name="market">The market.</param>
    /// <param name="listingId">The listing.</param>
    /// <param name="marketId">Where it is checked.</param>
    /// <param name="terms">Its terms; null for those of the watch.</param>
    /// <param name="stop">Stops waiting; nothing is added then.</param>
    /// <exception cref="InvalidInputException">The listing was not sent there, there is no term, or there would be too many.</exception>
    public static async Task<CheckRow> Begin(
        TinContext db,
        IMarket market,
        int listingId,
        string marketId,
        IReadOnlyList<string>? terms,
        CancellationToken stop
    )
    {
        if (!await db.Sent.AnyAsync(s => s.ListingId == listingId && s.MarketId == marketId && !s.ByHand, stop))
            throw new InvalidInputException([new("marketId", WatchMessages.NotKnownThere)]);
        await db.WatchOf(listingId, marketId, stop);
        var check = new CheckRow
        {
            ListingId = listingId,
            MarketId = marketId,
            At = market.Now,
            Day = market.Today,
            Source = market.Name,
        };
        await Begin(db, check, terms ?? await TermsOf(db, listingId, marketId, stop), stop);
        return check;
    }

    /// <summary>Adds a check whose terms are not asked for yet.</summary>
    /// <param name="db">The database.</param>
    /// <param name="check">The check.</param>
    /// <param name="terms">Its terms, as shoppers type them.</param>
    /// <param name="stop">Stops waiting; nothing is added then.</param>
    /// <exception cref="InvalidInputException">There is no term, or the listing would have too many.</exception>
    public static async Task Begin(TinContext db, CheckRow check, IEnumerable<string> terms, CancellationToken stop) =>
        await db.InOneWrite(
            async () =>
            {
                var ids = await ObservedChecks.Follow(db, check.ListingId, check.MarketId, terms, stop);
                if (ids.Count == 0)
                    throw new InvalidInputException([new("terms", "There is no term to check. Pick terms, or paste some.")]);
                db.Checks.Add(check);
                await db.SaveChangesAsync(stop);
                db.Finds.AddRange(ids.Values.Select(id => new FindRow { CheckId = check.Id, TermId = id }));
                await db.SaveChangesAsync(stop);
            },
            stop
        );

    /// <summary>The terms of a watch: those followed, and the picks that are worked on.</summary>
    public static async Task<List<string>> TermsOf(TinContext db, int listingId, string marketId, CancellationToken stop)
    {
        var followed = await db
            .FollowedTerms.Where(t => t.ListingId == listingId && t.MarketId == marketId)
            .OrderBy(t => t.Id)
            .Select(t => t.Text)
            .ToListAsync(stop);
        return await db.ProductOf(listingId, stop) is { } product
            ? [.. followed, .. await db.PicksInUse(product).Select(p => p.Text).ToListAsync(stop)]
            : followed;
    }

    /// <summary>Results of one page of a market, as the seller counted them for a listing.</summary>
    public static async Task<int> PageSizeOf(TinContext db, int listingId, string marketId, CancellationToken stop) =>
        await db
            .Watches.Where(w => w.ListingId == listingId && w.MarketId == marketId)
            .Select(w => (int?)w.PageSize)
            .FirstOrDefaultAsync(stop)
        ?? WatchRow.UsualPageSize;

    /// <summary>The checks of a listing, the last one first.</summary>
    public static IQueryable<CheckRow> Of(TinContext db, int listingId, string marketId) =>
        db.Checks.Where(c => c.ListingId == listingId && c.MarketId == marketId).OrderByDescending(c => c.Day).ThenByDescending(c => c.Id);
}
