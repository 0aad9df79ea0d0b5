using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Microsoft.Extensions.DependencyInjection;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Tests;

/// <summary>Undo is exact: after every kind of change and its undoing, the database says what it said before, and after making it again, what it said then.</summary>
public sealed class UndoTests : IDisposable
{
    private const string Market = "hedgerow-fair-us";

    // What the next changes need; it is no change that is undone.
    private const string First = "";
    private readonly TestShop _shop = new(demo: true, staysInDay: true);

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task Every_kind_of_change_is_undone_and_made_again_exactly()
    {
        await _shop.NumbersSettled();
        // What is measured by itself is no part of a change.
        await _shop.Client.PostAsync("/api/measuring/stop", null);
        var (wrong, steps) = (new List<string>(), new HashSet<string>());
        foreach (var (name, make) in await Changes())
        {
            var before = Dump();
            try
            {
                await make();
            }
            catch (Exception e)
            {
                Assert.Fail($"{name}: {e.Message}");
            }

            if (name == First)
                continue;
            var (after, id) = (Dump(), LastChange());
            Assert.True(before != after, $"{name} changes nothing");
            steps.UnionWith(StepsOf(id));
            for (var round = 0; round < 2; round++)
            {
                await Turn("undo", id);
                steps.UnionWith(StepsOf(id));
                wrong.AddRange(Differences(before, Dump(), $"{name}, undone"));
                await Turn("redo", id);
                wrong.AddRange(Differences(after, Dump(), $"{name}, made again"));
            }
        }

        Assert.True(wrong.Count == 0, string.Join('\n', wrong));

        Assert.Equal([], StepFormat.Types.Select(t => t.Name).Except(steps));
    }

    [Fact]
    public void A_step_is_stored_under_a_name_that_stays()
    {
        // A shop has steps under these names: a type that gets another name keeps the old one in what is stored.
        Assert.Equal(
            [
                "ArchivedState",
                "DetailsBefore",
                "DismissedBefore",
                "FilterBefore",
                "IdeaState",
                "LeadState",
                "LikenessBefore",
                "MarkLive",
                "NoteBefore",
                "OwnWordsBefore",
                "PagesBefore",
                "PictureState",
                "ProductState",
                "ProfileBefore",
                "RedirectsBefore",
                "RemoveImport",
                "RemoveListings",
                "RemoveLive",
                "RemovePages",
                "RemoveProducts",
                "RemoveReadings",
                "RemoveRows",
                "RemoveTerms",
                "RenameRow",
                "RestoreDeleted",
                "RestoreReadings",
                "RestoreTerms",
                "ReturnImport",
                "ShopNames",
                "SiteState",
                "SupplyBefore",
                "TermText",
                "TextState",
                "WatchBefore",
            ],
            StepFormat.Types.Select(t => t.Name)
        );
    }

