using System.Net.Http.Json;
using System.Text.Json;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Market.Http;

/// <summary>A market behind an address that speaks the market contract (docs/market.openapi.json).</summary>
public sealed class HttpMarket : IMarket, IDisposable
{
    private const int MostPlaces = 1000;
    private const int MostMonths = 600;
    private const int MostText = 500;
    private const decimal HighestPrice = 1_000_000_000_000m;
    private const long MostBytes = 16 << 20;

    private readonly HttpClient _http;
    private readonly Uri _address;
    private readonly TimeSpan _timeout;
    private MarketContract.Description _description;

    private HttpMarket(Uri address, TimeSpan timeout)
    {
        _address = address;
        _timeout = timeout;
        // A source at http://host/markets has its paths below markets.
        var root = address.AbsoluteUri.EndsWith('/') ? address : new Uri(address.AbsoluteUri + "/");
        // A source that sends its questions elsewhere is another source, which the seller has not named.
        _http = new(new SocketsHttpHandler { AllowAutoRedirect = false })
        {
            BaseAddress = root,
            Timeout = Timeout.InfiniteTimeSpan,
            MaxResponseContentBufferSize = MostBytes,
        };
        _description = new("", false, true, []);
    }

    /// <inheritdoc/>
    public string Name => _description.Name;

    /// <inheritdoc/>
    public bool IsSimulated => _description.IsSimulated;

    /// <inheritdoc/>
    public bool Remembers => _description.Remembers;

    /// <inheritdoc/>
    public MarketAbilities Can =>
        _description.Can is { } can ? can.Aggregate(MarketAbilities.None, (all, one) => all | one) : MarketAbilities.All;

    /// <inheritdoc/>
    public int? TermsPerDay => _description.TermsPerDay;

    /// <inheritdoc/>
    public DateTime Now => DateTime.UtcNow;

    /// <inheritdoc/>
    public bool CanMoveClock => false;

    /// <inheritdoc/>
    public IReadOnlyList<MarketPlace> Places => _description.Places;

    /// <summary>Connects to a source.</summary>
    /// <param name="address">Where it is: http or https.</param>
    /// <param name="timeout">How long one answer may take.</param>
    /// <param name="stop">Stops the question.</param>
    /// <exception cref="MarketException">It cannot be reached, is too slow, or does not speak the contract.</exception>
    public static async Task<HttpMarket> Connect(Uri address, TimeSpan timeout, CancellationToken stop)
    {
        var market = new HttpMarket(address, timeout);
        try
        {
            market._description = Checked(await market.Get<MarketContract.Description>(MarketContract.DescribePath, stop), market);
            return market;
        }
        catch
        {
            market.Dispose();
            throw;
        }
    }

    /// <summary>A market that was described before and cannot be reached now: its places are known, its questions fail until it answers again.</summary>
    /// <param name="address">Where it is.</param>
    /// <param name="timeout">How long one answer may take.</param>
    /// <param name="description">What it said before.</param>
    public static HttpMarket Remembered(Uri address, TimeSpan timeout, MarketContract.Description description) =>
        new(address, timeout) { _description = description };

    /// <summary>What the source says of itself, to be remembered.</summary>
    public MarketContract.Description Description => _description;

