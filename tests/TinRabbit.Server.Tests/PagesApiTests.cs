using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>The page tree, its addresses, the texts of pages, the leads across the shop.</summary>
public class PagesApiTests(TestShop shop) : IClassFixture<TestShop>
{
    private const string Web = "web-us";

    private async Task<List<JsonNode>> Pages() => [.. (await shop.Get("/api/pages"))["pages"]!.AsArray().Select(p => p!)];

    private async Task<JsonNode> Page(string name) => (await Pages()).First(p => Name(p) == name);

    private static string Name(JsonNode page) => page["name"]!.GetValue<string>();

    private static int Id(JsonNode page) => page["id"]!.GetValue<int>();

    private async Task<JsonNode> Add(string kind, string name, int? parentId = null)
    {
        await shop.Post(
            "/api/pages",
            new
            {
                kind,
                name,
                parentId,
                productId = (int?)null,
            }
        );
        return (await Pages()).Last(p => Name(p) == name);
    }

    private async Task Write(JsonNode page, object fields)
    {
        var listing = page["listingId"]!.GetValue<int>();
        var revision = (await shop.Get($"/api/listings/{listing}"))["revision"]!.GetValue<int>();
        await shop.Put($"/api/listings/{listing}/copy", new { fields, revision });
    }

    private Task<JsonNode> Change(JsonNode page, object change, int status = 200) => shop.Put($"/api/pages/{Id(page)}", change, status);

    private Task Undo() => shop.Post("/api/changes/undo?sure=true", new { });

    [Fact]
    public async Task An_outline_makes_nested_categories_or_nothing()
    {
        var planned = await shop.Post("/api/pages/outline/preview", new { text = "Songs\n  Wren songs\n  Songs", parentId = (int?)null });
        Assert.Equal(["songs", "wren-songs", "songs-2"], planned.AsArray().Select(p => p!["slug"]!.GetValue<string>()));
        await shop.Post("/api/pages/outline", new { text = "Songs\n  Wren songs\n  Owl songs", parentId = (int?)null });
        var (songs, wren) = (await Page("Songs"), await Page("Wren songs"));
        Assert.Equal(
            (Id(songs), 1, "wren-songs"),
            (wren["parentId"]!.GetValue<int>(), wren["level"]!.GetValue<int>(), wren["slug"]!.GetValue<string>())
        );
        var refused = await shop.Post("/api/pages/outline", new { text = "New ones\nsongs", parentId = (int?)null }, 400);
        Assert.Contains("Line 2", refused["detail"]!.GetValue<string>());
        Assert.DoesNotContain(await Pages(), p => Name(p) == "New ones");
        await Undo();
        Assert.DoesNotContain(await Pages(), p => Name(p) is "Songs" or "Wren songs");
    }

    [Fact]
    public async Task A_page_moves_with_what_is_inside_it_but_never_into_itself()
    {
        var (top, inner, other) = (await Add("category", "Moves"), 0, await Add("category", "Moves too"));
        inner = Id(await Add("category", "Inside moves", Id(top)));
        await shop.Put($"/api/pages/{Id(top)}/place", new { parentId = Id(other), order = 0 });
        Assert.Equal(2, (await Page("Inside moves"))["level"]!.GetValue<int>());
        await shop.Put($"/api/pages/{Id(other)}/place", new { parentId = inner, order = 0 }, 400);
        await shop.Put($"/api/pages/{Id(other)}/place", new { parentId = Id(other), order = 0 }, 400);
        await shop.Put($"/api/pages/{Id(other)}/place", new { parentId = 99_999, order = 0 }, 400);
        await Undo();
        Assert.Equal(0, (await Page("Moves"))["level"]!.GetValue<int>());
    }