    [Fact]
    public async Task What_an_older_program_noted_is_undone_by_this_one()
    {
        var folder = Directory.CreateTempSubdirectory("tin-rabbit-test-");
        await using var db = TinContext.Open(Path.Combine(folder.FullName, "tinrabbit.db"));
        await db.GetService<IMigrator>().MigrateAsync("Lookups");
        await db.Database.ExecuteSqlRawAsync(
            """
            INSERT INTO Shops(Id, Name, Currency, ClockAhead, OwnWords) VALUES(1, 'Now', 'EUR', '00:00:00', '[]');
            INSERT INTO Products(Id, ShopId, Name, IsPage, Facts, Revision, PicturesRevision) VALUES(1, 1, 'Box', 0, '{{}}', 0, 0), (2, 1, 'Hotel', 0, '{{}}', 0, 0);
            INSERT INTO Platforms(Id, Profile, Revision) VALUES('p', '{{"id":"p","name":"P","fields":[{{"key":"title","label":"Title","role":"title","shape":"line"}}]}}', 0);
            INSERT INTO Listings(Id, ProductId, PlatformId, Copy, Revision, SavedAt) VALUES(1, 1, 'p', '{{"title":"After"}}', 3, '2026-11-01 00:00:00');
            INSERT INTO Filters(Id, Name, Filters, DeletedAt) VALUES(1, 'Roomy', 'headroom=60', '2026-11-02 10:00:00.1234567');
            INSERT INTO Picks(Id, ProductId, Text, "Key", Fit, Home, Note, Source, SaidBy, Language, "Order", FitByHand, NoteRevision) VALUES(1, 1, 'owl box', 'owl box', 'Good', 'Title', '', '', '', '', 1, 0, 0);
            INSERT INTO Changes(Id, ProductId, What, At, Before, FactsBefore, Reversal) VALUES
                (1, 1, 'Picked', '2026-11-02', '{{"owl box":null}}', '{{"what":"nest box"}}', NULL),
                (2, NULL, 'Deleted filter', '2026-11-02', '{{}}', NULL, '{{"kind":0,"entity":9,"id":"1","before":"","at":"2026-11-02T10:00:00.1234567Z"}}'),
                (3, NULL, 'Changed the shop', '2026-11-02', '{{}}', NULL, '{{"kind":2,"entity":0,"id":"USD","before":"Then","at":null}}'),
                (4, NULL, 'Duplicated', '2026-11-02', '{{}}', NULL, '{{"kind":1,"entity":1,"id":"2","before":"","at":null}}'),
                (5, NULL, 'Edited', '2026-11-02', '{{}}', NULL, '{{"kind":3,"entity":0,"id":"","before":"{{\"texts\":[{{\"listingId\":1,\"before\":\"{{\\\"title\\\":\\\"Before\\\"}}\",\"after\":\"{{\\\"title\\\":\\\"After\\\"}}\"}}],\"addedProducts\":[]}}","at":null}}');
            """
        );
        await db.Database.MigrateAsync();

        using var services = new ServiceCollection().AddSingleton(new ListingEditor(db)).AddSingleton<ChangeTimes>().BuildServiceProvider();
        var changes = new ChangeLog(db, services);
        foreach (var id in new[] { 5, 4, 3, 2, 1 })
            Assert.NotNull((await changes.Undo(new(), id, isSure: true, default)).What);
        db.ChangeTracker.Clear();
        Assert.Equal(("Then", "USD"), await db.Shops.Select(s => ValueTuple.Create(s.Name, s.Currency)).SingleAsync());
        Assert.Equal("""{"title":"Before"}""", (await db.Listings.SingleAsync()).Copy.Json);
        Assert.Equal("Roomy", (await db.Filters.SingleAsync()).Name);
        Assert.Equal("nest box", (await db.Products.SingleAsync()).Facts.What);
        Assert.Empty(await db.Picks.ToListAsync());
        Assert.Equal(
            [Screen.Pick, Screen.Dig, Screen.Listings, Screen.Listings, Screen.Listings],
            await db.Changes.OrderBy(c => c.Id).Select(c => c.Screen).ToListAsync()
        );
        folder.Delete(recursive: true);
    }

