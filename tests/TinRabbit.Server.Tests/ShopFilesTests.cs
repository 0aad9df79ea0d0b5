using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace TinRabbit.Server.Tests;

/// <summary>Files out and in: what goes out comes back the same, and what is hostile is refused.</summary>
public sealed partial class ShopFilesTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly TestShop _shop = demo.Shop;

    private static async Task<JsonArray> Pictures(TestShop shop) => (await shop.Get("/api/pictures"))["pictures"]!.AsArray();

    private static async Task<(int Status, JsonNode Body)> Upload(TestShop shop, string path, byte[] file)
    {
        using var content = new ByteArrayContent(file);
        content.Headers.ContentType = new("application/octet-stream");
        using var response = await shop.Client.PostAsync(path, content);
        return ((int)response.StatusCode, JsonNode.Parse(await response.Content.ReadAsStringAsync())!);
    }

    internal static async Task<JsonNode> Preview(TestShop shop, string name, byte[] file)
    {
        var (status, body) = await Upload(shop, $"/api/shop/imports?name={name}", file);
        Assert.True(status == 200, body.ToJsonString());
        return body;
    }

    internal static List<JsonNode> Items(JsonNode preview, string state) =>
        [.. preview["items"]!.AsArray().Where(i => i!["state"]!.GetValue<string>() == state).Select(i => i!)];

    internal static async Task Import(TestShop shop, JsonNode preview) =>
        await shop.Post(
            $"/api/shop/imports/{preview["id"]}/run",
            new { keys = preview["items"]!.AsArray().Select(i => i!["key"]!.GetValue<string>()).ToArray() }
        );

    internal static async Task<string> Refused(TestShop shop, byte[] file, string name = "x.zip")
    {
        var before = await Exported(shop);
        var (status, body) = await Upload(shop, $"/api/shop/imports?name={name}", file);
        Assert.True(status is 400 or 413, $"{status} {body.ToJsonString()}");
        Assert.Equal(before, await Exported(shop));
        return body["detail"]!.GetValue<string>();
    }

    // The shop as it is exported, its pages numbered by their place, so that two shops can be compared. An undo keeps what was there as a version.
    internal static async Task<string> Exported(TestShop shop, bool withVersions = false)
    {
        using var zip = new ZipArchive(new MemoryStream(await shop.Client.GetByteArrayAsync("/api/shop/export.zip")));
        using var reader = new StreamReader(zip.GetEntry("shop.json")!.Open());
        var text = await reader.ReadToEndAsync();
        var document = JsonNode.Parse(text)!;
        var numbers = document["products"]!
            .AsArray()
            .Select((p, i) => (Page: p!["page"], i))
            .Where(p => p.Page is not null)
            .ToDictionary(p => p.Page!["id"]!.GetValue<int>(), p => p.i);
        foreach (var product in document["products"]!.AsArray())
            if (product!["page"] is JsonObject page)
                foreach (var key in new[] { "id", "parent" })
                    if (page[key] is JsonValue number)
                        page[key] = $"#{numbers[number.GetValue<int>()]}";
        foreach (var listing in document["products"]!.AsArray().SelectMany(p => p!["listings"]!.AsArray()))
            if (!withVersions)
                listing!["records"]!.AsObject().Remove("versions");
        return Link()
            .Replace(document.ToJsonString(), m => numbers.TryGetValue(int.Parse(m.Groups[1].Value), out var i) ? $"page:#{i}" : m.Value);
    }

    [GeneratedRegex("page:(\\d+)")]
    private static partial Regex Link();

    [Fact]
    public async Task The_whole_shop_comes_back_equal_in_an_empty_one_and_unchanged_in_its_own()
    {
        var zip = await _shop.Client.GetByteArrayAsync("/api/shop/export.zip");
        Assert.Empty(Items(await Preview(_shop, "shop.zip", zip), "changed"));
        Assert.Empty(Items(await Preview(_shop, "shop.zip", zip), "new"));
        using var empty = new TestShop();
        var preview = await Preview(empty, "shop.zip", zip);
        Assert.Empty((await empty.Get("/api/pages"))["pages"]!.AsArray());
        await Import(empty, preview);
        Assert.Equal(await Exported(_shop), await Exported(empty));
    }

    [Theory]
    [InlineData("/api/shop/pages.csv", "pages.csv")]
    [InlineData("/api/shop/pages.xlsx", "pages.xlsx")]
    [InlineData("/api/platforms/hedgerow-fair/listings.csv", "listings.csv")]
    [InlineData("/api/platforms/longbarrow/listings.xlsx", "listings.xlsx")]
    public async Task Tables_come_back_unchanged(string path, string name)
    {
        var preview = await Preview(_shop, name, await _shop.Client.GetByteArrayAsync(path));
        Assert.Empty(Items(preview, "new"));
        Assert.Equal([], Items(preview, "changed").Select(i => i.ToJsonString()));
        Assert.NotEmpty(Items(preview, "unchanged"));
    }

    [Fact]
    public async Task Pages_as_html_come_back_but_for_links_that_lead_nowhere()
    {
        var preview = await Preview(_shop, "pages.zip", await _shop.Client.GetByteArrayAsync("/api/shop/html.zip"));
        Assert.Empty(Items(preview, "new"));
        Assert.All(
            Items(preview, "changed").SelectMany(i => i["changes"]!.AsArray()),
            c => Assert.Contains("page:9999", c!["before"]!.GetValue<string>())
        );
    }

    [Fact]
    public async Task An_import_of_new_and_changed_things_is_chosen_and_undone_at_once()
    {
        using var shop = new TestShop();
        var table = "product,platform,title,tags\nOld box,hedgerow-fair,Cedar box,\"box, house\"\nNew box,hedgerow-fair,Oak box,\n";
        var first = await Preview(shop, "t.csv", Encoding.UTF8.GetBytes(table));
        Assert.Equal(2, Items(first, "new").Count);
        Assert.Contains(Items(first, "new")[0]["changes"]!.AsArray(), c => c!["after"]!.GetValue<string>() == "box\nhouse");
        await Import(shop, first);
        var before = await Exported(shop);
        var second = await Preview(shop, "t.csv", Encoding.UTF8.GetBytes(table.Replace("Cedar", "Larch").Replace("New box", "Third box")));
        var changed = Items(second, "changed").Single();
        Assert.Equal(("Title", "Cedar box", "Larch box"), (Part("label"), Part("before"), Part("after")));
        string Part(string key) => changed["changes"]![0]![key]!.GetValue<string>();
        await shop.Post($"/api/shop/imports/{second["id"]}/run", new { keys = new[] { changed["key"]!.GetValue<string>() } });
        Assert.Contains("Larch box", await Exported(shop));
        Assert.DoesNotContain("Third box", await Exported(shop));
        await shop.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(before, await Exported(shop));
        await Import(shop, await Preview(shop, "t.csv", Encoding.UTF8.GetBytes(table.Replace("New box", "Third box"))));
        Assert.Contains("Third box", await Exported(shop));
        await shop.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(before, await Exported(shop));
    }

    [Fact]
    public async Task A_saved_page_is_read_without_what_a_browser_would_run()
    {
        using var shop = new TestShop();
        var html =
            "<!doctype html><title>Owl boxes for barns</title><meta name=description content='Order an owl box.'><body onload=x()><nav>Menu</nav>"
            + "<h1>Owl boxes</h1><main><p>Dry <b>boxes</b>.</p><script>alert(1)</script><p><a href='javascript:x()'>bad</a></p></main><img src=a.png alt='An owl'></body>";
        var preview = await Preview(shop, "owl.html", Encoding.UTF8.GetBytes(html));
        await Import(shop, preview);
        var page = (await shop.Get("/api/pages"))["pages"]![0]!;
        Assert.Equal(("Owl boxes", "owl", "Owl boxes for barns"), (Of("name"), Of("slug"), Of("title")));
        string Of(string key) => page[key]!.GetValue<string>();
        var body = (await shop.Get($"/api/listings/{page["listingId"]}"))["copy"]!["body"]!.GetValue<string>();
        Assert.StartsWith("<p>Dry <b>boxes</b>.</p>", body);
        Assert.DoesNotContain("alert", body);
        Assert.DoesNotContain("javascript", body);
        Assert.Equal("An owl", (await Pictures(shop))[0]!["alt"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("", "utf-8")]
    [InlineData("", "utf-16")]
    [InlineData("", "windows-1252")]
    [InlineData("<meta charset=iso-8859-2>", "iso-8859-2")]
    [InlineData("<meta charset='utf-8'>", "windows-1252")]
    public async Task A_page_in_any_encoding_keeps_its_letters(string meta, string encoding)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        using var shop = new TestShop();
        var name = encoding == "iso-8859-2" ? "Ptačí budka" : "Nichoir à mésange";
        var written = Encoding.GetEncoding(encoding);
        await Import(
            shop,
            await Preview(
                shop,
                "owl.html",
                [.. written.Preamble, .. written.GetBytes($"<html><head>{meta}</head><body><h1>{name}</h1></body></html>")]
            )
        );
        Assert.Equal(name, (await shop.Get("/api/pages"))["pages"]![0]!["name"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_product_is_read_from_schema_org_data_and_written_as_such()
    {
        using var shop = new TestShop();
        var json = """
            {"@context":"https://schema.org","@graph":[{"@type":["Product","Thing"],"name":"Owl box","description":"Dry.\nDeep.","material":["larch"],"color":"natural","url":"https://x.example/shop/owl-box"}]}
            """;
        await Import(shop, await Preview(shop, "owl.json", Encoding.UTF8.GetBytes(json)));
        var page = (await shop.Get("/api/pages"))["pages"]![0]!;
        Assert.Equal("owl-box", page["slug"]!.GetValue<string>());
        await shop.Put($"/api/pages/{page["id"]}", new { isPublished = true });
        var html = await shop.Client.GetStringAsync($"/api/pages/{page["id"]}/page.html");
        Assert.Contains("\"@type\":\"Product\"", html);
        Assert.Contains("\"material\":[\"larch\"]", html);
        Assert.Contains("BreadcrumbList", html);
        Assert.Contains("<h1>Owl box</h1>", html);
        Assert.Contains("/owl-box</loc>".TrimStart('/'), (await shop.Client.GetStringAsync("/api/shop/sitemap.xml")).Replace("\n", ""));
        Assert.Contains("no schema.org product", await Refused(shop, "{\"a\":1}"u8.ToArray(), "a.json"));
    }

    [Fact]
    public async Task Hostile_archives_are_refused_and_nothing_is_done()
    {
        using var shop = new TestShop();
        var whole = await _shop.Client.GetByteArrayAsync("/api/shop/export.zip");
        Assert.Contains("damaged", await Refused(shop, whole[..(whole.Length / 2)]));
        Assert.Contains("larger than 256 MB", await Refused(shop, Zip(("shop.json", new byte[300 << 20]))));
        Assert.Contains("no shop and no web page", await Refused(shop, Zip(("../../etc/passwd", "x"u8.ToArray()))));
        Assert.Contains(
            "newer version",
            await Refused(shop, Zip(("shop.json", "{\"format\":\"tin-rabbit-shop\",\"version\":9}"u8.ToArray())))
        );
        Assert.Contains("not JSON", await Refused(shop, Zip(("shop.json", "{\"format\":"u8.ToArray()))));
        Assert.Contains("empty", await Refused(shop, []));
        Assert.Contains("no product", await Refused(shop, "product,title\n,x\n"u8.ToArray(), "x.csv"));
        Assert.Contains(
            "limit",
            await Refused(
                shop,
                Encoding.UTF8.GetBytes("product,title\n" + string.Concat(Enumerable.Range(0, 100_000).Select(i => $"p{i},x\n"))),
                "x.csv"
            )
        );
        Assert.Contains("no platform “nowhere”", await Refused(shop, "product,platform\na,nowhere\n"u8.ToArray(), "x.csv"));
    }

    [Fact]
    public async Task A_script_in_any_field_stays_text()
    {
        using var shop = new TestShop();
        var csv =
            "name,pageTitle,metaDescription,slug,body\n\"<script>alert(1)</script>\",\"\"\"><img onerror=x>\",d,evil,\"<p>ok<script>bad()</script></p>\"\n";
        await Import(shop, await Preview(shop, "x.csv", Encoding.UTF8.GetBytes(csv)));
        var page = (await shop.Get("/api/pages"))["pages"]![0]!;
        var html = await shop.Client.GetStringAsync($"/api/pages/{page["id"]}/page.html");
        Assert.DoesNotContain("<script>alert", html);
        Assert.DoesNotContain("<img onerror", html);
        Assert.DoesNotContain("bad()", html);
        Assert.Contains("&lt;script&gt;alert(1)&lt;/script&gt;", html);
    }

    [Fact]
    public async Task Alt_texts_are_filled_by_a_pattern_with_a_preview_and_one_undo()
    {
        using var demo = new TestShop(demo: true);
        var request = new
        {
            pattern = "{what it shows}, {lead}",
            scope = "empty",
            selected = (object?)null,
        };
        var planned = (await demo.Post("/api/pictures/fill/preview", request)).AsArray();
        var empty = (await Pictures(demo)).Count(p => p!["problems"]!.AsArray().Any(x => x!.GetValue<string>() == "missing"));
        Assert.True(empty > 0);
        Assert.Equal(empty, planned.Count);
        await demo.Post("/api/pictures/fill", request);
        Assert.DoesNotContain(await Pictures(demo), p => p!["alt"]!.GetValue<string>().Length == 0);
        await demo.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(empty, (await Pictures(demo)).Count(p => p!["alt"]!.GetValue<string>().Length == 0));
        await demo.Post(
            "/api/pictures/fill/preview",
            new
            {
                pattern = "{colours}",
                scope = "all",
                selected = (object?)null,
            },
            400
        );
    }

    [Fact]
    public async Task What_a_picture_shows_is_changed_and_undone_and_the_alt_texts_keep_their_revision()
    {
        using var demo = new TestShop(demo: true);
        async Task<string> Shows() => (await Pictures(demo))[0]!["shows"]!.GetValue<string>();
        async Task<int> Revision() => (await demo.Get("/api/shop"))["products"]![0]!["picturesRevision"]!.GetValue<int>();
        var (shows, revision) = (await Shows(), await Revision());
        await demo.Put("/api/pictures/1/0/shows", new { shows = " a box at dusk " });
        Assert.Equal(("a box at dusk", revision), (await Shows(), await Revision()));
        await demo.Post("/api/changes/undo?sure=true", new { });
        Assert.Equal(shows, await Shows());
    }

    [Fact]
    public async Task Picture_files_are_told_by_their_content_and_hostile_ones_are_refused()
    {
        using var shop = new TestShop();
        var product = await shop.AddProduct();
        async Task<(int, string)> Send(byte[] file)
        {
            var (status, body) = await Upload(shop, $"/api/pictures/{product}", file);
            return (status, body["detail"]?.GetValue<string>() ?? "");
        }

        Assert.Equal(200, (await Send(Png(40, 30))).Item1);
        var name = (await Pictures(shop))[0]!["file"]!.GetValue<string>();
        var stored = await shop.Client.GetByteArrayAsync($"/api/pictures/files/{name}?small=true");
        Assert.Equal("WEBP", Encoding.ASCII.GetString(stored, 8, 4));
        Assert.Contains("known type", (await Send("GIF89a"u8.ToArray())).Item2);
        Assert.Contains("damaged", (await Send(Png(400, 300)[..120])).Item2);
        Assert.Contains("million pixels", (await Send(Png(10_000, 10_000, rows: 1))).Item2);
        Assert.Contains("MB, the limit", (await Send([0x89, .. "PNG"u8, .. new byte[50 << 20]])).Item2);
        Assert.Single(await Pictures(shop));
        Assert.Equal(404, (int)(await shop.Client.GetAsync("/api/pictures/files/..%2f..%2ftinrabbit.db")).StatusCode);
    }

    internal static byte[] Zip(params (string Name, byte[] Content)[] files)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, content) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(content);
            }

        return stream.ToArray();
    }

    // A picture of one colour; with fewer rows than it says, which only a reader of the pixels would notice.
    internal static byte[] Png(int width, int height, int? rows = null)
    {
        using var stream = new MemoryStream();
        stream.Write([0x89, .. "PNG\r\n\x1a\n"u8]);
        Span<byte> header = stackalloc byte[13];
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(header, width);
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(header[4..], height);
        (header[8], header[9]) = (8, 2);
        Chunk("IHDR"u8, header.ToArray());
        using (var packed = new MemoryStream())
        {
            using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true))
                for (var y = 0; y < (rows ?? height); y++)
                    zlib.Write(
                        new byte[1 + width * 3]
                            .Select((_, i) => (byte)(i == 0 ? 0 : (i * 37 + y * 11) % 251))
                            .ToArray()
                    );
            Chunk("IDAT"u8, packed.ToArray());
        }

        Chunk("IEND"u8, []);
        return stream.ToArray();

        static uint Crc(byte[] bytes)
        {
            var crc = uint.MaxValue;
            foreach (var b in bytes)
            {
                crc ^= b;
                for (var i = 0; i < 8; i++)
                    crc = (crc & 1) == 0 ? crc >> 1 : (crc >> 1) ^ 0xEDB88320;
            }

            return ~crc;
        }

        void Chunk(ReadOnlySpan<byte> type, byte[] data)
        {
            Span<byte> number = stackalloc byte[4];
            System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(number, data.Length);
            stream.Write(number);
            byte[] typed = [.. type, .. data];
            stream.Write(typed);
            System.Buffers.Binary.BinaryPrimitives.WriteUInt32BigEndian(number, Crc(typed));
            stream.Write(number);
        }
    }
}

/// <summary>One demo shop for several tests.</summary>
public sealed class DemoShop : IDisposable
{
    public TestShop Shop { get; } = new(demo: true);

    public void Dispose() => Shop.Dispose();
}
