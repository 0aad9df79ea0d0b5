using System.Collections.Concurrent;
using TinRabbit.Core;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Market.StandIn;

/// <summary>
/// The simulated marketplace that ships with the program: a program, not a table. From a hand-written vocabulary and a seed
/// it makes, per market, what shoppers type, how often in each month, and the rival listings they find. It makes the
/// mistakes that real sources make: a few groups of terms share one volume, and a few counts are absurd.
/// </summary>
public sealed partial class StandInMarket : IMarket
{
    /// <summary>Months of history that a measurement gives.</summary>
    public const int Months = 30;

    // How busy each place is against the vocabulary's numbers, how many rival listings are made for it, and what is sold there.
    private static readonly Dictionary<string, Trade> Trades = new()
    {
        ["hedgerow-fair"] = new(
            0.55,
            2200,
            1,
            new()
            {
                ["hens"] = 0.1,
                ["sheet"] = 0.4,
                ["stay"] = 0,
                ["seed"] = 0.1,
            }
        ),
        ["longbarrow"] = new(1.6, 3200, 1, new() { ["stay"] = 0, ["sheet"] = 0.5 }),
        ["overprint-lane"] = new(
            0.8,
            1400,
            0.03,
            new()
            {
                ["shirt"] = 3,
                ["chart"] = 1.1,
                ["gift"] = 0.5,
            }
        ),
        ["chalk-shelf"] = new(0.9, 1200, 0.02, new() { ["sheet"] = 5, ["chart"] = 0.8 }),
        ["marsh-and-moor"] = new(1, 900, 0, new() { ["stay"] = 9 }),
        [MarketPlace.Web] = new(2.6, 0, 1, []),
    };

    private static readonly Dictionary<string, (string Name, string Currency)> Countries = new()
    {
        ["us"] = ("United States", "USD"),
        ["gb"] = ("United Kingdom", "GBP"),
        ["au"] = ("Australia", "AUD"),
    };
    private static readonly double[] CountrySizes = [1, 0.42, 0.16];

    // What is made of a seed and a platform as it was given at the start: made once for all who ask.
    private static readonly ConcurrentDictionary<(ulong Seed, string Market, Platform?), Lazy<(QueryLog Log, Catalogue? Rivals)>> Shared =
        new();

    private readonly ulong _seed;
    private readonly DeterministicRandom _random;
    private readonly TimeProvider _clock;
    private readonly ConcurrentDictionary<string, Platform> _platforms;
    private readonly ConcurrentDictionary<string, string> _kinds = new();

    private readonly ConcurrentDictionary<string, Lazy<(QueryLog Log, Catalogue? Rivals)>> _made = new();

    // What sellers sent, by market and the ID that it has there: every state, since the index notices each in its time.
    private readonly ConcurrentDictionary<(string Market, string Id), List<(DateTime Noticed, DateTime At, Sending Listing)>> _sent = new();
    private readonly ConcurrentDictionary<(string Market, string Id), (int States, Lazy<ListingDays> Days)> _days = new();

    /// <summary>Prepares the markets of the platforms it knows; each is made when it is first asked.</summary>
    /// <param name="seed">The same seed gives the same market.</param>
    /// <param name="platforms">Shipped profiles; others are ignored.</param>
    /// <param name="clock">Tells which month is the last whole one.</param>
    public StandInMarket(ulong seed, IEnumerable<Platform> platforms, TimeProvider clock)
    {
        (_seed, _random) = (seed, new(seed));
        _clock = clock;
        _platforms = new(platforms.Where(p => Trades.ContainsKey(p.Id)).Select(p => KeyValuePair.Create(p.Id, p)));
        Places = [.. Trades.Keys.Where(p => p == MarketPlace.Web || _platforms.ContainsKey(p)).SelectMany(PlacesOf)];
    }

    private static IEnumerable<MarketPlace> PlacesOf(string platformId) =>
        Vocabulary.Countries.Select(c => new MarketPlace(
            $"{platformId}-{c}",
            platformId,
            c,
            Countries[c].Name,
            "en",
            Countries[c].Currency
        ));

    /// <inheritdoc/>
    public string Name => "Sample data";

    /// <inheritdoc/>
    public bool IsSimulated => true;

    /// <inheritdoc/>
    public bool Remembers => false;

    /// <inheritdoc/>
    public IReadOnlyList<MarketPlace> Places { get; private set; }

    /// <inheritdoc cref="IMarket.Open"/>
    public void Open(Platform platform, string kind)
    {
        lock (_kinds)
        {
            _kinds[platform.Id] = Trades.ContainsKey(kind) ? kind : "longbarrow";
            _platforms[platform.Id] = platform;
            if (Places.All(p => p.PlatformId != platform.Id))
                Places = [.. Places, .. PlacesOf(platform.Id)];
            foreach (var place in PlacesOf(platform.Id))
                _made.TryRemove(place.Id, out _);
            foreach (var known in _days.Keys.Where(k => PlacesOf(platform.Id).Any(p => p.Id == k.Market)))
                _days.TryRemove(known, out _);
        }
    }

