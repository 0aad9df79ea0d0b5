using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Markets;

/// <summary>
/// A market of which somebody has files: a folder of CSV files (docs/market-folder.md). What stands in no file is unknown. Changed files
/// are read again at the next question.
/// </summary>
public sealed class FolderMarket : IMarket
{
    private const string PlacesFile = "market.json";
    private const int MostRows = 200_000;
    private static readonly string[] Tables = ["terms.csv", "suggestions.csv", "listings.csv", "results.csv", "reviews.csv", "days.csv"];
    private static readonly char[] Separators = ['|'];

    private readonly string _folder;
    private readonly TimeProvider _clock;
    private readonly Lock _one = new();
    private (DateTime ReadAt, Content Content) _read;

    /// <summary>Opens a folder.</summary>
    /// <param name="folder">Its path.</param>
    /// <param name="clock">The time.</param>
    /// <exception cref="MarketException">It has no places, or a file cannot be read.</exception>
    public FolderMarket(string folder, TimeProvider clock)
    {
        (_folder, _clock) = (folder, clock);
        _ = Current();
    }

    private sealed record Described(string Name, IReadOnlyList<MarketPlace> Places);

    private sealed record Content(
        Described Described,
        DateOnly Day,
        Dictionary<(string, string), Measurement> Terms,
        Dictionary<(string, string), List<string>> Suggestions,
        Dictionary<(string, string), Result> Listings,
        Dictionary<(string, string), List<(int Rank, string Id)>> Results,
        Dictionary<(string, string), List<MarketReview>> Reviews,
        Dictionary<(string, string), List<DayFigures>> Days
    );

    /// <inheritdoc/>
    public string Name => Current().Described.Name;

    /// <inheritdoc/>
    public MarketAbilities Can => MarketAbilities.All & ~MarketAbilities.Send;

    /// <inheritdoc/>
    public bool IsSimulated => false;

    /// <inheritdoc/>
    public bool Remembers => true;

    /// <inheritdoc/>
    public DateTime Now => _clock.GetUtcNow().UtcDateTime;

    /// <inheritdoc/>
    public bool CanMoveClock => false;

    /// <inheritdoc/>
    public IReadOnlyList<MarketPlace> Places => Current().Described.Places;

