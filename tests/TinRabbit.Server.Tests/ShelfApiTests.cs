using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using MiniExcelLibs;

namespace TinRabbit.Server.Tests;

/// <summary>Shelf, imports, one term opened, words alike and mixed, over the API and a real database.</summary>
public sealed class ShelfApiTests : IDisposable
{
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    [Fact]
    public async Task What_own_listings_earned_by_a_term_is_imported_sorted_filtered_exported_and_kept()
    {
        const string Market = "marsh-and-moor-au";
        await Run(Market, await Begin(Market, "term,volume,listings\nlarch bat box,1300,210\nowl box,50,5\nroost,9,1\n"), "searches");
        var report = await Begin(Market, "Search term,Clicks,Orders,Revenue\nlarch bat box,12,1,34.50\nowl box,40,0,0\n");
        Assert.Equal(
            ["term", "clicks", "orders", "sales"],
            report["look"]!["columns"]!.AsArray().Select(c => c!["role"]!.GetValue<string>())
        );
        Assert.Equal((0, 2, 0, 0), Count(await Run(Market, report, "ads")));

        var byClicks = await shop.Shelf(Market, new { by = "clicks", down = true });
        Assert.Equal(["owl box", "larch bat box", "roost"], byClicks["rows"]!.AsArray().Select(r => r!["text"]!.GetValue<string>()));
        var larch = byClicks["rows"]![1]!["numbers"]!;
        // Its searches stay, with where they came from.
        Assert.Equal(
            (1300, 12, 1, 34.5m),
            (
                larch["volume"]!.GetValue<int>(),
                larch["clicks"]!.GetValue<int>(),
                larch["orders"]!.GetValue<int>(),
                larch["sales"]!.GetValue<decimal>()
            )
        );
        Assert.Contains("volume", larch["kept"]!.AsArray().Select(k => k!["field"]!.GetValue<string>()));
        Assert.Equal("high", larch["bands"]!["volume"]!.GetValue<string>());
        Assert.Single(
            (
                await shop.Shelf(
                    Market,
                    new
                    {
                        by = "sales",
                        down = true,
                        ordersFrom = 1,
                    }
                )
            )["rows"]!.AsArray()
        );
        // A table of searches later keeps what they earned.
        await Run(Market, await Begin(Market, "term,volume\nlarch bat box,1500\n"), "searches");
        var rows = (
            await shop.Shelf(
                Market,
                new
                {
                    by = "sales",
                    down = true,
                    salesFrom = 1,
                }
            )
        )["rows"]!.AsArray();
        Assert.Equal((1500, 34.5m), (rows[0]!["numbers"]!["volume"]!.GetValue<int>(), rows[0]!["numbers"]!["sales"]!.GetValue<decimal>()));
        var file = await (
            await shop.Client.PostAsJsonAsync($"/api/markets/{Market}/shelf/export.csv", new { by = "clicks", down = true })
        ).Content.ReadAsStringAsync();
        Assert.Contains("larch bat box,1500,210,,,12,1,34.5", file);
    }

