using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Rivals;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Hosting;

/// <summary>Tells the market what it does not remember: the seller's own platforms, and what was sent.</summary>
internal sealed class MarketSetup(IMarket market, DataFolder folder, ILogger<MarketSetup> log)
{
    private TimeSpan _moved;
    private string? _placesMadeOf;

    /// <summary>Sets the simulated clock, opens markets for the seller's own platforms, and sends again what was sent before this start.</summary>
    public async Task Remind(TinContext db, CancellationToken stop)
    {
        await SetClock(db, stop);
        _placesMadeOf = null;
        await KnowPlaces(db, stop);
        foreach (var own in await db.Platforms.AsNoTracking().Where(p => p.Like != null).ToListAsync(stop))
            // Where one cannot be opened, the others would only make the start wait.
            if (!await Reopen(own.Profile, own.Like!, stop))
                break;
        if (market.Remembers)
            return;
        try
        {
            await SendAgain(db, stop);
        }
        catch (MarketException e)
        {
            log.LogWarning(e, "The market could not be told what was sent before this start.");
        }
    }

    /// <summary>Tells a market without a connection the countries of the shop: the seller's own, then those that it has data of.</summary>
    public async Task KnowPlaces(TinContext db, CancellationToken stop)
    {
        if (
            RecordedMarket.SourceOf(market) is not OfflineMarket offline
            || await db.Shops.OrderBy(s => s.Id).FirstOrDefaultAsync(stop) is not { } shop
        )
            return;
        // What the places are made of; counting the terms of a large shelf takes a while.
        var platforms = await db.Platforms.OrderBy(p => p.Id).Select(p => p.Id).ToListAsync(stop);
        var madeOf = string.Join(' ', [.. shop.Countries, shop.Currency, shop.Language, .. platforms]);
        if (madeOf == _placesMadeOf)
            return;
        var used = await db.Terms.GroupBy(t => t.MarketId).OrderByDescending(g => g.Count()).Select(g => g.Key).ToListAsync(stop);
        used.AddRange(await db.Watches.Select(w => w.MarketId).Distinct().ToListAsync(stop));
        used.AddRange(await db.Rivals.Select(r => r.MarketId).Distinct().ToListAsync(stop));
        var codes = shop
            .Countries.Concat(used.Where(m => m.Length > 2).Select(m => m[^2..]))
            .Distinct()
            .Where(Countries.All.ContainsKey)
            .ToList();
        var known = codes.Count > 0 ? codes : [Countries.Usual];
        var home = shop.Countries is [var first, ..] ? first : null;
        offline.Know(
            platforms,
            [.. known.Select(c => c == home ? Countries.All[c] with { Currency = shop.Currency } : Countries.All[c])],
            shop.Language.Length > 0 ? shop.Language : "en"
        );
        _placesMadeOf = madeOf;
    }

    /// <summary>Opens markets for a new or changed platform. Where the source cannot, the platform has no numbers, and everything else works.</summary>
    /// <returns>Whether they are open.</returns>
    public async Task<bool> TryOpen(Platform platform, string kind, CancellationToken stop)
    {
        try
        {
            await market.Open(platform, kind, stop);
            return true;
        }
        catch (MarketException e)
        {
            log.LogWarning(e, "The market source opened no markets for the platform {Platform}.", platform.Id);
            return false;
        }
    }

    // Opens what a source does not remember from the start before.
    private async Task<bool> Reopen(Platform platform, string kind, CancellationToken stop) =>
        (market.Remembers && market.Places.Any(p => p.PlatformId == platform.Id)) || await TryOpen(platform, kind, stop);

    /// <summary>Moves the simulated clock on, in the market and in what the shop remembers.</summary>
    public async Task MoveClock(TinContext db, TimeSpan by, CancellationToken stop)
    {
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        shop.ClockAhead += by;
        await db.SaveChangesAsync(stop);
        market.MoveClock(by);
        _moved += by;
    }

    // The clock never goes back: a backup of an earlier day is restored into the day that it is.
    private async Task SetClock(TinContext db, CancellationToken stop)
    {
        if (await db.Shops.OrderBy(s => s.Id).FirstOrDefaultAsync(stop) is not { } shop)
            return;
        if (!market.CanMoveClock)
            await SetRight(db, shop, stop);
        else if (shop.ClockAhead > _moved)
        {
            market.MoveClock(shop.ClockAhead - _moved);
            _moved = shop.ClockAhead;
        }
        else if (shop.ClockAhead < _moved)
        {
            shop.ClockAhead = _moved;
            await db.SaveChangesAsync(stop);
        }
    }

    // A clock that an older program has moved in a shop whose time is real.
    private async Task SetRight(TinContext db, ShopRow shop, CancellationToken stop)
    {
        if (shop.ClockAhead == TimeSpan.Zero)
            return;
        Backups.Write(folder, folder.Database, BackupKind.Update, db.Now);
        (shop.ClockWasAhead, shop.ClockAhead) = (shop.ClockAhead, TimeSpan.Zero);
        await db.SaveChangesAsync(stop);
        log.LogWarning("The clock was {Days:0} days ahead; it is set right, and a backup is made.", shop.ClockWasAhead.TotalDays);
    }

    private async Task SendAgain(TinContext db, CancellationToken stop)
    {
        if (await db.Shops.OrderBy(s => s.Id).Select(s => s.Name).FirstOrDefaultAsync(stop) is not { } shop)
            return;
        var listings = await db
            .Listings.AsNoTracking()
            .Include(l => l.Platform)
            .IgnoreQueryFilters()
            .Where(l => db.Set<SentRow>().Any(s => s.ListingId == l.Id))
            .ToDictionaryAsync(l => l.Id, stop);
        foreach (var sent in await db.Sent.AsNoTracking().Where(s => !s.ByHand).OrderBy(s => s.Id).ToListAsync(stop))
            if (market.Places.Any(p => p.Id == sent.MarketId))
                await market.Send(
                    sent.MarketId,
                    new(
                        sent.ListingId.ToString(CultureInfo.InvariantCulture),
                        shop,
                        sent.Copy.On(listings[sent.ListingId].Platform.Profile)
                    ),
                    sent.At,
                    stop
                );
    }
}
