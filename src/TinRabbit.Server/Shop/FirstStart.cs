using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Market.StandIn;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Shop;

/// <summary>Makes the database, and what a first start puts into it.</summary>
internal static class FirstStart
{
    /// <summary>The profiles that ship with the program.</summary>
    public static IReadOnlyList<Platform> Shipped { get; } = [.. ReadShipped()];

    /// <summary>Brings the database up to date; fills an empty one with the shipped platforms and, when asked, the demo's shop.</summary>
    public static async Task Prepare(TinContext db, IMarket market, bool demo)
    {
        await db.Database.MigrateAsync();
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL");
        var known = await db.Platforms.Select(p => p.Id).ToListAsync();
        db.Platforms.AddRange(Shipped.Where(p => !known.Contains(p.Id)).Select(p => new PlatformRow { Id = p.Id, Profile = PlatformJson.Write(p).ToJsonString() }));
        await db.SaveChangesAsync();
        if (await db.Shops.AnyAsync())
            return;
        db.Shops.Add(demo ? Demo.Shop() : new() { Name = "My shop" });
        await db.SaveChangesAsync();
        if (demo)
            await Fill(db, market);
    }

    private static async Task Fill(TinContext db, IMarket market)
    {
        (market as StandInMarket)?.MakeAll();
        foreach (var place in market.Places)
        {
            var texts = Demo.Heads.SelectMany(h => market.Suggestions(place.Id, h).Prepend(h)).Concat(Demo.NestBoxPicks.Select(p => p.Text)).Distinct();
            await db.Put(place.Id, [.. texts.Select(t => new Found(t, market.Read(place.Id, t)))], default);
            db.ChangeTracker.Clear();
        }

        var product = await db.Products.Include(p => p.Listings).OrderBy(p => p.Id).FirstAsync();
        product.Picks.AddRange(Demo.NestBoxPicks.Select((p, i) => new PickRow { Text = p.Text, Key = Tokens.Key(p.Text), Fit = p.Fit, Home = p.Home, Source = p.Source, Order = i + 1, Note = p.Home == Home.Avoid ? "The 28 mm hole is too small for them" : "" }));
        foreach (var listing in product.Listings)
            listing.LeadKey = Tokens.Key(Demo.NestBoxPicks[0].Text);
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