    /// <inheritdoc cref="IMarket.Suggest"/>
    public IReadOnlyList<string> Suggest(string marketId, string typed, int most) =>
        Made(marketId).Log.StartingWith(typed.TrimStart().ToLowerInvariant(), most);

    /// <inheritdoc cref="IMarket.Measure"/>
    public Measurement? Measure(string marketId, string term)
    {
        var (log, rivals) = Made(marketId);
        if (log.Find(term.Trim().ToLowerInvariant()) is not { } query)
            return null;
        var random = _random.For(marketId).For(query.Text);
        var today = DateOnly.FromDateTime(Now);
        var from = new DateOnly(today.Year, today.Month, 1).AddMonths(-Months);
        var months = Enumerable.Range(0, Months).Select(i => Years.Searches(query, from.AddMonths(i), random)).ToArray();
        var volume = Grouped(query, marketId, log) ?? Rounded(months.TakeLast(12).Average());
        var (found, titles) = rivals?.Count(query.Text) ?? Pages(query, random);
        if (random.For("absurd").Uniform < 0.008)
            (found, titles) = (2, Math.Max(titles, 900));
        var cost =
            random.For("advertised").Uniform < 0.15
                ? (decimal?)null
                : Math.Round((decimal)(0.35 * Math.Exp(0.5 * random.For("cost").Normal)), 2);
        return new(volume, found, titles, cost, months, from);
    }

    /// <inheritdoc cref="IMarket.Search"/>
    public SearchPage Search(string marketId, string term, int most)
    {
        var (_, rivals) = Made(marketId);
        if (rivals is null)
            return SearchWeb(marketId, term, most);
        var stays = IsStay(marketId);
        var sent = Found(marketId, term);
        return new(rivals.Count(term).Found + sent.Count, [.. rivals.Ranked(term, most, sent).Select(r => Shown(marketId, r, stays))]);
    }

    private SearchPage SearchWeb(string marketId, string term, int most)
    {
        var place = Places.First(p => p.Id == marketId);
        var pages = new WebPages(Vocabulary.Read(), place.Country, _random.For(marketId).For("pages")).Ranked(term, most);
        return new(pages.Count == 0 ? 0 : Measure(marketId, term)?.Competition ?? pages.Count, []) { Pages = pages };
    }

    /// <inheritdoc cref="IMarket.Send"/>
    public DateTime Send(string marketId, Sending listing, DateTime at)
    {
        var place = Places.FirstOrDefault(p => p.Id == marketId) ?? throw new KeyNotFoundException($"There is no market \"{marketId}\".");
        var noticed = at.AddHours(_platforms.TryGetValue(place.PlatformId, out var platform) ? platform.Search.IndexDelayHours : 0);
        var states = _sent.GetOrAdd((marketId, Sending.IdAtMarket(listing.Id)), _ => []);
        lock (states)
            // What is sent again after a restart is there already.
            if (states.All(s => s.At != at))
                states.Add((noticed, at, listing));
        return noticed;
    }

    /// <summary>The profile that a market was opened with; null for one that is not open, and for web search.</summary>
    public Platform? PlatformOf(string marketId) =>
        Places.FirstOrDefault(p => p.Id == marketId) is { } place ? _platforms.GetValueOrDefault(place.PlatformId) : null;

    private string KindOf(string platformId) => _kinds.GetValueOrDefault(platformId, platformId);

    // The listings that were sent and that a search finds, with their scores.
    private List<(RivalListing, double)> Found(string marketId, string term)
    {
        var now = Now;
        var found = new List<(RivalListing, double)>();
        foreach (var (market, id) in _sent.Keys.Where(k => k.Market == marketId))
            if (DaysOf(market, id) is { } days && days.Scores([term], now)[0] is { } score && days.Shown(now) is { } listing)
                found.Add((listing, score));
        return found;
    }

