using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using TinRabbit.Server.Features.Watch;
using TinRabbit.Server.Hosting;
using TinRabbit.Server.Journal;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

/// <summary>A seller's own shop has nothing simulated in it: its markets are places, its time is the time, and what it knows came from the seller.</summary>
public sealed class RealShopTests : IDisposable
{
    private const string Market = "hedgerow-fair-us";
    private readonly TestShop _shop = new(demo: false, isReal: true);

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task An_idea_has_nothing_to_look_up_before_a_term_is_picked_and_nothing_is_drawn_or_made_up()
    {
        var idea = await _shop.Post(
            "/api/products",
            new
            {
                name = "Idea 1",
                platforms = new[] { "hedgerow-fair" },
                isIdea = true,
            }
        );
        var id = idea["id"]!.GetValue<int>();
        async Task<IEnumerable<string>> LookUps() =>
            (await _shop.Get($"/api/products/{id}/lookups/{Market}"))["terms"]!.AsArray().Select(t => t!["text"]!.GetValue<string>());
        Assert.Empty(await LookUps());
        await _shop.Pick(id, ["bread knife"]);
        Assert.Equal(["bread knife"], await LookUps());

        Assert.Equal(System.Net.HttpStatusCode.NotFound, (await _shop.Client.GetAsync("/api/drawings?title=Bread+knife")).StatusCode);
        Assert.Empty((await _shop.Get($"/api/ideas/{Market}")).AsArray());
        // What is only an idea is no listing of the shop.
        var own = await _shop.Get($"/api/markets/{Market}/ownterms");
        Assert.Equal(0, own["listings"]!.GetValue<int>());
        await _shop.Post($"/api/products/{id}/become", new { name = "Bread knife" });
        var term = Assert.Single((await _shop.Get($"/api/markets/{Market}/ownterms"))["terms"]!.AsArray())!;
        Assert.Null(term["volume"]);
        Assert.Equal((1, 0, 0), (term["picked"]!.GetValue<int>(), term["held"]!.GetValue<int>(), term["checked"]!.GetValue<int>()));
    }

    [Fact]
    public async Task Its_markets_are_places_without_numbers_and_its_time_cannot_be_moved()
    {
        var shop = await _shop.Get("/api/shop");
        Assert.False(shop["isConnected"]!.GetValue<bool>());
        Assert.All(shop["markets"]!.AsArray(), m => Assert.False(m!["simulated"]!.GetValue<bool>()));
        Assert.All(shop["markets"]!.AsArray(), m => Assert.True(m!["own"]!.GetValue<bool>()));

        var product = await _shop.AddProduct("Leather notebook cover");
        var dug = await _shop.Dig(product, Market, "notebook cover");
        var row = Assert.Single(dug["rows"]!.AsArray())!;
        Assert.Equal("notebook cover", row["text"]!.GetValue<string>());
        Assert.Null(row["numbers"]!["volume"]);

        var listing = await _shop.ListingOf(product, "hedgerow-fair");
        var watch = await _shop.Get($"/api/listings/{listing}/watch?marketId={Market}");
        Assert.False(watch["canMoveClock"]!.GetValue<bool>());
        await _shop.Post("/api/clock", new { days = 1 }, 400);
        Assert.InRange(DateTime.UtcNow - watch["now"]!.GetValue<DateTime>().ToUniversalTime(), TimeSpan.Zero, TimeSpan.FromMinutes(1));
    }

    [Fact]
    public async Task What_is_published_is_noted_and_nothing_made_up_comes_of_it()
    {
        var product = await _shop.AddProduct("Leather notebook cover");
        var listing = await _shop.ListingOf(product, "hedgerow-fair");
        await _shop.Put(
            $"/api/listings/{listing}/copy",
            new
            {
                fields = new
                {
                    title = "Leather notebook cover",
                    description = "For A5 notebooks.",
                    category = new[] { "Home" },
                    tags = new[] { "notebook cover" },
                },
                revision = 0,
                keep = (string?)null,
            }
        );
        var sent = await _shop.Post($"/api/listings/{listing}/send", new { marketId = Market });
        Assert.True(sent["byHand"]!.GetValue<bool>());
        Assert.Empty(await _shop.Services.GetRequiredService<DailyWatch>().Run(default));
        await using var scope = _shop.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        Assert.Empty(await db.Checks.ToListAsync());
        Assert.Empty(await db.Figures.ToListAsync());
        Assert.Empty(await db.Readings.ToListAsync());
    }

