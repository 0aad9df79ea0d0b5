using TinRabbit.Core.Findings;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Features.Write;

/// <summary>
/// Sends listings. A send is stored in the outbox first, then told to the market, then stored as sent: each happens once, whatever else is
/// saved meanwhile, and a send that a crash cut off is finished at the next start with the time that it had.
/// </summary>
internal sealed class ListingSender(TinContext db, ListingEditor editor, IMarket market, ChangeLog changes)
{
    /// <summary>Sends a listing as it is stored, or notes that the seller published it by hand where the shop has no connection.</summary>
    /// <param name="listing">The listing, with its product and platform.</param>
    /// <param name="marketId">The market; for a page of the seller's own site, any.</param>
    /// <param name="stop">Stops waiting, until the send is in the outbox.</param>
    /// <exception cref="InvalidInputException">The platform has no such market, or it refuses the texts.</exception>
    /// <exception cref="MarketException">The market could not be asked: nothing was sent.</exception>
    public async Task<SentRow> Send(ListingRow listing, string marketId, CancellationToken stop)
    {
        var page = await db.Pages.FirstOrDefaultAsync(p => p.ListingId == listing.Id, stop);
        CheckSend(listing, marketId, page?.Kind);
        // A platform of the seller's own has no connection, nor has a shop without a source: it is published there by hand.
        var byHand = !market.Can.HasFlag(MarketAbilities.Send) || listing.Platform.Like is not null || page is not null;
        var waiting = new OutboxRow
        {
            ListingId = listing.Id,
            MarketId = marketId,
            At = market.Now,
            Copy = listing.Copy,
        };
        if (page is not null)
            await db.Publish(page, stop);
        await editor.SaveVersion(listing, byHand ? VersionReason.Published : VersionReason.Sent, "", stop);
        if (byHand)
            return await Finish(listing, waiting, market.Now.AddHours(listing.Platform.Profile.Search.IndexDelayHours), byHand, stop);
        db.Outbox.Add(waiting);
        await db.SaveChangesAsync(stop);
        return await Deliver(listing, waiting);
    }

    /// <summary>
    /// Notes that the texts as they are stored are live already, as those of an imported listing: the next change is compared with them, and
    /// nothing is called a first publishing.
    /// </summary>
    /// <exception cref="InvalidInputException">The platform has no such market, or the day is to come, or before another send.</exception>
    public async Task<Changed> MarkLive(ListingRow listing, string marketId, DateOnly since, CancellationToken stop)
    {
        var isPage = await db.Pages.AnyAsync(p => p.ListingId == listing.Id, stop);
        if (!isPage && market.Places.FirstOrDefault(p => p.Id == marketId)?.PlatformId != listing.PlatformId)
            throw new InvalidInputException([new("marketId", WriteMessages.NoMarketToSendTo(listing.Platform.Profile.Name))]);
        if (since > market.LastDay)
            throw new InvalidInputException([new("since", "Enter today or a day before.")]);
        var at = market.TimeOf(since);
        if (await db.Sent.AnyAsync(s => s.ListingId == listing.Id && s.MarketId == marketId && s.At >= at, stop))
            throw new InvalidInputException([new("since", "This listing was published after that day. Enter a later one.")]);
        var sent = SentRow.Live(listing, marketId, at);
        db.Sent.Add(sent);
        var watch = await WatchBefore.Of(db, listing.Id, marketId, stop);
        await db.WatchOf(listing.Id, marketId, stop);
        await db.SaveChangesAsync(stop);
        return await changes.Save(
            WriteMessages.MarkedLive(listing.Product.Name, since),
            new(Screen.Write, listing.ProductId, listing.Id),
            [new RemoveLive(sent.Id), watch],
            stop
        );
    }

    /// <summary>Finishes the sends that a crash cut off. What is for a market that is not there, or does not answer, stays in the outbox.</summary>
    /// <exception cref="MarketException">The market does not answer.</exception>
    public async Task SendPending(CancellationToken stop)
    {
        if (!market.Can.HasFlag(MarketAbilities.Send))
            return;
        foreach (var waiting in await db.Outbox.OrderBy(o => o.Id).ToListAsync(stop))
        {
            if (market.Places.All(p => p.Id != waiting.MarketId))
                continue;
            var listing = await db
                .Listings.Include(l => l.Platform)
                .Include(l => l.Product)
                .IgnoreQueryFilters()
                .FirstAsync(l => l.Id == waiting.ListingId, stop);
            await Finish(listing, waiting, await Tell(listing, waiting), byHand: false, stop);
        }
    }

    private void CheckSend(ListingRow listing, string marketId, PageKind? kind)
    {
        var platform = listing.Platform.Profile;
        if (kind is null && market.Places.FirstOrDefault(p => p.Id == marketId)?.PlatformId != platform.Id)
            throw new InvalidInputException([new("marketId", WriteMessages.NoMarketToSendTo(platform.Name))]);
        if (ListingCheck.Refusals(platform, listing.Copy.On(platform), kind) is { Count: > 0 } refusals)
            throw new InvalidInputException([.. refusals.Select(f => new Problem(f.Field, f.Why))]);
    }

    // From here on nobody can stop it: whether a market that was asked has taken the listing is known by its answer only.
    private async Task<SentRow> Deliver(ListingRow listing, OutboxRow waiting)
    {
        DateTime noticed;
        try
        {
            noticed = await Tell(listing, waiting);
        }
        catch (MarketException)
        {
            // The seller is told that it failed, so it is not sent later by itself.
            db.Outbox.Remove(waiting);
            await db.SaveChangesAsync(CancellationToken.None);
            throw;
        }

        return await Finish(listing, waiting, noticed, byHand: false, CancellationToken.None);
    }

    private async Task<DateTime> Tell(ListingRow listing, OutboxRow waiting)
    {
        var shop = await db.Shops.OrderBy(s => s.Id).Select(s => s.Name).FirstAsync();
        return await market.Send(
            waiting.MarketId,
            new(listing.Id.ToString(CultureInfo.InvariantCulture), shop, waiting.Copy.On(listing.Platform.Profile)),
            waiting.At,
            CancellationToken.None
        );
    }

    private async Task<SentRow> Finish(ListingRow listing, OutboxRow waiting, DateTime noticed, bool byHand, CancellationToken stop)
    {
        var sent = new SentRow
        {
            ListingId = listing.Id,
            MarketId = waiting.MarketId,
            At = waiting.At,
            NoticedAt = noticed,
            ByHand = byHand,
            Copy = waiting.Copy,
        };
        await db.InOneWrite(
            async () =>
            {
                var before = await db
                    .Sent.Where(s => s.ListingId == listing.Id && s.MarketId == waiting.MarketId)
                    .OrderByDescending(s => s.Id)
                    .FirstOrDefaultAsync(stop);
                if (waiting.Id > 0)
                    db.Outbox.Remove(waiting);
                db.Sent.Add(sent);
                await db.SaveChangesAsync(stop);
                await db.NoteSent(listing, sent, before, stop);
                await db.SaveChangesAsync(stop);
            },
            stop
        );
        return sent;
    }
}