    /// <inheritdoc/>
    public async Task<IReadOnlyList<string>?> Suggest(string marketId, string typed, int most, CancellationToken stop)
    {
        CheckPlace(marketId);
        var answer = await Post<MarketContract.Suggestions>(
            MarketContract.SuggestPath,
            new MarketContract.SuggestQuestion(marketId, typed, most),
            stop
        );
        Check(
            answer.Terms is null || (answer.Terms.Count <= most && answer.Terms.All(IsShort)),
            $"more than {most} suggestions, or an empty or very long one"
        );
        return answer.Terms;
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<Measurement?>> Measure(string marketId, IReadOnlyList<string> terms, CancellationToken stop)
    {
        CheckPlace(marketId);
        var all = new List<Measurement?>(terms.Count);
        foreach (var some in terms.Chunk(MarketContract.MostTerms))
        {
            var answer = await Post<MarketContract.Measurements>(
                MarketContract.MeasurePath,
                new MarketContract.MeasureQuestion(marketId, some),
                stop
            );
            Check(answer.Terms.Count == some.Length, $"{answer.Terms.Count} measurements for {some.Length} terms");
            Check(answer.Terms.All(m => m is null || IsPossible(m)), "a measurement that is negative or has too many months");
            all.AddRange(answer.Terms);
        }

        return all;
    }

    /// <inheritdoc/>
    public async Task<SearchPage?> Search(string marketId, string term, int most, CancellationToken stop)
    {
        CheckPlace(marketId);
        var page = await AskOrNull<SearchPage>(
            Question(MarketContract.SearchPath, new MarketContract.SearchQuestion(marketId, term, most)),
            stop
        );
        if (page is null)
            return null;
        Check(page.Found is null or >= 0 && page.Results.Count <= most, $"a negative number of results, or more than {most} of them");
        Check(page.Results.All(IsPossible), "a result without a title, or with a negative number");
        Check(
            page.Pages is not null && page.Pages.Count <= most && page.Pages.All(p => IsShort(p.Title)),
            $"more than {most} pages, or one without a title"
        );
        return page;
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<Result?>> Listings(string marketId, IReadOnlyList<string> ids, CancellationToken stop)
    {
        CheckPlace(marketId);
        var all = new List<Result?>(ids.Count);
        foreach (var some in ids.Chunk(MarketContract.MostListings))
        {
            var question = new MarketContract.ListingsQuestion(marketId, some);
            var answer = await Post<MarketContract.FoundListings>(MarketContract.ListingsPath, question, stop);
            Check(answer.Listings.Count == some.Length, $"{answer.Listings.Count} listings for {some.Length} IDs");
            Check(answer.Listings.All(r => r is null || IsPossible(r)), "a listing without a title, or with a negative number");
            all.AddRange(answer.Listings);
        }

        return all;
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<IReadOnlyList<MarketReview>?>> Reviews(
        string marketId,
        IReadOnlyList<string> ids,
        int most,
        CancellationToken stop
    )
    {
        CheckPlace(marketId);
        var all = new List<IReadOnlyList<MarketReview>?>(ids.Count);
        foreach (var some in ids.Chunk(MarketContract.MostListings))
        {
            var question = new MarketContract.ReviewsQuestion(marketId, some, most);
            var answer = await Post<MarketContract.FoundReviews>(MarketContract.ReviewsPath, question, stop);
            Check(answer.Listings.Count == some.Length, $"the reviews of {answer.Listings.Count} listings for {some.Length} IDs");
            Check(
                answer.Listings.All(l => l is null || (l.Count <= most && l.All(IsPossible))),
                $"more than {most} reviews of a listing, an empty or very long one, or stars that are not 1 to 5"
            );
            all.AddRange(answer.Listings);
        }

        return all;
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<FoundAt?>> Find(string marketId, string id, IReadOnlyList<string> terms, CancellationToken stop)
    {
        CheckPlace(marketId);
        var all = new List<FoundAt?>(terms.Count);
        foreach (var some in terms.Chunk(MarketContract.MostTerms))
        {
            var answer = await Post<MarketContract.FoundTerms>(
                MarketContract.FindPath,
                new MarketContract.FindQuestion(marketId, id, some),
                stop
            );
            Check(answer.Terms.Count == some.Length, $"{answer.Terms.Count} searches for {some.Length} terms");
            Check(
                answer.Terms.All(f => f is null || (f is { Results: null or >= 0, Rank: null or >= 1 } && (f.Found || f.Rank is null))),
                "a negative number of results, or a rank that cannot be"
            );
            all.AddRange(answer.Terms);
        }

        return all;
    }

    /// <inheritdoc/>
    public async Task<IReadOnlyList<DayFigures>> Figures(string marketId, string id, DateOnly from, DateOnly to, CancellationToken stop)
    {
        CheckPlace(marketId);
        var all = new List<DayFigures>();
        for (var first = from; first <= to; first = first.AddDays(MarketContract.MostDays))
        {
            var last = first.AddDays(MarketContract.MostDays - 1) is var end && end < to ? end : to;
            var question = new MarketContract.FiguresQuestion(marketId, id, first, last);
            var days = (await Post<MarketContract.FoundFigures>(MarketContract.FiguresPath, question, stop)).Days;
            Check(
                days.Zip(days.Skip(1)).All(d => d.First.Day < d.Second.Day) && days.All(d => d.Day >= first && d.Day <= last),
                "a day that was not asked for, or days out of order"
            );
            Check(
                days.All(d => d is { Views: null or >= 0, Clicks: null or >= 0, Sales: null or >= 0 }),
                "a day with a negative number of views, clicks or sales"
            );
            all.AddRange(days);
        }

        return all;
    }

    /// <inheritdoc/>
    public void MoveClock(TimeSpan by) => throw new NotSupportedException("The clock of a source at an address cannot be moved.");

    /// <inheritdoc/>
    public async Task<DateTime> Send(string marketId, Sending listing, DateTime at, CancellationToken stop)
    {
        CheckPlace(marketId);
        var question = new MarketContract.SendQuestion(marketId, listing.Id, listing.Shop, CopyJson.Write(listing.Copy), at);
        var noticed = (await Post<MarketContract.Noticed>(MarketContract.SendPath, question, stop)).At.ToUniversalTime();
        Check(noticed >= at && noticed < at.AddYears(1), "a time before the listing was sent, or a year after");
        return noticed;
    }

    /// <inheritdoc/>
    public async Task Open(Platform platform, string kind, CancellationToken stop) =>
        _description = Checked(
            await Post<MarketContract.Description>(
                MarketContract.OpenPath,
                new MarketContract.OpenQuestion(PlatformJson.Write(platform), kind),
                stop
            ),
            this
        );

    /// <inheritdoc/>
    public Task Prepare(IReadOnlyList<string> marketIds, CancellationToken stop) => Task.CompletedTask;

    /// <inheritdoc/>
    public void Dispose() => _http.Dispose();

    private static MarketContract.Description Checked(MarketContract.Description description, HttpMarket market)
    {
        market.Check(description.Places is { Count: > 0 and <= MostPlaces }, "no market, or more than 1,000");
        market.Check(description.Places.All(p => p is { Id: not null, PlatformId: not null }), "a market that is null");
        market.Check(description.TermsPerDay is null or >= 0, "a negative number of terms a day");
        market.Check(description.Places.DistinctBy(p => p.Id).Count() == description.Places.Count, "two markets with one ID");
        market.Check(IsShort(description.Name), "no name, or a very long one");
        market.Check(
            description.Places.All(p => p.Id.Length is > 0 and <= 80 && p.Country.Length == 2 && p.Currency.Length == 3),
            "a market without an ID, a two-letter country or a three-letter currency"
        );
        return description;
    }

    private static bool IsShort(string text) => text.Length is > 0 and <= MostText;

    private static bool IsPossible(Result r) =>
        IsShort(r.Title)
        && r.Price is null or (>= 0 and <= HighestPrice)
        && r.Shipping is null or (>= 0 and <= HighestPrice)
        && r.Rating is null or (>= 0 and <= 5)
        && r.Ratings is null or >= 0
        && r.Views is null or >= 0;

    private static bool IsPossible(MarketReview r) =>
        r is { Text.Length: > 0 and <= Core.Bounds.ReviewLength, Stars: null or (>= 1 and <= 5) };

    private static bool IsPossible(Measurement m) =>
        m
            is {
                Volume: null or >= 0,
                Competition: null or >= 0,
                TitlesHolding: null or >= 0,
                ClickCost: null or (>= 0 and <= HighestPrice),
                Months: null or { Count: <= MostMonths },
            }
        && (m.Months is null || (m.From is not null && m.Months.All(v => v >= 0)));

    private void CheckPlace(string marketId)
    {
        if (Places.All(p => p.Id != marketId))
            throw new KeyNotFoundException($"There is no market \"{marketId}\".");
    }

    private void Check(bool right, string wrong)
    {
        if (!right)
            throw new MarketException($"The market source at {_address} gave a wrong answer: {wrong}. Nothing was changed.");
    }

    private Task<T> Get<T>(string path, CancellationToken stop)
        where T : class => Ask<T>(new(HttpMethod.Get, path), stop);

    private Task<T> Post<T>(string path, object question, CancellationToken stop)
        where T : class => Ask<T>(Question(path, question), stop);

    private static HttpRequestMessage Question(string path, object question) =>
        new(HttpMethod.Post, path) { Content = JsonContent.Create(question, question.GetType(), options: MarketContract.Json) };

    private async Task<T> Ask<T>(HttpRequestMessage request, CancellationToken stop)
        where T : class =>
        await AskOrNull<T>(request, stop)
        ?? throw new MarketException(
            $"The market source at {_address} gave an answer that can’t be read (it is null). Nothing was changed."
        );

    // Null where the answer is JSON's null: what was asked is unknown.
    private async Task<T?> AskOrNull<T>(HttpRequestMessage request, CancellationToken stop)
        where T : class
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limit.CancelAfter(_timeout);
        try
        {
            using (request)
            using (var answer = await _http.SendAsync(request, limit.Token))
            {
                if (answer.StatusCode is System.Net.HttpStatusCode.NotImplemented)
                    throw new MarketException($"The market source at {_address} can’t answer this question. Nothing was changed.")
                    {
                        IsNotOffered = true,
                    };
                if (!answer.IsSuccessStatusCode)
                    throw new MarketException(
                        $"The market source at {_address} refused the question (status {(int)answer.StatusCode}). Nothing was changed."
                    );
                return await answer.Content.ReadFromJsonAsync<T>(MarketContract.Json, limit.Token);
            }
        }
        catch (OperationCanceledException e) when (!stop.IsCancellationRequested)
        {
            throw new MarketException(
                $"The market source at {_address} did not answer within {_timeout.TotalSeconds:0.#} seconds. Nothing was changed; try again.",
                isSlow: true,
                e
            );
        }
        catch (HttpRequestException e)
        {
            throw new MarketException(
                $"The market source at {_address} can’t be reached. Nothing was changed; check that it runs, and try again.",
                inner: e
            );
        }
        catch (Exception e) when (e is JsonException or NotSupportedException)
        {
            throw new MarketException(
                $"The market source at {_address} gave an answer that can’t be read ({e.Message}). Nothing was changed.",
                inner: e
            );
        }
    }
}
