using System.Text.Json;
using System.Text.Json.Nodes;

namespace TinRabbit.Market.Http;

/// <summary>The market contract: JSON over HTTP (docs/market.openapi.json). Paths are relative to the source's address.</summary>
public static class MarketContract
{
    /// <summary>GET: <see cref="Description"/>.</summary>
    public const string DescribePath = "market";

    /// <summary>POST: <see cref="SuggestQuestion"/> to <see cref="Suggestions"/>.</summary>
    public const string SuggestPath = "market/suggest";

    /// <summary>POST: <see cref="MeasureQuestion"/> to <see cref="Measurements"/>.</summary>
    public const string MeasurePath = "market/measure";

    /// <summary>POST: <see cref="SearchQuestion"/> to <see cref="SearchPage"/>, or null where what it finds is unknown.</summary>
    public const string SearchPath = "market/search";

    /// <summary>POST: <see cref="ListingsQuestion"/> to <see cref="FoundListings"/>.</summary>
    public const string ListingsPath = "market/listings";

    /// <summary>POST: <see cref="ReviewsQuestion"/> to <see cref="FoundReviews"/>; 501 where the source has no reviews.</summary>
    public const string ReviewsPath = "market/reviews";

    /// <summary>POST: <see cref="FindQuestion"/> to <see cref="FoundTerms"/>; 501 where the source cannot look for a listing.</summary>
    public const string FindPath = "market/find";

    /// <summary>POST: <see cref="FiguresQuestion"/> to <see cref="FoundFigures"/>; 501 where the source has no daily figures.</summary>
    public const string FiguresPath = "market/figures";

    /// <summary>POST: <see cref="SendQuestion"/> to <see cref="Noticed"/>.</summary>
    public const string SendPath = "market/send";

    /// <summary>POST: <see cref="OpenQuestion"/> to <see cref="Description"/>; 501 where the source cannot open markets.</summary>
    public const string OpenPath = "market/open";

    /// <summary>Most terms of one <see cref="MeasureQuestion"/> or <see cref="FindQuestion"/>.</summary>
    public const int MostTerms = 500;

    /// <summary>Most listings of one <see cref="ListingsQuestion"/> or <see cref="ReviewsQuestion"/>.</summary>
    public const int MostListings = 100;

    /// <summary>Most days of one <see cref="FiguresQuestion"/>.</summary>
    public const int MostDays = 1000;

    /// <summary>How the contract is written: camel case, every member present, numbers as numbers.</summary>
    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        NumberHandling = System.Text.Json.Serialization.JsonNumberHandling.Strict,
        RespectNullableAnnotations = true,
        RespectRequiredConstructorParameters = true,
    };

    /// <summary>What the source is.</summary>
    /// <param name="Name"><see cref="IMarket.Name"/>.</param>
    /// <param name="IsSimulated"><see cref="IMarket.IsSimulated"/>.</param>
    /// <param name="Remembers"><see cref="IMarket.Remembers"/>.</param>
    /// <param name="Places"><see cref="IMarket.Places"/>.</param>
    /// <param name="TermsPerDay"><see cref="IMarket.TermsPerDay"/>; may be left out.</param>
    /// <param name="Can"><see cref="IMarket.Can"/>; left out, it can be asked everything.</param>
    public sealed record Description(
        string Name,
        bool IsSimulated,
        bool Remembers,
        IReadOnlyList<MarketPlace> Places,
        int? TermsPerDay = null,
        IReadOnlyList<MarketAbilities>? Can = null
    );

    /// <summary>What somebody has typed.</summary>
    public sealed record SuggestQuestion(string MarketId, string Typed, int Most);

    /// <summary>What the search box offers; null where that is unknown.</summary>
    public sealed record Suggestions(IReadOnlyList<string>? Terms);

    /// <summary>Terms to measure, at most <see cref="MostTerms"/>.</summary>
    public sealed record MeasureQuestion(string MarketId, IReadOnlyList<string> Terms);

    /// <summary>One measurement for each term, in the same order; null where nobody types it, and all members null where that is unknown.</summary>
    public sealed record Measurements(IReadOnlyList<Measurement?> Terms);

    /// <summary>A search.</summary>
    public sealed record SearchQuestion(string MarketId, string Term, int Most);

    /// <summary>Listings to look up again, at most <see cref="MostListings"/>.</summary>
    public sealed record ListingsQuestion(string MarketId, IReadOnlyList<string> Ids);

    /// <summary>One listing for each ID, in the same order; null where there is none any more.</summary>
    public sealed record FoundListings(IReadOnlyList<Result?> Listings);

    /// <summary>Listings whose reviews are wanted, at most <see cref="MostListings"/>, and how many reviews of each.</summary>
    public sealed record ReviewsQuestion(string MarketId, IReadOnlyList<string> Ids, int Most);

    /// <summary>The reviews of each, in the same order; null where they are unknown.</summary>
    public sealed record FoundReviews(IReadOnlyList<IReadOnlyList<MarketReview>?> Listings);

    /// <summary>Searches to look for a listing in, at most <see cref="MostTerms"/>.</summary>
    public sealed record FindQuestion(string MarketId, string Id, IReadOnlyList<string> Terms);

    /// <summary>Where each search finds it, in the same order; null where that is unknown.</summary>
    public sealed record FoundTerms(IReadOnlyList<FoundAt?> Terms);

    /// <summary>Days of a listing, at most <see cref="MostDays"/>, the last one included.</summary>
    public sealed record FiguresQuestion(string MarketId, string Id, DateOnly From, DateOnly To);

    /// <summary>The days that are known, oldest first.</summary>
    public sealed record FoundFigures(IReadOnlyList<DayFigures> Days);

    /// <summary>A listing that is sent.</summary>
    /// <param name="MarketId">Where to.</param>
    /// <param name="ListingId">The seller's own number for it: the same number replaces what was sent before.</param>
    /// <param name="Shop">The shop's name.</param>
    /// <param name="At">When, in UTC.</param>
    /// <param name="Fields">Its fields by key: a text, a list of texts, or an object of attributes.</param>
    public sealed record SendQuestion(string MarketId, string ListingId, string Shop, JsonObject Fields, DateTime At);

    /// <summary>When the index notices, in UTC.</summary>
    public sealed record Noticed(DateTime At);

    /// <summary>A platform whose markets are to be opened.</summary>
    /// <param name="Platform">Its profile.</param>
    /// <param name="Kind">The id of the platform that it resembles.</param>
    public sealed record OpenQuestion(JsonObject Platform, string Kind);
}