    /// <inheritdoc/>
    public Task<IReadOnlyList<string>?> Suggest(string marketId, string typed, int most, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<string>?>(
            In(marketId).Suggestions.TryGetValue((marketId, Tokens.Key(typed)), out var offered) ? [.. offered.Take(most)] : null
        );

    /// <inheritdoc/>
    public Task<IReadOnlyList<Measurement?>> Measure(string marketId, IReadOnlyList<string> terms, CancellationToken stop)
    {
        var content = In(marketId);
        return Task.FromResult<IReadOnlyList<Measurement?>>([
            .. terms.Select(t => content.Terms.GetValueOrDefault((marketId, Tokens.Key(t)), Measurement.Unknown)),
        ]);
    }

    /// <inheritdoc/>
    public Task<SearchPage?> Search(string marketId, string term, int most, CancellationToken stop)
    {
        var content = In(marketId);
        var key = (marketId, Tokens.Key(term));
        if (!content.Results.TryGetValue(key, out var ranked))
            return Task.FromResult<SearchPage?>(null);
        List<Result> results =
        [
            .. ranked.OrderBy(r => r.Rank).Select(r => content.Listings.GetValueOrDefault((marketId, r.Id))).OfType<Result>().Take(most),
        ];
        return Task.FromResult<SearchPage?>(
            new SearchPage(content.Terms.GetValueOrDefault(key)?.Competition, results) { Seen = new(content.Day, Name) }
        );
    }

    /// <inheritdoc/>
    public Task<IReadOnlyList<Result?>> Listings(string marketId, IReadOnlyList<string> ids, CancellationToken stop)
    {
        var content = In(marketId);
        return Task.FromResult<IReadOnlyList<Result?>>([.. ids.Select(i => content.Listings.GetValueOrDefault((marketId, i)))]);
    }

    /// <inheritdoc/>
    public Task<IReadOnlyList<IReadOnlyList<MarketReview>?>> Reviews(
        string marketId,
        IReadOnlyList<string> ids,
        int most,
        CancellationToken stop
    )
    {
        var content = In(marketId);
        return Task.FromResult<IReadOnlyList<IReadOnlyList<MarketReview>?>>([
            .. ids.Select(i => content.Reviews.TryGetValue((marketId, i), out var reviews) ? reviews.Take(most).ToList() : null),
        ]);
    }

    /// <inheritdoc/>
    public Task<IReadOnlyList<FoundAt?>> Find(string marketId, string id, IReadOnlyList<string> terms, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<FoundAt?>>(new FoundAt?[terms.Count]);

    /// <inheritdoc/>
    public Task<IReadOnlyList<DayFigures>> Figures(string marketId, string id, DateOnly from, DateOnly to, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<DayFigures>>([
            .. (In(marketId).Days.GetValueOrDefault((marketId, id)) ?? []).Where(d => d.Day >= from && d.Day <= to),
        ]);

    /// <inheritdoc/>
    public void MoveClock(TimeSpan by) => throw new NotSupportedException("This is the real time: it cannot be moved.");

    /// <inheritdoc/>
    /// <exception cref="MarketException">Always: files receive nothing.</exception>
    public Task<DateTime> Send(string marketId, Sending listing, DateTime at, CancellationToken stop) => throw NotOffered();

    /// <inheritdoc/>
    /// <exception cref="MarketException">Where the files have no market of the platform.</exception>
    public Task Open(Platform platform, string kind, CancellationToken stop) =>
        Places.Any(p => p.PlatformId == platform.Id) ? Task.CompletedTask : throw NotOffered();

    /// <inheritdoc/>
    public Task Prepare(IReadOnlyList<string> marketIds, CancellationToken stop) => Task.CompletedTask;

    private Content In(string marketId)
    {
        var content = Current();
        return content.Described.Places.Any(p => p.Id == marketId)
            ? content
            : throw new KeyNotFoundException($"There is no market \"{marketId}\".");
    }

    // What the files say now.
    private Content Current()
    {
        lock (_one)
        {
            var changed = Tables
                .Append(PlacesFile)
                .Select(f => Path.Combine(_folder, f))
                .Where(File.Exists)
                .Select(File.GetLastWriteTimeUtc);
            var newest = changed.DefaultIfEmpty().Max();
            if (_read.Content is null || _read.ReadAt != newest)
                try
                {
                    _read = (newest, Read(DateOnly.FromDateTime(newest)));
                }
                catch (InvalidInputException e)
                {
                    throw new MarketException($"A file in {_folder} can’t be read: {e.Problems[0].Message}", inner: e);
                }

            return _read.Content;
        }
    }

    private Content Read(DateOnly day)
    {
        var described = ReadPlaces();
        var usual = described.Places[0].Id;
        var listings = new Dictionary<(string, string), Result>();
        foreach (var row in Rows("listings.csv"))
            if (row["id"] is { Length: > 0 } id && row["title"] is { Length: > 0 } title)
                listings[(MarketOf(row), id)] = new(
                    row["shop"],
                    title,
                    Several(row["tags"]),
                    row.NumberOf("price"),
                    row.NumberOf("shipping"),
                    (double?)row.NumberOf("rating"),
                    (int?)row.CountOf("ratings"),
                    (int?)row.CountOf("photos"),
                    (int?)row.CountOf("sales"),
                    null,
                    new Dictionary<string, string>(),
                    id,
                    Several(row["bullets"]) is { Count: > 0 } bullets ? bullets : null
                )
                {
                    Description = row["description"] is { Length: > 0 } text ? text : null,
                    Address = row["url"] is { Length: > 0 } address ? address : null,
                };
        return new(
            described,
            day,
            Rows("terms.csv")
                .Where(r => Tokens.Key(r["term"]).Length > 0)
                .GroupBy(r => (MarketOf(r), Tokens.Key(r["term"])))
                .ToDictionary(
                    g => g.Key,
                    g => new Measurement(
                        g.First().CountOf("searches"),
                        g.First().CountOf("listings"),
                        g.First().CountOf("titles"),
                        g.First().NumberOf("cpc"),
                        null,
                        null
                    )
                ),
            Rows("suggestions.csv")
                .Where(r => Tokens.Key(r["suggestion"]).Length > 0)
                .GroupBy(r => (MarketOf(r), Tokens.Key(r["typed"])))
                .ToDictionary(g => g.Key, g => g.Select(r => r["suggestion"]).ToList()),
            listings,
            Rows("results.csv")
                .GroupBy(r => (MarketOf(r), Tokens.Key(r["term"])))
                .ToDictionary(g => g.Key, g => g.Select((r, i) => ((int)(r.CountOf("rank") ?? i + 1), r["listing"])).ToList()),
            Rows("reviews.csv")
                .Where(r => r["review"].Length is > 0 and <= Bounds.ReviewLength)
                .GroupBy(r => (MarketOf(r), r["listing"]))
                .ToDictionary(
                    g => g.Key,
                    g =>
                        g.Select(r => new MarketReview(
                                r["review"],
                                (double?)r.NumberOf("stars") is >= 1 and <= 5 and var stars ? stars : null,
                                r.DateOf(DateOnly.FromDateTime(Now).AddDays(1), "date")
                            ))
                            .ToList()
                ),
            Rows("days.csv")
                .Where(r => r["listing"].Length > 0 && r["date"].Length > 0)
                .GroupBy(r => (MarketOf(r), r["listing"]))
                .ToDictionary(g => g.Key, g => g.Select(DayOf).DistinctBy(d => d.Day).OrderBy(d => d.Day).ToList())
        );

        DayFigures DayOf(HeadedRow row) =>
            new(
                row.DateOf(DateOnly.FromDateTime(Now).AddDays(1), "date")!.Value,
                row.CountOf("views"),
                row.CountOf("clicks"),
                row.CountOf("sales")
            );

        string MarketOf(HeadedRow row) => row["market"] is { Length: > 0 } named ? named : usual;
    }

    private Described ReadPlaces()
    {
        var file = Path.Combine(_folder, PlacesFile);
        try
        {
            return
                File.Exists(file)
                && JsonSerializer.Deserialize<Described>(File.ReadAllText(file), JsonSerializerOptions.Web) is { Places.Count: > 0 } read
                ? read
                : throw new MarketException($"{file} is missing, or names no market (docs/market-folder.md).");
        }
        catch (JsonException e)
        {
            throw new MarketException($"{file} can’t be read: {e.Message}", inner: e);
        }
    }

    private IReadOnlyList<HeadedRow> Rows(string name)
    {
        var file = Path.Combine(_folder, name);
        return File.Exists(file) ? HeadedRow.Read(file, MostRows, default) : [];
    }

    private static List<string> Several(string text) =>
        [.. text.Split(Separators, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];

    private static MarketException NotOffered() =>
        new("The source of numbers is a folder of files, which receives nothing. Nothing was changed.") { IsNotOffered = true };
}
