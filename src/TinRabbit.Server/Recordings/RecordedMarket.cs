namespace TinRabbit.Server.Recordings;

/// <summary>A market of which the seller's own recordings are known too. Where the source has an answer as well, the newer one counts; what neither has is unknown.</summary>
/// <param name="source">The source that is connected, or <see cref="OfflineMarket"/>.</param>
/// <param name="recordings">What the seller brought in.</param>
internal sealed class RecordedMarket(IMarket source, RecordingsOfMarkets recordings) : IMarket, IDisposable
{
    private readonly IMarket _source = source;

    /// <summary>The source beneath a market, where recordings are around it.</summary>
    public static IMarket SourceOf(IMarket market) => market is RecordedMarket recorded ? recorded._source : market;

    /// <inheritdoc/>
    public string Name => _source.Name;

    /// <inheritdoc/>
    public bool IsConnected => _source.IsConnected;

    /// <inheritdoc/>
    public MarketAbilities Can => _source.Can | MarketAbilities.Suggest | MarketAbilities.Search | MarketAbilities.Reviews;

    /// <inheritdoc/>
    public bool IsSimulated => _source.IsSimulated;

    /// <inheritdoc/>
    public bool Remembers => _source.Remembers;

    /// <inheritdoc/>
    public int? TermsPerDay => _source.TermsPerDay;

    /// <inheritdoc/>
    public DateTime Now => _source.Now;

    /// <inheritdoc/>
    public bool CanMoveClock => _source.CanMoveClock;

    /// <inheritdoc/>
    public IReadOnlyList<MarketPlace> Places => _source.Places;

    /// <inheritdoc/>
    public async Task<IReadOnlyList<string>?> Suggest(string marketId, string typed, int most, CancellationToken stop) =>
        await (Asks(MarketAbilities.Suggest) ? _source.Suggest(marketId, typed, most, stop) : Unknown<IReadOnlyList<string>>())
        ?? (await Recorded(marketId, stop)).Suggest(typed)?.Take(most).ToList();

    /// <inheritdoc/>
    public async Task<IReadOnlyList<Measurement?>> Measure(string marketId, IReadOnlyList<string> terms, CancellationToken stop)
    {
        _ = PlaceOf(marketId);
        return Asks(MarketAbilities.Measure) ? await _source.Measure(marketId, terms, stop) : [.. terms.Select(_ => Measurement.Unknown)];
    }

    /// <inheritdoc/>
    public async Task<SearchPage?> Search(string marketId, string term, int most, CancellationToken stop)
    {
        var there = Asks(MarketAbilities.Search) ? await _source.Search(marketId, term, most, stop) : null;
        if (there is { Seen: null })
            return there;
        var recorded = (await Recorded(marketId, stop)).Search(term);
        var newer = recorded is null || there?.Seen?.Day > recorded.Seen!.Day ? there : recorded;
        return newer is null || newer.Results.Count <= most ? newer : newer with { Results = [.. newer.Results.Take(most)] };
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<Result?>> Listings(string marketId, IReadOnlyList<string> ids, CancellationToken stop)
    {
        var there = Asks(MarketAbilities.Search) ? await _source.Listings(marketId, ids, stop) : new Result?[ids.Count];
        if (there.All(r => r is not null))
            return there;
        var recorded = await Recorded(marketId, stop);
        return [.. ids.Zip(there, (id, result) => result ?? recorded.Listing(id))];
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<IReadOnlyList<MarketReview>?>> Reviews(
        string marketId,
        IReadOnlyList<string> ids,
        int most,
        CancellationToken stop
    )
    {
        var there = Asks(MarketAbilities.Reviews)
            ? await _source.Reviews(marketId, ids, most, stop)
            : new IReadOnlyList<MarketReview>?[ids.Count];
        if (there.All(r => r is { Count: > 0 }))
            return there;
        var recorded = await Recorded(marketId, stop);
        return
        [
            .. ids.Zip(there, (id, reviews) => reviews is { Count: > 0 } ? reviews : recorded.Reviews(id)?.Take(most).ToList() ?? reviews),
        ];
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<FoundAt?>> Find(string marketId, string id, IReadOnlyList<string> terms, CancellationToken stop) =>
        Asks(MarketAbilities.Send) ? await _source.Find(marketId, id, terms, stop) : new FoundAt?[terms.Count];

    /// <inheritdoc/>
    public Task<IReadOnlyList<DayFigures>> Figures(string marketId, string id, DateOnly from, DateOnly to, CancellationToken stop) =>
        Asks(MarketAbilities.Days) ? _source.Figures(marketId, id, from, to, stop) : Task.FromResult<IReadOnlyList<DayFigures>>([]);

    /// <inheritdoc/>
    public void MoveClock(TimeSpan by) => _source.MoveClock(by);

    /// <inheritdoc/>
    public Task<DateTime> Send(string marketId, Sending listing, DateTime at, CancellationToken stop) =>
        _source.Send(marketId, listing, at, stop);

    /// <inheritdoc/>
    public Task Open(Platform platform, string kind, CancellationToken stop) => _source.Open(platform, kind, stop);

    /// <inheritdoc/>
    public Task Prepare(IReadOnlyList<string> marketIds, CancellationToken stop) => _source.Prepare(marketIds, stop);

    /// <inheritdoc/>
    public void Dispose() => (_source as IDisposable)?.Dispose();

    private bool Asks(MarketAbilities ability) => _source.Can.HasFlag(ability);

    private Task<RecordedPages> Recorded(string marketId, CancellationToken stop) => recordings.Of(PlaceOf(marketId), stop);

    private MarketPlace PlaceOf(string marketId) =>
        Places.FirstOrDefault(p => p.Id == marketId) ?? throw new KeyNotFoundException($"There is no market \"{marketId}\".");

    private static Task<T?> Unknown<T>()
        where T : class => Task.FromResult<T?>(null);
}