    [Fact]
    public async Task A_change_is_undone_only_after_later_changes_to_the_same_picks_and_facts()
    {
        var owl = await _shop.Pick(1, ["owl barn box"]);
        var bat = await _shop.Pick(1, ["bat barn box"]);
        var note = await _shop.Pick(1, ["owl barn box"], note: "For the barn");
        var rows = (await _shop.Get("/api/changes?product=1")).AsArray();
        bool CanUndo(JsonNode change) =>
            rows.Single(r => r!["id"]!.GetValue<int>() == change["id"]!.GetValue<int>())!["canUndo"]!.GetValue<bool>();
        Assert.Equal((false, true, true), (CanUndo(owl), CanUndo(bat), CanUndo(note)));
        Assert.Null((await _shop.Post($"/api/changes/undo?sure=true&product=1&change={owl["id"]}", new { }))["what"]);
        Assert.NotNull((await _shop.Post($"/api/changes/undo?sure=true&product=1&change={bat["id"]}", new { }))["what"]);
        Assert.NotNull((await _shop.Post($"/api/changes/undo?sure=true&product=1&change={note["id"]}", new { }))["what"]);
        Assert.NotNull((await _shop.Post($"/api/changes/undo?sure=true&product=1&change={owl["id"]}", new { }))["what"]);

        // What was undone is made again in its order: the pick before its note.
        Assert.Null((await _shop.Post($"/api/changes/redo?sure=true&product=1&change={note["id"]}", new { }))["what"]);
        // It is not, where the same pick was changed since.
        await _shop.Pick(1, ["bat barn box"]);
        Assert.Null((await _shop.Post($"/api/changes/redo?sure=true&product=1&change={bat["id"]}", new { }))["what"]);
        Assert.NotNull((await _shop.Post($"/api/changes/redo?sure=true&product=1&change={owl["id"]}", new { }))["what"]);
        Assert.NotNull((await _shop.Post($"/api/changes/redo?sure=true&product=1&change={note["id"]}", new { }))["what"]);
        Assert.Contains(
            (await _shop.Get("/api/changes?product=1&undone=true")).AsArray(),
            c => c!["id"]!.GetValue<int>() == bat["id"]!.GetValue<int>() && c["undoneAt"] is not null
        );
    }

    [Fact]
    public async Task A_change_knows_its_screen_its_listing_and_its_page()
    {
        var listing = await _shop.ListingOf(1, "hedgerow-fair");
        await Put204($"/api/listings/{listing}/lead", new { key = (string?)null });
        var page = (await _shop.Get("/api/pages"))["pages"]!.AsArray().First(p => p!["kind"]!.GetValue<string>() == "content")![
            "id"
        ]!.GetValue<int>();
        await _shop.Put($"/api/pages/{page}", new { inMenu = false, hasSuffix = false });
        var rows = (await _shop.Get("/api/changes?product=1")).AsArray();
        Assert.Equal(("pages", page), (rows[0]!["screen"]!.GetValue<string>(), rows[0]!["pageId"]!.GetValue<int>()));
        Assert.Equal(("write", listing), (rows[1]!["screen"]!.GetValue<string>(), rows[1]!["listingId"]!.GetValue<int>()));
    }

    private async Task<int> Last() => (await _shop.Get("/api/shop"))["products"]!.AsArray().Max(p => p!["id"]!.GetValue<int>());

