using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;

namespace TinRabbit.Server.Tests;

/// <summary>Whatever a seller pastes or drops becomes data, all of it or nothing, with one undo: tried with the files of the sample bindery.</summary>
public sealed class DropTests : IDisposable
{
    private const string Market = Bindery.Market;
    private readonly TestShop _shop = new(demo: false, isReal: true);

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task A_results_page_says_what_it_is_and_feeds_dig_the_details_and_a_found_check()
    {
        var bindery = await Bindery.Open(_shop);
        var files = await bindery.Upload("results/notebook cover.html");
        var view = Assert.Single(await bindery.Look(files))!;
        Assert.Equal(("results", "A results page for “notebook cover”"), (Text(view, "kind"), Text(view["shown"]!, "title")));
        Assert.Null(view["shown"]!["problem"]);
        var facts = view["shown"]!["facts"]!.AsArray().ToDictionary(f => Text(f!, "name"), f => Text(f!, "text"));
        Assert.Equal(("48 listings, 3 of them ads", "12,431", "6"), (facts["Read"], facts["Results in all"], facts["Related searches"]));
        Assert.Equal("rank 14: Leather A5 notebook cover", facts["Yours"]);

        var before = await _shop.Dig(bindery.Product, Market, "notebook cover");
        Assert.Null(before["known"]!["results"]);
        var change = await bindery.Add(files);
        var dug = await _shop.Dig(bindery.Product, Market, "notebook cover");
        Assert.Equal(
            (12431, 48, 3),
            (
                Number(dug["known"]!["results"]!, "found"),
                Number(dug["known"]!["results"]!, "looked"),
                Number(dug["known"]!["results"]!, "ads")
            )
        );
        var rows = dug["rows"]!.AsArray();
        Assert.Equal(12431, Number(rows.Single(r => Text(r!, "key") == "notebook cover")!["numbers"]!, "competition"));
        Assert.Equal(1, Number(rows.Single(r => Text(r!, "key") == "leather journal cover")!, "related"));
        Assert.Contains(rows, r => r!["sellers"] is { } sellers && Number(sellers, "count") > 5 && sellers["rank"] is not null);

        var term = await _shop.Get($"/api/markets/{Market}/term?text=notebook%20cover");
        Assert.Equal((45, 3), (Number(term["seen"]!, "looked"), Number(term["seen"]!, "ads")));
        Assert.NotEmpty(Text(term["seen"]!["first"]![0]!, "alt"));

        var watch = await _shop.Get($"/api/listings/{bindery.Listing}/checks?marketId={Market}");
        var found = watch["terms"]!.AsArray().Single(t => Text(t!, "key") == "notebook cover")!;
        Assert.True(found["found"]!.GetValue<bool>());
        Assert.Equal(14, Number(found, "rank"));

        await _shop.Post($"/api/changes/undo?change={change}&isSure=true", new { });
        Assert.Null((await _shop.Dig(bindery.Product, Market, "notebook cover"))["known"]!["results"]);
    }

    [Fact]
    public async Task A_marketplaces_own_export_becomes_listings_that_are_live_and_goes_out_again_as_it_came()
    {
        var bindery = await Bindery.Open(_shop);
        var files = await bindery.Upload("listings.csv");
        var view = Assert.Single(await bindery.Look(files))!;
        Assert.Equal(("listings", "4 of your listings"), (Text(view, "kind"), Text(view["shown"]!, "title")));
        Assert.Contains("Dispatch profile", Text(view["shown"]!["unsure"]!.AsArray()[0]!), StringComparison.Ordinal);
        var change = await bindery.Add(files);
        var shop = await _shop.Get("/api/shop");
        Assert.Equal(4, shop["products"]!.AsArray().Count);
        var listing = await _shop.Get($"/api/listings/{bindery.Listing}?marketId={Market}");
        Assert.Equal(
            ["notebook cover", "leather cover", "a5 cover", "refillable", "pen loop"],
            listing["copy"]!["keywords"]!.AsArray().Select(t => Text(t!))
        );
        Assert.Equal("Leather", Text(listing["copy"]!["details"]!, "Material"));
        Assert.Single((await _shop.Get($"/api/listings/{bindery.Listing}/sent")).AsArray());

        var given = await File.ReadAllTextAsync(Path.Combine(Repository.Root, "docs", "samples", "bindery", "listings.csv"));
        var exported = await _shop.Client.GetStringAsync("/api/platforms/weir-street/listings.csv");
        Assert.Equal(Lines(given), Lines(exported));

        // The same file once more changes nothing; an undo takes all of it back.
        var again = Assert.Single(await bindery.Look(await bindery.Upload("listings.csv")))!;
        Assert.Equal("4", Facts(again)["Unchanged"]);
        await _shop.Post($"/api/changes/undo?change={change}&sure=true", new { });
        Assert.Single((await _shop.Get("/api/shop"))["products"]!.AsArray());
        Assert.Empty((await _shop.Get($"/api/listings/{bindery.Listing}/sent")).AsArray());
    }

