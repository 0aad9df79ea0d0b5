using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>Fills, findings, takes, versions and sending, over the API and a real database.</summary>
public sealed class WriteApiTests : IDisposable
{
    private readonly TestShop shop = new();

    public void Dispose() => shop.Dispose();

    private const string Market = "longbarrow-us";

    private async Task<(int Product, int Listing)> Listing(string platform = "longbarrow")
    {
        var product = await shop.AddProduct();
        return (product, await shop.ListingOf(product, platform));
    }

    private Task<JsonNode> Save(int listing, object fields, int revision, string? keep = null, int status = 200) =>
        shop.Put(
            $"/api/listings/{listing}/copy",
            new
            {
                fields,
                revision,
                keep,
            },
            status
        );

    private static string[] Texts(JsonNode list, string key) => [.. list.AsArray().Select(i => i![key]!.GetValue<string>())];

    [Fact]
    public async Task What_comes_next_follows_the_state_of_the_listing_and_can_be_put_off_and_brought_back()
    {
        var (product, listing) = await Listing("hedgerow-fair");
        const string Fair = "hedgerow-fair-us";
        Assert.Equal("pickTerms", (await Next())[0]!["kind"]!.GetValue<string>());
        await shop.Dig(product, Fair, "bird house");
        await shop.Pick(product, ["bird house", "nesting box", "wren house"]);
        await Save(listing, new { title = "Cedar box" }, 0);
        var steps = await Next();
        Assert.DoesNotContain(steps, s => s!["kind"]!.GetValue<string>() == "pickTerms");
        var lead = steps.Single(s => s!["kind"]!.GetValue<string>() == "chooseLead")!;
        Assert.Contains(lead["lead"]!.GetValue<string>(), lead["text"]!.GetValue<string>());

        // A move gains what weighing the text with it says.
        var move = steps.Single(s => s!["kind"]!.GetValue<string>() == "move")!;
        var after = await shop.Post(
            $"/api/listings/{listing}/weigh",
            new
            {
                marketId = Fair,
                fields = new JsonObject
                {
                    ["title"] = "Cedar box",
                    [move["move"]!["field"]!.GetValue<string>()] = move["move"]!["value"]!.DeepClone(),
                },
            }
        );
        var before = await shop.Post($"/api/listings/{listing}/weigh", new { marketId = Fair, fields = new { title = "Cedar box" } });
        Assert.Equal(after["grip"]!.GetValue<double>() - before["grip"]!.GetValue<double>(), move["move"]!["gain"]!.GetValue<double>(), 6);

        var first = steps[0]!["kind"]!.GetValue<string>();
        await shop.Post($"/api/listings/{listing}/next/putoff", new { kind = first });
        Assert.DoesNotContain(await Next(), s => s!["kind"]!.GetValue<string>() == first);
        await shop.Post($"/api/changes/undo?sure=true&product={product}", new { });
        Assert.Equal(first, (await Next())[0]!["kind"]!.GetValue<string>());

        async Task<JsonArray> Next() =>
            (await shop.Post($"/api/listings/{listing}/next", new { marketId = Fair, fields = (object?)null }))["steps"]!.AsArray();
    }

    [Fact]
    public async Task Picks_are_placed_with_the_text_and_the_gain_of_each_way_and_what_is_no_pick_is_refused()
    {
        var (product, listing) = await Listing();
        await shop.Dig(product, Market, "bird house");
        await shop.Pick(product, ["bird house", "nesting box", "wren house"]);
        var fields = new { title = "Cedar box" };
        var places = await shop.Post(
            $"/api/listings/{listing}/places",
            new
            {
                marketId = Market,
                fields,
                texts = new[] { "bird house", "Nesting Box" },
            }
        );
        var before = await shop.Post($"/api/listings/{listing}/weigh", new { marketId = Market, fields });
        var ways = places["ways"]!.AsArray();
        Assert.Contains(ways, w => w!["field"]?.GetValue<string>() == "title" && Texts(w!["fields"]!, "after")[0].Contains("ird house"));
        foreach (var way in ways)
        {
            var changed = JsonNode.Parse("""{"title":"Cedar box"}""")!.AsObject();
            foreach (var field in way!["fields"]!.AsArray())
                changed[field!["key"]!.GetValue<string>()] = field["value"]!.DeepClone();
            var after = await shop.Post($"/api/listings/{listing}/weigh", new { marketId = Market, fields = changed });
            Assert.Equal(after["grip"]!.GetValue<double>() - before["grip"]!.GetValue<double>(), way["gain"]!.GetValue<double>(), 6);
        }

        await shop.Post(
            $"/api/listings/{listing}/places",
            new
            {
                marketId = Market,
                fields,
                texts = new[] { "owl ladder" },
            },
            400
        );
        await shop.Post(
            $"/api/listings/{listing}/places",
            new
            {
                marketId = Market,
                fields,
                texts = Array.Empty<string>(),
            },
            400
        );
    }