    [Fact]
    public async Task Pages_are_at_most_twelve_levels_deep()
    {
        var text = string.Join('\n', Enumerable.Range(1, 12).Select(i => $"{new string(' ', i)}Level {i}"));
        await shop.Post("/api/pages/outline", new { text, parentId = (int?)null });
        var (top, deepest, other) = (Id(await Page("Level 1")), Id(await Page("Level 12")), Id(await Add("category", "Other levels")));
        await shop.Put($"/api/pages/{other}/place", new { parentId = deepest, order = 0 }, 400);
        await shop.Put($"/api/pages/{top}/place", new { parentId = other, order = 0 }, 400);
        await shop.Post("/api/pages/outline", new { text = "Level 13", parentId = deepest }, 400);
        Assert.Equal(
            400,
            (int)
                (
                    await shop.Client.PostAsJsonAsync(
                        "/api/pages",
                        new
                        {
                            kind = "content",
                            name = "Deep",
                            parentId = deepest,
                        }
                    )
                ).StatusCode
        );
        await shop.Put($"/api/pages/{other}/place", new { parentId = Id(await Page("Level 11")), order = 0 });
    }

    [Fact]
    public async Task Siblings_are_numbered_without_gaps()
    {
        var parent = Id(await Add("category", "Order"));
        foreach (var name in new[] { "O1", "O2", "O3" })
            await Add("content", name, parent);
        await shop.Put($"/api/pages/{Id(await Page("O3"))}/place", new { parentId = parent, order = 0 });
        Assert.Equal(["O3", "O1", "O2"], (await Pages()).Where(p => p["parentId"]?.GetValue<int>() == parent).Select(Name));
        Assert.Equal(
            [0, 1, 2],
            (await Pages()).Where(p => p["parentId"]?.GetValue<int>() == parent).Select(p => p["order"]!.GetValue<int>())
        );
    }

    [Fact]
    public async Task A_published_page_that_gets_another_slug_leaves_a_redirect_and_takes_it_back()
    {
        var page = await Add("content", "Redirected");
        await Change(page, new { isPublished = true });
        await Write(
            page,
            new
            {
                heading = "Redirected",
                slug = "second",
                body = "x",
            }
        );
        async Task<string> All() =>
            string.Join(
                ' ',
                (await shop.Get("/api/pages"))["redirects"]!
                    .AsArray()
                    .Where(r => r!["pageId"]!.GetValue<int>() == Id(page))
                    .Select(r => $"{r!["from"]}>{r["to"]}")
            );
        Assert.Equal("redirected>second", await All());
        await Change(page, new { isPublished = true });
        await Write(
            page,
            new
            {
                heading = "Redirected",
                slug = "third",
                body = "x",
            }
        );
        Assert.Equal("redirected>third second>third", await All());
        await Write(
            page,
            new
            {
                heading = "Redirected",
                slug = "second",
                body = "x",
            }
        );
        await Change(page, new { isPublished = true });
        Assert.Equal("redirected>second", await All());
        Assert.Contains("/redirected,", await shop.Client.GetStringAsync("/api/pages/redirects.csv"));
    }

    [Fact]
    public async Task A_slug_that_leads_out_of_the_archive_or_to_another_page_names_a_file_of_its_own()
    {
        var ids = new[] { await Add("content", "Owl one"), await Add("content", "Owl two"), await Add("content", "Owl three") };
        foreach (var (id, slug) in ids.Zip(["owl-one", "owl-two", "owl-three"]))
        {
            await Write(
                id,
                new
                {
                    heading = slug,
                    slug,
                    body = "x",
                }
            );
            await Change(id, new { isPublished = true });
        }

        // A page that is published already can get any slug; it is refused by a finding, not by the save.
        foreach (var (id, slug) in ids.Zip(["../../../evil", "alike", "alike"]))
            await Write(
                id,
                new
                {
                    heading = slug,
                    slug,
                    body = "x",
                }
            );
        using var zip = new System.IO.Compression.ZipArchive(new MemoryStream(await shop.Client.GetByteArrayAsync("/api/shop/html.zip")));
        var names = zip.Entries.Select(e => e.FullName).Where(n => n.EndsWith(".html", StringComparison.Ordinal)).ToList();
        Assert.All(names, n => Assert.Matches("^[a-z0-9-]+\\.html$", n));
        Assert.Equal(names.Count, names.Distinct().Count());
        Assert.Subset(names.ToHashSet(), new HashSet<string> { "evil.html", "alike.html", "alike-2.html" });
    }

