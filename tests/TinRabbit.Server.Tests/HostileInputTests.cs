using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using TinRabbit.Core;

namespace TinRabbit.Server.Tests;

/// <summary>Input that once crashed, filled or blocked the server: each is refused with the field and the bound, and costs little.</summary>
public sealed class HostileInputTests(TestShop shop) : IClassFixture<TestShop>
{
    private const string Market = "hedgerow-fair-gb";

    [Fact]
    public async Task A_term_of_twenty_thousand_words_is_refused_wherever_it_comes_from()
    {
        var words = string.Join(' ', Enumerable.Repeat("a", 20_000));
        var many = string.Join(' ', Enumerable.Repeat("a", 60));
        foreach (var term in new[] { words, many })
        {
            await Refused(
                "terms[0].text",
                "/api/engine/weigh",
                new
                {
                    platform = "longbarrow",
                    fields = new { title = "a" },
                    terms = new[] { new { text = term } },
                }
            );
            await Refused(
                "text",
                $"/api/markets/{Market}/correct",
                new
                {
                    text = term,
                    volume = 1,
                    competition = (int?)null,
                    titlesHolding = (int?)null,
                    clickCost = (decimal?)null,
                }
            );
            await Refused(
                "texts[0]",
                "/api/products/1/picks",
                new
                {
                    texts = new[] { term },
                    source = "",
                    fit = (string?)null,
                    home = (string?)null,
                    note = (string?)null,
                }
            );
            await Refused(
                "text",
                "/api/products/1/dig",
                new
                {
                    marketId = Market,
                    text = term,
                    parentId = (int?)null,
                }
            );
            await Refused(
                "avoid[0]",
                "/api/engine/fill/words",
                new
                {
                    platform = "longbarrow",
                    fields = new { },
                    field = "backend",
                    terms = new[] { new { text = "a" } },
                    avoid = new[] { term },
                }
            );
            var pasted = await shop.Post($"/api/markets/{Market}/paste", new { text = $"{term}\t5\nowl box\t3", source = "x" });
            Assert.Equal((1, 1), (pasted["taken"]!.GetValue<int>(), pasted["bad"]!.AsArray().Count));
            var profile = (await shop.Get("/api/platforms"))["platforms"]!
                .AsArray()
                .First(p => p!["id"]!.GetValue<string>() == "longbarrow")!["profile"]!.DeepClone();
            profile["id"] = "poisoned";
            profile["banned"] = new JsonArray("free shipping", term);
            await Refused("profile.banned[1]", "/api/platforms", new { profile, like = "longbarrow" });
        }
    }

    [Theory]
    [InlineData("months", """{"months":[{0}1],"from":"2025-01"}""", "/api/engine/shape", "1,", 100_000)]
    [InlineData(
        "terms",
        """{"platform":"longbarrow","fields":{},"field":"backend","terms":[{0}{"text":"a"}]}""",
        "/api/engine/fill/words",
        """{"text":"a"},""",
        6_000
    )]
    [InlineData(
        "terms",
        """{"platform":"longbarrow","fields":{},"terms":[{0}{"text":"a"}]}""",
        "/api/engine/weigh",
        """{"text":"a"},""",
        21_000
    )]
    [InlineData(
        "fields.bullets",
        """{"platform":"longbarrow","fields":{"bullets":[{0}"a"]},"terms":[]}""",
        "/api/engine/weigh",
        "\"a\",",
        2_000
    )]
    [InlineData(
        "fields.title",
        """{"platform":"longbarrow","fields":{"title":"{0}"},"terms":[]}""",
        "/api/engine/check",
        "aaaaaaaaaa",
        21_000
    )]
    [InlineData(
        "platform.fields",
        """{"platform":{"id":"x","fields":[{0}{"key":"z","shape":"line"}]},"fields":{},"terms":[]}""",
        "/api/engine/weigh",
        """{"key":"a","shape":"line"},""",
        100
    )]
    [InlineData(
        "platform.banned",
        """{"platform":{"id":"x","fields":[],"banned":[{0}"z"]},"fields":{},"terms":[]}""",
        "/api/engine/weigh",
        "\"a b\",",
        3_000
    )]
    [InlineData("also", """{"also":[{0}"z"]}""", "/api/markets/longbarrow-us/shelf", "\"a\",", 21_000)]
    [InlineData("texts", """{"texts":[{0}"z"]}""", "/api/products/1/picks/drop", "\"a\",", 6_000)]
    [InlineData("text", """{"platform":"longbarrow","marketId":"longbarrow-us","text":"{0}"}""", "/api/engine/read", "bird house ", 1_000)]
    public async Task What_is_too_much_is_refused_with_the_field_and_the_bound(
        string field,
        string body,
        string path,
        string item,
        int times
    )
    {
        using var response = await shop.Client.PostAsync(
            path,
            new StringContent(body.Replace("{0}", string.Concat(Enumerable.Repeat(item, times))), Encoding.UTF8, "application/json")
        );
        var problem = JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Contains(field, problem["errors"]!.AsObject().Select(e => e.Key));
        Assert.Contains("the most is", problem["errors"]![field]!.ToJsonString());
    }