    [Fact]
    public async Task A_fill_says_what_it_opens_and_how_near_the_best_it_is()
    {
        var (product, listing) = await Listing();
        await shop.Dig(product, Market, "bird house");
        await shop.Pick(product, ["bird house", "cedar bird house", "nesting box"]);
        await shop.Pick(product, ["bluebird house"], home: "avoid");
        var fill = await shop.Post(
            $"/api/listings/{listing}/fill/backend",
            new { marketId = Market, fields = new { title = "Cedar box" } }
        );
        Assert.Equal(["bird", "house", "nesting"], fill["pieces"]!.AsArray().Select(p => p!.GetValue<string>()).Order());
        Assert.Equal(fill["gain"]!.GetValue<double>(), fill["bound"]!.GetValue<double>(), 6);
        var weighed = await shop.Post(
            $"/api/listings/{listing}/weigh",
            new { marketId = Market, fields = new { title = "Cedar box", backend = fill["value"]!.GetValue<string>() } }
        );
        Assert.All(weighed["terms"]!.AsArray(), t => Assert.NotEqual("missing", t!["grade"]!.GetValue<string>()));
        Assert.Equal(240, fill["limit"]!.GetValue<int>());
        var bullets = await shop.Post(
            $"/api/listings/{listing}/fill/bullets",
            new { marketId = Market, fields = new { title = "Cedar box", bullets = new[] { "Warm." } } }
        );
        Assert.Equal("Warm.", bullets["value"]![0]!.GetValue<string>());
        Assert.Contains("bird house", bullets["value"]![1]!.GetValue<string>());
        Assert.Contains(
            "does not search Description",
            (await shop.Post($"/api/listings/{listing}/fill/description", new { marketId = Market, fields = new { } }, 400)).ToJsonString()
        );
        await shop.Post($"/api/listings/{listing}/fill/nowhere", new { marketId = Market, fields = new { } }, 400);
    }

    [Fact]
    public async Task What_the_seller_wants_in_the_backend_is_not_said_in_the_title_unless_there_is_no_backend()
    {
        async Task<(string Title, string[] LeftOut)> TitleOn(string platform)
        {
            var (product, listing) = await Listing(platform);
            await shop.Pick(product, ["bird house", "cedar bird house"]);
            await shop.Pick(product, ["bird house kit"], home: "backend");
            await shop.Put($"/api/listings/{listing}/lead", new { key = "cedar bird house" }, 204);
            var fill = await shop.Post($"/api/listings/{listing}/fill/title", new { marketId = $"{platform}-us", fields = new { } });
            return (
                fill["takes"]![0]!["text"]!.GetValue<string>(),
                [.. fill["leftOut"]!.AsArray().Select(l => $"{l!["reason"]}: {l["text"]}")]
            );
        }
        var (withBackend, leftOut) = await TitleOn("longbarrow");
        Assert.Equal("Cedar bird house", withBackend);
        Assert.Equal(["home: bird house kit"], leftOut);
        var (without, none) = await TitleOn("hedgerow-fair");
        Assert.Contains("kit", without, StringComparison.Ordinal);
        Assert.Empty(none);
    }