    private async Task<IReadOnlyList<(string Name, Func<Task> Make)>> Changes()
    {
        var shop = await _shop.Get("/api/shop");
        var listing = await _shop.ListingOf(1, "hedgerow-fair");
        var live = await _shop.ListingOf(2, "longbarrow");
        var pages = (await _shop.Get("/api/pages"))["pages"]!.AsArray();
        int Page(string kind, int number) =>
            pages.Where(p => p!["kind"]!.GetValue<string>() == kind).ElementAt(number)!["id"]!.GetValue<int>();
        var (take, version, note) = (0, 0, 0);
        var page = pages.First(p => p!["isPublished"]!.GetValue<bool>() && !p["isHome"]!.GetValue<bool>())!;
        var shown = await _shop.Get($"/api/listings/{page["listingId"]}");
        shown["copy"]!["slug"] = "another-slug";
        var profile = (await _shop.Get("/api/platforms"))["platforms"]![0]!["profile"]!.DeepClone();
        (profile["id"], profile["name"]) = ("0wn", "Own platform");
        return
        [
            ("picks", () => _shop.Pick(1, ["owl barn box", "barn owl box"])),
            ("a note on a pick", () => _shop.Pick(1, ["owl barn box"], note: "For the barn")),
            ("picks dropped", () => _shop.Post("/api/products/1/picks/drop", new { texts = new[] { "owl barn box" } })),
            (
                "a result judged",
                () =>
                    _shop.Put(
                        "/api/products/1/likeness",
                        new
                        {
                            marketId = Market,
                            term = "bird house",
                            result = "A box",
                            isLike = true,
                        }
                    )
            ),
            (
                "a result judged otherwise",
                () =>
                    _shop.Put(
                        "/api/products/1/likeness",
                        new
                        {
                            marketId = Market,
                            term = "bird house",
                            result = "A box",
                            isLike = false,
                        }
                    )
            ),
            (
                "an idea",
                () =>
                    _shop.Post(
                        "/api/products",
                        new
                        {
                            name = "Idea",
                            platforms = new[] { "longbarrow" },
                            picks = new[] { "owl ladder" },
                            isIdea = true,
                        }
                    )
            ),
            ("an idea made a product", async () => await _shop.Post($"/api/products/{await Last()}/become", new { name = "Owl ladder" })),
            ("the order of picks", () => _shop.Put("/api/products/1/picks/order", new { keys = new[] { "barn owl box" } })),
            ("facts", () => _shop.SaveFacts(1, new { what = "nest box", materials = new[] { "oak" } })),
            ("a lead", () => Put204($"/api/listings/{listing}/lead", new { key = "barn owl box" })),
            ("a finding dismissed", () => Put204($"/api/listings/{listing}/asides", new { key = "unused backend", aside = true })),
            (
                "a product",
                () =>
                    _shop.Post(
                        "/api/products",
                        new
                        {
                            name = "Owl perch",
                            facts = (object?)null,
                            pictures = (object?)null,
                        }
                    )
            ),
            (
                "terms pasted",
                () => _shop.Post($"/api/markets/{Market}/paste", new { text = "owl ladder\t70\nbird house\t71", source = "notes" })
            ),
            (
                "a number corrected",
                () =>
                    _shop.Post(
                        $"/api/markets/{Market}/correct",
                        new
                        {
                            text = "bird house",
                            volume = 50,
                            competition = 7,
                            titlesHolding = (int?)null,
                            clickCost = (double?)null,
                        }
                    )
            ),
            (
                "alt texts",
                async () =>
                    await _shop.Put(
                        "/api/products/1/pictures",
                        new
                        {
                            pictures = new[] { "A box", "A wren" },
                            revision = (await _shop.Product(1))["picturesRevision"]!.GetValue<int>(),
                        }
                    )
            ),
            (
                "texts that are live",
                () => _shop.Post($"/api/listings/{live}/live", new { marketId = "longbarrow-us", since = "2026-11-02" })
            ),
            ("a duplicate", () => _shop.Post("/api/products/1/duplicate", new { name = "Another box" })),
            (
                "a product renamed",
                async () =>
                    await _shop.Put(
                        "/api/products/2/name",
                        new { name = "Pane feeder", revision = (await _shop.Product(2))["revision"]!.GetValue<int>() }
                    )
            ),
            ("a product deleted", () => Delete("/api/products/4")),
            ("a listing", () => _shop.Post("/api/products/1/listings/overprint-lane", new { })),
            ("a listing deleted", () => Delete($"/api/listings/{Ask("SELECT MAX(Id) FROM Listings")}")),
            ("the shop", () => _shop.Put("/api/shop", new { name = "Another shop", currency = "EUR" })),
            (
                "a word of its own",
                () =>
                    _shop.Post(
                        "/api/shop/words",
                        new
                        {
                            word = "barn",
                            facet = "style",
                            forget = false,
                        }
                    )
            ),
            ("listings archived", () => _shop.Post("/api/listings/archive", new { ids = new[] { listing }, isArchived = true })),
            ("many listings edited", () => EditAll(listing)),
            (
                First,
                async () =>
                {
                    await _shop.Client.PostAsJsonAsync($"/api/listings/{listing}/takes", new { text = "A box for wrens" });
                    take = (int)Ask("SELECT MAX(Id) FROM Takes");
                    await _shop.Post($"/api/listings/{listing}/versions", new { name = "First" });
                    version = (int)Ask("SELECT MAX(Id) FROM Versions");
                    await _shop.Dig(1, Market, "owl box");
                    await _shop.Put($"/api/listings/{shown["id"]}/copy", new { fields = shown["copy"], revision = shown["revision"] });
                }
            ),
            ("a take renamed", () => _shop.Put($"/api/listings/{listing}/takes/{take}/name", new { name = "Short" })),
            ("a take deleted", () => Delete($"/api/listings/{listing}/takes/{take}")),
            ("a version renamed", () => _shop.Put($"/api/listings/{listing}/versions/{version}", new { name = "Best" })),
            ("a version deleted", () => Delete($"/api/listings/{listing}/versions/{version}")),
            ("a platform", () => _shop.Post("/api/platforms", new { profile, like = "longbarrow" })),
            (
                "a platform changed",
                () =>
                {
                    profile["name"] = "My platform";
                    return _shop.SavePlatform("0wn", profile);
                }
            ),
            ("a platform deleted", () => Delete("/api/platforms/0wn")),
            ("a page", () => _shop.Post("/api/pages", new { kind = "content", name = "Owls" })),
            ("an outline", () => _shop.Post("/api/pages/outline", new { text = "Hides\n  For two\n", parentId = (int?)null })),
            (
                "a page of a product",
                () =>
                    _shop.Post(
                        "/api/pages",
                        new
                        {
                            kind = "product",
                            productId = Ask(
                                "SELECT MIN(Id) FROM Products WHERE IsPage = 0 AND DeletedAt IS NULL AND Id NOT IN (SELECT l.ProductId FROM Pages p JOIN Listings l ON l.Id = p.ListingId WHERE p.DeletedAt IS NULL)"
                            ),
                        }
                    )
            ),
            ("a page moved", () => _shop.Put($"/api/pages/{Page("content", 2)}/place", new { parentId = Page("category", 1), order = 0 })),
            ("a page published", () => _shop.Put($"/api/pages/{Page("content", 3)}", new { isPublished = true, inMenu = true })),
            ("a page published under another slug", () => _shop.Put($"/api/pages/{page["id"]}", new { isPublished = true })),
            (
                "categories",
                () =>
                    _shop.Put(
                        $"/api/pages/{Page("product", 0)}/categories",
                        new { primary = Page("category", 2), others = new[] { Page("category", 3) } }
                    )
            ),
            ("a page’s lead", () => _shop.Put($"/api/pages/{Page("content", 4)}/lead", new { text = "barn owls" })),
            (
                "a page deleted with the links to it",
                () => _shop.Post($"/api/pages/{Page("category", 1)}/delete", new { children = false, links = true })
            ),
            ("the site", async () => await _shop.Put("/api/site", Site(await _shop.Get("/api/site")))),
            ("what a picture shows", () => _shop.Put("/api/pictures/1/0/shows", new { shows = "A wren at the hole" })),
            (
                "a note",
                async () =>
                {
                    await _shop.Post(
                        "/api/notes",
                        new
                        {
                            text = "Free postage",
                            kinds = new[] { "promotion" },
                            day = Day(1),
                            listingId = listing,
                            marketId = Market,
                        }
                    );
                    note = (int)Ask("SELECT MAX(Id) FROM Notes");
                }
            ),
            (
                "a note edited",
                () =>
                    _shop.Put(
                        $"/api/notes/{note}",
                        new
                        {
                            text = "Postage",
                            kinds = new[] { "price" },
                            day = Day(2),
                            listingId = listing,
                            marketId = Market,
                            revision = 0,
                        }
                    )
            ),
            ("a note deleted", () => Delete($"/api/notes/{note}")),
            (
                "checks imported",
                () => Upload($"/api/listings/{listing}/checks/import?marketId=overprint-lane-us&name=c.csv", "term,rank\nbarn owl box,3\n")
            ),
            ("figures imported", () => _shop.Drop(Market, listing, "f.csv", "date,views\n2026-01-02,5\n2026-01-03,7\n")),
            (
                "a check deleted",
                () => Delete($"/api/listings/{listing}/checks/{Ask($"SELECT MAX(Id) FROM Checks WHERE ListingId = {listing}")}")
            ),
            (
                "terms unfollowed",
                () =>
                    _shop.Post(
                        $"/api/listings/{listing}/checks/unfollow",
                        new { terms = new[] { Ask($"SELECT MAX(Id) FROM FollowedTerms WHERE ListingId = {listing}") } }
                    )
            ),
            (
                "a rival",
                () =>
                    _shop.Post(
                        $"/api/listings/{listing}/rivals/paste",
                        new
                        {
                            marketId = Market,
                            shop = "Fen",
                            fields = new { title = "Owl box" },
                        }
                    )
            ),
            ("a rival removed", () => Delete($"/api/listings/{listing}/rivals/{Ask("SELECT MAX(Id) FROM Rivals")}")),
            ("reviews imported", () => _shop.Drop(Market, listing, "r.csv", "text,stars\nA fine box,5\n", "reviews")),
            ("reviews removed", () => Delete($"/api/listings/{listing}/reviews?ofRivals=false")),
            ("a filter", () => _shop.Post("/api/filters", new { name = "Roomy", filters = "headroom=60" })),
            ("a filter saved again", () => _shop.Post("/api/filters", new { name = "Roomy", filters = "headroom=70" })),
            ("a filter renamed", () => _shop.Put($"/api/filters/{Ask("SELECT MAX(Id) FROM Filters")}/name", new { name = "Wide" })),
            (
                "a filter duplicated",
                () => _shop.Post($"/api/filters/{Ask("SELECT MAX(Id) FROM Filters")}/duplicate", new { name = "Wider" })
            ),
            ("a filter deleted", () => Delete($"/api/filters/{Ask("SELECT MAX(Id) FROM Filters")}")),
            ("a search deleted", () => Delete($"/api/products/1/trail/{Ask("SELECT MAX(Id) FROM Digs")}")),
            ("supply", () => _shop.Put($"/api/markets/{Market}/supply", new { supply = "exactTitles" })),
            ("a term renamed", () => _shop.Post($"/api/markets/{Market}/terms/rename", new { text = "bird house", name = "bird houze" })),
            ("terms deleted", () => _shop.Post($"/api/markets/{Market}/terms/delete", new { texts = new[] { "bird houze", "owl box" } })),
            ("terms imported", () => Import("owls", "term,volume\nnest box,900\nowl perch,40\n")),
            (
                "an import renamed",
                () => _shop.Put($"/api/markets/{Market}/imports/{Ask("SELECT MAX(Id) FROM Imports")}/source", new { name = "Owls" })
            ),
            ("a shop imported", async () => await ImportShop(shop)),
            ("results pages, a listing export, suggestions and terms dropped", Drop),
            (
                "the same listing with another number",
                async () => await Drop(("export.csv", "Listing ID,SKU,Title,Price\n79,W-9,Slate owl perch,8\n"))
            ),
        ];
    }

