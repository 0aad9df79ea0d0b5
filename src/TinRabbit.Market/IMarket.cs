using TinRabbit.Core.Platforms;

namespace TinRabbit.Market;

/// <summary>A platform in one country and language, as a source of numbers.</summary>
/// <param name="Id">Platform, country: <c>hedgerow-fair-us</c>.</param>
/// <param name="PlatformId">The platform it belongs to.</param>
/// <param name="Country">ISO 3166-1 alpha-2, lower case.</param>
/// <param name="CountryName">The country's name in English.</param>
/// <param name="Language">Main language typed there, as a BCP 47 tag.</param>
/// <param name="Currency">ISO 4217 code of its prices.</param>
public sealed record MarketPlace(string Id, string PlatformId, string Country, string CountryName, string Language, string Currency)
{
    /// <summary>The platform id of web search: a source of numbers, not a place to list.</summary>
    public const string Web = "web";
}

/// <summary>One measurement of a term, as the market gives it.</summary>
/// <param name="Volume">Searches a month: the mean of the last twelve whole months, rounded as the market rounds.</param>
/// <param name="Competition">Listings that its search finds.</param>
/// <param name="TitlesHolding">Listings whose title holds the phrase.</param>
/// <param name="ClickCost">What a click costs, in the market's money; null where nobody advertises.</param>
/// <param name="Months">Searches by month, oldest first; the last is the last whole month.</param>
/// <param name="From">The month that the history begins with.</param>
public sealed record Measurement(long Volume, long Competition, long TitlesHolding, decimal? ClickCost, IReadOnlyList<int> Months, DateOnly From);

/// <summary>What a shopper sees who searches for a term.</summary>
/// <param name="Found">How many listings the search finds.</param>
/// <param name="Results">The first of them, in the market's order.</param>
public sealed record SearchPage(long Found, IReadOnlyList<Result> Results);

/// <summary>A listing among the results of a search.</summary>
/// <param name="Shop">The shop's name.</param>
/// <param name="Title">Its title.</param>
/// <param name="Tags">Its tags, where the market shows any.</param>
/// <param name="Price">In the market's money, without shipping.</param>
/// <param name="Shipping">What shipping costs; 0 where it is included.</param>
/// <param name="Rating">Mean stars, 1–5.</param>
/// <param name="Ratings">How many rated it.</param>
/// <param name="Photos">How many photos it has.</param>
/// <param name="Sales">Sales a month; null where the market lets stays.</param>
/// <param name="Occupancy">Share of nights taken, 0–1; null where the market sells things.</param>
/// <param name="Attributes">Its attributes that are filled, by name.</param>
public sealed record Result(
    string Shop, string Title, IReadOnlyList<string> Tags, decimal Price, decimal Shipping, double Rating, int Ratings, int Photos, int? Sales, double? Occupancy,
    IReadOnlyDictionary<string, string> Attributes);

/// <summary>A listing that a seller sends.</summary>
/// <param name="Id">The seller's own number for it: the same number replaces what was sent before.</param>
/// <param name="Shop">The shop's name.</param>
/// <param name="Copy">Its fields.</param>
public sealed record Sending(string Id, string Shop, IReadOnlyDictionary<string, FieldValue> Copy);

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