    [Fact]
    public async Task A_word_that_claims_nothing_in_this_shop_is_no_finding_and_that_can_be_undone()
    {
        var (product, listing) = await Listing();
        await shop.SaveFacts(product, new { what = "nest box", materials = new[] { "cedar" } });
        async Task<bool> IsClaimed() =>
            (
                await shop.Post(
                    $"/api/listings/{listing}/check",
                    new { marketId = Market, fields = new { title = "Oak nest box", description = "A box." } }
                )
            )["findings"]!
                .AsArray()
                .Any(f => f!["claim"]?["word"]?.GetValue<string>().ToLowerInvariant() == "oak");
        Assert.True(await IsClaimed());
        var changed = await shop.Post(
            "/api/shop/words",
            new
            {
                word = "oak",
                facet = (string?)null,
                forget = false,
            }
        );
        Assert.False(await IsClaimed());
        Assert.Equal("oak", (await shop.Get("/api/shop"))["ownWords"]![0]!["word"]!.GetValue<string>());
        await shop.Post($"/api/changes/undo?sure=true&change={changed["id"]}", new { });
        Assert.True(await IsClaimed());
        await shop.Post(
            "/api/shop/words",
            new
            {
                word = "oak",
                facet = (string?)null,
                forget = false,
            }
        );
        await shop.Post(
            "/api/shop/words",
            new
            {
                word = "Oak",
                facet = (string?)null,
                forget = true,
            }
        );
        Assert.True(await IsClaimed());
        await shop.Post(
            "/api/shop/words",
            new
            {
                word = " - ",
                facet = (string?)null,
                forget = false,
            },
            400
        );
    }

    [Fact]
    public async Task Part_of_a_fill_is_put_as_the_whole_would_be()
    {
        var (_, listing) = await Listing();
        async Task<JsonNode> With(string field, object fields, params string[] pieces) =>
            await shop.Post(
                $"/api/listings/{listing}/fill/{field}/pieces",
                new
                {
                    marketId = Market,
                    fields,
                    pieces,
                }
            );
        var lines = (await With("bullets", new { bullets = new[] { "Warm in winter." } }, "nest box", "owl box"))["value"]!.AsArray();
        Assert.Equal(["Warm in winter.", "Also a nest box or an owl box."], lines.Select(l => l!.GetValue<string>()));
        Assert.Single((await With("bullets", new { bullets = new[] { "Warm in winter." } }))["value"]!.AsArray());
        Assert.Equal("wren roost", (await With("backend", new { backend = "wren" }, "roost"))["value"]!.GetValue<string>());
        await shop.Post(
            $"/api/listings/{listing}/fill/nowhere/pieces",
            new
            {
                marketId = Market,
                fields = new { },
                pieces = Array.Empty<string>(),
            },
            400
        );
    }

    [Fact]
    public async Task A_finding_stays_aside_until_its_text_changes()
    {
        var (_, listing) = await Listing();
        async Task<JsonNode> Short(string description) =>
            (await shop.Post($"/api/listings/{listing}/check", new { marketId = Market, fields = new { title = "Box", description } }))[
                "findings"
            ]!
                .AsArray()
                .Single(f => f!["id"]!.GetValue<string>() == "description-short")!;
        var first = await Short("A box.");
        Assert.False(first["aside"]!.GetValue<bool>());
        await shop.Put($"/api/listings/{listing}/asides", new { key = first["key"]!.GetValue<string>(), aside = true }, 204);
        await shop.Put($"/api/listings/{listing}/asides", new { key = first["key"]!.GetValue<string>(), aside = true }, 204);
        Assert.True((await Short("A box."))["aside"]!.GetValue<bool>());
        Assert.False((await Short("Another box."))["aside"]!.GetValue<bool>());
        await shop.Put($"/api/listings/{listing}/asides", new { key = first["key"]!.GetValue<string>(), aside = false }, 204);
        Assert.False((await Short("A box."))["aside"]!.GetValue<bool>());
        await shop.Put("/api/listings/99999/asides", new { key = "x", aside = true }, 404);
    }

    [Fact]
    public async Task What_the_shop_avoids_and_the_facts_deny_is_found()
    {
        var (product, listing) = await Listing();
        await shop.SaveFacts(product, new { what = "nest box", materials = new[] { "cedar" } });
        await shop.Pick(product, ["heronry"], home: "avoid", note: "somebody's mark");
        var findings = (
            await shop.Post(
                $"/api/listings/{listing}/check",
                new { marketId = Market, fields = new { title = "Oak nest box, Heronry", description = "A box." } }
            )
        )["findings"]!.AsArray();
        Assert.Equal(
            ("avoided", "must", 14, 7),
            (
                findings[0]!["id"]!.GetValue<string>(),
                findings[0]!["level"]!.GetValue<string>(),
                findings[0]!["start"]!.GetValue<int>(),
                findings[0]!["length"]!.GetValue<int>()
            )
        );
        Assert.Contains("somebody's mark", findings[0]!["why"]!.GetValue<string>());
        Assert.Equal("Oak nest box", findings[0]!["fix"]!["value"]!.GetValue<string>());
        Assert.Contains(findings, f => f!["id"]!.GetValue<string>() == "claim" && f["why"]!.GetValue<string>().Contains("“Oak”"));
    }