    [Fact]
    public async Task A_category_is_published_without_a_text_and_a_content_page_is_not_and_both_are_seen_as_a_visitor_sees_them()
    {
        var (category, content) = (await Add("category", "Textless shelf"), await Add("content", "Textless page"));
        foreach (var (page, heading) in new[] { (category, "Textless shelf"), (content, "Textless page") })
            await Write(page, new { heading, slug = heading.ToLowerInvariant().Replace(' ', '-') });
        Task<JsonNode> Send(JsonNode page, int status) =>
            shop.Post($"/api/listings/{page["listingId"]}/send", new { marketId = Web }, status);
        await Send(category, 200);
        Assert.Contains("body: Text is empty", (await Send(content, 400))["detail"]!.GetValue<string>());
        var seen = await shop.Client.GetStringAsync($"/api/pages/{Id(category)}/preview");
        Assert.Contains("<h1>Textless shelf</h1>", seen);
    }

    [Fact]
    public async Task Two_pages_cannot_be_published_under_one_slug_and_none_without()
    {
        var (one, two) = (await Add("content", "Same one"), await Add("content", "Same two"));
        await Write(
            one,
            new
            {
                heading = "Same one",
                slug = "same",
                body = "x",
            }
        );
        await Write(
            two,
            new
            {
                heading = "Same two",
                slug = "same",
                body = "x",
            }
        );
        await Change(one, new { isPublished = true }, 400);
        await Write(
            two,
            new
            {
                heading = "Same two",
                slug = "Not A Slug",
                body = "x",
            }
        );
        await Change(one, new { isPublished = true });
        await Change(two, new { isPublished = true }, 400);
    }

    [Fact]
    public async Task Deleting_moves_children_up_and_unlinks_and_undo_restores_everything()
    {
        var gone = await Add("category", "Gone");
        await Add("content", "Child of gone", Id(gone));
        await Change(gone, new { isPublished = true });
        var linking = await Add("content", "Linking");
        var body = $"<p>See <a href=\"page:{Id(gone)}\">these</a>.</p>";
        await Write(
            linking,
            new
            {
                heading = "Linking",
                slug = "linking",
                body,
            }
        );
        var about = await shop.Get($"/api/pages/{Id(gone)}/deletion");
        Assert.Equal(("Child of gone", "Linking"), (about["inside"]![0]!.GetValue<string>(), about["linkedFrom"]![0]!.GetValue<string>()));
        await shop.Post($"/api/pages/{Id(gone)}/delete", new { children = false, links = true });
        Assert.Equal(0, (await Page("Child of gone"))["level"]!.GetValue<int>());
        async Task<string> Text() => (await shop.Get($"/api/listings/{linking["listingId"]}"))["copy"]!["body"]!.GetValue<string>();
        Assert.Equal("<p>See these.</p>", await Text());
        await Undo();
        Assert.Equal(1, (await Page("Child of gone"))["level"]!.GetValue<int>());
        Assert.Equal(body, await Text());
        await shop.Post($"/api/pages/{Id(gone)}/delete", new { children = true, links = false });
        Assert.DoesNotContain(await Pages(), p => Name(p) is "Gone" or "Child of gone");
        var findings = await shop.Post($"/api/listings/{linking["listingId"]}/check", new { marketId = Web, fields = (object?)null });
        Assert.Contains(findings["findings"]!.AsArray(), f => f!["id"]!.GetValue<string>() == "dead-link");
        await Undo();
        Assert.Contains(await Pages(), p => Name(p) == "Child of gone");
    }

