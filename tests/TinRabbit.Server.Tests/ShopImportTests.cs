using System.Text;
using System.Text.Json.Nodes;
using TinRabbit.Server.Listings;
using static TinRabbit.Server.Tests.ShopFilesTests;

namespace TinRabbit.Server.Tests;

/// <summary>Imports of a whole shop: each thing finds its own again, all of it is undone at once, and what contradicts itself is refused.</summary>
public sealed class ShopImportTests
{
    private static byte[] Json(object document) =>
        Encoding.UTF8.GetBytes(JsonNode.Parse(System.Text.Json.JsonSerializer.Serialize(document))!.ToJsonString());

    private static object Document(params object[] products) =>
        new
        {
            format = "tin-rabbit-shop",
            version = 1,
            products,
        };

    private static object Page(int id, string name, string slug, int? parent = null, string body = "") =>
        new
        {
            name,
            isPage = true,
            listings = new[]
            {
                new
                {
                    platform = "web-shop",
                    fields = new
                    {
                        heading = name,
                        slug,
                        body,
                    },
                },
            },
            page = new
            {
                id,
                kind = "category",
                parent,
            },
        };

    private static async Task<List<JsonNode>> Pages(TestShop shop) =>
        [.. (await shop.Get("/api/pages"))["pages"]!.AsArray().Select(p => p!)];

    [Fact]
    public async Task Everything_that_an_import_changes_comes_back_by_one_undo()
    {
        using var shop = new TestShop(demo: true);
        var before = await Exported(shop);
        using var zip = new System.IO.Compression.ZipArchive(new MemoryStream(await shop.Client.GetByteArrayAsync("/api/shop/export.zip")));
        using var reader = new StreamReader(zip.GetEntry("shop.json")!.Open());
        var document = JsonNode.Parse(await reader.ReadToEndAsync())!;
        document["shop"]!["name"] = "Another name";
        document["site"]!["brand"] = "Another brand";
        document["redirects"]!["an-old-address"] = Slug(document["products"]!.AsArray().First(p => p!["page"] is not null)!);
        var profile = JsonNode.Parse(await shop.Client.GetStringAsync("/api/platforms"))!["platforms"]![0]!["profile"]!.DeepClone();
        (profile["id"], profile["name"]) = ("own", "Own platform");
        document["platforms"] = new JsonArray(new JsonObject { ["profile"] = profile, ["like"] = "longbarrow" });
        foreach (var product in document["products"]!.AsArray())
        {
            product!["facts"]!["colours"] = new JsonArray("violet");
            var picks = product["picks"]!.AsArray();
            if (picks.Count > 1)
            {
                picks.RemoveAt(0);
                picks[0]!["note"] = "Another note";
            }

            picks.Add(new JsonObject { ["text"] = "violet thing" });
            foreach (var listing in product["listings"]!.AsArray())
            {
                (listing!["lead"], listing["takes"]) = ("Violet things", new JsonArray(new JsonObject { ["text"] = "Another take" }));
                listing["fields"]![listing["platform"]!.GetValue<string>() == "web-shop" ? "heading" : "title"] = "Another title";
            }

            product["listings"]!.AsArray().Add(new JsonObject { ["platform"] = "own", ["fields"] = new JsonObject() });
            if (product["page"] is JsonObject page)
                (page["inMenu"], page["isHome"]) = (!page["inMenu"]!.GetValue<bool>(), false);
        }

        document["products"]!.AsArray().Add(JsonNode.Parse(Json(Page(9_999, "Added", "added"))));
        await Import(shop, await Preview(shop, "shop.zip", Zip(("shop.json", Encoding.UTF8.GetBytes(document.ToJsonString())))));
        var after = await Exported(shop);
        foreach (var part in new[] { "Another name", "Another brand", "Own platform", "violet thing", "an-old-address", "Another note" })
            Assert.Contains(part, after);
        foreach (var part in new[] { "Another take", "Another title", "\"Added\"", "\"lead\":\"violet things\"" })
            Assert.Contains(part, after);
        await shop.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(before, await Exported(shop));

        static string Slug(JsonNode product) =>
            product["listings"]!.AsArray().First(l => l!["platform"]!.GetValue<string>() == "web-shop")!["fields"]![
                "slug"
            ]!.GetValue<string>();
    }

    [Fact]
    public async Task Two_pages_of_one_name_stay_two_and_each_finds_itself_again()
    {
        using var shop = new TestShop();
        await shop.Post("/api/pages/outline", new { text = "Feeders\n  Care\nHouses\n  Care\n", parentId = (int?)null });
        var zip = await shop.Client.GetByteArrayAsync("/api/shop/export.zip");
        using var empty = new TestShop();
        await Import(empty, await Preview(empty, "shop.zip", zip));
        Assert.Equal(await Exported(shop), await Exported(empty));
        var again = await Preview(empty, "shop.zip", zip);
        Assert.Empty(Items(again, "new"));
        Assert.Empty(Items(again, "changed"));
        Assert.Equal(2, (await Pages(empty)).Count(p => p["name"]!.GetValue<string>() == "Care"));
    }

