using System.Text.Json.Nodes;

namespace TinRabbit.Server.Tests;

/// <summary>A made-up bookbinder's shop on a marketplace without a connection, filled from the sample files as a seller would.</summary>
internal sealed class Bindery
{
    public const string Market = "weir-street-gb";

    private static readonly string Samples = Path.Combine(Repository.Root, "docs", "samples", "bindery");

    private readonly TestShop _shop;

    private Bindery(TestShop shop, int product, int listing) => (_shop, Product, Listing) = (shop, product, listing);

    /// <summary>The notebook cover.</summary>
    public int Product { get; }

    /// <summary>Its listing.</summary>
    public int Listing { get; }

    /// <summary>Makes the shop with its platform and one listing.</summary>
    public static async Task<Bindery> Open(TestShop shop)
    {
        await shop.Put(
            "/api/shop",
            new
            {
                name = "Foxglove Bindery",
                countries = new[] { "gb" },
                language = "en",
            }
        );
        var profile = JsonNode.Parse(await File.ReadAllTextAsync(Path.Combine(Samples, "platform.json")));
        await shop.Post("/api/platforms", new { profile, like = "hedgerow-fair" });
        var product = await shop.AddProduct("Leather A5 notebook cover");
        await shop.Post($"/api/products/{product}/listings/weir-street", new { });
        var listing = await shop.ListingOf(product, "weir-street");
        await shop.Put(
            $"/api/listings/{listing}/copy",
            new
            {
                fields = new { title = "Leather A5 notebook cover, refillable, with pen loop, chestnut brown" },
                revision = 0,
                keep = (string?)null,
            }
        );
        return new(shop, product, listing);
    }

    /// <summary>For uploads alone.</summary>
    public static Bindery Of(TestShop shop) => new(shop, 0, 0);

    /// <summary>Uploads sample files.</summary>
    /// <returns>Their ids.</returns>
    public async Task<List<string>> Upload(params string[] names)
    {
        var ids = new List<string>();
        foreach (var name in names)
            ids.AddRange(await Upload(name, await File.ReadAllBytesAsync(Path.Combine(Samples, name))));
        return ids;
    }

    /// <summary>Uploads a file.</summary>
    public async Task<List<string>> Upload(string name, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        using var answer = await _shop.Client.PostAsync($"/api/drops?name={Uri.EscapeDataString(name)}", content);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return [.. JsonNode.Parse(text)!["files"]!.AsArray().Select(f => f!["id"]!.GetValue<string>())];
    }

    /// <summary>Uploads text.</summary>
    public Task<List<string>> Paste(string text) => Upload("Pasted", System.Text.Encoding.UTF8.GetBytes(text));

    /// <summary>What adding files would add.</summary>
    public async Task<JsonArray> Look(IReadOnlyList<string> files, object? choices = null, int? listingId = null, string? term = null) =>
        (
            await _shop.Post(
                "/api/drops/preview",
                new
                {
                    files,
                    marketId = Market,
                    choices,
                    listingId,
                    term,
                }
            )
        ).AsArray();

    /// <summary>Adds files.</summary>
    /// <returns>The change.</returns>
    public async Task<int> Add(IReadOnlyList<string> files, object? choices = null, int? listingId = null, string? term = null) =>
        (
            await _shop.Post(
                "/api/drops/add",
                new
                {
                    files,
                    marketId = Market,
                    choices,
                    listingId,
                    term,
                }
            )
        )["id"]!.GetValue<int>();

    /// <summary>Adds sample files as they are recognised.</summary>
    public async Task<int> Add(params string[] names) => await Add(await Upload(names));
}
