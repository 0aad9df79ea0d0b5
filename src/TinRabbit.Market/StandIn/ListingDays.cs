using System.Collections.Concurrent;
using TinRabbit.Core;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Market.StandIn;

/// <summary>A listing that was sent, day by day: how the search ranks it, who sees it, who buys. Sales raise the rank, and the rank brings sales.</summary>
/// <param name="platform">The rules by which its market searches.</param>
/// <param name="log">What shoppers type there.</param>
/// <param name="rivals">What it competes with.</param>
/// <param name="states">Every state that was sent, with the time the index notices it, oldest first.</param>
/// <param name="isStay">Whether nights are sold.</param>
/// <param name="ofMarket">Chance that all listings of the market share.</param>
/// <param name="random">Chance of this listing.</param>
internal sealed class ListingDays(
    Platform platform,
    QueryLog log,
    Catalogue rivals,
    IReadOnlyList<(DateTime Noticed, Sending Listing)> states,
    bool isStay,
    DeterministicRandom ofMarket,
    DeterministicRandom random
)
{
    // Shoppers come from so many queries, the most searched ones that find it.
    private const int MostQueries = 120;

    private const int MostKnown = 20_000;

    // A market trusts a changed text little by little, and forgets sales slowly.
    private const double TrustDays = 5;
    private const double SalesMemoryDays = 45;

    // Who sees a result, opens it, buys.
    private const double SeenFirst = 0.75;
    private const double SeenFurther = 18;
    private const double Clicked = 0.05;
    private const double Bought = 0.06;
    private const double NightsBooked = 0.09;

    // Chance from day to day, and how much of a day's stays the next day.
    private const double DayNoise = 0.12;
    private const double Lasting = 0.35;
    private const double RankNoise = 0.04;

    private static readonly double[] Weekdays = [1.18, 0.95, 0.93, 0.95, 0.97, 0.98, 1.04];

    private readonly List<DayFigures> _days = [];
    private readonly List<double> _sales = [0];
    private readonly Lock _one = new();
    private readonly ConcurrentDictionary<string, KnownTerm> _known = new(StringComparer.Ordinal);
    private List<(Query Query, KnownTerm Known)>? _queries;
    private double _noise;

    private readonly Texts[] _texts = [.. states.Select(s => Texts.Of(platform, s.Listing))];

    /// <summary>The first day on which the search can find it.</summary>
    public DateOnly First { get; } = DateOnly.FromDateTime(states[0].Noticed);

    /// <summary>The days from the first up to one.</summary>
    public IReadOnlyList<DayFigures> Until(DateOnly last)
    {
        lock (_one)
        {
            while (First.AddDays(_days.Count) <= last)
                AddDay();
            return [.. _days.Take(Math.Max(0, last.DayNumber - First.DayNumber + 1))];
        }
    }

    /// <summary>How the search scores it for terms at a time; null for a term that does not find it.</summary>
    public double?[] Scores(IReadOnlyList<string> terms, DateTime at)
    {
        var noticed = Noticed(at);
        var known = noticed < 0 ? [] : Known(terms);
        return [.. terms.Select((_, i) => noticed >= 0 && known[i].Holds[noticed] ? Score(known[i], at, noticed) : (double?)null)];
    }

    /// <summary>What it looks like in results at a time; null before the index notices it.</summary>
    public RivalListing? Shown(DateTime at) =>
        Noticed(at) is >= 0 and var noticed
            ? new(
                Sending.IdAtMarket(states[noticed].Listing.Id),
                [],
                states[noticed].Listing.Shop,
                _texts[noticed].Title,
                _texts[noticed].Tags,
                _texts[noticed].Bullets,
                20,
                0,
                5,
                0,
                1,
                (int)Math.Round(MonthlySales(at)),
                0,
                1,
                (int)(at - states[0].Noticed).TotalDays,
                _texts[noticed].Attributes
            )
            : null;

    private double Score(KnownTerm term, DateTime at, int noticed)
    {
        // Each text's own score, reached little by little from the one before.
        var field = term.Fields[0];
        for (var i = 1; i <= noticed; i++)
        {
            var until = i < noticed ? states[i + 1].Noticed : at;
            field = term.Fields[i] + (field - term.Fields[i]) * Math.Exp(-(until - states[i].Noticed).TotalDays / TrustDays);
        }

        var day = DateOnly.FromDateTime(at).DayNumber;
        return Catalogue.Score(field, MonthlySales(at), (at - states[0].Noticed).TotalDays, _texts[noticed].Completeness)
            + RankNoise * random.For(day).For(term.Text).Normal;
    }

    // Of the days before.
    private double MonthlySales(DateTime at)
    {
        var day = DateOnly.FromDateTime(at);
        if (day <= First)
            return 0;
        lock (_one)
        {
            while (_sales.Count <= day.DayNumber - First.DayNumber)
                AddDay();
            return _sales[day.DayNumber - First.DayNumber];
        }
    }

    private void AddDay()
    {
        var day = First.AddDays(_days.Count);
        var noon = day.ToDateTime(new(12, 0), DateTimeKind.Utc);
        var noticed = Math.Max(0, Noticed(noon));
        var seen = 0.0;
        foreach (var (query, known) in _queries ??= Queries())
            if (known.Holds[noticed])
            {
                var searches = Years.SearchesOn(query, day, ofMarket.For(query.Text));
                var rank = 1 + rivals.Above(query.Text, Score(known, noon, noticed));
                seen += searches * SeenFirst * Math.Exp(-(rank - 1) / SeenFurther);
            }

        var chance = random.For("day").For(day.DayNumber);
        _noise = Lasting * _noise + DayNoise * chance.Normal;
        // All listings of the market have good and bad days, and good and bad weeks.
        var shared = ofMarket.For("days");
        var all = 0.07 * shared.For(day.DayNumber).Normal + 0.05 * shared.For("week").For(day.DayNumber / 7).Normal;
        var views = Poisson(seen * Weekdays[(int)day.DayOfWeek] * Math.Exp(_noise + all), chance.For("views"));
        var clicks = Math.Min(views, Poisson(views * Clicked * (0.6 + 0.8 * _texts[noticed].Completeness), chance.For("clicks")));
        var sales = Poisson(clicks * (isStay ? NightsBooked : Bought), chance.For("sales"));
        _days.Add(new(day, views, clicks, sales));
        _sales.Add(_sales[^1] + (sales * 30 - _sales[^1]) / SalesMemoryDays);
    }

    // The most searched queries that some state holds.
    private List<(Query, KnownTerm)> Queries() =>
        [.. log.Queries.Zip(Prepare([.. log.Queries.Select(q => q.Text)])).Where(q => q.Second.Holds.Any(h => h)).Take(MostQueries)];

    // Asked for day after day: of each term the states that hold it, and what their texts count.
    private List<KnownTerm> Known(IReadOnlyList<string> terms)
    {
        if (_known.Count > MostKnown)
            _known.Clear();
        foreach (var term in Prepare([.. terms.Where(t => !_known.ContainsKey(t)).Distinct()]))
            _known[term.Text] = term;
        return [.. terms.Select(t => _known.TryGetValue(t, out var known) ? known : Prepare([t])[0])];
    }

    private List<KnownTerm> Prepare(string[] terms)
    {
        if (terms.Length == 0)
            return [];
        var wanted = terms.Select(t => new WantedTerm(t)).ToArray();
        var ready = TermSet.Prepare(platform, terms);
        var held = states.Select(s => Weigher.Weigh(ready, s.Listing.Copy, wanted).Terms).ToArray();
        return
        [
            .. terms.Select(
                (term, i) =>
                {
                    var phrase = new SearchedPhrase(term);
                    return new KnownTerm(
                        term,
                        [.. held.Select(h => h[i].Grade != Grade.Missing)],
                        [.. _texts.Select(t => t.Searched.Score(phrase))]
                    );
                }
            ),
        ];
    }

    private int Noticed(DateTime at)
    {
        for (var i = states.Count - 1; i >= 0; i--)
            if (states[i].Noticed <= at)
                return i;
        return -1;
    }

    // By inversion where few are expected, otherwise by the normal distribution that it resembles.
    private static long Poisson(double mean, DeterministicRandom random)
    {
        if (mean > 40)
            return Math.Max(0, (long)Math.Round(mean + Math.Sqrt(mean) * random.Normal));
        var (left, count, share) = (random.Uniform, 0L, Math.Exp(-mean));
        while (left > share && count < 200)
        {
            left -= share;
            count++;
            share *= mean / count;
        }

        return count;
    }

    private sealed record KnownTerm(string Text, bool[] Holds, double[] Fields);

    private sealed record Texts(
        string Title,
        IReadOnlyList<string> Tags,
        IReadOnlyList<string> Bullets,
        IReadOnlyDictionary<string, string> Attributes,
        double Completeness
    )
    {
        public SearchedText Searched { get; } = new(Title, Tags);

        public static Texts Of(Platform platform, Sending listing)
        {
            IReadOnlyList<string> Units(string role) =>
                platform.Role(role) is { } field && listing.Copy.TryGetValue(field.Key, out var value) ? value.Units(field.Shape) : [];
            return new(
                string.Join(' ', Units("title")),
                Units("tags"),
                Units("bullets"),
                listing
                    .Copy.Values.OfType<FieldValue.Choices>()
                    .SelectMany(c => c.Values)
                    .GroupBy(v => v.Key)
                    .ToDictionary(v => v.Key, v => string.Join(", ", v.First().Value)),
                platform.Fields.Count(f => listing.Copy.TryGetValue(f.Key, out var value) && value.Units(f.Shape).Any(u => u.Length > 0))
                    / (double)platform.Fields.Count
            );
        }
    }
}