    private static object Site(JsonNode site) =>
        new
        {
            brand = "Another brand",
            address = "https://another.example",
            language = site["language"],
            country = site["country"],
            titleSuffix = site["titleSuffix"],
            revision = site["revision"],
        };

    private async Task EditAll(int listing)
    {
        var edit = new
        {
            ids = new[] { listing },
            kind = "replace",
            find = "cedar",
            replacement = "larch",
            matchesCase = false,
            wholeWords = true,
            roles = Array.Empty<string>(),
            country = "us",
        };
        var planned = (await _shop.Post("/api/listings/edit/preview", edit))["changes"]!.AsArray();
        await _shop.Post(
            "/api/listings/edit",
            new
            {
                edit,
                keys = planned.Select(p => p!["key"]!.GetValue<string>()),
                revisions = new Dictionary<string, int> { [$"{listing}"] = planned[0]!["revision"]!.GetValue<int>() },
            }
        );
    }

    private async Task Import(string source, string table)
    {
        using var body = new StringContent(table);
        using var response = await _shop.Client.PostAsync($"/api/markets/{Market}/imports?name={source}.csv", body);
        var view = JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
        await _shop.Lines($"/api/markets/{Market}/imports/{view["id"]}/run", new { look = view["look"], source });
    }

    // What is dropped together is one change, whatever its kinds.
    private Task Drop() =>
        Drop(
            (
                "page.html",
                "<h1>1–2 of 12 results for “owl box”</h1><ul><li><a href=/a/1><h3>Cedar owl box for barns</h3></a><p>$12.00</p></li><li><a href=/a/2><h3>Wren nest box in cedar</h3></a><p>$14.00</p></li></ul>"
            ),
            (
                "export.csv",
                "Listing ID,SKU,Title,Tags,Price,Colour of parcel\n77,W-1,Wren nest box in cedar,\"nest box, wren house\",12.50,brown\n78,W-9,Slate owl perch,owl perch,9,grey\n"
            ),
            ("owl box.txt", "owl box plans\nowl box for barns\n"),
            ("terms.csv", "keyword,popularity rank\nowl perch slate,3\n")
        );

