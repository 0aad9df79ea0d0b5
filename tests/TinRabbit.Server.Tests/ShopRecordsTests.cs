using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using TinRabbit.Server.Pictures;
using TinRabbit.Server.Storage;
using static TinRabbit.Server.Tests.ShopFilesTests;

namespace TinRabbit.Server.Tests;

/// <summary>What happened in a shop goes out with it, and comes back: versions, notes, checks, figures, rivals, reviews and the rest.</summary>
public sealed class ShopRecordsTests : IDisposable
{
    private const string Market = "hedgerow-fair-us";
    private readonly TestShop _shop = new(demo: true, staysInDay: true);
    private int _listing;

    public void Dispose() => _shop.Dispose();

    // One of each kind of thing that can happen.
    private async Task Live()
    {
        _listing = await _shop.ListingOf(1, "hedgerow-fair");
        var of = $"/api/listings/{_listing}";
        using (await _shop.Client.PostAsJsonAsync($"{of}/takes", new { text = "A box for wrens" })) { }
        await _shop.Post($"{of}/versions", new { name = "Before the fair" });
        using (await _shop.Client.PutAsJsonAsync($"{of}/asides", new { key = "unused backend", aside = true })) { }
        await _shop.Post("/api/listings/archive", new { ids = new[] { _listing }, isArchived = true });
        await _shop.Put(
            "/api/products/1/likeness",
            new
            {
                marketId = Market,
                term = "owl box",
                result = "Oak owl box",
                isLike = true,
            }
        );
        await _shop.Post(
            "/api/notes",
            new
            {
                text = "Free postage",
                kinds = new[] { "promotion" },
                day = "2026-10-01",
                listingId = _listing,
                marketId = Market,
                term = "owl box",
            }
        );
        await _shop.Post(
            "/api/notes",
            new
            {
                text = "Moved house",
                kinds = new[] { "other" },
                day = "2026-10-02",
            }
        );
        await _shop.Post(
            $"{of}/rivals/paste",
            new
            {
                marketId = Market,
                shop = "Fen",
                fields = new { title = "Owl box" },
            }
        );
        await _shop.Drop(Market, _listing, "r.csv", "text,stars,date\nA fine box,5,2026-09-03\n", "reviews", ofRivals: true);
        await _shop.Drop(Market, _listing, "f.csv", "date,views,sales\n2026-01-02,5,1\n2026-01-03,7,\n");
        await Upload(
            $"{of}/checks/import?marketId={Market}&name=c.csv",
            "term,found,rank,day\nbarn owl box,yes,3,2026-01-02\nowl ladder,no,,2026-01-02\n"
        );
        var terms = (await _shop.Get($"{of}/checks?marketId={Market}"))["terms"]!.AsArray();
        var ladder = terms.Single(t => t!["text"]!.GetValue<string>() == "owl ladder")!["id"]!.GetValue<int>();
        await _shop.Post($"{of}/checks/unfollow", new { terms = new[] { ladder } });
        await _shop.Dig(1, Market, "owl box");
        await _shop.Post($"/api/markets/{Market}/paste", new { text = "owl ladder\t70\nbird house\t41", source = "my notes" });
        await _shop.Post("/api/filters", new { name = "Roomy", filters = "headroom=60" });
        await _shop.Post(
            "/api/shop/words",
            new
            {
                word = "barn",
                facet = "style",
                forget = false,
            }
        );
        await _shop.Put("/api/shop", new { countries = new[] { "pt", "us" }, language = "pt" });
    }

    private static async Task<string[]> Terms(TestShop shop)
    {
        using var zip = new System.IO.Compression.ZipArchive(new MemoryStream(await shop.Client.GetByteArrayAsync("/api/shop/export.zip")));
        using var reader = new StreamReader(zip.GetEntry("terms.ndjson")!.Open());
        return (await reader.ReadToEndAsync()).Split('\n');
    }