    [Fact]
    public async Task Takes_are_kept_with_their_numbers_and_none_twice()
    {
        var (product, listing) = await Listing();
        await shop.Dig(product, Market, "bird house");
        await shop.Pick(product, ["bird house", "cedar bird house"]);
        foreach (var text in new[] { "Cedar bird house", "House for birds", "Cedar bird house ", " " })
            await shop.Post($"/api/listings/{listing}/takes", new { text }, 204);
        var takes = (
            await shop.Post($"/api/listings/{listing}/takes/weighed", new { marketId = Market, fields = new { title = "A bird house" } })
        ).AsArray();
        Assert.Equal(["A bird house", "House for birds", "Cedar bird house"], Texts(takes, "text"));
        Assert.Equal([true, false, false], takes.Select(t => t!["inUse"]!.GetValue<bool>()));
        Assert.Equal(100, takes[2]!["reach"]!.GetValue<double>());
        Assert.Equal(["whole", "whole"], Texts(takes[2]!["holds"]!, "grade"));
        Assert.Equal("together", takes[1]!["holds"]![0]!["grade"]!.GetValue<string>());
        // The known terms of the title, picked or not.
        Assert.True(takes[2]!["mix"]!.AsObject().Sum(m => m.Value!.GetValue<int>()) >= 2);
        Assert.True(takes[2]!["grip"]!.GetValue<double>() > takes[1]!["grip"]!.GetValue<double>());
    }

    [Fact]
    public async Task Versions_are_kept_compared_word_by_word_and_named()
    {
        var (_, listing) = await Listing();
        await Save(listing, new { title = "Cedar box for wrens", backend = "roost" }, 0);
        await Save(listing, new { title = "Cedar nest box for wrens", backend = "roost" }, 1, "fill");
        await Save(listing, new { title = "Cedar nest box for robins", backend = "roost" }, 2);
        var versions = (await shop.Get($"/api/listings/{listing}/versions")).AsArray();
        var version = Assert.Single(versions)!;
        Assert.Equal(
            ("before a fill", "Cedar box for wrens"),
            (version["why"]!.GetValue<string>(), version["copy"]!["title"]!.GetValue<string>())
        );
        var id = version["id"]!.GetValue<int>();
        var changes = (await shop.Post($"/api/listings/{listing}/versions/compare", new { from = id, to = 0 })).AsArray();
        var change = Assert.Single(changes)!;
        Assert.Equal("Title", change["label"]!.GetValue<string>());
        string Of(string are) =>
            string.Concat(
                    change["words"]!.AsArray().Where(w => w!["are"]!.GetValue<string>() == are).Select(w => w!["text"]!.GetValue<string>())
                )
                .Trim();
        Assert.Equal(("nest robins", "wrens"), (Of("added"), Of("removed")));
        await shop.Put($"/api/listings/{listing}/versions/{id}", new { name = "The first" });
        await shop.Post($"/api/listings/{listing}/versions", new { name = "With robins" });
        Assert.Equal(["With robins", "The first"], Texts(await shop.Get($"/api/listings/{listing}/versions"), "name"));
        await shop.Post($"/api/listings/{listing}/versions/compare", new { from = 99999, to = 0 }, 404);
        await shop.Put($"/api/listings/{listing}/versions/{id}", new { name = new string('x', 81) }, 400);
    }

    [Fact]
    public async Task A_title_that_was_left_is_a_take()
    {
        var (_, listing) = await Listing();
        await Save(listing, new { title = "Cedar box" }, 0);
        await Save(listing, new { title = "Another box" }, 1, "title");
        Assert.Contains(
            "Cedar box",
            Texts(await shop.Post($"/api/listings/{listing}/takes/weighed", new { marketId = Market, fields = (object?)null }), "text")
        );
    }

