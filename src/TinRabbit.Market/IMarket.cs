using TinRabbit.Core.Platforms;

namespace TinRabbit.Market;

/// <summary>
/// A source of what shoppers type and how often. The stand-in that ships is one; a real source can be put in its place.
/// </summary>
public interface IMarket
{
    /// <summary>What the source is called where a reading names it.</summary>
    string Name { get; }

    /// <summary>Whether its numbers are made up, which every screen and export says.</summary>
    bool Simulated { get; }

    /// <summary>The markets it knows.</summary>
    IReadOnlyList<MarketPlace> Places { get; }

    /// <summary>What the market's search box offers when someone has typed this much, in its own order.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="typed">What stands in the box.</param>
    /// <param name="most">How many it may offer.</param>
    IReadOnlyList<string> Suggest(string marketId, string typed, int most);

    /// <summary>Measures a term; null when nobody types it there.</summary>
    Measurement? Measure(string marketId, string term);

    /// <summary>Searches as a shopper does.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="term">What is searched for.</param>
    /// <param name="most">How many results to give.</param>
    SearchPage Search(string marketId, string term, int most);

    /// <summary>Takes a seller's listing. Its search goes on finding what was there before until its index notices.</summary>
    /// <param name="marketId">One of <see cref="Places"/>.</param>
    /// <param name="listing">What is sent.</param>
    /// <param name="at">When, in UTC.</param>
    /// <returns>When the index notices, in UTC.</returns>
    DateTime Send(string marketId, Sending listing, DateTime at);

    /// <summary>Opens markets for a seller's own platform, one in each country, of the kind of a platform that it knows; again when its profile changed.</summary>
    /// <param name="platform">The profile.</param>
    /// <param name="like">The id of the platform of whose kind it is.</param>
    void Open(Platform platform, string like);
}