    [Fact]
    public async Task A_table_is_looked_at_corrected_imported_once_and_again_changes_nothing()
    {
        const string Market = "marsh-and-moor-au";
        var view = await Begin(
            Market,
            "Suchbegriff;Volumen;Anbieter\nlarch bat box;1.300;210\nbat;viele;9\nLarch Bat-Box;5;5\nroost;< 10;\n"
        );
        // The third column has no name that is known: whoever knows says what it is.
        Assert.Equal(["term", "volume", "ignore"], view["look"]!["columns"]!.AsArray().Select(c => c!["role"]!.GetValue<string>()));
        var look = view["look"]!.DeepClone();
        look["columns"]![2]!["role"] = "competition";
        view = await shop.Post(
            $"/api/markets/{Market}/imports/{view["id"]}/look",
            new
            {
                look,
                encoding = (string?)null,
                separator = (string?)null,
            }
        );
        Assert.Equal(210, view["terms"]![0]!["competition"]!.GetValue<int>());
        Assert.Equal(3, view["bad"]![0]!["row"]!.GetValue<int>());

        var done = await Run(Market, view, "field notes");
        Assert.Equal((2, 0, 0, 1), Count(done));
        Assert.Equal((1, 1), (done["bad"]!.GetValue<int>(), done["bounds"]!.GetValue<int>()));
        Assert.Contains("“viele”", done["badRows"]![0]!["reason"]!.GetValue<string>());
        var bad = await shop.Client.GetStringAsync($"/api/markets/{Market}/imports/{view["id"]}/bad.csv");
        Assert.Contains("3,“viele” in column 2 is not a number (searches),bat,viele,9", bad);

        var shelf = await shop.Shelf(
            Market,
            new
            {
                has = "",
                by = "volume",
                down = true,
            }
        );
        Assert.Equal(["larch bat box", "roost"], shelf["rows"]!.AsArray().Select(r => r!["text"]!.GetValue<string>()));
        Assert.Equal(
            (1300, "field notes"),
            (shelf["rows"]![0]!["numbers"]!["volume"]!.GetValue<int>(), shelf["rows"]![0]!["numbers"]!["source"]!.GetValue<string>())
        );
        Assert.Null(shelf["rows"]![1]!["numbers"]!["volume"]);
        Assert.Equal(2, shelf["norm"]!["readings"]!.GetValue<int>()); // "< 10" is a reading with a bound

        Assert.Equal((0, 0, 2, 1), Count(await Run(Market, view, "field notes")));
        var other = await Begin(Market, "term,volume,listings\nlarch bat box,1400,210\nowl box,5,5\n");
        Assert.Equal((1, 1, 0, 0), Count(await Run(Market, other, "field notes")));
        var term = await shop.Get($"/api/markets/{Market}/term?text=larch+bat+box");
        Assert.Equal([1400, 1300], term["readings"]!.AsArray().Select(r => r!["volume"]!.GetValue<int>())); // the old one is kept
    }