    [Fact]
    public async Task A_product_has_one_page_whose_text_is_its_listing_on_the_web_shop()
    {
        var product = await shop.AddProduct("Page of a product");
        await shop.Post(
            "/api/pages",
            new
            {
                kind = "product",
                name = (string?)null,
                parentId = (int?)null,
                productId = product,
            }
        );
        var page = await Page("Page of a product");
        Assert.Equal((product, "product"), (page["productId"]!.GetValue<int>(), page["kind"]!.GetValue<string>()));
        Assert.Equal(await shop.ListingOf(product, "web-shop"), page["listingId"]!.GetValue<int>());
        await shop.Post(
            "/api/pages",
            new
            {
                kind = "product",
                name = (string?)null,
                parentId = (int?)null,
                productId = product,
            },
            400
        );
        await shop.Post($"/api/pages/{Id(page)}/delete", new { children = false, links = false });
        Assert.DoesNotContain(await Pages(), p => Name(p) == "Page of a product");
        Assert.Equal(await shop.ListingOf(product, "web-shop"), page["listingId"]!.GetValue<int>());
        await shop.Post(
            "/api/pages",
            new
            {
                kind = "product",
                name = (string?)null,
                parentId = (int?)null,
                productId = product,
            }
        );
        Assert.Equal(page["listingId"]!.GetValue<int>(), (await Page("Page of a product"))["listingId"]!.GetValue<int>());
        await shop.Client.DeleteAsync($"/api/products/{product}");
        Assert.DoesNotContain(await Pages(), p => Name(p) == "Page of a product");
        await Undo();
        Assert.Contains(await Pages(), p => Name(p) == "Page of a product");
    }

    [Fact]
    public async Task What_a_browser_would_run_is_left_out_of_a_body()
    {
        var page = await Add("content", "Clean");
        await Write(
            page,
            new
            {
                heading = "Clean",
                slug = "clean",
                body = "<p onclick=\"x()\">Hi <script>alert(1)</script><a href=\"javascript:x()\">there</a> <a href=\"page:3\">page</a></p><img src=x onerror=y><iframe src=z></iframe>",
            }
        );
        var body = (await shop.Get($"/api/listings/{page["listingId"]}"))["copy"]!["body"]!.GetValue<string>();
        Assert.DoesNotContain("script", body);
        Assert.DoesNotContain("onclick", body);
        Assert.DoesNotContain("onerror", body);
        Assert.DoesNotContain("iframe", body);
        Assert.Contains("<a href=\"page:3\">page</a>", body);
    }

    [Fact]
    public async Task Pictures_in_a_text_stand_in_the_sheet_and_no_pattern_fills_them()
    {
        var page = await Add("content", "Illustrated");
        await Write(
            page,
            new
            {
                heading = "Illustrated",
                slug = "illustrated",
                body = "<p>Look.</p><img src=\"https://a.example/1.png\" alt=\"Picture of an owl\"><img src=\"https://a.example/2.png\">",
            }
        );
        async Task<List<JsonNode>> InText() =>
            [
                .. (await shop.Get("/api/pictures"))["pictures"]!
                    .AsArray()
                    .Select(p => p!)
                    .Where(p => p["productId"]!.GetValue<int>() == page["productId"]!.GetValue<int>()),
            ];
        var pictures = await InText();
        Assert.Equal([-1, -2], pictures.Select(p => p["number"]!.GetValue<int>()));
        Assert.All(pictures, p => Assert.True(p["isInText"]!.GetValue<bool>()));
        Assert.Equal(
            [
                ["opening"],
                ["missing"],
            ],
            pictures.Select(p => p["problems"]!.AsArray().Select(x => x!.GetValue<string>()).ToArray())
        );
        await shop.Post(
            "/api/pictures/fill",
            new
            {
                pattern = "filled",
                scope = "all",
                selected = (object?)null,
            }
        );
        Assert.Equal(pictures.Select(p => p.ToJsonString()), (await InText()).Select(p => p.ToJsonString()));
    }