    private async Task Drop(params (string Name, string Text)[] files)
    {
        var ids = new List<string>();
        foreach (var (name, text) in files)
        {
            using var response = await _shop.Client.PostAsync(
                $"/api/drops?name={name}",
                new ByteArrayContent(Encoding.UTF8.GetBytes(text))
            );
            ids.Add(JsonNode.Parse(await response.Content.ReadAsStringAsync())!["files"]![0]!["id"]!.GetValue<string>());
        }

        await _shop.Post("/api/drops/add", new { files = ids, marketId = Market });
    }

    private async Task ImportShop(JsonNode shop)
    {
        Assert.NotNull(shop["name"]);
        var table = "product,platform,title\nOwl box,hedgerow-fair,Owl box\n\"Wren nest box, cedar\",hedgerow-fair,Imported title\n";
        using var response = await _shop.Client.PostAsync(
            "/api/shop/imports?name=t.csv",
            new ByteArrayContent(Encoding.UTF8.GetBytes(table))
        );
        var view = JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
        var keys = view["items"]!.AsArray().Select(i => i!["key"]!.GetValue<string>());
        await _shop.Post($"/api/shop/imports/{view["id"]}/run", new { keys });
    }

    private async Task Upload(string path, string table)
    {
        using var content = new ByteArrayContent(Encoding.UTF8.GetBytes(table));
        content.Headers.ContentType = new("application/octet-stream");
        using var response = await _shop.Client.PostAsync(path, content);
        Assert.True(response.IsSuccessStatusCode, await response.Content.ReadAsStringAsync());
    }