    [Fact]
    public async Task Rows_of_one_product_on_two_platforms_make_one_product()
    {
        using var shop = new TestShop();
        var table =
            "product,platform,title\nOwl box,hedgerow-fair,Owl box\nOwl box,longbarrow,Owl box of larch\nOwl box,longbarrow,Another\n";
        await Import(shop, await Preview(shop, "t.csv", Encoding.UTF8.GetBytes(table)));
        var products = (await shop.Get("/api/shop"))["products"]!.AsArray();
        Assert.Equal([2, 1], products.Select(p => p!["listings"]!.AsObject().Count));
    }

    [Fact]
    public async Task A_preview_stores_no_picture_and_a_damaged_one_stops_the_import_before_anything_is_written()
    {
        using var shop = new TestShop();
        var pictures = Path.Combine(shop.Folder, "pictures");
        byte[] Whole(byte[] picture) =>
            Zip(
                ("shop.json", Json(Document(new { name = "Owl box", pictures = new[] { new { alt = "An owl", file = "owl" } } }))),
                ("pictures/owl.png", picture)
            );
        var preview = await Preview(shop, "shop.zip", Whole(Png(40, 30)));
        Assert.False(Directory.Exists(pictures));
        await Import(shop, preview);
        Assert.Equal(2, Directory.GetFiles(pictures).Length);
        Assert.NotNull((await shop.Get("/api/pictures"))["pictures"]![0]!["file"]);
        var before = await Exported(shop);
        var damaged = await Preview(shop, "shop.zip", Whole(Png(400, 300)[..120]));
        var refused = await shop.Post($"/api/shop/imports/{damaged["id"]}/run", new { keys = new[] { "product 0" } }, 400);
        Assert.Contains("damaged", refused["detail"]!.GetValue<string>());
        Assert.Equal(before, await Exported(shop));
    }

    [Fact]
    public async Task A_link_to_a_page_that_was_left_out_leads_to_no_other_page()
    {
        using var shop = new TestShop();
        await shop.Post("/api/pages/outline", new { text = "One\nTwo\nThree", parentId = (int?)null });
        var link = "<p><a href=\"page:2\">left out</a> <a href=\"page:8\">along</a></p>";
        var preview = await Preview(
            shop,
            "shop.json",
            Json(Document(Page(7, "Linking", "linking", body: link), Page(2, "Left out", "left-out"), Page(8, "Along", "along")))
        );
        await shop.Post($"/api/shop/imports/{preview["id"]}/run", new { keys = new[] { "listing 0 web-shop", "listing 2 web-shop" } });
        var pages = await Pages(shop);
        var (linking, along) = (pages.Single(p => Named(p, "Linking")), pages.Single(p => Named(p, "Along")));
        var body = (await shop.Get($"/api/listings/{linking["listingId"]}"))["copy"]!["body"]!.GetValue<string>();
        Assert.Equal($"<p><a href=\"page:0\">left out</a> <a href=\"page:{along["id"]}\">along</a></p>", body);

        static bool Named(JsonNode page, string name) => page["name"]!.GetValue<string>() == name;
    }

    [Fact]
    public async Task What_contradicts_itself_is_refused_and_nothing_is_done()
    {
        using var shop = new TestShop();
        Task<string> Refuse(params object[] products) => Refused(shop, Json(Document(products)), "shop.json");
        object Product(string name, params string[] platforms) =>
            new { name, listings = platforms.Select(p => new { platform = p, fields = new { } }).ToArray() };
        Assert.Contains("two listings on “longbarrow”", await Refuse(Product("Box", "longbarrow", "longbarrow")));
        Assert.Contains("a platform that is not there", await Refuse(Product("Box", "nowhere")));
        Assert.Contains("“A” is inside itself", await Refuse(Page(1, "A", "a", 2), Page(2, "B", "b", 1)));
        Assert.Contains("are both page 1", await Refuse(Page(1, "A", "a"), Page(1, "B", "b")));
        Assert.Contains("without a place", await Refuse(new { name = "A", isPage = true }));
        Assert.Contains("can’t be read", await Refuse(new { name = (string?)null }));
        Assert.Contains("can’t be read", await Refuse(new { facts = new { } }));
        Assert.Contains("2,000", await Refuse(new { name = "A", picks = new[] { new { text = "a", note = new string('x', 2_001) } } }));
        Assert.Contains("200", await Refuse(new { name = "A", picks = new[] { new { text = new string('x', 201) } } }));
        foreach (var half in new[] { "{\"\\ud83d\":1}", "{\"format\":\"tin-rabbit-shop\",\"a\":\"\\ud83d\"}" })
            Assert.Contains("half of a character", await Refused(shop, Encoding.UTF8.GetBytes(half), "shop.json"));
        Assert.Contains("not JSON", await Refused(shop, "{\"name\":1,\"name\":2}"u8.ToArray(), "shop.json"));
        var circle = new
        {
            format = "tin-rabbit-shop",
            version = 1,
            products = new[] { Page(1, "A", "a") },
            redirects = new Dictionary<string, string> { ["b"] = "c", ["c"] = "b" },
        };
        var preview = await Preview(shop, "shop.json", Json(circle));
        var refused = await shop.Post($"/api/shop/imports/{preview["id"]}/run", new { keys = new[] { "listing 0 web-shop" } }, 400);
        Assert.Contains("circle", refused["detail"]!.GetValue<string>());
        Assert.Empty(await Pages(shop));
    }
}
