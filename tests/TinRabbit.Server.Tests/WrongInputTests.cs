using System.Net;
using System.Text;
using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>Whatever is sent, to whichever of the paths: the server stays up, says what is wrong, and keeps what it has.</summary>
public sealed class WrongInputTests : IDisposable
{
    private readonly TestShop _shop = new(demo: true);

    public void Dispose() => _shop.Dispose();

    // What the paths are asked with where they have a place for it: one that is there, and one that is not.
    private static readonly Dictionary<string, (string Known, string Unknown)> Places = new()
    {
        ["id"] = ("1", "999999"),
        ["marketId"] = ("hedgerow-fair-us", "nowhere"),
        ["platformId"] = ("hedgerow-fair", "nowhere"),
        ["field"] = ("title", "nowhere"),
        ["format"] = ("csv", "doc"),
        ["kind"] = ("csv", "doc"),
        ["stepId"] = ("999999", "999999"),
        ["readingId"] = ("999999", "999999"),
        ["version"] = ("999999", "999999"),
        ["take"] = ("999999", "999999"),
        ["import"] = ("999999", "999999"),
        ["rivalId"] = ("999999", "999999"),
        ["check"] = ("999999", "999999"),
        ["note"] = ("999999", "999999"),
        ["productId"] = ("1", "999999"),
        ["number"] = ("0", "999999"),
        ["way"] = ("undo", "nowhere"),
    };

    private static readonly string[] Bodies =
    [
        "",
        "{",
        "null",
        "[]",
        "{}",
        "7",
        "\"text\"",
        """{"marketId":7}""",
        """{"marketId":null,"fields":[]}""",
        """{"marketId":"nowhere","fields":{}}""",
        """{"marketId":"hedgerow-fair-us","fields":{"titel":"x"}}""",
        """{"marketId":"hedgerow-fair-us","fields":{"title":"\ud83d"},"text":"\ud83d","name":"\ud83d","key":"\ud83d","texts":["\ud83d"]}""",
        """{"texts":[""],"source":null,"text":"","name":"","keys":[],"key":"","profile":{},"terms":[{"text":""}],"platform":"nowhere","months":[]}""",
        """{"texts":["a"],"fit":"perfect","home":"nowhere","profile":{"id":"a","fields":[{"key":"t","shape":"line"}]},"like":"nowhere"}""",
        """{"marketId":"hedgerow-fair-us","skip":-5,"take":-1,"order":"nowhere","revision":-1,"from":-3,"to":99999999}""",
        """{"texts":[null],"keys":[null],"terms":[null],"avoid":[null],"pictures":[null],"name":"x","months":[null],"marketId":"hedgerow-fair-us","fields":{},"platform":"hedgerow-fair","field":"tags","language":"es","sources":[null],"facts":{"materials":[null]}}""",
        """{"text":"a","marketId":"hedgerow-fair-us","texts":["a"],"language":"xx","filters":"{","platform":"hedgerow-fair","fields":{"title":"a"},"field":"title","terms":[{"text":"a b","volume":-1,"headroom":1e9}],"look":{}}""",
        """{"a":1e999}""",
        """{"revision":99999999999999999999}""",
        "\u0000",
        "[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[",
    ];

    [Fact]
    public async Task Whatever_is_sent_the_server_says_what_is_wrong_and_stays_up()
    {
        var described = (await _shop.Get("/openapi/v1.json"))["paths"]!.AsObject();
        Assert.True(described.Count > 50, "the description lost its paths");
        var (asked, broken) = (0, new List<string>());
        foreach (var (path, methods) in described)
        foreach (var method in methods!.AsObject().Select(m => m.Key).Where(m => m is "get" or "post" or "put" or "delete"))
        // What is deleted here could not be looked for below.
        foreach (var known in method == "delete" && path is "/api/products/{id}" or "/api/listings/{id}" ? (bool[])[false] : [true, false])
        foreach (var body in method is "get" or "delete" ? [""] : Bodies)
        {
            asked++;
            broken.AddRange(await Ask(method, path, known, body));
        }

        Assert.True(broken.Count == 0, string.Join("\n", broken));
        Assert.True(asked > 1000, $"only {asked} were asked");
        // And everything is there still.
        var view = await _shop.Get("/api/shop");
        Assert.NotEmpty(view["products"]!.AsArray());
        Assert.StartsWith("Cedar wren nest box", (await _shop.Get("/api/listings/1"))["copy"]!["title"]!.GetValue<string>());
    }