    private async Task Put204(string path, object body)
    {
        using var response = await _shop.Client.PutAsJsonAsync(path, body);
        Assert.True(response.IsSuccessStatusCode, await response.Content.ReadAsStringAsync());
    }

    private async Task Delete(string path)
    {
        using var response = await _shop.Client.DeleteAsync(path);
        Assert.True(response.IsSuccessStatusCode, $"{path}: {await response.Content.ReadAsStringAsync()}");
    }

    private async Task Turn(string how, long id)
    {
        var product = Ask($"SELECT COALESCE(ProductId, 0) FROM Changes WHERE Id = {id}");
        var done = await _shop.Post($"/api/changes/{how}?change={id}{(product > 0 ? $"&product={product}" : "")}", new { });
        Assert.True(done["what"] is not null, $"{how} of change {id} did nothing");
    }

    private long LastChange() => Ask("SELECT MAX(Id) FROM Changes");

    private static string Day(int ago) => DateTime.UtcNow.AddDays(-ago).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private SqliteConnection Open()
    {
        var connection = new SqliteConnection($"Data Source={Path.Combine(_shop.Folder, "tinrabbit.db")};Mode=ReadOnly");
        connection.Open();
        return connection;
    }

    private long Ask(string sql)
    {
        using var connection = Open();
        using var command = new SqliteCommand(sql, connection);
        return Convert.ToInt64(command.ExecuteScalar(), CultureInfo.InvariantCulture);
    }

