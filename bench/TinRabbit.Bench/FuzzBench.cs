using System.Text.Json.Nodes;
using TinRabbit.Browser.Tests;
using TinRabbit.Server.Tests;

namespace TinRabbit.Bench;

/// <summary>Sends mutated requests to every endpoint of the running program.</summary>
internal static class FuzzBench
{
    internal static async Task Report(int timesEach)
    {
        const int TimesOfSeed = 25;
        var (asked, done, longest, wrong) = (0, 0, TimeSpan.Zero, new List<Fuzz.Finding>());
        for (var seed = 0; seed * TimesOfSeed < timesEach; seed++)
        {
            using var shop = new RunningShop(demo: true);
            using var http = new HttpClient { BaseAddress = new(shop.Address), Timeout = TimeSpan.FromMinutes(2) };
            var fuzz = new Fuzz(http, JsonNode.Parse(await http.GetStringAsync("/openapi/v1.json"))!, 1000 + seed);
            await fuzz.AskKnown();
            wrong.AddRange(await fuzz.Run(Math.Min(TimesOfSeed, timesEach - seed * TimesOfSeed)));
            (asked, done, longest) = (asked + fuzz.Asked, done + fuzz.Done, fuzz.Longest > longest ? fuzz.Longest : longest);
        }

        foreach (var finding in wrong.Take(20))
            Console.WriteLine($"  {finding.Asked}\n    {finding.Wrong}");
        Console.WriteLine(
            $"fuzz: {asked} requests, {done} of them done and the others refused in words; {wrong.Count} wrong answers; the longest took {longest.TotalSeconds:F2} s"
        );
    }
}
