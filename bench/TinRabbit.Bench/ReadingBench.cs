using System.Diagnostics;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Tests;

namespace TinRabbit.Bench;

/// <summary>How long results pages that a seller saved take to be read, and how well they are.</summary>
internal static class ReadingBench
{
    private const int Listings = 100;
    private const int Pages = 20;

    internal static void Report()
    {
        var pages = Enumerable
            .Range(0, 3 * Pages)
            .Select(i => new MadePages(i).Make(MadePages.Layouts[i % MadePages.Layouts.Count], i % 5, Listings))
            .ToList();
        var times = new List<double>();
        var clock = new Stopwatch();
        foreach (var page in pages)
        {
            clock.Restart();
            PageReader.Read(page.Html, null, null, default);
            times.Add(clock.Elapsed.TotalMilliseconds);
        }

        var last = times.Skip(pages.Count - Pages).ToList();
        Console.WriteLine(
            $"reading: results pages of {Listings} listings in {MadePages.Layouts.Count} layouts: the first {times[0]:F0} ms, then median {last.Order().ElementAt(Pages / 2):F1}, highest {last.Max():F1}; {Pages} pages {last.Sum():F0} ms"
        );
        var layouts = ReadingScore.OfLayouts(html => PageReader.Read(html, null, null, default));
        foreach (var (layout, score) in layouts)
            Console.WriteLine($"reading {layout}: {score}");
        Console.WriteLine($"reading, all: {ReadingScore.OfAll(layouts.Values)}");
    }
}
