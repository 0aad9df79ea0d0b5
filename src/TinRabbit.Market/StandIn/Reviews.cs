using System.Globalization;
using TinRabbit.Core;

namespace TinRabbit.Market.StandIn;

/// <summary>The reviews of a listing. Each listing has a few things that its buyers return to, so that two listings can be told apart by them.</summary>
internal static class Reviews
{
    private const int Returning = 4;

    private static readonly Lazy<IReadOnlyList<Sentence>> All = new(Read);

    private sealed record Sentence(string[] Groups, int Stars, string Text);

    /// <summary>The reviews of a listing, the newest first.</summary>
    /// <param name="groups">The groups of the head words that it is about.</param>
    /// <param name="rating">Its mean stars, 1–5: the more, the more praise.</param>
    /// <param name="count">How many to write.</param>
    /// <param name="today">The newest can be of this day.</param>
    /// <param name="random">The listing's own numbers.</param>
    public static IReadOnlyList<MarketReview> Of(string[] groups, double rating, int count, DateOnly today, DeterministicRandom random)
    {
        var about = All.Value.Where(s => s.Groups.Intersect(groups).Any()).ToList();
        var general = All.Value.Where(s => s.Groups is ["any"]).ToList();
        var returning = Enumerable
            .Range(0, about.Count == 0 ? 0 : Returning)
            .Select(i => about[random.For("returning").For(i).Below(about.Count)])
            .ToList();
        return
        [
            .. Enumerable
                .Range(0, count)
                .Select(i => Review(random.For(i)))
                .OrderByDescending(r => r.At)
                .ThenBy(r => r.Text, StringComparer.Ordinal),
        ];

        MarketReview Review(DeterministicRandom one)
        {
            var isPraise = one.For("praise").Uniform < Math.Clamp((rating - 2.5) / 2.5, 0.1, 0.97);
            var sentences = Enumerable
                .Range(0, 1 + one.For("length").Below(3))
                .Select(i => Some(one.For("sentence").For(i), isPraise))
                .OfType<Sentence>()
                .Distinct()
                .ToList();
            var stars =
                sentences.Count == 0 ? Math.Round(rating) : Math.Round(sentences.Average(s => s.Stars), MidpointRounding.AwayFromZero);
            return new(string.Join(' ', sentences.Select(s => s.Text)), stars, today.AddDays(-one.For("day").Below(700)));
        }

        Sentence? Some(DeterministicRandom one, bool isPraise)
        {
            var from = one.For("from").Uniform switch
            {
                < 0.65 => returning,
                < 0.88 => about,
                _ => general,
            };
            var fitting = from.Where(s => s.Stars >= 4 == isPraise).ToList();
            if (fitting.Count == 0)
                fitting = general.Where(s => s.Stars >= 4 == isPraise).ToList();
            return fitting.Count == 0 ? null : fitting[one.For("which").Below(fitting.Count)];
        }
    }

    private static List<Sentence> Read()
    {
        using var stream = typeof(Reviews).Assembly.GetManifestResourceStream("TinRabbit.Market.StandIn.reviews.txt")!;
        using var reader = new StreamReader(stream);
        var sentences = new List<Sentence>();
        while (reader.ReadLine() is { } line)
            if (line.Length > 0 && line[0] != '#' && line.Split(" ; ") is [var groups, var stars, var text])
                sentences.Add(new(groups.Split(' '), int.Parse(stars, CultureInfo.InvariantCulture), text));
        return sentences;
    }
}
