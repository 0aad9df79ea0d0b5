using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using TinRabbit.Market;
using TinRabbit.Server.Hosting;

namespace TinRabbit.Server.Tests;

/// <summary>The real server over a real SQLite file in a folder of its own. A new shop is a copy of one that was made once for all tests.</summary>
public sealed class TestShop : IDisposable
{
    private static readonly Lazy<string> EmptyTemplate = new(() => MakeTemplate(demo: false));
    private static readonly Lazy<string> DemoTemplate = new(() => MakeTemplate(demo: true));

    private WebApplicationFactory<Program> _factory;
    private readonly bool _demo;
    private readonly bool _isReal;
    private readonly TimeProvider _clock = TimeProvider.System;

    public TestShop()
        : this(demo: false) { }

    /// <param name="demo">Whether it is the demo shop.</param>
    /// <param name="staysInDay">Whether its day is that of the shop that it is a copy of, however long the test runs.</param>
    /// <param name="isReal">Whether a shop of a seller's own is as sellers have it, without the simulated markets that tests ask.</param>
    internal TestShop(bool demo, bool staysInDay = false, bool isReal = false)
    {
        (_demo, _isReal) = (demo, isReal);
        if (staysInDay)
            _clock = new StayingClock(File.GetLastWriteTimeUtc((demo ? DemoTemplate : EmptyTemplate).Value));
        Folder = Directory.CreateTempSubdirectory("tin-rabbit-test-").FullName;
        CopyTo(Folder, demo);
        _factory = Factory();
        Client = NewClient();
    }

    /// <summary>Copies a shop that was made once for all tests into a folder.</summary>
    public static void CopyTo(string folder, bool demo)
    {
        var template = (demo ? DemoTemplate : EmptyTemplate).Value;
        File.Copy(template, Path.Combine(folder, "tinrabbit.db"));
        var pictures = Path.Combine(Path.GetDirectoryName(template)!, "pictures");
        if (!Directory.Exists(pictures))
            return;
        Directory.CreateDirectory(Path.Combine(folder, "pictures"));
        foreach (var file in Directory.GetFiles(pictures))
            File.Copy(file, Path.Combine(folder, "pictures", Path.GetFileName(file)));
    }

    public string Folder { get; }

    public HttpClient Client { get; private set; }

    public IServiceProvider Services => _factory.Services;

    /// <summary>Stops the server and starts it again on the same folder.</summary>
    public void Restart()
    {
        _factory.Dispose();
        _factory = Factory();
        Client = NewClient();
    }

    // A slow computer is no failure.
    private HttpClient NewClient()
    {
        var client = _factory.CreateClient();
        client.Timeout = TimeSpan.FromMinutes(10);
        return client;
    }

    public async Task<JsonNode> Get(string path) => JsonNode.Parse(await Client.GetStringAsync(path))!;

    public async Task<JsonNode> Post(string path, object body, int status = 200) => await Send(HttpMethod.Post, path, body, status);

    public async Task<JsonNode> Put(string path, object body, int status = 200) => await Send(HttpMethod.Put, path, body, status);

    /// <summary>Waits until nothing is measured in the background: until then numbers change by themselves.</summary>
    public Task NumbersSettled() => NumbersSettled(Client);

    private static async Task NumbersSettled(HttpClient client)
    {
        for (var i = 0; i < 6000; i++)
        {
            if (!JsonNode.Parse(await client.GetStringAsync("/api/measuring"))!["isRunning"]!.GetValue<bool>())
                return;
            await Task.Delay(50);
        }

        Assert.Fail("Measuring in the background does not end.");
    }

    /// <summary>Adds a product and gives its id.</summary>
    public async Task<int> AddProduct(string name = "Wren nest box") =>
        (
            await Post(
                "/api/products",
                new
                {
                    name,
                    facts = (object?)null,
                    pictures = (object?)null,
                }
            )
        )["id"]!.GetValue<int>();

    /// <summary>A product as the shop shows it.</summary>
    public async Task<JsonNode> Product(int id) =>
        (await Get("/api/shop"))["products"]!.AsArray().Single(p => p!["id"]!.GetValue<int>() == id)!;

    /// <summary>Saves facts over those that are there.</summary>
    public async Task<JsonNode> SaveFacts(int product, object facts) =>
        await Put($"/api/products/{product}/facts", new { facts, revision = (await Product(product))["revision"]!.GetValue<int>() });

    /// <summary>Saves a profile over the one that is there.</summary>
    public async Task<JsonNode> SavePlatform(string id, JsonNode profile, int status = 200)
    {
        var revision =
            (await Get("/api/platforms"))["platforms"]!
                .AsArray()
                .SingleOrDefault(p => p!["id"]!.GetValue<string>() == id)
                ?["revision"]!.GetValue<int>()
            ?? 0;
        return await Put($"/api/platforms/{id}", new { profile, revision }, status);
    }