    [Theory]
    [InlineData("fields", """{"platform":"longbarrow","fields":{"\ud83d":"x"},"terms":[]}""", "/api/engine/weigh")]
    [InlineData(
        "fields.attributes",
        """{"platform":"longbarrow","fields":{"attributes":{"\ud83d":"x"}},"terms":[]}""",
        "/api/engine/weigh"
    )]
    [InlineData("fields.title", """{"platform":"longbarrow","fields":{"title":"\ud83d"},"terms":[]}""", "/api/engine/weigh")]
    [InlineData("platform", """{"platform":{"\ud83d":1,"id":"x","fields":[]},"fields":{},"terms":[]}""", "/api/engine/weigh")]
    [InlineData(
        "platform.checks.unusedShare",
        """{"platform":{"id":"x","fields":[],"checks":{"unusedShare":1e400}},"fields":{},"terms":[]}""",
        "/api/engine/check"
    )]
    [InlineData("terms[0].volume", """{"platform":"longbarrow","fields":{},"terms":[{"text":"a","volume":1e400}]}""", "/api/engine/weigh")]
    [InlineData("terms[0].text", """{"platform":"longbarrow","fields":{},"terms":[{"text":"a\ud83d"}]}""", "/api/engine/weigh")]
    [InlineData("months[0]", """{"months":[1e400,1,1,1,1,1,1,1,1,1,1,1],"from":"2025-01"}""", "/api/engine/shape")]
    [InlineData("from", """{"months":[1,1,1,1,1,1,1,1,1,1,1,1],"from":"9999-12"}""", "/api/engine/shape")]
    [InlineData("marketId", """{"marketId":"nowhere","text":"a","fields":null}""", "/api/listings/1/read")]
    [InlineData("marketId", """{"marketId":"nowhere","fields":null}""", "/api/listings/1/weigh")]
    public async Task What_no_number_or_text_can_be_is_refused_with_the_field(string field, string body, string path)
    {
        await shop.AddProduct();
        using var response = await shop.Client.PostAsync(path, new StringContent(body, Encoding.UTF8, "application/json"));
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(response.StatusCode == HttpStatusCode.BadRequest, $"{response.StatusCode}: {text}");
        Assert.Contains(field, JsonNode.Parse(text)!["errors"]!.AsObject().Select(e => e.Key));
    }

    [Fact]
    public async Task Markets_that_are_not_there_are_refused_at_every_path()
    {
        foreach (var path in new[] { "term?text=a", "countries?text=a", "alike?text=a", "sources", "suggest?typed=a" })
            Assert.Equal(HttpStatusCode.NotFound, (await shop.Client.GetAsync($"/api/markets/nowhere/{path}")).StatusCode);
        foreach (
            var path in new[]
            {
                "shelf",
                "paste",
                "correct",
                "readings/1/use",
                $"imports/{Guid.NewGuid():N}/run",
                $"imports/{Guid.NewGuid():N}/look",
                "imports",
            }
        )
        {
            using var response = await shop.Client.PostAsJsonAsync(
                $"/api/markets/nowhere/{path}",
                new
                {
                    text = "a",
                    source = "x",
                    look = (object?)null,
                    volume = (int?)null,
                    competition = (int?)null,
                    titlesHolding = (int?)null,
                    clickCost = (int?)null,
                }
            );
            Assert.True(response.StatusCode is HttpStatusCode.NotFound or HttpStatusCode.BadRequest, $"{path}: {response.StatusCode}");
        }
    }