    [Fact]
    public async Task Listings_that_are_live_already_are_imported_as_that_and_taken_back_with_the_import()
    {
        await _shop.Put("/api/shop", new { countries = new[] { "pt" }, language = "pt" });
        var table = "product,platform,title\nNotebook cover,hedgerow-fair,Leather notebook cover\nPen loop,hedgerow-fair,Pen loop\n";
        using var content = new ByteArrayContent(System.Text.Encoding.UTF8.GetBytes(table));
        using var upload = await _shop.Client.PostAsync("/api/shop/imports?name=t.csv", content);
        var import = JsonNode.Parse(await upload.Content.ReadAsStringAsync())!;
        var keys = import["items"]!.AsArray().Select(i => Text(i!, "key")).ToArray();
        await _shop.Post($"/api/shop/imports/{import["id"]}/run", new { keys, liveSince = "2999-01-01" }, 400);
        await _shop.Post($"/api/shop/imports/{import["id"]}/run", new { keys, liveSince = "2026-10-05" });
        var product = (await _shop.Get("/api/shop"))["products"]!.AsArray()[0]!["id"]!.GetValue<int>();
        var listing = await _shop.ListingOf(product, "hedgerow-fair");
        var sent = Assert.Single((await _shop.Get($"/api/listings/{listing}/sent")).AsArray())!;
        Assert.Equal(("2026-10-05", "hedgerow-fair-pt"), (Text(sent, "at")[..10], Text(sent, "marketId")));
        Assert.All((await _shop.Get("/api/listings"))["listings"]!.AsArray(), l => Assert.NotNull(l!["sentAt"]));
        // A first change is a change, compared with what was live.
        await _shop.Put(
            $"/api/listings/{listing}/copy",
            new
            {
                fields = new
                {
                    title = "Leather journal cover",
                    description = "For A5.",
                    category = new[] { "Home" },
                },
                revision = 1,
            }
        );
        await _shop.Post($"/api/listings/{listing}/send", new { marketId = "hedgerow-fair-pt" });
        var note = Assert.Single((await _shop.Get("/api/notes"))["notes"]!.AsArray())!;
        Assert.DoesNotContain("First published", Text(note, "text"), StringComparison.Ordinal);
        // Listings that are there keep what is newer, and get what is new to them; undo takes it back.
        using var again = new ByteArrayContent(
            System.Text.Encoding.UTF8.GetBytes(table.Replace("Pen loop\n", "Brass pen loop\n", StringComparison.Ordinal))
        );
        using var second = await _shop.Client.PostAsync("/api/shop/imports?name=t.csv", again);
        import = JsonNode.Parse(await second.Content.ReadAsStringAsync())!;
        keys = [.. import["items"]!.AsArray().Select(i => Text(i!, "key"))];
        await _shop.Post($"/api/shop/imports/{import["id"]}/run", new { keys, liveSince = "2026-10-09" });
        Assert.Equal(2, (await _shop.Get($"/api/listings/{listing}/sent")).AsArray().Count);
        var loop = await _shop.ListingOf(product + 1, "hedgerow-fair");
        Assert.Equal(
            ["2026-10-09", "2026-10-05"],
            (await _shop.Get($"/api/listings/{loop}/sent")).AsArray().Select(s => Text(s!, "at")[..10])
        );
        await _shop.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(["2026-10-05"], (await _shop.Get($"/api/listings/{loop}/sent")).AsArray().Select(s => Text(s!, "at")[..10]));
    }