    [Fact]
    public async Task Months_in_columns_become_a_year_and_pasted_bytes_are_a_table_too()
    {
        const string Market = "longbarrow-gb";
        var months = Enumerable.Range(0, 24).Select(i => $"{2024 + i / 12}-{i % 12 + 1:00}").ToArray();
        var values = Enumerable.Range(0, 24).Select(i => i % 12 is 1 or 2 ? 900 : 100).ToArray();
        var view = await Begin(Market, $"query\t{string.Join('\t', months)}\nquill pen\t{string.Join('\t', values)}\n");
        await Run(Market, view, null);
        var term = await shop.Get($"/api/markets/{Market}/term?text=quill+pen");
        Assert.Equal("seasonal", term["year"]!["shape"]!.GetValue<string>());
        Assert.Equal("[2,3]", term["year"]!["peakMonths"]!.ToJsonString());
        Assert.Null(term["numbers"]!["volume"]);
        Assert.Equal("2024-01-01", term["numbers"]!["from"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_file_that_breaks_off_takes_nothing()
    {
        const string Market = "chalk-shelf-gb";
        var view = await Begin(Market, "term,volume\nbird house,5\nnest box,7\n");
        await File.AppendAllTextAsync(
            Path.Combine(shop.Folder, "imports", view["id"]!.GetValue<string>()),
            "\"owl" + new string('x', 3_000_000)
        );
        var done = await Run(Market, view, null);
        Assert.Contains("Row 4 is longer than 1,024 KB", done["problem"]!.GetValue<string>());
        Assert.Equal(0, (await shop.Shelf(Market, new { }))["all"]!.GetValue<int>());
        await shop.Post($"/api/markets/{Market}/imports/{Guid.NewGuid():N}/look", new { look = (object?)null }, 404);
        using var empty = await shop.Client.PostAsync($"/api/markets/{Market}/imports", new StringContent("", Encoding.UTF8, "text/csv"));
        Assert.Equal(400, (int)empty.StatusCode);
        var wrong = view["look"]!.DeepClone();
        wrong["columns"]![0]!["role"] = "volume";
        await shop.Post($"/api/markets/{Market}/imports/{view["id"]}/run", new { look = wrong, source = "x" }, 400);
    }

    [Fact]
    public async Task An_import_that_is_stopped_leaves_the_shelf_as_it_was()
    {
        const string Market = "chalk-shelf-au";
        var rows = new StringBuilder("term,volume\n");
        for (var i = 0; i < 200_000; i++)
            rows.Append($"bird house {i},{i}\n");
        var view = await Begin(Market, rows.ToString());
        using var stop = new CancellationTokenSource();
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/markets/{Market}/imports/{view["id"]}/run")
        {
            Content = JsonContent.Create(new { look = view["look"], source = "x" }),
        };
        using var response = await shop.Client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, stop.Token);
        await stop.CancelAsync();
        response.Dispose();
        await Task.Delay(1500);
        Assert.Equal(0, (await shop.Shelf(Market, new { }))["all"]!.GetValue<int>());
        Assert.Equal((200000, 0, 0, 0), Count(await Run(Market, view, "x")));
    }

    [Fact]
    public async Task What_is_shown_goes_out_as_csv_and_xlsx_and_formulas_are_made_harmless()
    {
        const string Market = "overprint-lane-gb";
        await shop.Post(
            $"/api/markets/{Market}/paste",
            new { text = "=heron shirt; 30; 5\n+heron tee; 20\nheron mug; 10; 1", source = "@list" }
        );
        var query = new
        {
            has = "heron",
            by = "volume",
            down = true,
        };
        var csv = await (await shop.Client.PostAsJsonAsync($"/api/markets/{Market}/shelf/export.csv", query)).Content.ReadAsStringAsync();
        var lines = csv.TrimStart('\uFEFF').Split("\r\n");
        Assert.StartsWith("Term,Searches/mo,Competing listings", lines[0]);
        Assert.StartsWith("\"'=heron shirt\",30,5,", lines[1]);
        Assert.Contains(",\"'@list\",", lines[1]);
        Assert.StartsWith("\"'+heron tee\",20,,", lines[2]);
        var file = Path.Combine(shop.Folder, "out.xlsx");
        await File.WriteAllBytesAsync(
            file,
            await (await shop.Client.PostAsJsonAsync($"/api/markets/{Market}/shelf/export.xlsx", query)).Content.ReadAsByteArrayAsync()
        );
        var rows = MiniExcel.Query(file, useHeaderRow: true).Cast<IDictionary<string, object>>().ToList();
        Assert.Equal(["'=heron shirt", "'+heron tee", "heron mug"], rows.Select(r => r["Term"]));
        Assert.Equal(30d, Convert.ToDouble(rows[0]["Searches/mo"]));

        // And what went out comes back in as it was.
        var view = await Begin(Market, csv);
        Assert.Equal(["=heron shirt", "+heron tee", "heron mug"], view["terms"]!.AsArray().Select(t => t!["text"]!.GetValue<string>()));
    }

    [Fact]
    public async Task What_was_found_and_lies_on_no_shelf_is_told_and_goes_out_too()
    {
        const string Market = "marsh-and-moor-gb";
        await shop.Post($"/api/markets/{Market}/paste", new { text = "reed cabin; 40; 4", source = "list" });
        var query = new
        {
            also = new[] { "reed cabin", "dovecote" },
            by = "volume",
            down = true,
            take = 10,
        };
        var shelf = await shop.Shelf(Market, query);
        Assert.Equal(["reed cabin"], shelf["rows"]!.AsArray().Select(r => r!["text"]!.GetValue<string>()));
        Assert.Equal(["dovecote"], shelf["absent"]!.AsArray().Select(k => k!.GetValue<string>()));
        var csv = await (await shop.Client.PostAsJsonAsync($"/api/markets/{Market}/shelf/export.csv", query)).Content.ReadAsStringAsync();
        Assert.Equal("dovecote,,,,,,,,,,,,,", csv.Split("\r\n")[2]); // unknown, not zero
        Assert.Equal(404, (int)(await shop.Client.PostAsJsonAsync($"/api/markets/{Market}/shelf/export.doc", query)).StatusCode);
        Assert.Equal(1, (await shop.Get($"/api/markets/{Market}/sources"))["list"]!.GetValue<int>());
        var only = await shop.Shelf(
            Market,
            new
            {
                source = "nobody",
                by = "text",
                down = false,
                take = 10,
            }
        );
        Assert.Equal(0, only["passing"]!.GetValue<int>());
    }

    [Fact]
    public async Task A_shelf_is_sorted_and_filtered_by_how_terms_have_moved_and_by_the_web()
    {
        string[] texts = ["bird house", "bird feeder", "nest box", "owl box", "bird bath", "wren house", "bat box", "garden birds"];
        foreach (var market in new[] { "hedgerow-fair-us", "web-us" })
            await shop.Post($"/api/markets/{market}/measure", new { texts });
        const string Market = "hedgerow-fair-us";
        var rising = (await shop.Shelf(Market, new { by = "change12" }))["rows"]!.AsArray();
        var changes = rising.Select(r => r!["numbers"]!["trend"]?["change12"]?.GetValue<double>()).ToList();
        Assert.True(changes.Count(c => c is not null) >= 5);
        Assert.Equal(changes.Where(c => c is not null).OrderByDescending(c => c).Concat(changes.Where(c => c is null)), changes);
        var shape = rising.Select(r => r!["numbers"]!["trend"]?["shape"]?.GetValue<string>()).First(s => s is not null)!;
        var alike = (await shop.Shelf(Market, new { shape, change12From = changes.Min() }))["rows"]!.AsArray();
        Assert.NotEmpty(alike);
        Assert.All(alike, r => Assert.Equal(shape, r!["numbers"]!["trend"]!["shape"]!.GetValue<string>()));

        // What the web's shelf says is taken in again after it has changed.
        var web = (await shop.Shelf(Market, new { by = "webVolume" }))["rows"]!.AsArray();
        var volumes = web.Select(r => r!["numbers"]!["webVolume"]?.GetValue<long>() ?? -1).ToList();
        Assert.Equal(volumes.OrderDescending(), volumes);
        Assert.True(volumes[0] > 0);
        await shop.Post("/api/markets/web-us/paste", new { text = "owl box\t999999999", source = "test" });
        var first = (await shop.Shelf(Market, new { by = "webVolume", webVolumeFrom = 1_000_000 }))["rows"]!.AsArray();
        Assert.Equal(["owl box"], first.Select(r => r!["text"]!.GetValue<string>()));
    }

    [Fact]
    public async Task Any_table_goes_out_as_it_is_shown()
    {
        var table = new
        {
            name = "Picks",
            heads = new[] { "Pick", "Grip" },
            rows = new[] { new[] { "=owl", "61.5" }, ["wren, box", ""] },
        };
        using var csv = await shop.Client.PostAsJsonAsync("/api/tables/export.csv", table);
        Assert.Equal("Pick,Grip\n\"'=owl\",61.5\n\"wren, box\",\n", (await csv.Content.ReadAsStringAsync()).ReplaceLineEndings("\n"));
        using var xlsx = await shop.Client.PostAsJsonAsync("/api/tables/export.xlsx", table);
        using var file = new MemoryStream(await xlsx.Content.ReadAsByteArrayAsync());
        var first = (IDictionary<string, object>)file.Query(useHeaderRow: true).First();
        Assert.Equal(
            ("'=owl", 61.5),
            ((string)first["Pick"], Convert.ToDouble(first["Grip"], System.Globalization.CultureInfo.InvariantCulture))
        );
        await shop.Post(
            "/api/tables/export.csv",
            new
            {
                name = "Picks",
                heads = new[] { "Pick" },
                rows = new[] { new[] { "a", "b" } },
            },
            400
        );
        await shop.Post("/api/tables/export.pdf", table, 404);
    }

    [Fact]
    public async Task Filters_are_kept_under_a_name()
    {
        var kept = await shop.Post("/api/filters", new { name = " Worth it ", filters = "volume=100&headroom=55" });
        await shop.Post("/api/filters", new { name = "Worth it", filters = "volume=200" }); // the same name is the same filter
        Assert.Equal("volume=200", Assert.Single((await shop.Get("/api/filters")).AsArray())!["filters"]!.GetValue<string>());
        await shop.Post("/api/filters", new { name = " ", filters = "" }, 400);
        await shop.Client.DeleteAsync($"/api/filters/{kept["id"]}");
        Assert.Empty((await shop.Get("/api/filters")).AsArray());
    }

    [Fact]
    public async Task One_term_is_opened_with_its_year_family_results_and_countries()
    {
        var term = await shop.Get("/api/markets/hedgerow-fair-us/term?text=bird+house");
        Assert.Equal("seasonal", term["year"]!["shape"]!.GetValue<string>());
        Assert.NotNull(term["year"]!["readyBy"]);
        var family = term["family"]!.AsArray();
        Assert.Contains(family, f => f!["text"]!.GetValue<string>() == "birdhouse");
        var strongest = Assert.Single(family, f => f!["strongest"]!.GetValue<bool>())!;
        Assert.Equal(family.Max(f => f!["volume"]?.GetValue<long>() ?? 0), strongest["volume"]!.GetValue<long>());
        var seen = term["seen"]!;
        Assert.Equal(100, seen["looked"]!.GetValue<int>());
        Assert.True(
            seen["prices"]!
                .AsArray()
                .Select(p => p!.GetValue<decimal>())
                .SequenceEqual(seen["prices"]!.AsArray().Select(p => p!.GetValue<decimal>()).Order())
        );
        Assert.InRange(seen["shippingIncluded"]!.GetValue<double>(), 0.1, 0.9);
        Assert.DoesNotContain(seen["words"]!.AsArray(), w => w!["text"]!.GetValue<string>() is "bird" or "bird house");

        var countries = (await shop.Get("/api/markets/longbarrow-us/countries?text=gray+bird+house")).AsArray();
        Assert.Equal(
            ["longbarrow-us", "longbarrow-gb", "longbarrow-au", "web-us", "web-gb", "web-au"],
            countries.Select(c => c!["marketId"]!.GetValue<string>())
        );
        Assert.NotNull(countries[0]!["own"]!["volume"]);
        Assert.Null(countries[1]!["own"]!["volume"]);
        Assert.StartsWith("grey bird", countries[1]!["spelling"]!.GetValue<string>()); // what is typed there
        Assert.Equal(404, (int)(await shop.Client.GetAsync("/api/markets/moon/term?text=x")).StatusCode);
    }

    [Fact]
    public async Task A_dig_goes_on_line_by_line_says_how_far_and_ends_with_what_sellers_use()
    {
        var product = await shop.AddProduct();
        var lines = await shop.Lines(
            $"/api/products/{product}/dig",
            new
            {
                marketId = "longbarrow-us",
                text = "bird bath",
                parentId = (int?)null,
            }
        );
        Assert.Equal("bird bath", lines[0]["rows"]![0]!["text"]!.GetValue<string>());
        Assert.Equal((1, 29), (lines[0]["done"]!.GetValue<int>(), lines[0]["of"]!.GetValue<int>()));
        Assert.StartsWith("Getting suggestions for “bird bath", lines[0]["doing"]!.GetValue<string>());
        Assert.True(lines.Select(l => l["done"]!.GetValue<int>()).SequenceEqual(lines.Select(l => l["done"]!.GetValue<int>()).Order()));
        Assert.Null(lines[^1]["doing"]);
        var last = lines[^1]["rows"]!.AsArray();
        var head = last.Single(r => r!["key"]!.GetValue<string>() == "bird bath")!;
        Assert.Equal(head["sellers"]!["among"]!.GetValue<int>(), head["sellers"]!["count"]!.GetValue<int>());
        Assert.Contains(last, r => r!["typed"] is null && r["sellers"] is not null); // words that only sellers use
        Assert.Contains(last, r => r!["typed"] is not null && r["sellers"] is not null); // and some that both do
        // Places among what is typed are counted on from the first answer of the box.
        Assert.Equal(
            Enumerable.Range(1, last.Count(r => r!["typed"] is not null)),
            last.Select(r => r!["typed"]?.GetValue<int>()).OfType<int>().Order()
        );
    }

    [Fact]
    public async Task A_large_shelf_is_searched_sorted_and_paged_by_the_server()
    {
        const string Market = "chalk-shelf-us";
        var rows = new StringBuilder("term,volume,listings\n");
        for (var i = 0; i < 120_000; i++)
            rows.Append($"sheet {(char)('a' + i % 26)}{i},{i * 7919 % 120_011},{i % 977}\n");
        await Run(Market, await Begin(Market, rows.ToString()), "list");
        var first = await shop.Shelf(
            Market,
            new
            {
                has = "sheet a",
                by = "volume",
                down = true,
                take = 200,
            }
        );
        var passing = first["passing"]!.GetValue<int>();
        Assert.Equal(120_000, first["all"]!.GetValue<int>());
        Assert.Equal(Enumerable.Range(0, 120_000).Count(i => i % 26 == 0), passing);
        var seen = new List<long>();
        for (var skip = 0; skip < passing; skip += 2000)
            seen.AddRange((
                    await shop.Shelf(
                        Market,
                        new
                        {
                            has = "sheet a",
                            by = "volume",
                            down = true,
                            skip,
                            take = 2000,
                        }
                    )
                )["rows"]!.AsArray().Select(r => r!["numbers"]!["volume"]!.GetValue<long>()));
        Assert.Equal(passing, seen.Count);
        Assert.Equal(seen.OrderDescending(), seen);
        var bounded = await shop.Shelf(
            Market,
            new
            {
                has = "sheet -a",
                volumeFrom = 1000,
                volumeTo = 50_000,
                competitionTo = 100,
                by = "competition",
                down = false,
                take = 50,
            }
        );
        Assert.All(
            bounded["rows"]!.AsArray(),
            r =>
            {
                Assert.DoesNotContain("sheet a", r!["text"]!.GetValue<string>());
                Assert.InRange(r["numbers"]!["volume"]!.GetValue<long>(), 1000, 50_000);
                Assert.InRange(r["numbers"]!["competition"]!.GetValue<long>(), 0, 100);
            }
        );
        // A dig beside all of it still puts its few terms in their places.
        await shop.Post($"/api/markets/{Market}/paste", new { text = "sheet aaa; 999999; 1", source = "x" });
        Assert.Equal(
            "sheet aaa",
            (
                await shop.Shelf(
                    Market,
                    new
                    {
                        has = "sheet a",
                        by = "volume",
                        down = true,
                        take = 1,
                    }
                )
            )["rows"]![0]!["text"]!.GetValue<string>()
        );
    }

    [Fact]
    public async Task A_stay_shows_nights_taken_and_no_sales()
    {
        var seen = (await shop.Get("/api/markets/marsh-and-moor-us/term?text=wildlife+cabin"))["seen"]!;
        Assert.Null(seen["sales"]);
        Assert.InRange(seen["occupancy"]!.GetValue<double>(), 0.3, 0.9);
    }

    [Fact]
    public async Task A_number_put_right_by_hand_counts_keeps_the_old_and_can_be_taken_back()
    {
        const string Market = "longbarrow-us";
        var product = await shop.AddProduct();
        await shop.Dig(product, Market, "owl house");
        var before = await shop.Get($"/api/markets/{Market}/term?text=owl+house");
        var right = await shop.Post(
            $"/api/markets/{Market}/correct",
            new
            {
                text = "owl house",
                volume = 77,
                competition = (long?)null,
                titlesHolding = 3,
                clickCost = 0.5,
            }
        );
        Assert.Equal((77, "by hand"), (right["volume"]!.GetValue<int>(), right["source"]!.GetValue<string>()));
        Assert.Null(right["competition"]);
        Assert.Equal(before["numbers"]!["months"]!.ToJsonString(), right["months"]!.ToJsonString());
        // Digging again does not undo what a person put right.
        var dug = await shop.Dig(product, Market, "owl house");
        Assert.Equal(77, dug["rows"]![0]!["numbers"]!["volume"]!.GetValue<int>());
        var readings = (await shop.Get($"/api/markets/{Market}/term?text=owl+house"))["readings"]!.AsArray();
        Assert.Equal([true, false], readings.Select(r => r!["counts"]!.GetValue<bool>()));
        var back = await shop.Post($"/api/markets/{Market}/readings/{readings[1]!["id"]}/use", new { });
        Assert.Equal(before["numbers"]!["volume"]!.ToJsonString(), back["volume"]!.ToJsonString());
        await shop.Post(
            $"/api/markets/{Market}/correct",
            new
            {
                text = "owl house",
                volume = -1,
                competition = (long?)null,
                titlesHolding = (long?)null,
                clickCost = (decimal?)null,
            },
            400
        );
    }

    [Fact]
    public async Task Numbers_that_do_not_sit_say_why()
    {
        const string Market = "overprint-lane-au";
        var lines = Enumerable.Range(1, 40).Select(i => $"heron thing {i},{i * 10},{i * 20},3");
        await Run(
            Market,
            await Begin(Market, "term,volume,listings,titles\n" + string.Join('\n', lines) + "\nheron absurd,300,2,900\n"),
            "list"
        );
        var doubts = (await shop.Get($"/api/markets/{Market}/term?text=heron+absurd"))["numbers"]!["doubts"]!.AsArray();
        Assert.Equal(["titles", "competition"], doubts.Select(d => d!["kind"]!.GetValue<string>()));
        Assert.Contains("900 titles contain the exact phrase, but only 2 listings", doubts[0]!["why"]!.GetValue<string>());
        Assert.Empty((await shop.Get($"/api/markets/{Market}/term?text=heron+thing+20"))["numbers"]!["doubts"]!.AsArray());
    }

    [Theory]
    // Where the market knows the term, a meaning that nobody searches for is set apart; where it knows nothing, the likeliest is not.
    [InlineData("bird bath", true)]
    [InlineData("zebra saddle", false)]
    public async Task Related_words_are_used_in_the_meanings_that_are_searched_for(string term, bool isKnown)
    {
        var alike = (await shop.Get($"/api/markets/hedgerow-fair-us/alike?text={Uri.EscapeDataString(term)}")).AsArray();
        var words = alike.SelectMany(a => a!["alike"]!.AsArray()).ToList();
        var used = words.Where(w => w!["isUsed"]!.GetValue<bool>()).ToList();
        Assert.NotEmpty(words);
        Assert.Equal(isKnown, used.Count == 0);
        Assert.True(used.Count < words.Count);
        Assert.All(words.Except(used), w => Assert.Null(w!["numbers"]!["volume"]));
    }

    [Fact]
    public async Task Words_alike_and_mixtures_are_measured_and_what_is_unknown_says_so()
    {
        var alike = (await shop.Get("/api/markets/hedgerow-fair-us/alike?text=small+bird+house")).AsArray();
        var small = alike.Single(a => a!["word"]!.GetValue<string>() == "small")!["alike"]!.AsArray();
        var large = small.Single(a =>
            a!["term"]!.GetValue<string>() == "mini bird house" || a["term"]!.GetValue<string>() == "little bird house"
        )!;
        Assert.Equal("adjective", large["part"]!.GetValue<string>());

        var product = (
            await shop.Post(
                "/api/products",
                new
                {
                    name = "Box",
                    facts = new { what = "bird house", materials = new[] { "larch", "cedar" } },
                    pictures = (object?)null,
                }
            )
        )["id"]!.GetValue<int>();
        var grid = await shop.Get($"/api/products/{product}/grid/hedgerow-fair-us?head=bird+house");
        Assert.Equal("bird house", grid["heads"]![0]!.GetValue<string>());
        Assert.Equal(
            ["material", "style", "colour", "size", "audience", "occasion", "property"],
            grid["facets"]!.AsArray().Select(f => f!["facet"]!.GetValue<string>())
        );
        var rows = grid["facets"]![0]!["rows"]!.AsArray();
        // What is true of it comes first: larch and cedar, and so wood; copper is not.
        Assert.Equal(
            ["cedar", "larch", "wood"],
            rows.Where(r => r!["own"]!.GetValue<bool>()).Select(r => r!["word"]!.GetValue<string>()).Order()
        );
        Assert.True(rows.Take(3).All(r => r!["own"]!.GetValue<bool>()));
        var cedar = rows.Single(r => r!["word"]!.GetValue<string>() == "cedar")!["cells"]![0]!;
        Assert.Equal("cedar bird house", cedar["text"]!.GetValue<string>());
        Assert.True(cedar["numbers"]!["volume"]!.GetValue<long>() > 0);
        Assert.Null(rows.Single(r => r!["word"]!.GetValue<string>() == "larch")!["cells"]![0]!["numbers"]!["volume"]);
        Assert.Contains(grid["facets"]![4]!["rows"]!.AsArray(), r => r!["cells"]![0]!["text"]!.GetValue<string>() == "bird house for kids"); // after the head, where it is typed so
    }

    private async Task<JsonNode> Begin(string market, string text)
    {
        using var response = await shop.Client.PostAsync(
            $"/api/markets/{market}/imports?name=terms.csv",
            new StringContent(text, new UTF8Encoding(false), "application/octet-stream")
        );
        var answer = await response.Content.ReadAsStringAsync();
        Assert.True(response.IsSuccessStatusCode, answer);
        return JsonNode.Parse(answer)!;
    }

    private static (int New, int Changed, int Same, int Repeated) Count(JsonNode done)
    {
        int Of(string key) => done["count"]![key]!.GetValue<int>();
        return (Of("new"), Of("changed"), Of("same"), Of("repeated"));
    }

    private async Task<JsonNode> Run(string market, JsonNode view, string? source) =>
        (await shop.Lines($"/api/markets/{market}/imports/{view["id"]}/run", new { look = view["look"], source }))[^1];
}