    [Fact]
    public async Task A_description_of_twenty_thousand_words_is_checked_within_the_time_that_a_request_has()
    {
        var sentence = "Grey cedar, bird house, colour bird house kit, wooden bird house. ";
        var terms = Enumerable
            .Range(0, 500)
            .Select(i => new { text = $"bird house {i}", volume = i })
            .Append(new { text = "bird house", volume = 900 });
        var check = await shop.Post(
            "/api/engine/check",
            new
            {
                platform = "longbarrow",
                fields = new { description = string.Concat(Enumerable.Repeat(sentence, 2000)), title = "Bird house" },
                lead = "bird house",
                terms,
                facts = new { what = "bird house" },
            }
        );
        Assert.NotEmpty(check["findings"]!.AsArray());
    }

    [Fact]
    public async Task What_would_take_minutes_is_stopped_and_said()
    {
        // Two thousand terms, each of twenty words that are all the same, against a text of nothing else: minutes of work.
        var body = new
        {
            platform = "longbarrow",
            fields = new { title = string.Concat(Enumerable.Repeat("bird ", 39_000)) },
            terms = Enumerable.Repeat(new { text = string.Join(' ', Enumerable.Repeat("bird", 20)), volume = 5 }, 2000),
        };
        using (var leave = new CancellationTokenSource(TimeSpan.FromMilliseconds(700)))
            await Assert.ThrowsAnyAsync<OperationCanceledException>(() =>
                shop.Client.PostAsJsonAsync("/api/engine/weigh", body, leave.Token)
            );
        // Who leaves is not waited for; who stays is told after a few seconds.
        using var response = await shop.Client.PostAsJsonAsync("/api/engine/weigh", body);
        Assert.Equal(HttpStatusCode.ServiceUnavailable, response.StatusCode);
        Assert.Contains($"longer than {Bounds.ComputeSeconds} seconds", await response.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task The_bounds_are_told_in_the_description()
    {
        var schemas = (await shop.Get("/openapi/v1.json"))["components"]!["schemas"]!;
        Assert.Equal(Bounds.Months, schemas["ShapeRequest"]!["properties"]!["months"]!["maxItems"]!.GetValue<int>());
        Assert.Equal(Bounds.TermLength, schemas["EngineTerm"]!["properties"]!["text"]!["maxLength"]!.GetValue<int>());
        Assert.Equal(Bounds.FillTerms, schemas["FillRequest"]!["properties"]!["terms"]!["maxItems"]!.GetValue<int>());
        Assert.Equal(Bounds.PasteLength, schemas["PasteRequest"]!["properties"]!["text"]!["maxLength"]!.GetValue<int>());
        Assert.Equal(
            (Bounds.TermsAtOnce, Bounds.TermLength),
            (
                schemas["PickRequest"]!["properties"]!["texts"]!["maxItems"]!.GetValue<int>(),
                schemas["PickRequest"]!["properties"]!["texts"]!["items"]!["maxLength"]!.GetValue<int>()
            )
        );
        // No text and no list of any request is without one.
        foreach (var (name, schema) in schemas.AsObject().Where(s => s.Key.EndsWith("Request", StringComparison.Ordinal)))
        foreach (var (property, described) in schema!["properties"]?.AsObject() ?? [])
            if (
                described!["type"]?.ToJsonString() is { } type
                && (type.Contains("\"string\"") || type.Contains("array"))
                && described["enum"] is null
                // A date is its own bound.
                && described["format"]?.GetValue<string>() != "date"
            )
                Assert.True(described["maxLength"] is not null || described["maxItems"] is not null, $"{name}.{property}");
    }

    [Theory]
    [InlineData("far corner", "column 16,384; the most is 400")]
    [InlineData("far row", "down to row 3,000,000; the most is 2,000,000")]
    [InlineData("one large cell", "more than 32,767 characters")]
    [InlineData("one large shared text", "more than 32,767 characters")]
    [InlineData("no styles", null)]
    [InlineData("missing text", "refers to a text that is not there")]
    [InlineData("no sheet", "has no sheet")]
    [InlineData("broken XML", "damaged")]
    [InlineData("entities", "damaged")]
    [InlineData("no zip", "damaged")]
    public async Task A_hostile_workbook_is_refused_in_words_or_read(string how, string? says)
    {
        var file = HostileFiles.Workbook(how);
        Assert.True(file.Length < 2_000_000, $"{file.Length} bytes");
        using var response = await shop.Client.PostAsync($"/api/markets/{Market}/imports?name=terms.xlsx", new ByteArrayContent(file));
        var text = await response.Content.ReadAsStringAsync();
        Assert.Equal(says is null ? HttpStatusCode.OK : HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Contains(says ?? "bird house", text);
    }

    [Theory]
    [InlineData("four hundred and one columns", "Row 1 has 401 columns; the limit is 400.")]
    [InlineData("first row too long", "Row 1 is longer than 1,024 KB")]
    [InlineData("nothing", "The file has no rows")]
    public async Task A_hostile_table_is_refused_with_its_row(string how, string says)
    {
        using var response = await shop.Client.PostAsync(
            $"/api/markets/{Market}/imports?name=terms.csv",
            new ByteArrayContent(HostileFiles.Table(how))
        );
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Contains(says, JsonNode.Parse(await response.Content.ReadAsStringAsync())!["detail"]!.GetValue<string>());
    }

    [Fact]
    public async Task Rows_that_are_all_wrong_stop_the_import_soon()
    {
        var rows = new StringBuilder("term,volume\nbird house,5\n");
        for (var i = 0; i < 400_000; i++)
            rows.Append("!!,x\n");
        using var begun = await shop.Client.PostAsync(
            $"/api/markets/{Market}/imports?name=terms.csv",
            new StringContent(rows.ToString(), Encoding.UTF8, "text/csv")
        );
        var view = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
        var last = (await shop.Lines($"/api/markets/{Market}/imports/{view["id"]}/run", new { look = view["look"], source = "x" }))[^1];
        Assert.Contains("More than 100,000 rows could not be read", last["problem"]!.GetValue<string>());
        Assert.Contains("Nothing was imported", last["problem"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_wrong_encoding_or_delimiter_is_refused_with_its_name()
    {
        using var begun = await shop.Client.PostAsync(
            $"/api/markets/{Market}/imports?name=terms.csv",
            new StringContent("term,volume\nbird house,5\n")
        );
        var view = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
        var path = $"/api/markets/{Market}/imports/{view["id"]}/look";
        foreach (var encoding in new[] { "utf-7", "nonsense", "utf-32" })
            await Refused(
                "encoding",
                path,
                new
                {
                    look = (object?)null,
                    encoding,
                    separator = ",",
                }
            );
        foreach (var separator in new[] { "ab", "\"", "x", "\n" })
            await Refused(
                "separator",
                path,
                new
                {
                    look = (object?)null,
                    encoding = "utf-8",
                    separator,
                }
            );
        // A workbook's way of reading does not fit a CSV file, nor the reverse.
        var look = view["look"]!.DeepClone();
        (look["encoding"], look["separator"]) = ("", "");
        await Refused(
            "separator",
            path,
            new
            {
                look,
                encoding = (string?)null,
                separator = (string?)null,
            }
        );
    }

    [Fact]
    public async Task Files_that_wait_too_long_are_removed()
    {
        var folder = Path.Combine(shop.Folder, "imports");
        Directory.CreateDirectory(folder);
        var old = Path.Combine(folder, Guid.NewGuid().ToString("N"));
        await File.WriteAllTextAsync(old, "term\nx\n");
        File.SetLastWriteTimeUtc(old, DateTime.UtcNow.AddDays(-2));
        using var begun = await shop.Client.PostAsync(
            $"/api/markets/{Market}/imports?name=terms.csv",
            new StringContent("term,volume\nbird house,5\n")
        );
        Assert.True(begun.IsSuccessStatusCode);
        Assert.False(File.Exists(old));
    }

    [Theory]
    [InlineData("<ul>")]
    [InlineData("<div>")]
    [InlineData("<b><i>")]
    public async Task Html_that_is_nested_too_deep_is_refused_by_name_and_what_is_stored_of_it_still_opens(string tag)
    {
        var body = string.Concat(Enumerable.Repeat(tag, 49_000 / 4 * 4 / tag.Length));
        var product = await shop.AddProduct("Nested");
        var listing = await shop.ListingOf(product, "web-shop");
        var refused = await shop.Put(
            $"/api/listings/{listing}/copy",
            new
            {
                fields = new { heading = "Nested", body },
                revision = 0,
                keep = (string?)null,
            },
            400
        );
        Assert.Contains("deep", refused.ToJsonString());
        await Refused(
            "file",
            "/api/shop/imports?name=nested.html&platformId=web-shop",
            new StringContent($"<html><body><h1>x</h1>{body}</body></html>")
        );
        // A program that knew no bounds may have stored it: it is read as text, in no time.
        var read = TinRabbit.Core.Pages.RichBody.Read(body + "a word");
        Assert.Equal("a word", read.Text);
    }

    [Theory]
    // Pictures in a page end their elements by themselves; elsewhere that is no end, also not behind a picture that HTML has ended.
    [InlineData("<svg><title>Cart</title>", "<path d='M0 0'/>", 400, true)]
    [InlineData("<ul>", "<li>one", 4_000, true)]
    [InlineData("<p>", "<br/>", 4_000, true)]
    [InlineData("", "<div/>", 400, false)]
    [InlineData("<svg><div>", "<path/>", 400, false)]
    [InlineData("<svg><title>", "<path/>", 400, false)]
    [InlineData("", "<i><b>", 200, false)]
    public void Only_what_nests_counts_as_depth(string before, string part, int times, bool isRead)
    {
        var html = before + string.Concat(Enumerable.Repeat(part, times));
        Assert.Equal(isRead, TinRabbit.Core.Platforms.HtmlBounds.Problem(html) is null);
        // What is let through, a parser reads no deeper than the bound, but for what it adds around.
        if (!isRead)
            return;
        var body = new AngleSharp.Html.Parser.HtmlParser().ParseDocument(html).Body!;
        Assert.InRange(DepthOf(body), 1, TinRabbit.Core.Platforms.HtmlBounds.Depth + 3);

        static int DepthOf(AngleSharp.Dom.INode node) => 1 + node.ChildNodes.Select(DepthOf).DefaultIfEmpty().Max();
    }

    [Fact]
    public void Html_with_ends_that_never_come_is_blanked_in_one_pass()
    {
        foreach (var part in new[] { "<script>", "&amp", "<!--", "&", "<style x=", "</" })
        {
            var html = string.Concat(Enumerable.Repeat(part, 200_000 / part.Length));
            Assert.Equal(html.Length, TinRabbit.Core.Platforms.HtmlText.Blank(html).Length);
        }
    }

    [Fact]
    public void Long_texts_are_compared_line_by_line_and_longer_ones_as_a_whole()
    {
        var platform = Listings.ShippedPlatforms.All.First(p => p.Id == "hedgerow-fair");
        Core.Platforms.FieldValue.Text Of(string joint, string word) =>
            new(string.Join(joint, Enumerable.Range(0, 20_000).Select(i => $"{word}{i}")));
        foreach (var joint in new[] { " ", "\n" })
        {
            var changed = Assert.Single(
                Listings.FieldChanges.Of(
                    platform,
                    new Dictionary<string, Core.Platforms.FieldValue> { ["description"] = Of(joint, "a") },
                    new Dictionary<string, Core.Platforms.FieldValue> { ["description"] = Of(joint, "b") }
                )
            );
            Assert.Equal([Listings.DiffKind.Removed, Listings.DiffKind.Added], changed.Words.Select(w => w.Are));
        }
    }

    [Fact]
    public async Task Half_a_character_and_files_of_another_import_are_refused_and_fail_nothing()
    {
        foreach (var engine in new[] { "weigh", "check", "fill/words", "moves" })
        {
            using var body = new StringContent(
                "{\"platform\":\"a\\udc00\",\"fields\":{},\"terms\":[],\"field\":\"x\"}",
                Encoding.UTF8,
                "application/json"
            );
            using var answer = await shop.Client.PostAsync($"/api/engine/{engine}", body);
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        }

        using var terms = new StringContent("term,volume\nowl box,900\n");
        using var begun = await shop.Client.PostAsync($"/api/markets/{Market}/imports?name=owls.csv", terms);
        var view = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
        await shop.Post($"/api/shop/imports/{view["id"]}/run", new { keys = Array.Empty<string>() }, 404);
        await shop.Post(
            $"/api/markets/{Market}/imports/{view["id"]}/rows",
            new
            {
                look = (object?)null,
                encoding = "klingon",
                separator = ",",
            },
            400
        );
    }

    [Fact]
    public async Task An_archive_with_a_wrong_checksum_or_two_files_of_one_name_is_refused()
    {
        var zip = await shop.Client.GetByteArrayAsync("/api/shop/export.zip");
        // The checksum of the first file, in its header and in the directory at the end.
        var wrong = zip.ToArray();
        var directory = wrong.AsSpan().LastIndexOf("PK\u0001\u0002"u8);
        var first = wrong.AsSpan().IndexOf("PK\u0001\u0002"u8);
        Assert.True(first > 0 && directory >= first);
        wrong[first + 16] ^= 1;
        await Refused("file", "/api/shop/imports?name=shop.zip", new ByteArrayContent(wrong));

        using var twice = new MemoryStream();
        using (var archive = new System.IO.Compression.ZipArchive(twice, System.IO.Compression.ZipArchiveMode.Create, leaveOpen: true))
            for (var i = 0; i < 2; i++)
                using (var entry = new StreamWriter(archive.CreateEntry("shop.json").Open()))
                    entry.Write("{}");
        await Refused("file", "/api/shop/imports?name=shop.zip", new ByteArrayContent(twice.ToArray()));
    }

    [Fact]
    public async Task An_import_that_is_removed_while_it_runs_says_so_or_is_done()
    {
        var terms = Encoding.UTF8.GetBytes("term,volume\n" + string.Concat(Enumerable.Range(0, 3_000).Select(i => $"perch {i},{i}\n")));
        var listings = Encoding.UTF8.GetBytes("product,platform,title\nOwl box,hedgerow-fair,Owl box\n");
        for (var round = 0; round < 12; round++)
        {
            var (imports, file, run) =
                round % 2 == 0
                    ? (
                        "/api/markets/hedgerow-fair-us/imports",
                        terms,
                        (Func<JsonNode, object>)(i => new { look = i["look"], source = "x" })
                    )
                    : ("/api/shop/imports", listings, _ => new { keys = new[] { "product 0", "listing 0 hedgerow-fair" } });
            using var upload = await shop.Client.PostAsync($"{imports}?name=t.csv", new ByteArrayContent(file));
            var import = JsonNode.Parse(await upload.Content.ReadAsStringAsync())!;
            var running = shop.Client.PostAsJsonAsync($"{imports}/{import["id"]}/run", run(import));
            await Task.Delay(round * 3);
            using var removed = await shop.Client.DeleteAsync($"{imports}/{import["id"]}");
            using var done = await running;
            var says = await done.Content.ReadAsStringAsync();
            Assert.True((int)done.StatusCode is 200 or 404, $"{done.StatusCode} {says}");
            if (round % 2 == 0 && done.IsSuccessStatusCode)
                Assert.True(
                    says.Contains("\"count\":{", StringComparison.Ordinal) || says.Contains("removed meanwhile", StringComparison.Ordinal),
                    says
                );
        }
    }

    [Theory]
    [InlineData("POST", "/api/engine/weigh", "text/plain", 415)]
    [InlineData("POST", "/api/filters", "application/x-www-form-urlencoded", 415)]
    [InlineData("PATCH", "/api/shop", "application/json", 405)]
    [InlineData("POST", "/api/nowhere", "application/json", 404)]
    [InlineData("GET", "/api", null, 404)]
    public async Task A_wrong_type_method_or_address_is_told_as_what_it_is(string method, string path, string? type, int status)
    {
        using var request = new HttpRequestMessage(new(method), path);
        if (type is not null)
            request.Content = new StringContent("{}", Encoding.UTF8, type);
        using var response = await shop.Client.SendAsync(request);
        Assert.Equal(status, (int)response.StatusCode);
        Assert.Contains($"\"status\":{status}", await response.Content.ReadAsStringAsync());
    }

    private async Task Refused(string field, string path, HttpContent body)
    {
        using (body)
        {
            using var answer = await shop.Client.PostAsync(path, body);
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            Assert.Contains($"\"{field}\"", await answer.Content.ReadAsStringAsync());
        }
    }

    private async Task Refused(string field, string path, object body)
    {
        using var response = await shop.Client.PostAsJsonAsync(path, body);
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(response.StatusCode == HttpStatusCode.BadRequest, $"{path}: {response.StatusCode}");
        Assert.Contains(field, JsonNode.Parse(text)!["errors"]!.AsObject().Select(e => e.Key));
    }
}