    [Fact]
    public async Task The_home_country_comes_first_and_every_list_opens_there()
    {
        Assert.Equal("us", (await _shop.Get("/api/listings"))["country"]!.GetValue<string>());
        await _shop.Put(
            "/api/shop",
            new
            {
                name = "Bindery",
                currency = "EUR",
                countries = new[] { "pt", "es" },
                language = "pt",
            }
        );
        var shop = await _shop.Get("/api/shop");
        var market = shop["markets"]!.AsArray()[0]!;
        Assert.Equal(("pt", "Portugal", "EUR"), (Text(market, "country"), Text(market, "countryName"), Text(market, "currency")));
        Assert.Equal(["pt", "es"], shop["markets"]!.AsArray().Select(m => Text(m!, "country")).Distinct());
        Assert.Equal("pt", (await _shop.Get("/api/listings"))["country"]!.GetValue<string>());
        await _shop.Put(
            "/api/shop",
            new
            {
                name = "Bindery",
                currency = "EUR",
                countries = new[] { "zz" },
                language = "pt",
            },
            400
        );

        // Its data stays in reach, whatever the seller says later; and all of it after a restart.
        await _shop.Post("/api/markets/hedgerow-fair-es/paste", new { text = "funda de cuero\t40", source = "notes" });
        await _shop.Put(
            "/api/shop",
            new
            {
                name = "Bindery",
                currency = "EUR",
                countries = new[] { "pt" },
            }
        );
        _shop.Restart();
        Assert.Equal(["pt", "es"], (await _shop.Get("/api/shop"))["markets"]!.AsArray().Select(m => Text(m!, "country")).Distinct());
        // Another window that changes the name leaves the rest.
        await _shop.Put("/api/shop", new { name = "The bindery" });
        Assert.Equal("EUR", Text(await _shop.Get("/api/shop"), "currency"));
        Assert.Equal("Changed the shop’s settings", (await _shop.Post("/api/changes/undo?sure=true", new { }))["what"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_clock_that_an_older_program_has_moved_is_set_right_and_what_it_left_is_told_of_and_deleted()
    {
        var product = await _shop.AddProduct("Leather notebook cover");
        var listing = await _shop.ListingOf(product, "hedgerow-fair");
        await using (var scope = _shop.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<TinContext>();
            // As the update of such a shop finds it.
            var shop = await db.Shops.FirstAsync();
            (shop.ClockAhead, shop.MayHoldSampleData) = (TimeSpan.FromDays(9), true);
            var day = DateOnly.FromDateTime(DateTime.UtcNow).AddDays(5);
            db.Figures.AddRange(
                FigureRow.Of(listing, Market, new(day, 3, 2, 1), "my file"),
                FigureRow.Of(listing, Market, new(day.AddDays(-20), 3, 2, 1), MarketSource.SampleData),
                FigureRow.Of(listing, Market, new(day.AddDays(-21), 7, 2, 1), "my file")
            );
            await db.SaveChangesAsync();
            var shelves = _shop.Services.GetRequiredService<Shelves>();
            await shelves.Save(
                db,
                Market,
                [
                    new(
                        "notebook cover",
                        new()
                        {
                            Volume = 90,
                            Source = MarketSource.SampleData,
                            TakenAt = db.Now,
                        }
                    ),
                    new(
                        "leather cover",
                        new()
                        {
                            Volume = 70,
                            Source = "my file",
                            TakenAt = db.Now,
                        }
                    ),
                ],
                default
            );
        }

        _shop.Restart();
        var left = await _shop.Get("/api/sample-data");
        Assert.Equal((9, 0, 2, 1), (Number(left, "daysAhead"), Number(left, "checks"), Number(left, "figures"), Number(left, "terms")));
        Assert.Contains((await _shop.Get("/api/backups"))["backups"]!.AsArray(), b => Text(b!, "kind") == "update");
        await using (var scope = _shop.Services.CreateAsyncScope())
            Assert.Equal(TimeSpan.Zero, (await scope.ServiceProvider.GetRequiredService<TinContext>().Shops.FirstAsync()).ClockAhead);

        var deleted = await _shop.Post("/api/sample-data/delete", new { });
        Assert.Equal("Deleted sample data: 2 days of figures, 1 term", deleted["what"]!.GetValue<string>());
        left = await _shop.Get("/api/sample-data");
        Assert.Equal((0, 0, 0), (Number(left, "daysAhead"), Number(left, "figures"), Number(left, "terms")));
        Assert.Equal(1, (await _shop.Shelf(Market, new { take = 1 }))["all"]!.GetValue<int>());

        await _shop.Post($"/api/changes/undo?sure=true&change={deleted["id"]}", new { });
        Assert.Equal(2, (await _shop.Shelf(Market, new { take = 1 }))["all"]!.GetValue<int>());
        // Brought back by hand it is kept, and not told of again.
        Assert.Equal(
            (0, 0),
            (Number(await _shop.Get("/api/sample-data"), "figures"), Number(await _shop.Get("/api/sample-data"), "terms"))
        );
    }

    [Fact]
    public async Task Sample_data_that_the_seller_keeps_stays_and_is_not_told_of_again()
    {
        var listing = await _shop.ListingOf(await _shop.AddProduct("Leather notebook cover"), "hedgerow-fair");
        await using var scope = _shop.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TinContext>();
        (await db.Shops.FirstAsync()).MayHoldSampleData = true;
        db.Figures.Add(FigureRow.Of(listing, Market, new(new(2026, 11, 3), 3, 2, 1), MarketSource.SampleData));
        await db.SaveChangesAsync();
        Assert.Equal(1, Number(await _shop.Get("/api/sample-data"), "figures"));
        await _shop.Post("/api/sample-data/keep", new { });
        Assert.Equal(0, Number(await _shop.Get("/api/sample-data"), "figures"));
        Assert.Equal(1, await db.Figures.CountAsync());
    }

    [Fact]
    public async Task The_demo_has_no_leftovers_to_tell_of()
    {
        using var demo = new TestShop(demo: true);
        var left = await demo.Get("/api/sample-data");
        Assert.Equal((0, 0, 0), (Number(left, "checks"), Number(left, "figures"), Number(left, "terms")));
        await demo.Post("/api/sample-data/delete", new { }, 400);
        await demo.Post("/api/sample-shop", new { }, 400);
    }

    private static string Text(JsonNode node, string name) => node[name]!.GetValue<string>();

    private static int Number(JsonNode node, string name) => node[name]!.GetValue<int>();
}
