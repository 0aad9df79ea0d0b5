using TinRabbit.Core.Platforms;
using TinRabbit.Server.Files.Html.Reading;

namespace TinRabbit.Server.Tests;

/// <summary>Pages that a seller saw are read: held to pages that were made in many layouts and five languages.</summary>
public class ReadingTests
{
    /// <summary>How well pages were read: shares of what stands on them.</summary>
    private sealed class Score
    {
        public double Stated { get; private set; }
        public double Read { get; private set; }
        public double Right { get; private set; }
        public double Prices { get; private set; }
        public double Ads { get; private set; }
        public double Places { get; private set; }
        public double Stars { get; private set; }
        public double Totals { get; private set; }
        public double Queries { get; private set; }
        public int Pages { get; private set; }
        public string? Wrong { get; private set; }

        public double Titles => 2 * Right / (Stated + Read);

        public void Add(MadePage made, ReadPage read)
        {
            Pages++;
            Stated += made.Items.Count;
            Read += read.Results.Count;
            Totals += read.Total == made.Total ? 1 : 0;
            Queries += string.Equals(read.Query, made.Query, StringComparison.OrdinalIgnoreCase) ? 1 : 0;
            // What went wrong first, for whoever reads why a test failed.
            if (made.Items.FirstOrDefault(i => read.Results.All(r => r.Title != i.Title)) is { } missed)
                Wrong ??=
                    $"{made.Language}: not “{missed.Title}” but “{read.Results.FirstOrDefault(r => made.Items.All(i => i.Title != r.Title))?.Title}” ({read.Kind}, {read.Results.Count} of {made.Items.Count})";
            foreach (var item in made.Items)
                if (read.Results.FirstOrDefault(r => r.Title == item.Title) is { } found && found.Price != item.Price)
                    Wrong ??= $"{made.Language}: “{item.Title}” costs {item.Price}, not {found.Price}";
            var byTitle = read.Results.GroupBy(r => r.Title).ToDictionary(g => g.Key, g => g.First());
            foreach (var (place, item) in made.Items.Index())
                if (byTitle.TryGetValue(item.Title, out var found))
                {
                    Right++;
                    Prices += found.Price == item.Price ? 1 : 0;
                    Ads += found.Sponsored == item.IsAd ? 1 : 0;
                    Places += found.Position == place + 1 ? 1 : 0;
                    Stars += found.Rating is null || Math.Abs(found.Rating.Value - item.Stars) < 0.01 ? 1 : 0;
                }
        }

        public override string ToString() =>
            $"titles {Titles:P1}, prices {Prices / Math.Max(1, Right):P1}, ads {Ads / Math.Max(1, Right):P1}, order {Places / Math.Max(1, Right):P1}, stars {Stars / Math.Max(1, Right):P1}, totals {Totals / Pages:P0}, searches {Queries / Pages:P0} {Wrong}";
    }

    private static ReadPage Read(string html) => PageReader.Read(html, null, null, default);

    [Fact]
    public void Pages_of_every_layout_and_language_are_read()
    {
        var all = new Score();
        var layouts = new Dictionary<string, Score>();
        foreach (var layout in MadePages.Layouts)
        foreach (var language in Enumerable.Range(0, 5))
        foreach (var seed in new[] { 1, 2 })
        {
            var made = new MadePages(seed * 100 + language).Make(layout, language);
            var read = Read(made.Html);
            all.Add(made, read);
            (layouts.TryGetValue(layout, out var score) ? score : layouts[layout] = new()).Add(made, read);
        }

        var table = string.Join('\n', layouts.Select(l => $"{l.Key}: {l.Value}")) + $"\nall: {all}";
        Assert.True(all.Titles >= 0.97 && layouts.Values.All(l => l.Titles >= 0.9), table);
        Assert.True(all.Prices / all.Right >= 0.97, table);
        Assert.True(Math.Min(all.Ads, all.Places) / all.Right >= 0.95, table);
        Assert.True(all.Totals / all.Pages >= 0.95 && all.Queries / all.Pages >= 0.95, table);
    }

    [Fact]
    public void What_was_copied_as_text_is_read_by_its_lines()
    {
        var all = new Score();
        foreach (var language in Enumerable.Range(0, 5))
        foreach (var seed in Enumerable.Range(1, 6))
        {
            var made = new MadePages(seed * 100 + language).Make("cards", language);
            all.Add(made, PageReader.Read(null, made.Copied, null, default));
        }

        Assert.True(
            all.Titles >= 0.9 && all.Prices / all.Right >= 0.9 && all.Ads / all.Right >= 0.9 && all.Totals / all.Pages >= 0.9,
            all.ToString()
        );
    }
}