    private async Task Upload(string path, string table)
    {
        using var content = new ByteArrayContent(Encoding.UTF8.GetBytes(table));
        content.Headers.ContentType = new("text/csv");
        using var response = await _shop.Client.PostAsync(path, content);
        Assert.True(response.IsSuccessStatusCode, await response.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task All_of_it_comes_back_equal_in_an_empty_shop()
    {
        await Live();
        using var empty = new TestShop();
        await Import(empty, await Preview(empty, "shop.zip", await _shop.Client.GetByteArrayAsync("/api/shop/export.zip")));
        var exported = JsonNode.Parse(await Exported(_shop, withVersions: true))!;
        var records = exported["products"]![0]!["listings"]!.AsArray().Single(l => l!["platform"]!.GetValue<string>() == "hedgerow-fair")![
            "records"
        ]!;
        Assert.All(
            new[]
            {
                "archivedAt",
                "versions",
                "dismissed",
                "sent",
                "notes",
                "watches",
                "followed",
                "checks",
                "figures",
                "rivals",
                "reviews",
            },
            part => Assert.True(records[part] is JsonValue or JsonArray { Count: > 0 }, $"no {part}")
        );
        Assert.Contains(
            records["checks"]!.AsArray().SelectMany(c => c!["finds"]!.AsArray()),
            f => f!["term"]!.GetValue<string>() == "owl ladder"
        );
        Assert.DoesNotContain(records["followed"]!.AsArray(), f => f!["term"]!.GetValue<string>() == "owl ladder");
        Assert.Equal(exported.ToJsonString(), await Exported(empty, withVersions: true));
        var terms = await Terms(_shop);
        Assert.Contains(terms, t => t.Contains("my notes", StringComparison.Ordinal));
        Assert.Equal(terms, await Terms(empty));
        // They are on the shelf, with the number that counts.
        var shelf = await empty.Shelf(Market, new { has = "owl ladder", take = 1 });
        Assert.Equal(70, shelf["rows"]![0]!["numbers"]!["volume"]!.GetValue<int>());
    }

    [Fact]
    public async Task What_a_shop_lacks_is_added_to_it_and_taken_back_by_one_undo()
    {
        using var other = new TestShop(demo: true, staysInDay: true);
        await Live();
        var (before, termsBefore) = (await Exported(other, withVersions: true), await Terms(other));
        var preview = await Preview(other, "shop.zip", await _shop.Client.GetByteArrayAsync("/api/shop/export.zip"));
        var changes = Items(preview, "changed").SelectMany(i => i["changes"]!.AsArray()).Select(c => c!["label"]!.GetValue<string>());
        Assert.All(
            new[]
            {
                "Archived",
                "Change notes",
                "Terms to check",
                "Found checks",
                "Days of figures",
                "Rivals",
                "Reviews",
                "Digs",
                "Terms with judged results",
                "Saved filters",
            },
            label => Assert.Contains(label, changes)
        );
        await Import(other, preview);
        var after = await Exported(other, withVersions: true);
        Assert.All(
            new[] { "Free postage", "Moved house", "Fen", "A fine box", "barn owl box", "owl ladder", "Roomy", "Before the fair" },
            text => Assert.Contains(text, after)
        );
        // The file has nothing more for this shop.
        Assert.Empty(Items(await Preview(other, "shop.zip", await _shop.Client.GetByteArrayAsync("/api/shop/export.zip")), "changed"));
        Assert.Equal(await Terms(_shop), await Terms(other));
        await other.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(termsBefore, await Terms(other));
        Assert.Equal(before, await Exported(other, withVersions: true));
        await other.Post("/api/changes/redo?sure=true", new { });
        Assert.Equal(await Terms(_shop), await Terms(other));
        Assert.Equal(after, await Exported(other, withVersions: true));
    }

    [Fact]
    public async Task Pictures_keep_their_names_and_every_pixel()
    {
        using var content = new ByteArrayContent(Png(300, 200));
        using (await _shop.Client.PostAsync("/api/pictures/1", content)) { }
        var zip = await _shop.Client.GetByteArrayAsync("/api/shop/export.zip");
        Assert.Empty(Items(await Preview(_shop, "shop.zip", zip), "changed"));
        using var empty = new TestShop();
        await Import(empty, await Preview(empty, "shop.zip", zip));
        Assert.Equal(await Exported(_shop, withVersions: true), await Exported(empty, withVersions: true));
        var file = Directory.GetFiles(Path.Combine(_shop.Folder, "pictures")).First(f => !f.Contains("thumb", StringComparison.Ordinal));
        Assert.Equal(
            await File.ReadAllBytesAsync(file),
            await File.ReadAllBytesAsync(Path.Combine(empty.Folder, "pictures", Path.GetFileName(file)))
        );
        Assert.Empty(Items(await Preview(empty, "shop.zip", zip), "changed"));
    }

    [Fact]
    public async Task Picture_files_that_nothing_names_are_removed_and_no_others()
    {
        var pictures = Path.Combine(_shop.Folder, "pictures");
        await Add("/api/pictures/1", 300);
        await Add("/api/pictures/1?number=0", 310);
        var backup = (await _shop.Post("/api/backups", new { }))["name"];
        Assert.NotNull(backup);
        foreach (var made in Directory.GetFiles(pictures))
            File.SetLastWriteTimeUtc(made, DateTime.UtcNow.AddDays(-2));
        var kept = Directory.GetFiles(pictures).Order().ToList();
        var unused = Path.Combine(pictures, new string('a', 32) + ".webp");
        var young = Path.Combine(pictures, new string('b', 32) + ".webp");
        foreach (var stray in new[] { unused, young })
            await File.WriteAllBytesAsync(stray, [1]);
        File.SetLastWriteTimeUtc(unused, DateTime.UtcNow.AddDays(-2));
        Assert.Equal(1, UnusedPictures.Remove(_shop.Services.GetRequiredService<DataFolder>(), DateTime.UtcNow));
        // The picture that was replaced comes back by an undo.
        Assert.Equal(kept.Append(young).Order(), Directory.GetFiles(pictures).Order());

        async Task Add(string path, int width)
        {
            using var content = new ByteArrayContent(Png(width, 200));
            using var response = await _shop.Client.PostAsync(path, content);
            Assert.True(response.IsSuccessStatusCode);
        }
    }

    [Theory]
    [InlineData("figures", """[{"market":"hedgerow-fair-us","day":"2026-01-02","source":"x","views":-1}]""", "aren’t possible")]
    [InlineData(
        "checks",
        """[{"market":"hedgerow-fair-us","at":"2026-01-02T00:00:00Z","day":"2026-01-02","source":"x","state":"finished","finds":[{"term":"a","isDone":true,"found":true,"rank":0}]}]""",
        "Ranks begin with 1"
    )]
    [InlineData("reviews", """[{"text":"Fine","source":"x","stars":9}]""", "Stars go from 1 to 5")]
    [InlineData("watches", """[{"market":"hedgerow-fair-us","checksDaily":true,"pageSize":0}]""", "results isn’t possible")]
    [InlineData("versions", """[{"at":"2026-01-02T00:00:00Z","reason":"byHand","fields":{"title":["x"]}}]""", "title")]
    [InlineData("sent", """[{"market":"hedgerow-fair-us"}]""", "can’t be read")]
    public async Task What_cannot_be_is_refused_before_anything_is_written(string part, string value, string says)
    {
        var document = Encoding.UTF8.GetBytes(
            """
            {"format":"tin-rabbit-shop","version":2,"products":[{"name":"Box","listings":[
                {"platform":"hedgerow-fair","fields":{"title":"Box"},"records":{"PART":VALUE}}]}]}
            """.Replace("PART", part).Replace("VALUE", value)
        );
        Assert.Contains(says, await Refused(_shop, document, "shop.json"));
    }
}
