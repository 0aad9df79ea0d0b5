using TinRabbit.Core.Platforms;

namespace TinRabbit.Market;

/// <summary>
/// A source of what shoppers type, how often, and what they find. The stand-in that ships is one; any program that speaks the market
/// contract (docs/market.openapi.json) is another, through <see cref="Http.HttpMarket"/>.
/// </summary>
/// <remarks>
/// A market that is not among <see cref="Places"/> is a <see cref="KeyNotFoundException"/>; a source that cannot answer is a
/// <see cref="MarketException"/>. Nothing is changed in either case.
/// </remarks>
public interface IMarket
{
    /// <summary>What the source is called where a reading names it.</summary>
    string Name { get; }

    /// <summary>Whether there is a source beside the seller: without one a market has places, and what the seller brought in of it.</summary>
    bool IsConnected => true;

    /// <summary>What can be asked of the source. What it has no ability for is never asked, and is unknown.</summary>
    MarketAbilities Can => MarketAbilities.All;

    /// <summary>Whether its numbers are made up, which every screen and export says.</summary>
    bool IsSimulated { get; }

    /// <summary>Whether it remembers from one start to the next which platforms were opened and which listings were sent.</summary>
    bool Remembers { get; }

    /// <summary>How many terms a day (UTC) it measures at most, over all its markets; null without a limit. It is never asked for more.</summary>
    int? TermsPerDay => null;

    /// <summary>The time in its markets, in UTC. Simulated markets may be ahead of the computer's clock.</summary>
    DateTime Now { get; }

    /// <summary>The day in its markets, in UTC.</summary>
    DateOnly Today => DateOnly.FromDateTime(Now);

    /// <summary>The last day that has begun anywhere: some places are 14 hours ahead of UTC.</summary>
    DateOnly LastDay => DateOnly.FromDateTime(Now.AddHours(14));

    /// <summary>Whether <see cref="MoveClock"/> can move <see cref="Now"/>: only simulated markets.</summary>
    bool CanMoveClock { get; }

    /// <summary>The markets it knows.</summary>
    IReadOnlyList<MarketPlace> Places { get; }

    /// <summary>What the market's search box offers when someone has typed this much, in its own order.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="typed">What stands in the box.</param>
    /// <param name="most">How many it may offer.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>None where nobody types anything that begins so; null where that is unknown.</returns>
    Task<IReadOnlyList<string>?> Suggest(string marketId, string typed, int most, CancellationToken stop);

    /// <summary>Measures terms.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="terms">Any number of terms, as shoppers type them.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>A measurement for each term, in the order given; null where nobody types it there, <see cref="Measurement.Unknown"/> where that is unknown.</returns>
    Task<IReadOnlyList<Measurement?>> Measure(string marketId, IReadOnlyList<string> terms, CancellationToken stop);

    /// <summary>Searches as a shopper does.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="term">What is searched for.</param>
    /// <param name="most">How many results to give.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>No results where the search finds nothing; null where that is unknown.</returns>
    Task<SearchPage?> Search(string marketId, string term, int most, CancellationToken stop);

    /// <summary>Looks listings up again.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="ids">Each a <see cref="Result.Id"/> that the market gave.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>A listing for each ID, in the order given; null where there is none any more.</returns>
    Task<IReadOnlyList<Result?>> Listings(string marketId, IReadOnlyList<string> ids, CancellationToken stop);

    /// <summary>What buyers wrote about listings.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="ids">Each a <see cref="Result.Id"/>, or <see cref="Sending.IdAtMarket"/> for a listing that the seller sent.</param>
    /// <param name="most">How many to give of each, the newest first.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>The reviews of each, in the order given; none where there are none, null where that is unknown.</returns>
    Task<IReadOnlyList<IReadOnlyList<MarketReview>?>> Reviews(string marketId, IReadOnlyList<string> ids, int most, CancellationToken stop);

    /// <summary>Looks for a listing that was sent among the results of searches.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="id">The <see cref="Sending.IdAtMarket"/> of the listing.</param>
    /// <param name="terms">What is searched for.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>Where each search finds it, in the order given; null where that is unknown.</returns>
    Task<IReadOnlyList<FoundAt?>> Find(string marketId, string id, IReadOnlyList<string> terms, CancellationToken stop);

    /// <summary>What happened to a listing that was sent, day by day.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="id">The <see cref="Sending.IdAtMarket"/> of the listing.</param>
    /// <param name="from">The first day, in UTC.</param>
    /// <param name="to">The last day; only days that are over have figures.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>The days that it knows, oldest first; those that it does not know are left out.</returns>
    Task<IReadOnlyList<DayFigures>> Figures(string marketId, string id, DateOnly from, DateOnly to, CancellationToken stop);

    /// <summary>Moves the clock of a simulated market on.</summary>
    /// <param name="by">How far; never backwards.</param>
    /// <exception cref="NotSupportedException">The clock cannot be moved.</exception>
    void MoveClock(TimeSpan by);

    /// <summary>Sends a seller's listing. The search goes on finding what was there before until the market's index notices.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="listing">What is sent.</param>
    /// <param name="at">When, in UTC.</param>
    /// <param name="stop">Stops the question.</param>
    /// <returns>When the index notices, in UTC.</returns>
    Task<DateTime> Send(string marketId, Sending listing, DateTime at, CancellationToken stop);

    /// <summary>Opens markets for a seller's own platform, one in each country; again when its profile changed.</summary>
    /// <param name="platform">The profile.</param>
    /// <param name="kind">The id of the platform that it resembles.</param>
    /// <param name="stop">Stops the question.</param>
    Task Open(Platform platform, string kind, CancellationToken stop);

    /// <summary>Prepares markets for the questions to come. Nothing depends on it.</summary>
    /// <param name="marketIds">Some of <see cref="Places"/>.</param>
    /// <param name="stop">Stops the preparation.</param>
    Task Prepare(IReadOnlyList<string> marketIds, CancellationToken stop);
}
