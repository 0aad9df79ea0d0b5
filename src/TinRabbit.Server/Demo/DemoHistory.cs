using TinRabbit.Market.StandIn;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Demo;

/// <summary>The last 120 days of the demo: a change that helped, one that did nothing, one that hurt, one that cannot be judged yet, and listings that nobody touched.</summary>
internal static class DemoHistory
{
    /// <summary>Days of figures and daily checks.</summary>
    public const int Days = 120;

    // Long enough before for sales and ranks to have settled.
    private const int FirstSent = 260;
    private const int MostTerms = 24;
    private static readonly TimeOnly Checked = new(6, 0);
    private static readonly TimeOnly Sent = new(9, 0);

    /// <summary>Adds it to a new demo shop. A source of real numbers has no such past.</summary>
    public static async Task Add(TinContext db, IMarket market)
    {
        if (market is not StandInMarket standIn)
            return;
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync();
        var today = DateOnly.FromDateTime(standIn.Now);
        var listings = new List<(DemoShop.Change Past, ListingRow Listing, string MarketId)>();
        foreach (var past in DemoShop.Shipped.Past)
        {
            var listing = await db
                .Listings.Include(l => l.Platform)
                .Include(l => l.Product)
                .FirstAsync(l => l.Product.Name == past.Product && l.PlatformId == past.Platform);
            listings.Add((past, listing, past.MarketId));
            await Send(db, standIn, shop.Name, listing, past, today);
        }

        var days = Enumerable.Range(0, Days + 1).Select(d => today.AddDays(d - Days)).ToArray();
        var terms = new List<string[]>();
        foreach (var (past, listing, marketId) in listings)
            terms.Add(await TermsOf(db, standIn, listing, marketId, past));
        db.ChangeTracker.Clear();
        // Once all are sent, since each is among the others' rivals.
        var observed = new (IReadOnlyList<DayFigures> Figures, IReadOnlyList<FoundAt>[] Found)[listings.Count];
        await Parallel.ForAsync(
            0,
            listings.Count,
            (i, _) =>
            {
                var (marketId, id) = (listings[i].MarketId, Sending.IdAtMarket($"{listings[i].Listing.Id}"));
                observed[i] = (
                    standIn.Figures(marketId, id, days[0], today.AddDays(-1)),
                    [.. days.Select(day => standIn.FindAt(marketId, id, terms[i], TimeOf(day, standIn)))]
                );
                return ValueTask.CompletedTask;
            }
        );
        for (var i = 0; i < listings.Count; i++)
        {
            await AddDays(
                db,
                standIn,
                listings[i].Listing.Id,
                listings[i].MarketId,
                terms[i],
                days,
                observed[i].Figures,
                observed[i].Found
            );
            db.ChangeTracker.Clear();
        }
    }

    private static DateTime TimeOf(DateOnly day, StandInMarket market) =>
        day == DateOnly.FromDateTime(market.Now) ? market.Now : day.ToDateTime(Checked, DateTimeKind.Utc);

    private static async Task<string[]> TermsOf(
        TinContext db,
        StandInMarket market,
        ListingRow listing,
        string marketId,
        DemoShop.Change past
    ) =>
        [
            .. (await db.PicksInUse(listing.ProductId).Select(p => p.Text).ToListAsync())
                .Concat(market.Suggest(marketId, past.Head, MostTerms))
                .DistinctBy(Tokens.Key)
                .Take(MostTerms),
        ];

    private static async Task Send(
        TinContext db,
        StandInMarket market,
        string shop,
        ListingRow listing,
        DemoShop.Change past,
        DateOnly today
    )
    {
        var platform = listing.Platform.Profile;
        SentRow? before = null;
        var first = past.Before is { } fields ? ListingText.Of(fields) : listing.Copy;
        foreach (
            var (daysAgo, copy) in past.Before is null
                ? [(FirstSent, first)]
                : ((int, ListingText)[])[(FirstSent, first), (past.TextDaysAgo ?? past.DaysAgo, listing.Copy)]
        )
        {
            var at = today.AddDays(-daysAgo).ToDateTime(Sent, DateTimeKind.Utc);
            var sent = new SentRow
            {
                ListingId = listing.Id,
                MarketId = past.MarketId,
                At = at,
                NoticedAt = market.Send(past.MarketId, new(listing.Id.ToString(CultureInfo.InvariantCulture), shop, copy.On(platform)), at),
                Copy = copy,
            };
            db.Sent.Add(sent);
            await db.SaveChangesAsync();
            await db.NoteSent(listing, sent, before, default);
            before = sent;
            await db.SaveChangesAsync();
        }

        if (past.Note is not { } kind)
            return;
        var noted = today.AddDays(-past.DaysAgo).ToDateTime(Sent, DateTimeKind.Utc);
        db.Notes.Add(
            new()
            {
                ProductId = listing.ProductId,
                ListingId = listing.Id,
                MarketId = past.MarketId,
                At = noted,
                CountsFrom = noted,
                Kinds = [kind],
                Text = past.NoteText ?? "",
            }
        );
        await db.SaveChangesAsync();
    }

    private static async Task AddDays(
        TinContext db,
        StandInMarket market,
        int listingId,
        string marketId,
        string[] texts,
        DateOnly[] days,
        IReadOnlyList<DayFigures> figures,
        IReadOnlyList<FoundAt>[] found
    )
    {
        db.Figures.AddRange(figures.Select(d => FigureRow.Of(listingId, marketId, d, market.Name)));
        FollowedTermRow[] terms =
        [
            .. texts.Select(t => new FollowedTermRow
            {
                ListingId = listingId,
                MarketId = marketId,
                Key = Tokens.Key(t),
                Text = t,
            }),
        ];
        db.FollowedTerms.AddRange(terms);
        CheckRow[] checks =
        [
            .. days.Select(day => new CheckRow
            {
                ListingId = listingId,
                MarketId = marketId,
                At = TimeOf(day, market),
                Day = day,
                Source = market.Name,
                IsDaily = true,
                State = CheckState.Finished,
            }),
        ];
        db.Checks.AddRange(checks);
        var watch = await db.Watches.FirstAsync(w => w.ListingId == listingId && w.MarketId == marketId);
        (watch.CheckedOn, watch.FiguresUntil) = (days[^1], days[^2]);
        await db.SaveChangesAsync();
        db.Finds.AddRange(checks.Zip(found).SelectMany(c => c.Second.Zip(terms).Select(f => Find(c.First.Id, f.Second.Id, f.First))));
        await db.SaveChangesAsync();
    }

    private static FindRow Find(int checkId, int termId, FoundAt found) =>
        new()
        {
            CheckId = checkId,
            TermId = termId,
            IsDone = true,
            Found = found.Found,
            Rank = found.Rank,
            Results = found.Results,
        };
}