    private List<string> StepsOf(long id)
    {
        using var connection = Open();
        return Rows(connection, $"SELECT DISTINCT json_extract(value, '$.\"$type\"') FROM Changes c, json_each(c.Steps) WHERE c.Id = {id}");
    }

    private static IEnumerable<string> Differences(string before, string now, string what) =>
        [
            .. before.Split('\n').Except(now.Split('\n')).Take(4).Select(l => $"{what}: lacks {l}"),
            .. now.Split('\n').Except(before.Split('\n')).Take(4).Select(l => $"{what}: has {l}"),
        ];

    // Everything in the database but History, versions, revisions, times of saving, and the numbers of rows that are removed and added again.
    private string Dump()
    {
        string[] otherTables =
        [
            "Changes",
            "Versions",
            "Imports",
            "ImportChanges",
            "LookupDays",
            "UnknownTerms",
            "Terms",
            "Readings",
            "Markets",
        ];
        string[] otherColumns = ["Revision", "PicturesRevision", "NoteRevision", "SavedAt", "DeletedAt"];
        string[] renumbered = ["Picks", "PictureRow", "Redirects", "Takes", "Asides", "Watches", "Likenesses"];
        // What belongs to something that is deleted is gone with it.
        (string Column, string Table)[] owners =
        [
            ("ProductId", "Products"),
            ("ListingId", "Listings"),
            ("PageId", "Pages"),
            ("CheckId", "Checks"),
        ];
        using var connection = Open();
        var lines = new List<string>();
        foreach (
            var table in Rows(
                connection,
                "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE '\\_\\_%' ESCAPE '\\'"
            )
        )
        {
            if (otherTables.Contains(table))
                continue;
            var columns = Rows(connection, $"SELECT name FROM pragma_table_info('{table}')");
            var shown = columns.Except(otherColumns).Except(renumbered.Contains(table) ? ["Id", "At"] : []);
            var where = string.Join(
                " AND ",
                owners
                    .Where(o => columns.Contains(o.Column) && o.Table != table)
                    .Select(o => $"({o.Column} IS NULL OR {o.Column} IN (SELECT Id FROM {o.Table} WHERE DeletedAt IS NULL))")
                    .Prepend(columns.Contains("DeletedAt") ? "DeletedAt IS NULL" : "1")
            );
            lines.AddRange(
                Rows(connection, $"SELECT json_array({string.Join(", ", shown.Select(c => $"\"{c}\""))}) FROM \"{table}\" WHERE {where}")
                    .Select(r => $"{table} {r}")
            );
        }

        lines.AddRange(
            Rows(
                    connection,
                    "SELECT json_array(t.MarketId, t.Text, t.Key, r.Volume, r.Competition, r.TitlesHolding, r.ClickCost, r.Months, r.Source) "
                        + "FROM Terms t LEFT JOIN Readings r ON r.Id = t.ReadingId WHERE t.MarketId NOT LIKE 'import %'"
                )
                .Select(r => $"Terms {r}")
        );
        lines.AddRange(
            Rows(connection, "SELECT json_array(MarketId, Source, Rows) FROM Imports WHERE DeletedAt IS NULL").Select(r => $"Imports {r}")
        );
        lines.AddRange(Rows(connection, "SELECT json_array(Id, json_extract(Norm, '$.supply')) FROM Markets").Select(r => $"Markets {r}"));
        lines.AddRange(
            Rows(connection, "SELECT json_array(Id, Name) FROM Versions WHERE Name <> '' AND DeletedAt IS NULL")
                .Select(r => $"Versions {r}")
        );
        return string.Join('\n', lines.Order(StringComparer.Ordinal));
    }

    private static List<string> Rows(SqliteConnection connection, string sql)
    {
        using var command = new SqliteCommand(sql, connection);
        using var reader = command.ExecuteReader();
        var rows = new List<string>();
        while (reader.Read())
            rows.Add(reader.IsDBNull(0) ? "" : reader.GetString(0));
        return rows;
    }
}
