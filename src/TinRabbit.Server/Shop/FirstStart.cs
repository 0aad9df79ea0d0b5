using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Market.StandIn;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Shop;

/// <summary>Makes the database, and what a first start puts into it.</summary>
internal static class FirstStart
{
    private const int MadeReady = 4;

    // The seller's own shop is read by a web search engine.
    private const string WebShop = "web-shop";

    /// <summary>The profiles that ship with the program.</summary>
    public static IReadOnlyList<Platform> Shipped { get; } = [.. ReadShipped()];

    /// <summary>Brings the database up to date; fills an empty one with the shipped platforms and, when asked, the demo's shop.</summary>
    public static async Task Prepare(TinContext db, IMarket market, Shelves shelves, bool demo)
    {
        await db.Database.MigrateAsync();
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL");
        var known = await db.Platforms.Select(p => p.Id).ToListAsync();
        db.Platforms.AddRange(Shipped.Where(p => !known.Contains(p.Id)).Select(p => new PlatformRow { Id = p.Id, Profile = PlatformJson.Write(p).ToJsonString() }));
        await db.SaveChangesAsync();
        market.Open(Shipped.First(p => p.Id == WebShop), MarketPlace.Web);
        foreach (var own in await db.Platforms.AsNoTracking().Where(p => p.Like != null).ToListAsync())
            market.Open(PlatformJson.Read(own.Profile), own.Like!);
        if (await db.Shops.AnyAsync())
        {
            await SendAgain(db, market);
            return;
        }

        db.Shops.Add(demo ? Demo.Shop() : new() { Name = "My shop" });
        await db.SaveChangesAsync();
        if (demo)
            await Fill(db, market, shelves);
    }

    /// <summary>Reads the shelves that were dug in last, and makes their markets, ahead of the first question.</summary>
    public static async Task MakeReady(TinContext db, IMarket market, Shelves shelves)
    {
        var dug = await db.Digs.GroupBy(d => d.MarketId).OrderByDescending(g => g.Max(d => d.At)).Select(g => g.Key).Take(MadeReady).ToListAsync();
        foreach (var marketId in dug)
            await shelves.Ask(db, marketId, s => s.Search(new(Take: 0)), default);
        (market as StandInMarket)?.Make(dug.Count > 0 ? dug : [market.Places[0].Id]);
        // The first fill and the first check should not wait for their code to be made ready either.
        var nothing = new Dictionary<string, FieldValue>();
        WantedTerm[] some = [.. Demo.NestBoxPicks.Select((p, i) => new WantedTerm(p.Text, 100 + i))];
        foreach (var platform in Shipped)
            foreach (var field in platform.Fields.Where(f => f.Indexed))
                if (field.Shape == FieldShape.Phrases)
                    PhrasesFill.Of(platform, nothing, field.Key, some, ["bluebird house"]);
                else if (field is { Role: "title", Shape: FieldShape.Line })
                    TitleFill.Of(platform, nothing, field.Key, some, ["bluebird house"]);
                else if (field.Shape is FieldShape.Words or FieldShape.Lines)
                    WordsFill.Of(platform, nothing, field.Key, some, ["bluebird house"]);
    }

    // The stand-in remembers nothing of what was sent to it before.
    private static async Task SendAgain(TinContext db, IMarket market)
    {
        var shop = await db.Shops.OrderBy(s => s.Id).Select(s => s.Name).FirstAsync();
        var listings = await db.Listings.AsNoTracking().Include(l => l.Platform).ToDictionaryAsync(l => l.Id);
        foreach (var sent in await db.Sent.AsNoTracking().OrderBy(s => s.Id).ToListAsync())
            if (market.Places.Any(p => p.Id == sent.MarketId))
                market.Send(sent.MarketId, new(sent.ListingId.ToString(System.Globalization.CultureInfo.InvariantCulture), shop, Listings.CopyOf(sent.Copy, PlatformJson.Read(listings[sent.ListingId].Platform.Profile))), sent.At);
    }

    private static async Task Fill(TinContext db, IMarket market, Shelves shelves)
    {
        // The larger marketplaces in all their countries, the others where most is sold.
        var places = market.Places.Where(p => Demo.Heads.ContainsKey(p.PlatformId) && (p.Country == "us" || p.PlatformId is "hedgerow-fair" or "longbarrow" or MarketPlace.Web)).ToList();
        (market as StandInMarket)?.Make(places.Select(p => p.Id));
        foreach (var place in places)
        {
            var texts = Demo.Heads[place.PlatformId].SelectMany(h => market.Suggestions(place.Id, h).Prepend(h)).Concat(Demo.NestBoxPicks.Concat(Demo.FeederPicks).Concat(Demo.HeronPicks).Select(p => p.Text)).Distinct();
            await shelves.Measure(db, place.Id, [.. texts], default);
            db.ChangeTracker.Clear();
        }

        await Picks(db, "Wren nest box, cedar", Demo.NestBoxPicks);
        await Picks(db, "Window feeder", Demo.FeederPicks);
        await Picks(db, "Heron T-shirt", Demo.HeronPicks);
    }

    private static async Task Picks(TinContext db, string name, (string Text, Core.Measures.Fit Fit, Home Home, string Source)[] picks)
    {
        var product = await db.Products.Include(p => p.Listings).FirstAsync(p => p.Name == name);
        product.Picks.AddRange(picks.Select((p, i) => new PickRow
        {
            Text = p.Text,
            Key = Tokens.Key(p.Text),
            Fit = p.Fit,
            Home = p.Home,
            Source = p.Source,
            SaidBy = "shoppers type it",
            Language = p.Text.StartsWith("casa", StringComparison.Ordinal) ? "es" : "",
            Order = i + 1,
            Note = p.Home == Home.Avoid ? "The 28 mm hole is too small for them" : "",
        }));
        foreach (var listing in product.Listings)
            listing.LeadKey = Tokens.Key(picks[0].Text);
        await db.SaveChangesAsync();
    }

    private static IEnumerable<Platform> ReadShipped()
    {
        var assembly = typeof(FirstStart).Assembly;
        foreach (var name in assembly.GetManifestResourceNames().Where(n => n.Contains(".Platforms.Shipped.")).Order())
        {
            using var reader = new StreamReader(assembly.GetManifestResourceStream(name)!);
            yield return PlatformJson.Read(reader.ReadToEnd());
        }
    }
}