    [Fact]
    public async Task Numbered_columns_and_other_headings_are_read_on_any_platform()
    {
        await Bindery.Open(_shop);
        var table =
            "Artikelnummer;Titel;Bullet Point 1;Bullet Point 2;Search Terms;Preis;Bild1;Bild2\n"
            + "W-1;Wachstuch Einband A5, grün;Wasserfest;Von Hand genäht;einband a5;24,50;https://x.example/1.jpg;https://x.example/2.jpg\n";
        var bindery = Bindery.Of(_shop);
        var files = await bindery.Upload("export.csv", System.Text.Encoding.UTF8.GetBytes(table));
        var choices = new[]
        {
            new
            {
                id = files[0],
                marketId = "longbarrow-gb",
                kind = "listings",
            },
        };
        Assert.Null(Assert.Single(await bindery.Look(files, choices))!["shown"]!["problem"]);
        await bindery.Add(files, choices);
        var product = (await _shop.Get("/api/shop"))["products"]!.AsArray().Single(p => Text(p!, "name") == "Wachstuch Einband A5")!;
        var listing = await _shop.Get($"/api/listings/{product["listings"]!["longbarrow"]}?marketId=longbarrow-gb");
        Assert.Equal(["Wasserfest", "Von Hand genäht"], listing["copy"]!["bullets"]!.AsArray().Select(t => Text(t!)));
        Assert.Equal("einband a5", Text(listing["copy"]!, "backend"));
        var exported = await _shop.Client.GetStringAsync("/api/platforms/longbarrow/listings.csv");
        Assert.Equal("Artikelnummer,Titel,Bullet Point 1,Bullet Point 2,Search Terms,Preis,Bild1,Bild2", Lines(exported)[0]);
        Assert.Contains("W-1,", Lines(exported)[1], StringComparison.Ordinal);
        Assert.Contains(
            ",Wasserfest,Von Hand genäht,einband a5,24.50,https://x.example/1.jpg,https://x.example/2.jpg",
            Lines(exported)[1],
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task One_pasted_listing_is_split_into_its_fields()
    {
        var bindery = await Bindery.Open(_shop);
        var files = await bindery.Paste(
            "Title: Waxed canvas pencil roll\nKeywords: pencil roll, pencil case\nPrice: £22\n\nDescription:\nRolls up small.\nHolds twelve pencils.\n"
        );
        Assert.Equal("listings", Text(Assert.Single(await bindery.Look(files))!, "kind"));
        await bindery.Add(files);
        var product = (await _shop.Get("/api/shop"))["products"]!.AsArray().Single(p => Text(p!, "name") == "Waxed canvas pencil roll")!;
        var listing = await _shop.Get($"/api/listings/{product["listings"]!["weir-street"]}?marketId={Market}");
        Assert.Equal(["pencil roll", "pencil case"], listing["copy"]!["keywords"]!.AsArray().Select(t => Text(t!)));
        Assert.Equal("Rolls up small.\nHolds twelve pencils.", Text(listing["copy"]!, "description"));
    }

    [Fact]
    public async Task Reviews_of_several_listings_statistics_and_ranks_find_their_listings()
    {
        var bindery = await Bindery.Open(_shop);
        await bindery.Add("listings.csv");
        var files = await bindery.Upload("reviews.csv", "statistics.csv");
        var views = await bindery.Look(files);
        Assert.Equal(["reviews", "figures"], views.Select(v => Text(v!, "kind")));
        Assert.All(views, v => Assert.Null(v!["shown"]!["problem"]));
        Assert.Contains("“Visits”", Text(views[1]!["shown"]!["unsure"]!.AsArray()[0]!), StringComparison.Ordinal);
        var clicks = new object[]
        {
            new
            {
                id = files[1],
                columns = Enumerable
                    .Range(0, 5)
                    .Select(i => new { column = i, role = new[] { "date", "listing", "views", "clicks", "sales" }[i] }),
            },
        };
        await bindery.Add(files, clicks);
        var phrases = await _shop.Get($"/api/listings/{bindery.Listing}/reviews/phrases?marketId={Market}");
        Assert.Equal(42, Number(phrases, "mine"));
        var history = await _shop.Get($"/api/listings/{bindery.Listing}/history?marketId={Market}");
        Assert.Equal(75, history["clicks"]!.AsArray().Count(c => c is not null));

        // Equal texts of other days are other reviews; the same file once more adds none.
        var more = "Stars,Text,Date\n5,Lovely,2026-05-01\n5,Lovely,2026-05-02\n5,Lovely,2026-05-01\n";
        await bindery.Add(await bindery.Upload("more.csv", System.Text.Encoding.UTF8.GetBytes(more)), listingId: bindery.Listing);
        Assert.Equal(44, Number(await _shop.Get($"/api/listings/{bindery.Listing}/reviews/phrases?marketId={Market}"), "mine"));

        var ranks = "keyword\tposition\nnotebook cover\t12\na5 cover\t>100\nleather cover\t-\npen loop\t\nrefillable cover\tpage 3\n";
        await bindery.Add(await bindery.Paste(ranks), listingId: bindery.Listing);
        var terms = (await _shop.Get($"/api/listings/{bindery.Listing}/checks?marketId={Market}"))["terms"]!
            .AsArray()
            .ToDictionary(t => Text(t!, "key"), t => (t!["found"]?.GetValue<bool>(), t["rank"]?.GetValue<int>()));
        Assert.Equal((true, 12), terms["notebook cover"]);
        Assert.Equal((false, null), terms["a5 cover"]);
        Assert.Equal((false, null), terms["leather cover"]);
        Assert.Equal((true, null), terms["refillable cover"]);
        Assert.False(terms.ContainsKey("pen loop"));
    }

    [Fact]
    public async Task Another_sellers_listing_is_compared_and_its_reviews_are_theirs()
    {
        var bindery = await Bindery.Open(_shop);
        await bindery.Add("results/notebook cover.html", "listings.csv");
        await bindery.Add("reviews.csv");
        var files = await bindery.Upload("listings/rival 1.html", "listings/rival 2.html");
        await bindery.Add(files, listingId: bindery.Listing);
        var rivals = await _shop.Post($"/api/listings/{bindery.Listing}/rivals/compare", new { marketId = Market, fields = (object?)null });
        Assert.Equal(2, rivals["rivals"]!.AsArray().Count);
        var phrases = await _shop.Get($"/api/listings/{bindery.Listing}/reviews/phrases?marketId={Market}");
        Assert.Equal((42, 48), (Number(phrases, "mine"), Number(phrases, "theirs")));
        Assert.NotEmpty(phrases["phrases"]!.AsArray());
        var found = await _shop.Get($"/api/listings/{bindery.Listing}/rivals/found?marketId={Market}&term=notebook%20cover");
        Assert.Equal(12431, Number(found, "found"));
        Assert.Contains(found["results"]!.AsArray(), r => r!["isMine"]!.GetValue<bool>());
        Assert.Equal(2, found["results"]!.AsArray().Count(r => r!["isSaved"]!.GetValue<bool>()));
    }

    [Fact]
    public async Task The_days_of_a_folder_are_those_of_the_listings_whose_numbers_it_has()
    {
        using var shop = new TestShop();
        await shop.Post(
            "/api/drops/add",
            new
            {
                files = await Bindery
                    .Of(shop)
                    .Upload("mine.csv", "Listing ID,Title,Tags\np-101,Seeds of six old tomatoes,\"seeds, tomato\"\n"u8.ToArray()),
                marketId = "longbarrow-us",
            }
        );
        var listing = (await shop.Get("/api/listings?country=us"))["listings"]![0]!["id"]!.GetValue<int>();
        var market = new TinRabbit.Server.Markets.FolderMarket(
            Path.Combine(Repository.Root, "docs", "samples", "seed market"),
            TimeProvider.System
        );
        using var watch = new TinRabbit.Server.Features.Watch.DailyWatch(
            shop.Services.GetRequiredService<IServiceScopeFactory>(),
            market,
            shop.Services.GetRequiredService<TinRabbit.Server.Features.Watch.CheckService>(),
            NullLogger<TinRabbit.Server.Features.Watch.DailyWatch>.Instance
        );
        Assert.Empty(await watch.Run(default));
        Assert.Empty(await watch.Run(default));
        var history = await shop.Get($"/api/listings/{listing}/history?marketId=longbarrow-us");
        Assert.Equal("2025-09-01", history["from"]!.GetValue<string>());
        Assert.Equal([market.Name], history["sources"]!.AsArray().Select(s => s!.GetValue<string>()));
        Assert.Equal(60, history["views"]!.AsArray().Count(v => v is not null));
    }

    [Fact]
    public async Task A_page_of_the_web_shop_is_known_among_results_by_its_address_and_by_its_title_with_what_the_site_adds()
    {
        using var shop = new TestShop(demo: true);
        var page = (await shop.Get("/api/pages"))["pages"]!
            .AsArray()
            .First(p => Text(p!, "slug").Length > 0 && p!["hasSuffix"]!.GetValue<bool>())!;
        var suffix = Text(await shop.Get("/api/site"), "titleSuffix");
        var listing = page["listingId"]!.GetValue<int>();
        await Search("owl perch", "An owl perch of a name that nobody has", Text(page, "address") + "?from=search");
        Assert.Equal(3, Number(await Find("owl perch"), "rank"));
        await Search("barn perch", Text(page, "name") + suffix, "https://lists.example/visit");
        Assert.Equal(3, Number(await Find("barn perch"), "rank"));

        async Task<JsonNode> Find(string term) =>
            (await shop.Get($"/api/listings/{listing}/checks?marketId=web-us"))["terms"]!.AsArray().Single(t => Text(t!, "key") == term)!;

        async Task Search(string term, string title, string url)
        {
            var results = Enumerable
                .Range(1, 6)
                .Select(i =>
                    i == 3
                        ? $"<li><a href=\"{url}\"><h3>{title}</h3></a><p>From $29.00</p></li>"
                        : $"<li><a href=\"https://shop{i}.example/perch\"><h3>Perch number {i} for barn owls</h3></a><p>From $2{i}.00</p></li>"
                );
            var html = $"<html><body><main><h1>1–6 of 6 results for “{term}”</h1><ul>{string.Concat(results)}</ul></main></body></html>";
            var files = await Bindery.Of(shop).Upload("web.html", System.Text.Encoding.UTF8.GetBytes(html));
            await shop.Post("/api/drops/add", new { files, marketId = "web-us" });
        }
    }

    [Fact]
    public async Task Files_that_add_up_never_hide_a_number_of_each_other()
    {
        var bindery = await Bindery.Open(_shop);
        await bindery.Add("results/notebook cover.html", "terms.csv");
        var term = await _shop.Get($"/api/markets/{Market}/term?text=notebook%20cover");
        Assert.Equal((2900, 12431), (Number(term["numbers"]!, "volume"), Number(term["numbers"]!, "competition")));
        await bindery.Add("results/notebook cover.html");
        term = await _shop.Get($"/api/markets/{Market}/term?text=notebook%20cover");
        Assert.Equal((2900, 12431), (Number(term["numbers"]!, "volume"), Number(term["numbers"]!, "competition")));
    }

    [Fact]
    public async Task All_is_written_or_nothing_and_twenty_pages_are_one_preview()
    {
        var bindery = await Bindery.Open(_shop);
        var names = Directory
            .GetFiles(Path.Combine(Repository.Root, "docs", "samples", "bindery", "results"))
            .Select(f => $"results/{Path.GetFileName(f)}")
            .ToArray();
        var files = await bindery.Upload(names);
        files.AddRange(await bindery.Upload("prose.bin", [1, 2, 3, 0, 5]));
        var views = await bindery.Look(files);
        Assert.Equal(names.Length + 1, views.Count);
        Assert.NotNull(views[^1]!["shown"]!["problem"]);
        await _shop.Post("/api/drops/add", new { files, marketId = Market }, 400);
        Assert.Null((await _shop.Dig(bindery.Product, Market, "notebook cover"))["known"]!["results"]);
        await bindery.Add(files, new[] { new { id = files[^1], isOut = true } });
        Assert.NotNull((await _shop.Dig(bindery.Product, Market, "wedding guest book"))["known"]!["results"]);
    }

    [Fact]
    public async Task Archives_are_unpacked_and_pictures_of_pages_come_with_them()
    {
        var bindery = await Bindery.Open(_shop);
        var page = await File.ReadAllTextAsync(
            Path.Combine(Repository.Root, "docs", "samples", "bindery", "results", "notebook cover.html")
        );
        page = page.Replace("pictures/notebook-cover.svg", "saved_files/a.png", StringComparison.Ordinal);
        var png = Convert.FromBase64String(
            "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
        );
        using var zip = new MemoryStream();
        using (var archive = new System.IO.Compression.ZipArchive(zip, System.IO.Compression.ZipArchiveMode.Create, true))
        {
            await using (var html = await archive.CreateEntry("my/saved.html").OpenAsync())
                await html.WriteAsync(System.Text.Encoding.UTF8.GetBytes(page));
            await using (var picture = await archive.CreateEntry("my/saved_files/a.png").OpenAsync())
                await picture.WriteAsync(png);
            await using (var script = await archive.CreateEntry("my/saved_files/x.js").OpenAsync())
                await script.WriteAsync(png);
        }

        var files = await bindery.Upload("saved.zip", zip.ToArray());
        Assert.Equal(2, files.Count);
        Assert.Single(await bindery.Look(files));
        await bindery.Add(files);
        var first = (await _shop.Get($"/api/markets/{Market}/term?text=notebook%20cover"))["seen"]!["first"]![0]!;
        using var shown = await _shop.Client.GetAsync($"/api/pictures/files/{Text(first, "picture")}");
        Assert.True(shown.IsSuccessStatusCode);

        var mhtml =
            "From: <Saved>\r\nMIME-Version: 1.0\r\nContent-Type: multipart/related; type=\"text/html\"; boundary=\"b\"\r\n\r\n--b\r\nContent-Type: text/html\r\nContent-Transfer-Encoding: base64\r\nContent-Location: https://weirstreet.example/find\r\n\r\n"
            + Convert.ToBase64String(System.Text.Encoding.UTF8.GetBytes(page), Base64FormattingOptions.InsertLineBreaks)
            + "\r\n--b\r\nContent-Type: image/png\r\nContent-Transfer-Encoding: base64\r\nContent-Location: saved_files/a.png\r\n\r\n"
            + Convert.ToBase64String(png)
            + "\r\n--b--\r\n";
        var saved = await bindery.Upload("find.mhtml", System.Text.Encoding.ASCII.GetBytes(mhtml));
        var view = Assert.Single(await bindery.Look(saved))!;
        Assert.Equal("A results page for “notebook cover”", Text(view["shown"]!, "title"));
        await bindery.Add(saved);
    }

    [Fact]
    public async Task Suggestions_keep_their_order_and_a_table_from_a_spreadsheet_is_its_text()
    {
        var bindery = await Bindery.Open(_shop);
        var pasted = await bindery.Paste("pen case leather\npen case canvas\npen case for school\n");
        var view = Assert.Single(await bindery.Look(pasted, term: "pen case"))!;
        Assert.Equal(("suggestions", "pen case"), (Text(view, "kind"), Text(view["shown"]!, "term")));
        await bindery.Add(pasted, term: "pen case");
        var dug = await _shop.Dig(bindery.Product, Market, "pen case");
        Assert.Equal(
            ["pen case leather", "pen case canvas", "pen case for school"],
            dug["rows"]!.AsArray().Where(r => r!["typed"] is not null).OrderBy(r => Number(r!, "typed")).Select(r => Text(r!, "text"))
        );

        var html = await bindery.Upload(
            "Pasted",
            "<table><tr><td>Keyword</td><td>Searches</td></tr><tr><td>pen roll</td><td>90</td></tr></table>"u8.ToArray()
        );
        var text = await bindery.Paste("Keyword\tSearches\npen roll\t90\n");
        var both = (
            await _shop.Post(
                "/api/drops/preview",
                new
                {
                    files = html,
                    textId = text[0],
                    marketId = Market,
                }
            )
        ).AsArray();
        Assert.Equal(("terms", "1 term"), (Text(Assert.Single(both)!, "kind"), Text(both[0]!["shown"]!, "title")));
    }

    [Fact]
    public async Task The_newest_page_counts_pages_of_a_search_belong_together_and_old_ones_are_to_look_up_again()
    {
        var bindery = await Bindery.Open(_shop);
        var today = DateOnly.FromDateTime(DateTime.UtcNow);
        await AddOn(today.AddDays(-60), Made(1, 4, 40, "Old cover"));
        Assert.Equal(["results"], await Needs());
        await AddOn(today.AddDays(-1), Made(5, 4, 44, "Later cover"));
        await AddOn(today, Made(1, 4, 44, "New cover"));
        var seen = (await _shop.Get($"/api/markets/{Market}/term?text=pen%20case"))["seen"]!;
        Assert.Equal((44, 8), (Number(seen, "found"), Number(seen, "looked")));
        Assert.Equal(["New cover 1", "Later cover 5"], new[] { 0, 4 }.Select(n => Text(seen["first"]![n]!, "title")));
        Assert.Empty(await Needs());

        static byte[] Made(int from, int count, int total, string name) =>
            System.Text.Encoding.UTF8.GetBytes(
                $"<h1>{from}–{from + count - 1} of {total} results for “pen case”</h1><ul>{string.Concat(Enumerable.Range(from, count).Select(n => $"<li><a href=/p/{name.Replace(' ', '-')}-{n}><h3>{name} {n}</h3></a><p>£{n + 9}.00</p></li>"))}</ul>"
            );

        async Task AddOn(DateOnly day, byte[] page)
        {
            var files = await bindery.Upload("page.html", page);
            await bindery.Add(files, new[] { new { id = files[0], day } });
        }

        async Task<IEnumerable<string>> Needs()
        {
            await _shop.Post(
                $"/api/products/{bindery.Product}/picks",
                new
                {
                    texts = new[] { "pen case" },
                    source = "pen case",
                    fit = (string?)null,
                    home = (string?)null,
                    note = (string?)null,
                }
            );
            var lookups = await _shop.Get($"/api/products/{bindery.Product}/lookups/{Market}");
            return lookups["terms"]!.AsArray().Single(t => Text(t!, "key") == "pen case")!["needs"]!.AsArray().Select(n => Text(n!));
        }
    }

    [Fact]
    public async Task A_popularity_rank_orders_terms_that_have_no_searches_below_those_that_have_some()
    {
        var bindery = await Bindery.Open(_shop);
        var table = "keyword,popularity,searches\nlinen cover,7,\nwaxed cover,2,\ncanvas cover,9,30\nfelt cover,,\n";
        await bindery.Add(await bindery.Upload("terms.csv", System.Text.Encoding.UTF8.GetBytes(table)));
        var shelf = await _shop.Post(
            $"/api/markets/{Market}/shelf",
            new
            {
                by = "volume",
                down = true,
                skip = 0,
                take = 10,
            }
        );
        Assert.Equal(["canvas cover", "waxed cover", "linen cover", "felt cover"], shelf["rows"]!.AsArray().Select(r => Text(r!, "text")));
    }

    [Fact]
    public async Task What_was_brought_in_goes_out_with_the_whole_shop_and_comes_back()
    {
        var bindery = await Bindery.Open(_shop);
        await bindery.Add("listings.csv", "results/notebook cover.html", "suggestions/notebook cover.txt", "listings/rival 1.html");
        await bindery.Add("reviews.csv");
        var zip = await _shop.Client.GetByteArrayAsync("/api/shop/export.zip");
        using var other = new TestShop(demo: false, isReal: true);
        using var upload = await other.Client.PostAsync("/api/shop/imports?name=shop.zip", new ByteArrayContent(zip));
        var import = JsonNode.Parse(await upload.Content.ReadAsStringAsync())!;
        var keys = import["items"]!.AsArray().Select(i => Text(i!, "key")).ToArray();
        Assert.Contains("recordings", keys);
        await other.Post($"/api/shop/imports/{import["id"]}/run", new { keys });
        var again = await other.Client.GetByteArrayAsync("/api/shop/export.zip");
        foreach (var name in (string[])["shop.json", "recordings.ndjson"])
            Assert.Equal(Entry(zip, name), Entry(again, name));

        static string Entry(byte[] archive, string name)
        {
            using var read = new System.IO.Compression.ZipArchive(new MemoryStream(archive));
            using var text = new StreamReader(read.GetEntry(name)!.Open());
            return text.ReadToEnd();
        }
    }

    private static Dictionary<string, string> Facts(JsonNode view) =>
        view["shown"]!["facts"]!.AsArray().ToDictionary(f => Text(f!, "name"), f => Text(f!, "text"));

    private static string[] Lines(string csv) => csv.Replace("\r\n", "\n", StringComparison.Ordinal).TrimEnd('\n').Split('\n');

    private static string Text(JsonNode node) => node.GetValue<string>();

    private static string Text(JsonNode node, string name) => node[name]!.GetValue<string>();

    private static int Number(JsonNode node, string name) => node[name]!.GetValue<int>();
}
