using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Pictures;
using TinRabbit.Server.Recordings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Demo;

/// <summary>Puts into a new database what a first start shows: the shipped platforms, and an empty shop or the demo shop.</summary>
/// <param name="market">Measures the demo's terms.</param>
/// <param name="shelves">Saves them.</param>
/// <param name="files">Keeps the demo's pictures.</param>
/// <param name="writes">Keeps writes from each other.</param>
/// <param name="demo">Whether to make the demo shop.</param>
internal sealed class ShopSeeder(IMarket market, Shelves shelves, PictureFiles files, WriteGate writes, bool demo)
{
    /// <summary>Fills a new database.</summary>
    public async Task Fill(TinContext db)
    {
        await AddShippedPlatforms(db);
        db.Shops.Add(demo ? DemoShop.Shipped.ToRow(db.Now) : new() { Name = "My shop" });
        await db.SaveChangesAsync();
        if (!demo)
            return;
        await AddPictures(db);
        await AddTerms(db, market, shelves);
        await AddImport(db);
        await DemoReviews.Add(db);
        await DemoSite.Add(db, new(db));
        await DemoHistory.Add(db, RecordedMarket.SourceOf(market));
        await DemoRivals.Add(db, market);
    }

    /// <summary>Whether a database has no shop, or the demo shop without picks and untouched: programs before this one left such a database when their first start was interrupted.</summary>
    public async Task<bool> IsUnfinished(TinContext db) =>
        !await db.Shops.AnyAsync()
        || (
            demo
            && !await db.Picks.AnyAsync()
            && !await db.Changes.AnyAsync()
            && !await db.Digs.AnyAsync()
            && await db.Shops.AnyAsync(s => s.Name == DemoShop.Shipped.Name)
            && await db.Listings.AllAsync(l => l.Revision == 0)
            && await db.Products.CountAsync(p => !p.IsPage) == DemoShop.Shipped.Products.Count
        );

    /// <summary>Adds the shipped platforms that a database of an older program lacks.</summary>
    public static async Task AddShippedPlatforms(TinContext db)
    {
        var known = await db.Platforms.Select(p => p.Id).ToListAsync();
        db.Platforms.AddRange(
            ShippedPlatforms.All.Where(p => !known.Contains(p.Id)).Select(p => new PlatformRow { Id = p.Id, Profile = p })
        );
        await db.SaveChangesAsync();
    }

    private async Task AddImport(TinContext db)
    {
        var table = DemoShop.Shipped.Import;
        if (market.Places.All(p => p.Id != table.Market))
            return;
        using (var import = new TermImport(db.Database.GetConnectionString()!, writes))
        {
            foreach (var row in table.Rows)
                import.Add(
                    new()
                    {
                        Text = row.Text,
                        Key = Tokens.Key(row.Text),
                        Clicks = row.Clicks,
                        Orders = row.Orders,
                        Sales = row.Sales,
                    }
                );

            await import.Finish(table.Market, table.Source, null, db.Now, _ => { }, default);
        }

        shelves.Evict(table.Market);
    }

    private async Task AddPictures(TinContext db)
    {
        foreach (var made in DemoShop.Shipped.Products)
        {
            var product = await db.Products.Include(p => p.Pictures).FirstAsync(p => p.Name == made.Name);
            foreach (var (picture, drawing) in product.Pictures.OrderBy(p => p.Order).Zip(made.PictureFiles))
            {
                await using var body = DemoShop.Drawing(drawing);
                picture.File = await files.Add(body, default);
            }
        }

        await db.SaveChangesAsync();
    }

    private static async Task AddTerms(TinContext db, IMarket market, Shelves shelves)
    {
        // The larger marketplaces in all their countries, the others where most is sold.
        var places = market
            .Places.Where(p =>
                DemoShop.Shipped.Heads.ContainsKey(p.PlatformId)
                && (p.Country == "us" || p.PlatformId is "hedgerow-fair" or "longbarrow" or MarketPlace.Web)
            )
            .ToList();
        await market.Prepare([.. places.Select(p => p.Id)], default);
        foreach (var place in places)
        {
            var texts = DemoShop.Shipped.Products.SelectMany(p => p.Picks ?? []).Select(p => p.Text).ToList();
            if (place.PlatformId == MarketPlace.Web)
                texts.AddRange(DemoShop.Shipped.PageTerms);
            foreach (var head in DemoShop.Shipped.Heads[place.PlatformId])
                texts.AddRange([head, .. await market.Suggestions(place.Id, head, default)]);
            await shelves.Measure(db, place.Id, [.. texts.Distinct()], default);
            db.ChangeTracker.Clear();
        }

        foreach (var made in DemoShop.Shipped.Products)
            if (made.Picks is { } picks)
                await AddPicks(db, made.Name, picks);
    }

    private static async Task AddPicks(TinContext db, string name, IReadOnlyList<DemoShop.Pick> picks)
    {
        var product = await db.Products.Include(p => p.Listings).FirstAsync(p => p.Name == name);
        db.Picks.AddRange(
            picks.Select(
                (p, i) =>
                    new PickRow
                    {
                        Product = product,
                        Text = p.Text,
                        Key = Tokens.Key(p.Text),
                        Fit = p.Fit,
                        FitByHand = true,
                        Home = p.Home,
                        Source = p.Source,
                        SaidBy = "Search suggestion",
                        Language = p.Text.StartsWith("casa", StringComparison.Ordinal) ? "es" : "",
                        Order = i + 1,
                        Note = p.Home == Home.Avoid ? "The 28 mm hole is too small for them" : "",
                    }
            )
        );
        foreach (var listing in product.Listings)
            ListingEditor.SetLead(listing, Tokens.Key(picks[0].Text));
        await db.SaveChangesAsync();
    }
}
