using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Picks;

/// <summary>The terms of a market and their readings.</summary>
internal static class PickQueries
{
    /// <summary>The picks of a product that are worked on: neither saved for later nor to be avoided.</summary>
    public static IQueryable<PickRow> PicksInUse(this TinContext db, int productId) =>
        db.Picks.Where(p => p.ProductId == productId && p.Home != Home.Avoid && p.Home != Home.Later).OrderBy(p => p.Order);

    /// <summary>A product's picks in their order, with all that is known of them in one market; those of all products where the product is null.</summary>
    public static async Task<List<MeasuredPick>> PicksOf(
        this Shelves shelves,
        TinContext db,
        int? productId,
        string marketId,
        CancellationToken stop
    )
    {
        var rows = await Joined(db, productId, marketId)
            .Select(p => new
            {
                p.Pick,
                p.Term,
                p.Term!.Reading,
            })
            .ToListAsync(stop);
        var web = await shelves.WebVolumesOf(db, marketId, [.. rows.Select(r => r.Pick.Key).Distinct()], stop);
        return await shelves.Query(
            db,
            marketId,
            shelf => rows.Select(r => new MeasuredPick(r.Pick, Measured.Of(With(r.Term, r.Reading), shelf).With(web, r.Pick.Key))).ToList(),
            stop
        );
    }

    private static TermRow? With(TermRow? term, ReadingRow? reading)
    {
        if (term is not null)
            term.Reading = reading;
        return term;
    }

    /// <summary>The picks that are worked on, neither parked nor avoided, as the engine takes them, each with its key. Asked at every key: it reads no more than that.</summary>
    public static async Task<List<(string Key, Home Home, WantedTerm Term)>> WantedOf(
        this TinContext db,
        int productId,
        string marketId,
        CancellationToken stop
    ) => [.. (await Wanted(db, productId, marketId, stop)).Select(w => (w.Key, w.Home, w.Term))];

    /// <summary>The same for every product, in one query; none without a market.</summary>
    public static async Task<ILookup<int, (string Key, Home Home, WantedTerm Term)>> WantedByProduct(
        this TinContext db,
        string? marketId,
        CancellationToken stop
    ) => (marketId is null ? [] : await Wanted(db, null, marketId, stop)).ToLookup(w => w.ProductId, w => (w.Key, w.Home, w.Term));

    private static async Task<IEnumerable<(int ProductId, string Key, Home Home, WantedTerm Term)>> Wanted(
        TinContext db,
        int? productId,
        string marketId,
        CancellationToken stop
    )
    {
        var norm = await db.StatisticsOf(marketId, stop);
        var rows = await Joined(db, productId, marketId)
            .Where(p => p.Pick.Home != Home.Later && p.Pick.Home != Home.Avoid)
            .Select(p => new
            {
                p.Pick.ProductId,
                p.Pick.Key,
                p.Pick.Text,
                p.Pick.Home,
                p.Pick.Fit,
                p.Term!.Reading!.Volume,
                p.Term.Reading.VolumeBelow,
                p.Term.Reading.Competition,
                p.Term.Reading.TitlesHolding,
            })
            .ToListAsync(stop);
        // What a pick without numbers counts for depends on the other picks of its product.
        return rows.GroupBy(r => r.ProductId)
            .SelectMany(g =>
                g.Zip(
                    PickDemand.Assume([
                        .. g.Select(r => new WantedTerm(
                            r.Text,
                            r.Volume,
                            norm.SupplyOf(r.Competition, r.TitlesHolding),
                            norm.HeadroomOf(r.Volume, r.Competition, r.TitlesHolding),
                            r.Fit
                        )
                        {
                            Home = r.Home,
                            VolumeBelow = r.VolumeBelow,
                        }),
                    ]),
                    (r, term) => (r.ProductId, r.Key, r.Home, term)
                )
            );
    }

    /// <summary>What is true of a product, with the seller's own words; nothing where there is no such product.</summary>
    public static async Task<FactWords> FactsOf(this TinContext db, int productId, CancellationToken stop)
    {
        var product = await db.Products.AsNoTracking().FirstOrDefaultAsync(p => p.Id == productId, stop);
        return await db.FactsOf(product?.Facts ?? new Facts(), stop);
    }

    /// <summary>The same of facts that were read already.</summary>
    public static async Task<FactWords> FactsOf(this TinContext db, Facts facts, CancellationToken stop) =>
        facts.Words with
        {
            Own = OwnWord.ByKey(await db.OwnWords(stop)),
        };

    /// <summary>The words whose claims the seller has corrected or added.</summary>
    public static async Task<IReadOnlyList<OwnWord>> OwnWords(this TinContext db, CancellationToken stop) =>
        await db.Shops.OrderBy(s => s.Id).Select(s => s.OwnWords).FirstOrDefaultAsync(stop) ?? [];

    /// <summary>Every term that the shop avoids, with the first reason given.</summary>
    public static async Task<List<Avoided>> AvoidedInShop(this TinContext db, CancellationToken stop)
    {
        var rows = await db
            .Picks.AsNoTracking()
            .Where(p => p.Home == Home.Avoid)
            .Join(
                db.Products,
                p => p.ProductId,
                p => p.Id,
                (pick, product) =>
                    new
                    {
                        pick.Text,
                        pick.Key,
                        pick.Note,
                        product.Name,
                    }
            )
            .ToListAsync(stop);
        return [.. rows.OrderByDescending(r => r.Note.Length > 0).DistinctBy(r => r.Key).Select(r => new Avoided(r.Text, r.Note, r.Name))];
    }

    private sealed class PickAndTerm
    {
        public required PickRow Pick { get; init; }
        public required TermRow? Term { get; init; }
    }

    private static IQueryable<PickAndTerm> Joined(TinContext db, int? productId, string marketId) =>
        from pick in db.Picks.AsNoTracking()
        where productId == null || pick.ProductId == productId
        join term in db.Terms.AsNoTracking().Where(t => t.MarketId == marketId) on pick.Key equals term.Key into terms
        from term in terms.DefaultIfEmpty()
        orderby pick.ProductId, pick.Order, pick.Id
        select new PickAndTerm { Pick = pick, Term = term };
}
