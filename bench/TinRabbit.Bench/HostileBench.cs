using System.Diagnostics;
using System.IO.Compression;
using System.Net.Http.Json;
using System.Text;
using TinRabbit.Browser.Tests;

namespace TinRabbit.Bench;

/// <summary>The long forms of input that once hung or filled the program: what is said of each, after how long, with how much memory.</summary>
internal static class HostileBench
{
    internal static async Task Report()
    {
        Console.WriteLine("hostile:");
        await Upload("lists nested 49,000 deep", "x.html", Page(Many("<ul>", 49_000)));
        await Upload("five million unknown tags", "x.html", Page(Many("<x>", 5_000_000)));
        await Upload("a ZIP of 40 pages of 24 MB", "x.zip", Zip(40, Page(Many("<p>A box for wrens and for owls.</p>", 700_000))));
        await Upload("a ZIP of 40 pages of 2 MB", "x.zip", Zip(40, Page(Many("<p>A box for wrens and for owls, of cedar.</p>", 45_000))));
        await Upload(
            "200,000 products of schema.org",
            "x.json",
            Encoding.UTF8.GetBytes("[" + string.Join(',', Enumerable.Range(0, 200_000).Select(Product)) + "]")
        );
        await Upload(
            "5,000 products of schema.org",
            "x.json",
            Encoding.UTF8.GetBytes("[" + string.Join(',', Enumerable.Range(0, 5_000).Select(Product)) + "]")
        );
        await Compare(20_000);
    }

    private static string Many(string part, int times) => new StringBuilder().Insert(0, part, times).ToString();

    private static byte[] Page(string body) => Encoding.UTF8.GetBytes($"<html><body><h1>Boxes</h1><main>{body}</main></body></html>");

    private static string Product(int i) =>
        $$"""{"@type":"Product","name":"Box {{i}}","description":"A box for wrens.","material":"cedar","url":"https://fen.example/box-{{i}}"}""";

    private static byte[] Zip(int pages, byte[] page)
    {
        using var file = new MemoryStream();
        using (var zip = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
            for (var i = 0; i < pages; i++)
            {
                using var entry = zip.CreateEntry($"page-{i}.html", CompressionLevel.Fastest).Open();
                entry.Write(page);
            }

        return file.ToArray();
    }

    private static Task Upload(string what, string name, byte[] file) =>
        Measure(what, http => http.PostAsync($"/api/shop/imports?name={name}&platformId=web-shop", new ByteArrayContent(file)));

    private static Task Compare(int words) =>
        Measure(
            $"a comparison of {words:#,0} words with as many others",
            async http =>
            {
                for (var turn = 0; turn < 2; turn++)
                {
                    var revision = (await http.GetFromJsonAsync<System.Text.Json.Nodes.JsonNode>("/api/listings/1"))![
                        "revision"
                    ]!.GetValue<int>();
                    var text = string.Join(' ', Enumerable.Range(0, words).Select(i => $"{(turn == 0 ? "wren" : "owl")}{i}"));
                    await http.PutAsJsonAsync("/api/listings/1/copy", new { fields = new { title = "Box", description = text }, revision });
                    await http.PostAsJsonAsync("/api/listings/1/versions", new { name = $"{turn}" });
                }

                var versions = (await http.GetFromJsonAsync<System.Text.Json.Nodes.JsonArray>("/api/listings/1/versions"))!;
                return await http.PostAsJsonAsync(
                    "/api/listings/1/versions/compare",
                    new
                    {
                        from = versions[1]!["id"]!.GetValue<int>(),
                        to = versions[0]!["id"]!.GetValue<int>(),
                        fields = (object?)null,
                    }
                );
            }
        );

    // Each in a program of its own, so that the memory of one is not that of another.
    private static async Task Measure(string what, Func<HttpClient, Task<HttpResponseMessage>> ask)
    {
        using var shop = new RunningShop(demo: true);
        using var http = new HttpClient { BaseAddress = new(shop.Address), Timeout = TimeSpan.FromMinutes(5) };
        using var program = Process.GetProcessById(shop.ProcessId);
        var clock = Stopwatch.StartNew();
        var asking = ask(http);
        var peak = 0L;
        while (!asking.IsCompleted)
        {
            program.Refresh();
            peak = Math.Max(peak, program.WorkingSet64);
            await Task.WhenAny(asking, Task.Delay(20));
        }

        using var response = await asking;
        var says = await response.Content.ReadAsStringAsync();
        Console.WriteLine(
            $"  {what}: {(int)response.StatusCode} after {clock.Elapsed.TotalSeconds:F1} s, {peak >> 20:#,0} MB"
                + (response.IsSuccessStatusCode ? "" : $", “{System.Text.Json.Nodes.JsonNode.Parse(says)!["detail"]}”")
        );
    }
}
