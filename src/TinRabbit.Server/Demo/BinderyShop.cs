using TinRabbit.Server.Drops;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Demo;

/// <summary>
/// Fills the second demo: a made-up bookbinder's shop on a marketplace without a connection. Everything of its market comes from the files in
/// docs/samples/bindery, through the same door by which a seller brings in their own.
/// </summary>
internal sealed class BinderyShop(TinContext db, DataFolder data, IMarket market, DropDesk desk)
{
    /// <summary>What it is called where the program is started.</summary>
    public const string Name = "bindery";

    private const string Platform = "weir-street";
    private const string Market = "weir-street-gb";

    private static readonly DateOnly August = new(2026, 8, 20);
    private static readonly DateOnly October = new(2026, 10, 5);
    private static readonly DateOnly Rewritten = new(2026, 10, 20);
    private static readonly DateOnly Read = new(2026, 11, 28);

    private static string Samples => Path.Combine(AppContext.BaseDirectory, "samples", "bindery");

    /// <summary>Fills an empty shop.</summary>
    /// <param name="knowPlaces">Tells the market the countries and platforms of the shop.</param>
    /// <param name="stop">Stops it.</param>
    public async Task Fill(Func<Task> knowPlaces, CancellationToken stop)
    {
        var shop = await db.Shops.OrderBy(s => s.Id).FirstAsync(stop);
        (shop.Name, shop.Countries, shop.Currency, shop.Language) = ("Foxglove Bindery", ["gb"], "GBP", "en");
        db.Platforms.Add(
            new()
            {
                Id = Platform,
                Profile = PlatformJson.Read(await File.ReadAllTextAsync(Path.Combine(Samples, "platform.json"), stop)),
                Like = "hedgerow-fair",
            }
        );
        await db.SaveChangesAsync(stop);
        await knowPlaces();
        await Bring(August, null, stop, "listings in August.csv");
        await Bring(October, null, stop, "results/notebook cover in October.html", "results/leather notebook cover in October.html");
        await Bring(Rewritten, null, stop, "listings.csv");
        var cover = await db
            .Listings.Include(l => l.Product)
            .FirstAsync(l => l.PlatformId == Platform && l.Details != null && l.Product.Name.Contains("notebook"), stop);
        await AddPicks(cover, stop);
        string[] pages =
        [
            "notebook cover.html",
            "a5 notebook cover.html",
            "refillable notebook cover.html",
            "leather notebook cover.html",
            "notebook cover with pen loop.html",
            "leather journal cover.html",
            "wedding guest book.html",
        ];
        await Bring(Read, null, stop, [.. pages.Select(p => $"results/{p}")]);
        await Bring(
            Read,
            null,
            stop,
            "suggestions/notebook cover.txt",
            "suggestions/leather journal.txt",
            "suggestions/guest book.txt",
            "terms.csv",
            "reviews.csv",
            "statistics.csv"
        );
        await Bring(Read, cover.Id, stop, "listings/rival 1.html", "listings/rival 2.html", "listings/rival 3.html");
    }

    private async Task Bring(DateOnly day, int? listing, CancellationToken stop, params string[] files)
    {
        var ids = new List<string>();
        foreach (var file in files)
        {
            var (id, path) = ImportFiles.Add(data, db.Now);
            File.Copy(Path.Combine(Samples, file), path);
            await File.WriteAllTextAsync(path + ".name", file, stop);
            ids.Add(id);
        }

        var seen = day <= market.LastDay ? day : market.Today;
        await desk.Add(new(ids, Market, null, [.. ids.Select(i => new DropChoice(i, Day: seen))], listing), stop);
        db.ChangeTracker.Clear();
    }

    // What the seller knows of the product, and has picked.
    private async Task AddPicks(ListingRow listing, CancellationToken stop)
    {
        (string Text, Fit Fit, Home Home)[] picks =
        [
            ("leather notebook cover", Fit.Core, Home.Title),
            ("notebook cover", Fit.Core, Home.Anywhere),
            ("a5 notebook cover", Fit.Core, Home.Anywhere),
            ("refillable notebook cover", Fit.Core, Home.Anywhere),
            ("notebook cover with pen loop", Fit.Good, Home.Tags),
            ("leather journal cover", Fit.Good, Home.Tags),
            ("gift for writers", Fit.Good, Home.Anywhere),
            ("personalised notebook cover", Fit.Stretch, Home.Later),
        ];
        listing.Product.Facts = new()
        {
            What = "notebook cover",
            Materials = ["leather"],
            Colours = ["brown"],
            Sizes = ["A5"],
            Audiences = ["writers"],
            Properties = ["refillable", "handmade"],
        };
        db.Picks.AddRange(
            picks.Select(
                (p, i) =>
                    new PickRow
                    {
                        ProductId = listing.ProductId,
                        Text = p.Text,
                        Key = Tokens.Key(p.Text),
                        Fit = p.Fit,
                        FitByHand = true,
                        Home = p.Home,
                        Source = "notebook cover",
                        Order = i + 1,
                    }
            )
        );
        ListingEditor.SetLead(listing, Tokens.Key(picks[0].Text));
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
    }
}