    /// <summary>The product's listing on a platform.</summary>
    public async Task<int> ListingOf(int product, string platform) => (await Product(product))["listings"]![platform]!.GetValue<int>();

    /// <summary>Digs, and puts together what came line by line: a later row takes the place of an earlier one.</summary>
    public async Task<JsonNode> Dig(int product, string market, string text, int? parent = null)
    {
        var lines = await Lines(
            $"/api/products/{product}/dig",
            new
            {
                marketId = market,
                text,
                parentId = parent,
            }
        );
        var rows = new Dictionary<string, JsonNode>();
        foreach (var row in lines.SelectMany(l => l["rows"]!.AsArray()))
            rows[row!["key"]!.GetValue<string>()] = row;
        var whole = lines[^1].DeepClone();
        whole["rows"] = new JsonArray([.. rows.Values.Select(r => r.DeepClone())]);
        return whole;
    }

    /// <summary>Posts, and gives the lines of the answer.</summary>
    public async Task<List<JsonNode>> Lines(string path, object body)
    {
        using var response = await Client.PostAsJsonAsync(path, body);
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(response.IsSuccessStatusCode, text);
        Assert.Equal("application/x-ndjson", response.Content.Headers.ContentType!.MediaType);
        return [.. text.Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(l => JsonNode.Parse(l)!)];
    }

    /// <summary>Brings a file in through the door.</summary>
    /// <param name="market">The market that it is of.</param>
    /// <param name="listing">The listing that it is of.</param>
    /// <param name="name">What it is called.</param>
    /// <param name="file">What is in it.</param>
    /// <param name="kind">What it is taken for; null as it is recognised.</param>
    /// <param name="ofRivals">Whether it is of rivals.</param>
    /// <param name="status">What is answered.</param>
    public async Task<JsonNode> Drop(
        string market,
        int listing,
        string name,
        byte[] file,
        string? kind = null,
        bool? ofRivals = null,
        int status = 200
    )
    {
        var files = await Bindery.Of(this).Upload(name, file);
        var choices = new[]
        {
            new
            {
                id = files[0],
                kind,
                ofRivals,
            },
        };
        return await Post(
            "/api/drops/add",
            new
            {
                files,
                marketId = market,
                listingId = listing,
                choices,
            },
            status
        );
    }

    /// <summary>The same of a text.</summary>
    public Task<JsonNode> Drop(
        string market,
        int listing,
        string name,
        string text,
        string? kind = null,
        bool? ofRivals = null,
        int status = 200
    ) => Drop(market, listing, name, System.Text.Encoding.UTF8.GetBytes(text), kind, ofRivals, status);

    /// <summary>Asks a market's shelf.</summary>
    public Task<JsonNode> Shelf(string market, object query) => Post($"/api/markets/{market}/shelf", query);

    public Task<JsonNode> Pick(int product, string[] texts, string? home = null, string? fit = null, string? note = null) =>
        Post(
            $"/api/products/{product}/picks",
            new
            {
                texts,
                source = "test",
                fit,
                home,
                note,
            }
        );

    private async Task<JsonNode> Send(HttpMethod method, string path, object body, int status)
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        using var response = await Client.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(status == (int)response.StatusCode, $"{(int)response.StatusCode}: {text}");
        return text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!;
    }

    private WebApplicationFactory<Program> Factory() => Factory(Folder, _demo, _clock, _isReal);

    private static WebApplicationFactory<Program> Factory(string folder, bool demo, TimeProvider clock, bool isReal = false) =>
        new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
        {
            b.UseSetting("data", folder);
            b.UseSetting("demo", demo ? "true" : "false");
            b.ConfigureTestServices(services =>
            {
                services.AddSingleton(clock);
                if (!isReal)
                    services.AddSingleton<IMarket>(MarketSource.StandIn(clock));
            });
        });

    private static string MakeTemplate(bool demo)
    {
        var folder = Directory.CreateTempSubdirectory("tin-rabbit-template-").FullName;
        // With all that is measured in the background, so that nothing changes by itself in a test.
        using (var factory = Factory(folder, demo, TimeProvider.System))
        using (var client = factory.CreateClient())
            NumbersSettled(client).GetAwaiter().GetResult();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(folder, true);
        return Path.Combine(folder, "tinrabbit.db");
    }

    public void Dispose()
    {
        _factory.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(Folder, true);
    }
}

/// <summary>Where the project's files lie.</summary>
internal static class Repository
{
    public static string Root { get; } = Find();

    private static string Find()
    {
        var at = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(at!.FullName, "TinRabbit.slnx")))
            at = at.Parent;
        return at.FullName;
    }
}