    [Fact]
    public async Task An_alt_text_that_is_offered_begins_with_what_the_picture_shows_and_has_the_lead_near_its_front()
    {
        var product = (
            await shop.Post(
                "/api/products",
                new
                {
                    name = "Shelf",
                    facts = new { what = "shelf", materials = new[] { "oak" } },
                    pictures = new[] { "", "", "" },
                    platforms = new[] { "hedgerow-fair" },
                }
            )
        )["id"]!.GetValue<int>();
        // What counts most is not true of it, and is not offered.
        foreach (var (term, volume) in new[] { ("oak shelf", 400), ("pine shelf", 9000) })
            await shop.Post(
                $"/api/products/{product}/picks",
                new
                {
                    texts = new[] { term },
                    source = $"{volume}",
                    fit = (string?)null,
                    home = (string?)null,
                    note = (string?)null,
                }
            );
        await Show(0, "the front with three books on it");
        await Show(1, "an oak shelf above a sofa");

        var offers = (await shop.Get("/api/pictures"))["pictures"]!
            .AsArray()
            .Where(p => p!["productId"]!.GetValue<int>() == product)
            .Select(p => p!["offer"]?.GetValue<string>());

        Assert.Equal(["The front with three books on it, oak shelf", "An oak shelf above a sofa", null], offers);

        // A word that the seller says is no claim is none here either.
        Assert.Contains("claim", await Problems());
        await shop.Post("/api/shop/words", new { word = "pine", facet = (string?)null });
        Assert.DoesNotContain("claim", await Problems());
        await shop.Post(
            "/api/shop/words",
            new
            {
                word = "pine",
                facet = (string?)null,
                forget = true,
            }
        );

        async Task<IEnumerable<string>> Problems()
        {
            var revision = (await shop.Product(product))["picturesRevision"]!.GetValue<int>();
            await shop.Put($"/api/products/{product}/pictures", new { pictures = new[] { "A pine shelf", "", "" }, revision });
            return (await shop.Get("/api/pictures"))["pictures"]!
                .AsArray()
                .Where(p => p!["productId"]!.GetValue<int>() == product)
                .SelectMany(p => p!["problems"]!.AsArray().Select(x => x!.GetValue<string>()));
        }

        Task<JsonNode> Show(int number, string shows) => shop.Put($"/api/pictures/{product}/{number}/shows", new { shows });
    }

    [Fact]
    public async Task Figures_of_a_page_say_what_results_show_and_which_words_would_help()
    {
        await shop.Put(
            "/api/site",
            new
            {
                brand = "Plover",
                address = "https://plover.example/",
                language = "en",
                country = "us",
                titleSuffix = " – Plover",
                revision = (await shop.Get("/api/site"))["revision"]!.GetValue<int>(),
            }
        );
        // The first content page is the home page, whose address has no slug.
        await Add("content", "Welcome");
        var page = await Add("content", "About bird houses");
        await shop.Put($"/api/pages/{Id(page)}/lead", new { text = "bird house" });
        await Write(
            page,
            new
            {
                heading = "About bird houses",
                slug = "about-bird-houses",
                body = "<h2>One</h2><p>A cedar bird house lasts. Yes.</p>",
            }
        );
        var figures = await shop.Post($"/api/listings/{page["listingId"]}/page", new { marketId = Web, fields = (object?)null });
        Assert.Equal("About bird houses – Plover", figures["title"]!["text"]!.GetValue<string>());
        Assert.Equal("A cedar bird house lasts. Yes.", figures["derivedDescription"]!.GetValue<string>());
        Assert.Equal("https://plover.example/about-bird-houses", figures["address"]!.GetValue<string>());
        Assert.Equal(
            (7, 1, true),
            (figures["words"]!.GetValue<int>(), figures["leadUses"]!.GetValue<int>(), figures["leadInFirst"]!.GetValue<bool>())
        );
        Assert.Contains(figures["modifiers"]!.AsArray(), m => m!["word"]!.GetValue<string>() == "cedar" && m["isUsed"]!.GetValue<bool>());
        Assert.Equal("""[{"start":6,"length":11}]""", figures["title"]!["marks"]!.ToJsonString());
        Assert.Equal((26, 26), (figures["title"]!["wide"]!.GetValue<int>(), figures["title"]!["phone"]!.GetValue<int>()));
        var checkedPage = await shop.Post($"/api/listings/{page["listingId"]}/check", new { marketId = Web, fields = (object?)null });
        var ids = checkedPage["findings"]!.AsArray().Select(f => f!["id"]!.GetValue<string>()).ToList();
        Assert.Contains("page-title-empty", ids);
        Assert.Contains("meta-empty", ids);
        Assert.DoesNotContain("description-short", ids);
    }

