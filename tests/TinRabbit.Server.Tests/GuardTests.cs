using System.Net;
using System.Text;

namespace TinRabbit.Server.Tests;

/// <summary>The server answers its owner's own pages, and nobody else's.</summary>
public sealed class GuardTests(TestShop shop) : IClassFixture<TestShop>
{
    [Theory]
    [InlineData("localhost:5170", HttpStatusCode.OK)]
    [InlineData("127.0.0.1:5170", HttpStatusCode.OK)]
    [InlineData("[::1]:5170", HttpStatusCode.OK)]
    [InlineData("evil.example", HttpStatusCode.MisdirectedRequest)]
    [InlineData("evil.example:5170", HttpStatusCode.MisdirectedRequest)]
    [InlineData("localhost.evil.example", HttpStatusCode.MisdirectedRequest)]
    [InlineData("127.0.0.1.evil.example", HttpStatusCode.MisdirectedRequest)]
    [InlineData("192.168.0.7", HttpStatusCode.MisdirectedRequest)]
    public async Task Only_names_of_this_computer_are_answered(string host, HttpStatusCode status)
    {
        foreach (var path in new[] { "/api/shop", "/", "/openapi/v1.json", "/healthz" })
        {
            using var response = await Ask(HttpMethod.Get, path, host: host);
            Assert.True(
                (status == HttpStatusCode.OK) == (response.StatusCode != HttpStatusCode.MisdirectedRequest),
                $"{path} for {host}: {response.StatusCode}"
            );
        }
    }

    [Theory]
    [InlineData("http://localhost:5170", null, true)]
    [InlineData(null, null, true)]
    [InlineData(null, "same-origin", true)]
    [InlineData(null, "none", true)]
    [InlineData("https://evil.example", null, false)]
    [InlineData("http://localhost:8080", null, false)]
    [InlineData("https://localhost:5170", null, false)]
    [InlineData("null", null, false)]
    [InlineData(null, "cross-site", false)]
    [InlineData(null, "same-site", false)]
    public async Task Another_sites_page_changes_nothing(string? origin, string? site, bool allowed)
    {
        var before = (await shop.Get("/api/shop"))["products"]!.AsArray().Count;
        using var response = await Ask(
            HttpMethod.Post,
            "/api/products",
            """{"name":"Forged","facts":null,"pictures":null}""",
            origin,
            site
        );
        Assert.Equal(allowed ? HttpStatusCode.OK : HttpStatusCode.Forbidden, response.StatusCode);
        Assert.Equal(before + (allowed ? 1 : 0), (await shop.Get("/api/shop"))["products"]!.AsArray().Count);
        foreach (var method in new[] { HttpMethod.Put, HttpMethod.Delete })
        {
            using var other = await Ask(method, "/api/filters/1", "{}", origin, site);
            Assert.Equal(allowed, other.StatusCode != HttpStatusCode.Forbidden);
        }
    }

    [Fact]
    public async Task Another_sites_page_cannot_ask_the_api_by_address_either()
    {
        using var foreign = await Ask(HttpMethod.Get, "/api/shop", site: "cross-site");
        Assert.Equal(HttpStatusCode.Forbidden, foreign.StatusCode);
        // A link to the program is fine.
        using var link = await Ask(HttpMethod.Get, "/healthz", site: "cross-site");
        Assert.Equal(HttpStatusCode.OK, link.StatusCode);
    }

    [Fact]
    public async Task Every_answer_carries_the_headers_that_guard_a_page()
    {
        foreach (var path in new[] { "/api/shop", "/nowhere", "/api/nowhere", "/schemas/platform.json" })
        {
            using var response = await Ask(HttpMethod.Get, path);
            string Header(string name) => string.Join(", ", response.Headers.TryGetValues(name, out var values) ? values : []);
            var policy = Header("Content-Security-Policy");
            Assert.Contains("default-src 'self'", policy);
            Assert.Contains("script-src 'self';", policy);
            Assert.Contains("frame-ancestors 'none'", policy);
            Assert.Contains("object-src 'none'", policy);
            Assert.DoesNotContain("unsafe-eval", policy);
            Assert.Equal("nosniff", Header("X-Content-Type-Options"));
            Assert.Equal("no-referrer", Header("Referrer-Policy"));
            Assert.Equal("", Header("Server"));
        }
    }

    [Theory]
    [InlineData("POST", "/api/engine/weigh", """{"terms":7}""", "terms")]
    [InlineData("POST", "/api/engine/weigh", """{"terms":[{"text":"a","fit":"perfect"}]}""", "terms[0].fit")]
    [InlineData(
        "POST",
        "/api/markets/longbarrow-us/correct",
        """{"text":"a","volume":"many","competition":null,"titlesHolding":null,"clickCost":null}""",
        "volume"
    )]
    [InlineData("PUT", "/api/listings/1/copy", """{"fields":{},"revision":99999999999999999999,"keep":null}""", "revision")]
    [InlineData("POST", "/api/changes/undo?sure=true&change=x", "{}", "change")]
    public async Task No_error_names_a_type_of_the_program(string method, string path, string body, string field)
    {
        using var response = await Ask(new(method), path, body);
        var text = await response.Content.ReadAsStringAsync();
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Contains(field, text);
        Assert.DoesNotContain("System.", text);
        Assert.DoesNotContain("TinRabbit", text);
        Assert.DoesNotContain("Nullable", text);
    }

    private async Task<HttpResponseMessage> Ask(
        HttpMethod method,
        string path,
        string? body = null,
        string? origin = null,
        string? site = null,
        string host = "localhost:5170"
    )
    {
        using var request = new HttpRequestMessage(method, path) { Headers = { Host = host } };
        if (origin is not null)
            request.Headers.Add("Origin", origin);
        if (site is not null)
            request.Headers.Add("Sec-Fetch-Site", site);
        if (body is not null)
            request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        return await shop.Client.SendAsync(request);
    }
}
