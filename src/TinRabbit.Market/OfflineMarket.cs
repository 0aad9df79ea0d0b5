using TinRabbit.Core.Platforms;

namespace TinRabbit.Market;

/// <summary>
/// The markets of a shop that no source of numbers is connected to: their places and the time, and nothing else. What the seller knows of
/// them is typed, pasted and imported.
/// </summary>
/// <param name="clock">The time.</param>
public sealed class OfflineMarket(TimeProvider clock) : IMarket
{
    private readonly List<string> _known = [];
    private IReadOnlyList<Country> _countries = [];
    private string _language = "";

    /// <inheritdoc/>
    public string Name => "No connection";

    /// <inheritdoc/>
    public bool IsConnected => false;

    /// <inheritdoc/>
    public MarketAbilities Can => MarketAbilities.None;

    /// <inheritdoc/>
    public bool IsSimulated => false;

    /// <inheritdoc/>
    public bool Remembers => true;

    /// <inheritdoc/>
    public DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <inheritdoc/>
    public bool CanMoveClock => false;

    /// <inheritdoc/>
    public IReadOnlyList<MarketPlace> Places { get; private set; } = [];

    /// <summary>Tells it the markets of the shop: each platform, and web search, in each country that the seller sells in, in this order.</summary>
    /// <param name="platforms">Their IDs.</param>
    /// <param name="countries">The home country first.</param>
    /// <param name="language">What the seller writes in, as a BCP 47 tag.</param>
    public void Know(IEnumerable<string> platforms, IReadOnlyList<Country> countries, string language)
    {
        lock (_known)
        {
            _known.Clear();
            _known.AddRange(platforms.Append(MarketPlace.Web).Distinct());
            (_countries, _language) = (countries, language);
            Places = [.. PlacesOf(_known)];
        }
    }

    private IEnumerable<MarketPlace> PlacesOf(IEnumerable<string> platforms) =>
        platforms.SelectMany(p => _countries.Select(c => new MarketPlace($"{p}-{c.Code}", p, c.Code, c.Name, _language, c.Currency)));

    /// <inheritdoc/>
    public Task<IReadOnlyList<string>?> Suggest(string marketId, string typed, int most, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<string>?>(null);

    /// <inheritdoc/>
    public Task<IReadOnlyList<Measurement?>> Measure(string marketId, IReadOnlyList<string> terms, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<Measurement?>>([.. terms.Select(_ => Measurement.Unknown)]);

    /// <inheritdoc/>
    public Task<SearchPage?> Search(string marketId, string term, int most, CancellationToken stop) => Task.FromResult<SearchPage?>(null);

    /// <inheritdoc/>
    public Task<IReadOnlyList<Result?>> Listings(string marketId, IReadOnlyList<string> ids, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<Result?>>(new Result?[ids.Count]);

    /// <inheritdoc/>
    public Task<IReadOnlyList<IReadOnlyList<MarketReview>?>> Reviews(
        string marketId,
        IReadOnlyList<string> ids,
        int most,
        CancellationToken stop
    ) => Task.FromResult<IReadOnlyList<IReadOnlyList<MarketReview>?>>(new IReadOnlyList<MarketReview>?[ids.Count]);

    /// <inheritdoc/>
    public Task<IReadOnlyList<FoundAt?>> Find(string marketId, string id, IReadOnlyList<string> terms, CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<FoundAt?>>(new FoundAt?[terms.Count]);

    /// <inheritdoc/>
    public Task<IReadOnlyList<DayFigures>> Figures(string marketId, string id, DateOnly from, DateOnly to, CancellationToken stop) =>
        None<DayFigures>();

    /// <inheritdoc/>
    public void MoveClock(TimeSpan by) => throw new NotSupportedException("This is the real time: it cannot be moved.");

    /// <inheritdoc/>
    /// <exception cref="MarketException">Always: what is sent by hand is noted by the shop itself.</exception>
    public Task<DateTime> Send(string marketId, Sending listing, DateTime at, CancellationToken stop) => throw NotConnected();

    /// <inheritdoc/>
    public Task Open(Platform platform, string kind, CancellationToken stop)
    {
        lock (_known)
            if (!_known.Contains(platform.Id))
            {
                _known.Add(platform.Id);
                Places = [.. PlacesOf(_known)];
            }

        return Task.CompletedTask;
    }

    /// <inheritdoc/>
    public Task Prepare(IReadOnlyList<string> marketIds, CancellationToken stop) => Task.CompletedTask;

    private static Task<IReadOnlyList<T>> None<T>() => Task.FromResult<IReadOnlyList<T>>([]);

    private static MarketException NotConnected() =>
        new("No source of numbers is connected to this shop. Nothing was changed.") { IsNotOffered = true };
}