    [Fact]
    public async Task Settings_of_the_site_are_checked_and_two_windows_notice_each_other()
    {
        var site = await shop.Get("/api/site");
        object Request(string address, string country, int revision) =>
            new
            {
                brand = "B",
                address,
                language = "en",
                country,
                titleSuffix = "",
                revision,
            };
        var revision = site["revision"]!.GetValue<int>();
        await shop.Put("/api/site", Request("javascript:x", "us", revision), 400);
        await shop.Put("/api/site", Request("https://a.example", "zz", revision), 400);
        await shop.Put("/api/site", Request("https://a.example", "gb", revision));
        await shop.Put("/api/site", Request("https://b.example", "us", revision), 409);
        var markets = (await shop.Get("/api/shop"))["markets"]!.AsArray();
        Assert.Equal("web-gb", markets.Single(m => m!["platformId"]!.GetValue<string>() == "web-shop")!["id"]!.GetValue<string>());
        await Undo();
        var undone = await shop.Get("/api/site");
        Assert.Equal(
            (site["address"]!.GetValue<string>(), site["brand"]!.GetValue<string>()),
            (undone["address"]!.GetValue<string>(), undone["brand"]!.GetValue<string>())
        );
        // A window that shows what was undone does not save over it.
        await shop.Put("/api/site", Request("https://c.example", "us", revision + 1), 409);
    }

    [Fact]
    public async Task A_product_gets_its_categories_in_one_change_that_is_undone_at_once()
    {
        var (first, second) = (await Add("category", "First shelf"), await Add("category", "Second shelf"));
        var product = await shop.AddProduct("In two categories");
        await shop.Post(
            "/api/pages",
            new
            {
                kind = "product",
                name = (string?)null,
                parentId = Id(first),
                productId = product,
            }
        );
        var page = await Page("In two categories");
        await shop.Put($"/api/pages/{Id(page)}/categories", new { primary = Id(second), others = new[] { Id(first), Id(second) } });
        var now = await Page("In two categories");
        Assert.Equal((Id(second), $"[{Id(first)}]"), (now["parentId"]!.GetValue<int>(), now["alsoIn"]!.ToJsonString()));
        await shop.Put($"/api/pages/{Id(page)}/categories", new { primary = Id(page), others = Array.Empty<int>() }, 400);
        await Undo();
        var before = await Page("In two categories");
        Assert.Equal((Id(first), "[]"), (before["parentId"]!.GetValue<int>(), before["alsoIn"]!.ToJsonString()));
    }