    // What is wrong with the answer; nothing where it is as it should be.
    private async Task<IEnumerable<string>> Ask(string method, string path, bool known, string body)
    {
        var address = path;
        foreach (var (name, (right, wrong)) in Places)
            address = address.Replace($"{{{name}}}", known ? right : wrong);
        Assert.False(address.Contains('{'), $"{path} has a place that the test knows nothing of");
        using var request = new HttpRequestMessage(new(method), address);
        if (body.Length > 0)
            request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        using var response = await _shop.Client.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        var told = $"{method} {address} with {body}: {(int)response.StatusCode} {text}";
        if ((int)response.StatusCode >= 500)
            return [told];
        if (response.StatusCode is not HttpStatusCode.BadRequest)
            return [];
        var problem = JsonNode.Parse(text)!;
        return (problem["detail"] ?? problem["title"])?.GetValue<string>().Length > 5 ? [] : [told];
    }

    [Fact]
    public async Task Of_two_that_save_from_the_same_revision_one_is_told()
    {
        var listing = (await _shop.Get("/api/listings/1"))["revision"]!.GetValue<int>();
        var titles = Enumerable.Range(0, 8).Select(i => $"Title {i}").ToArray();
        var answers = await Task.WhenAll(
            titles.Select(async title =>
            {
                using var request = new HttpRequestMessage(HttpMethod.Put, "/api/listings/1/copy")
                {
                    Content = new StringContent(
                        new JsonObject
                        {
                            ["fields"] = new JsonObject { ["title"] = title },
                            ["revision"] = listing,
                        }.ToJsonString(),
                        Encoding.UTF8,
                        "application/json"
                    ),
                };
                using var response = await _shop.Client.SendAsync(request);
                return (title, response.StatusCode, Body: JsonNode.Parse(await response.Content.ReadAsStringAsync())!);
            })
        );
        var (won, _, _) = Assert.Single(answers, a => a.StatusCode == HttpStatusCode.OK);
        Assert.All(
            answers.Where(a => a.title != won),
            a =>
            {
                Assert.Equal(HttpStatusCode.Conflict, a.StatusCode);
                Assert.Equal(won, a.Body["copy"]!["title"]!.GetValue<string>());
            }
        );
        Assert.Equal(won, (await _shop.Get("/api/listings/1"))["copy"]!["title"]!.GetValue<string>());
    }

    [Fact]
    public async Task Alt_texts_are_saved_in_order_guarded_and_the_same_on_every_platform()
    {
        var product = (await _shop.Get("/api/shop"))["products"]!.AsArray().Single(p => p!["id"]!.GetValue<int>() == 1)!;
        var saved = await _shop.Put(
            "/api/products/1/pictures",
            new { pictures = new[] { "A nest box", "A blue plastic box", "" }, revision = product["picturesRevision"]!.GetValue<int>() }
        );
        Assert.Equal(["A nest box", "A blue plastic box", ""], saved["pictures"]!.AsArray().Select(p => p!.GetValue<string>()));
        Assert.Equal(product["facts"]!.ToJsonString(), saved["facts"]!.ToJsonString());
        var listings = product["listings"]!;
        foreach (var (platform, market) in new[] { ("hedgerow-fair", "hedgerow-fair-us"), ("longbarrow", "longbarrow-us") })
        {
            var findings = (
                await _shop.Post(
                    $"/api/listings/{listings[platform]!.GetValue<int>()}/check",
                    new { marketId = market, fields = (object?)null }
                )
            )["findings"]!.AsArray();
            var claims = findings
                .Where(f => f!["field"]!.GetValue<string>() == "$pictures")
                .Select(f => f!["why"]!.GetValue<string>())
                .ToList();
            Assert.Contains(claims, w => w.Contains("“blue”"));
            Assert.Contains(claims, w => w.Contains("“plastic”"));
        }
    }
}
