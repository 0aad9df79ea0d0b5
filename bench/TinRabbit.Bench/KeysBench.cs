using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using TinRabbit.Browser.Tests;

namespace TinRabbit.Bench;

/// <summary>From key to repainted lines, in the browser, with many picks and findings on.</summary>
internal static class KeysBench
{
    private const int Early = 40;

    internal static void Report()
    {
        Report(500);
        Report(5000);
    }

    private static void Report(int picks)
    {
        using var shop = new RunningShop(demo: true);
        using var http = new HttpClient { BaseAddress = new(shop.Address) };
        var texts = new List<string>();
        foreach (
            var head in new[]
            {
                "bird house",
                "nest box",
                "bird feeder",
                "bat box",
                "bird lover gift",
                "bird bath",
                "owl box",
                "bat house",
                "bird shirt",
                "bird print",
            }
        )
        {
            var dug = JsonNode.Parse(
                http.PostAsJsonAsync(
                        "/api/products/1/dig",
                        new
                        {
                            marketId = "hedgerow-fair-us",
                            text = head,
                            parentId = (int?)null,
                        }
                    )
                    .Result.Content.ReadAsStringAsync()
                    .Result.Split('\n', StringSplitOptions.RemoveEmptyEntries)[^1]
            )!; // the last line has all rows
            texts.AddRange(dug["rows"]!.AsArray().Select(r => r!["text"]!.GetValue<string>()));
        }

        var already = JsonNode.Parse(http.GetStringAsync("/api/products/1/picks?marketId=hedgerow-fair-us").Result)!["picks"]!.AsArray();
        var known = already.Select(p => p!["text"]!.GetValue<string>()).ToHashSet();
        var counting = already.Count(p => p!["home"]!.GetValue<string>() is not ("later" or "avoid"));
        // Beyond what the market suggests, a seller's own long list.
        string[] kinds = ["cedar", "oak", "painted", "rustic", "large", "small", "hanging", "garden", "vintage", "modern"],
            heads = ["bird house", "nest box", "bird feeder", "bat box", "bird bath"],
            ends = ["kit", "gift", "for wrens", "for robins", "for mom", "for dad", "with camera", "for outside", "set", "uk"];
        texts.AddRange(
            from kind in kinds
            from other in kinds
            where kind != other
            from head in heads
            from end in ends
            select $"{kind} {other} {head} {end}"
        );
        texts = [.. texts.Distinct().Where(t => !known.Contains(t)).Take(picks - counting)];
        http.PostAsJsonAsync(
                "/api/products/1/picks",
                new
                {
                    texts = texts.ToArray(),
                    source = "bench",
                    fit = (string?)null,
                    home = (string?)null,
                    note = (string?)null,
                }
            )
            .Result.EnsureSuccessStatusCode();

        using var browser = new TinRabbit.Browser.Tests.Browser(shop);
        browser.Go("/1/hedgerow-fair-us/write");
        browser.Sees("aside", $"of {picks:#,0} picks");
        browser.Find(".side-tabs .count"); // the first check is there
        browser.Write("Title", "Cedar ");
        foreach (var letter in "wren nest box, small bird house for garden, 28mm hole, bird lover gift, window bird feeder with camera")
        {
            browser.Press(letter.ToString());
            Thread.Sleep(60); // a quick typist
        }

        browser.Labelled("Description").SendKeys(Keys.End);
        const string Told =
            " A cedar bird house for the smallest birds in the garden. It keeps a wren family dry through a wet spring and opens at the side, so that it is clean again by autumn. The wood is left as it grew: no paint, no stain, nothing a young bird should not eat. Hang it from a branch or fix it to a wall with the two brass screws that come with it, out of the noon sun and away from the feeder.";
        foreach (var letter in Told)
        {
            browser.Press(letter.ToString());
            Thread.Sleep(60);
        }

        Thread.Sleep(500);
        double[] measured = [.. Read("performance.getEntriesByName('key to lines').map(e => e.duration)")];
        double[] asked =
        [
            .. Read(
                    "performance.getEntriesByType('resource').filter(e => e.name.endsWith('/weigh')).slice(5).map(e => e.responseEnd - e.fetchStart)"
                )
                .Order(),
        ];
        Console.WriteLine($"keys: key to repainted lines with {picks} picks, {measured.Length} keys measured in the browser");
        Say($"the first {Early}, while the browser still compiles the page", measured[..Early]);
        Say("all after them", measured[Early..]);
        Say("all", measured);
        Console.WriteLine($"  of it the question to the server, median {asked[asked.Length / 2]:F1} ms");

        IEnumerable<double> Read(string what) => ((IReadOnlyCollection<object>)browser.Run("return " + what)!).Select(Convert.ToDouble);

        static void Say(string which, double[] times)
        {
            var sorted = times.Order().ToArray();
            double At(double share) => sorted[(int)Math.Ceiling(share * sorted.Length) - 1];
            Console.WriteLine($"  {which}: median {At(0.5):F1} ms, 95th percentile {At(0.95):F1} ms, highest {sorted[^1]:F1} ms");
        }
    }
}