    [Fact]
    public async Task The_engine_checks_a_page_by_its_kind()
    {
        async Task<List<string>> Found(string kind) => [.. (
                    await shop.Post(
                        "/api/engine/check",
                        new
                        {
                            pageKind = kind,
                            fields = new
                            {
                                heading = "Nest box",
                                slug = "nest-box",
                                body = "<p>A nest box. A nest box.</p>",
                            },
                            lead = "nest box",
                            terms = new[] { new { text = "nest box", volume = 90 } },
                        }
                    )
                )["findings"]!.AsArray().Select(f => f!["id"]!.GetValue<string>())];
        Assert.Contains("body-short", await Found("product"));
        Assert.DoesNotContain("body-short", await Found("content"));
        await shop.Post("/api/engine/check", new { pageKind = "blog", fields = new { } }, 400);
    }

    [Fact]
    public async Task The_demo_has_clashes_and_terms_without_a_page()
    {
        using var demo = new TestShop(demo: true);
        var leads = await demo.Get("/api/leads");
        var clash = leads["clashes"]!.AsArray().First(c => c!["text"]!.GetValue<string>() == "window bird feeder")!;
        Assert.True(clash["isLead"]!.GetValue<bool>());
        var other = clash["others"]![0]!;
        Assert.NotNull(other["free"]);
        await demo.Put($"/api/pages/{other["pageId"]}/lead", new { text = other["free"]!.GetValue<string>() });
        var after = (await demo.Get("/api/leads"))["clashes"]!.AsArray();
        Assert.DoesNotContain(after, c => c!["isLead"]!.GetValue<bool>() && c["text"]!.GetValue<string>() == "window bird feeder");
        await demo.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(leads["clashes"]!.ToJsonString(), (await demo.Get("/api/leads"))["clashes"]!.ToJsonString());
        Assert.Equal(leads["leads"]!.ToJsonString(), (await demo.Get("/api/leads"))["leads"]!.ToJsonString());
        Assert.NotEmpty(leads["untargeted"]!.AsArray());
        Assert.Contains(leads["leads"]!.AsArray(), l => l!["pageId"] is null);
        var term = await demo.Get("/api/markets/web-us/term?text=bird+table");
        Assert.NotNull(term["pages"]!["elsewhere"]);
        Assert.Null((await demo.Get("/api/markets/web-us/term?text=bird+feeder"))["pages"]!["elsewhere"]);
    }

    [Fact]
    public async Task A_locked_alt_text_stays_whatever_is_typed_or_filled_and_is_unlocked_again()
    {
        var product = (await shop.Get("/api/shop"))["products"]![0]!;
        var (id, pictures) = ((int)product["id"]!, new[] { "A cedar box in a tree", "A wren at the door" });
        await shop.Put($"/api/products/{id}/pictures", new { pictures, revision = (int)product["picturesRevision"]! });
        await shop.Put($"/api/pictures/{id}/0/locked", new { isLocked = true });
        async Task<int> Revision() =>
            (int)(await shop.Get("/api/shop"))["products"]!.AsArray().First(p => (int)p!["id"]! == id)!["picturesRevision"]!;
        async Task<HttpResponseMessage> Type(params string[] texts) =>
            await shop.Client.PutAsJsonAsync($"/api/products/{id}/pictures", new { pictures = texts, revision = await Revision() });
        var refused = await Type(["Another text", .. pictures[1..]]);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("The alt text of picture 1 is locked", await refused.Content.ReadAsStringAsync());
        Assert.Equal(HttpStatusCode.BadRequest, (await Type()).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Type([pictures[0], "A wren at its door"])).StatusCode);
        var planned = (
            await shop.Post(
                "/api/pictures/fill/preview",
                new
                {
                    pattern = "{name}",
                    scope = "all",
                    selected = Array.Empty<object>(),
                }
            )
        ).AsArray();
        Assert.DoesNotContain(planned, p => (int)p!["productId"]! == id && (int)p["number"]! == 0);
        await shop.Put($"/api/pictures/{id}/0/locked", new { isLocked = false });
        Assert.Equal(HttpStatusCode.OK, (await Type("Another text")).StatusCode);
    }
}