    [Fact]
    public async Task What_is_sent_must_fit_and_the_index_notices_later()
    {
        var (_, listing) = await Listing();
        Assert.Contains(
            "Title is empty",
            (await shop.Post($"/api/listings/{listing}/send", new { marketId = Market }, 400)).ToJsonString()
        );
        await Save(
            listing,
            new
            {
                title = "Zebra saddle for wrens",
                description = "A saddle.",
                backend = "",
            },
            0
        );
        Assert.Contains(
            "no connected market",
            (await shop.Post($"/api/listings/{listing}/send", new { marketId = "hedgerow-fair-us" }, 400)).ToJsonString()
        );
        var sent = await shop.Post($"/api/listings/{listing}/send", new { marketId = Market });
        Assert.Equal(24, (sent["noticedAt"]!.GetValue<DateTime>() - sent["at"]!.GetValue<DateTime>()).TotalHours, 3);
        Assert.False(sent["changed"]!.GetValue<bool>());
        await Save(
            listing,
            new
            {
                title = "Zebra saddle",
                description = "A saddle.",
                backend = "",
            },
            1
        );
        Assert.True((await shop.Get($"/api/listings/{listing}/sent"))[0]!["changed"]!.GetValue<bool>());
        Assert.Equal("when it was sent", (await shop.Get($"/api/listings/{listing}/versions"))[0]!["why"]!.GetValue<string>());
    }

    [Fact]
    public async Task Listings_go_out_one_row_each_with_the_fields_in_order()
    {
        var (_, listing) = await Listing();
        await Save(
            listing,
            new
            {
                title = "=cmd box",
                description = "Line one\nline \"two\"",
                bullets = new[] { "a", "b" },
            },
            0
        );
        var one = (await shop.Client.GetStringAsync($"/api/listings/{listing}/export.csv")).TrimStart('\uFEFF').Split("\r\n");
        Assert.Equal("product,platform,title,bullets,backend,description,category,attributes", one[0]);
        Assert.StartsWith("Wren nest box,longbarrow,\"'=cmd box\",\"a\nb\"", string.Join("\r\n", one[1..]));
        var all = (await shop.Client.GetStringAsync("/api/platforms/longbarrow/listings.csv")).TrimStart('\uFEFF');
        Assert.Contains("'=cmd box", all);
        var xlsx = await shop.Client.GetByteArrayAsync($"/api/listings/{listing}/export.xlsx");
        using var file = new MemoryStream(xlsx);
        var row = (IDictionary<string, object>)MiniExcelLibs.MiniExcel.Query(file, useHeaderRow: true).Single();
        Assert.Equal(("=cmd box", "Line one\nline \"two\""), ((string)row["title"], (string)row["description"]));
        Assert.Equal(404, (int)(await shop.Client.GetAsync("/api/platforms/nowhere/listings.csv")).StatusCode);
    }

    [Fact]
    public async Task A_text_is_read_against_the_shelf_and_put_in_another_order()
    {
        var (product, listing) = await Listing();
        await shop.Dig(product, Market, "bird house");
        var read = await shop.Post($"/api/listings/{listing}/read", new { marketId = Market, text = "House, birds, cedar" });
        Assert.DoesNotContain("cedar bird house", Texts(read["holds"]!, "text"));
        var could = read["could"]!.AsArray().Single(c => c!["term"]!["text"]!.GetValue<string>() == "cedar bird house")!;
        Assert.Equal("Cedar bird house", could["text"]!.GetValue<string>());
        Assert.Equal(0, could["gain"]!.GetValue<double>()); // nothing is picked, so nothing is gained
        await shop.Pick(product, ["cedar bird house"]);
        var again = await shop.Post(
            $"/api/listings/{listing}/read",
            new
            {
                marketId = Market,
                text = "House, birds, cedar",
                fields = new { title = "old", backend = "bird" },
            }
        );
        Assert.True(
            again["could"]!.AsArray().Single(c => c!["term"]!["text"]!.GetValue<string>() == "cedar bird house")![
                "gain"
            ]!.GetValue<double>() > 1
        );
        // “Cedar bird house for” is an order that nobody would write.
        var stump = await shop.Post($"/api/listings/{listing}/read", new { marketId = Market, text = "House for birds, cedar" });
        Assert.DoesNotContain("cedar bird house", stump["could"]!.AsArray().Select(c => c!["term"]!["text"]!.GetValue<string>()));
        var engine = await shop.Post(
            "/api/engine/read",
            new
            {
                platform = "longbarrow",
                text = "Cedar bird house",
                marketId = Market,
            }
        );
        Assert.Contains("bird house", Texts(engine["holds"]!, "text"));
        Assert.Equal(["text", "volume", "competition", "band"], engine["holds"]![0]!.AsObject().Select(k => k.Key));
        Assert.Contains(
            "marketId",
            (
                await shop.Post(
                    "/api/engine/read",
                    new
                    {
                        platform = "longbarrow",
                        text = "x",
                        marketId = "moon",
                    },
                    400
                )
            ).ToJsonString()
        );
    }
}