    Task<IReadOnlyList<string>?> IMarket.Suggest(string marketId, string typed, int most, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<string>?>(Suggest(marketId, typed, most));

    Task<IReadOnlyList<Measurement?>> IMarket.Measure(string marketId, IReadOnlyList<string> terms, CancellationToken stop)
    {
        var measured = new Measurement?[terms.Count];
        for (var i = 0; i < measured.Length; i++)
        {
            stop.ThrowIfCancellationRequested();
            measured[i] = Measure(marketId, terms[i]);
        }

        return Task.FromResult<IReadOnlyList<Measurement?>>(measured);
    }

    Task<SearchPage?> IMarket.Search(string marketId, string term, int most, CancellationToken stop) =>
        Task.FromResult<SearchPage?>(Search(marketId, term, most));

    Task<IReadOnlyList<Result?>> IMarket.Listings(string marketId, IReadOnlyList<string> ids, CancellationToken stop) =>
        Task.FromResult(ListingsOf(marketId, ids));

    Task<IReadOnlyList<IReadOnlyList<MarketReview>?>> IMarket.Reviews(
        string marketId,
        IReadOnlyList<string> ids,
        int most,
        CancellationToken stop
    ) => Task.FromResult<IReadOnlyList<IReadOnlyList<MarketReview>?>>(ReviewsOf(marketId, ids, most));

    Task<IReadOnlyList<FoundAt?>> IMarket.Find(string marketId, string id, IReadOnlyList<string> terms, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<FoundAt?>>(Find(marketId, id, terms));

    Task<IReadOnlyList<DayFigures>> IMarket.Figures(string marketId, string id, DateOnly from, DateOnly to, CancellationToken stop) =>
        Task.FromResult(Figures(marketId, id, from, to));

    Task<DateTime> IMarket.Send(string marketId, Sending listing, DateTime at, CancellationToken stop) =>
        Task.FromResult(Send(marketId, listing, at));

    Task IMarket.Open(Platform platform, string kind, CancellationToken stop)
    {
        Open(platform, kind);
        return Task.CompletedTask;
    }

    Task IMarket.Prepare(IReadOnlyList<string> marketIds, CancellationToken stop)
    {
        Parallel.ForEach(marketIds, new ParallelOptions { CancellationToken = stop }, id => Made(id));
        return Task.CompletedTask;
    }

    // The web has pages, not listings: about a thousand for each search, and their titles.
    private static (long Pages, long Titles) Pages(Query query, DeterministicRandom random)
    {
        var pages = (long)(query.Volume * 900 * Math.Exp(1.2 * random.For("pages").Normal));
        return (pages, (long)(pages * 0.002 * Math.Exp(0.8 * random.For("titles").Normal)));
    }

    // Some sources give all members of a family one number. This one does so for a few.
    private long? Grouped(Query query, string marketId, QueryLog log)
    {
        var family = string.Join(' ', Tokens.Of(query.Text).Select(t => Plurals.Stem(t.Word)));
        if (_random.For(marketId).For("family").For(family).Uniform >= 0.06)
            return null;
        var other = query.Text.EndsWith('s') ? query.Text[..^1] : query.Text + "s";
        return log.Find(other) is { } sibling ? Rounded((query.Volume + sibling.Volume) / 2) : null;
    }

    // Two significant figures, and never below ten.
    private static long Rounded(double volume)
    {
        if (volume < 10)
            return volume < 5 ? 0 : 10;
        var step = Math.Pow(10, Math.Floor(Math.Log10(volume)) - 1);
        return (long)(Math.Round(volume / step) * step);
    }

    // Makes existing markets only.
    private (QueryLog Log, Catalogue? Rivals) Made(string marketId) =>
        Places.FirstOrDefault(p => p.Id == marketId) is { } place
            ? Made(place)
            : throw new KeyNotFoundException($"There is no market \"{marketId}\".");

    private (QueryLog Log, Catalogue? Rivals) Made(MarketPlace place)
    {
        return _made.GetOrAdd(place.Id, _ => LazilyMade(place)).Value;
    }

    private Lazy<(QueryLog Log, Catalogue? Rivals)> LazilyMade(MarketPlace place)
    {
        var platform = _platforms.GetValueOrDefault(place.PlatformId);
        return _kinds.ContainsKey(place.PlatformId)
            ? new(() => Make(place, platform))
            : Shared.GetOrAdd((_seed, place.Id, platform), _ => new(() => Make(place, platform)));
    }

    private (QueryLog Log, Catalogue? Rivals) Make(MarketPlace place, Platform? platform)
    {
        var trade = Trades[KindOf(place.PlatformId)];
        var vocabulary = Vocabulary.Read();
        var country = CountrySizes[Array.IndexOf(Vocabulary.Countries, place.Country)];
        var random = _random.For(place.Id);
        var log = new QueryLog(vocabulary, place.Country, head => trade.Size * country * trade.Of(head), random);
        return (
            log,
            trade.Listings == 0 ? null : new(platform!, log, vocabulary, (int)(trade.Listings * Math.Sqrt(country)), random.For("rivals"))
        );
    }

    private sealed record Trade(double Size, int Listings, double Rest, Dictionary<string, double> Groups)
    {
        public double Of(Head head) => head.Groups.Max(g => Groups.GetValueOrDefault(g, Rest));
    }
}
