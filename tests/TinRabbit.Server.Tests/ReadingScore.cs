using TinRabbit.Server.Files.Html.Reading;

namespace TinRabbit.Server.Tests;

/// <summary>How well pages were read: shares of what stands on them.</summary>
internal sealed class ReadingScore
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

    /// <summary>Reads pages of every layout in five languages, and says how well, by layout.</summary>
    public static IReadOnlyDictionary<string, ReadingScore> OfLayouts(Func<string, ReadPage> read)
    {
        var layouts = new Dictionary<string, ReadingScore>();
        foreach (var layout in MadePages.Layouts)
        {
            var score = layouts[layout] = new();
            foreach (var language in Enumerable.Range(0, 5))
            foreach (var seed in new[] { 1, 2 })
            {
                var made = new MadePages(seed * 100 + language).Make(layout, language);
                score.Add(made, read(made.Html));
            }
        }

        return layouts;
    }

    /// <summary>All together.</summary>
    public static ReadingScore OfAll(IEnumerable<ReadingScore> scores)
    {
        var all = new ReadingScore();
        foreach (var score in scores)
        {
            all.Stated += score.Stated;
            all.Read += score.Read;
            all.Right += score.Right;
            all.Prices += score.Prices;
            all.Ads += score.Ads;
            all.Places += score.Places;
            all.Stars += score.Stars;
            all.Totals += score.Totals;
            all.Queries += score.Queries;
            all.Pages += score.Pages;
            all.Wrong ??= score.Wrong;
        }

        return all;
    }

    public override string ToString() =>
        $"titles {Titles:P1}, prices {Prices / Math.Max(1, Right):P1}, ads {Ads / Math.Max(1, Right):P1}, order {Places / Math.Max(1, Right):P1}, stars {Stars / Math.Max(1, Right):P1}, totals {Totals / Pages:P0}, searches {Queries / Pages:P0} {Wrong}";
}
