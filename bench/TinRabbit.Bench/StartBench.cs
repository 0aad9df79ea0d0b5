using System.Diagnostics;
using System.Net.Http.Json;
using TinRabbit.Browser.Tests;

namespace TinRabbit.Bench;

/// <summary>A first start with the demo, the first dig, and the size of what is installed.</summary>
internal static class StartBench
{
    internal static void Report()
    {
        var clock = Stopwatch.StartNew();
        using var shop = new RunningShop(demo: true, made: true);
        Console.WriteLine($"start: first start, demo made, ready after {clock.Elapsed.TotalSeconds:F1} s");
        using var http = new HttpClient { BaseAddress = new(shop.Address) };
        var times = new List<double>();
        foreach (
            var head in new[]
            {
                "owl box",
                "bird bath",
                "bird print",
                "heron shirt",
                "suet feeder",
                "wildlife cabin",
                "bird guide",
                "bird seed",
                "hummingbird feeder",
                "bird table",
            }
        )
        {
            clock.Restart();
            http.PostAsJsonAsync(
                    "/api/products/1/dig",
                    new
                    {
                        marketId = "hedgerow-fair-us",
                        text = head,
                        parentId = (int?)null,
                    }
                )
                .Result.EnsureSuccessStatusCode();
            times.Add(clock.Elapsed.TotalMilliseconds);
        }

        Console.WriteLine(
            $"  ten digs of new heads, measured and put on the shelf: first {times[0]:F0} ms, median {times.Order().ElementAt(5):F0} ms, highest {times.Max():F0} ms"
        );
        var app = Path.Combine(TinRabbit.Browser.Tests.Repository.Root, "artifacts", "app");
        var bytes = Directory.EnumerateFiles(app, "*", SearchOption.AllDirectories).Sum(f => new FileInfo(f).Length);
        var script = Directory.EnumerateFiles(Path.Combine(app, "wwwroot", "assets"), "*.js").Sum(f => new FileInfo(f).Length);
        Console.WriteLine($"  the program {bytes / 1e6:F1} MB, of it the front end's script {script / 1e3:F0} kB");
    }
}
