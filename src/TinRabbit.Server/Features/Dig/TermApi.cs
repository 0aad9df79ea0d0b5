using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Everything known about one term in one market.</summary>
/// <param name="Year">The shape of its year; null with less than twelve months of history.</param>
/// <param name="Family">Its spelling variants with searches, the most searched first.</param>
/// <param name="Seen">The search results for it; null where they are unknown, or where the market shows no listings.</param>
/// <param name="Readings">All readings, the one that counts first.</param>
/// <param name="Pages">The pages that a web search finds; null where they are unknown, or where the market has listings.</param>
/// <param name="Headroom">How its headroom was worked out; null where a number that it needs is unknown or the volume is 0.</param>
public sealed record TermView(
    string Text,
    string Key,
    Measured Numbers,
    NamedYear? Year,
    IReadOnlyList<FamilyMember> Family,
    SeenResults? Seen,
    IReadOnlyList<OldReading> Readings,
    MarketStatistics Norm,
    HeadroomSteps? Headroom,
    SeenPages? Pages
);

/// <summary>A year's shape in words and figures.</summary>
/// <param name="PeakMonths">From 1, January.</param>
/// <param name="Change12">Percent over twelve months.</param>
/// <param name="ReadyBy">The next day to be ready by; null unless seasonal.</param>
/// <param name="HowSure">How certain it is, and how many more months would settle it.</param>
public sealed record NamedYear(
    Core.Shapes.Shape Shape,
    IReadOnlyList<int> PeakMonths,
    double Change12,
    double? SeasonalStrength,
    double P,
    DateOnly? ReadyBy,
    string HowSure
);

/// <summary>A spelling or form of a term.</summary>
/// <param name="Strongest">Whether it is the most searched of the family.</param>
public sealed record FamilyMember(string Text, string Key, long? Volume, long? Competition, bool Strongest);

/// <summary>The search results of a term.</summary>
/// <param name="Found">Listings found; null where the market does not say it.</param>
/// <param name="Looked">How many of them the figures below are of, ads left out.</param>
/// <param name="Ads">How many ads are among them.</param>
/// <param name="Prices">Lowest, quartiles and highest; empty where no price is known.</param>
/// <param name="ShippingIncluded">Share with shipping included, 0–1; null where that is unknown, as for all figures below.</param>
/// <param name="Ratings">Median number of ratings.</param>
/// <param name="Stars">Mean stars.</param>
/// <param name="Photos">Mean number of photos.</param>
/// <param name="Sales">Median sales a month; null where the market lets stays.</param>
/// <param name="Occupancy">Mean share of nights taken; null where the market sells things.</param>
/// <param name="First">The first results as a shopper sees them, ads among them.</param>
/// <param name="Words">Words and short phrases that several of the titles and tags use.</param>
/// <param name="Related">Related searches that the page offers.</param>
/// <param name="Seen">When the seller saw them; null where the market answered just now.</param>
public sealed record SeenResults(
    long? Found,
    int Looked,
    int Ads,
    IReadOnlyList<decimal> Prices,
    double? ShippingIncluded,
    double? Ratings,
    double? Stars,
    double? Photos,
    double? Sales,
    double? Occupancy,
    IReadOnlyList<Result> First,
    IReadOnlyList<UsedWord> Words,
    IReadOnlyList<string> Related,
    SeenAt? Seen
);

/// <summary>A word or phrase, and how many of the results use it.</summary>
public sealed record UsedWord(string Text, int Count);

/// <summary>A stored reading of a term.</summary>
public sealed record OldReading(
    int Id,
    long? Volume,
    long? Competition,
    long? TitlesHolding,
    decimal? ClickCost,
    string Source,
    DateTime TakenAt,
    bool Counts
);

/// <summary>A term in one market of several.</summary>
/// <param name="Own">Its numbers as it is spelt here.</param>
/// <param name="Spelling">The form most searched there; null where nobody types any.</param>
/// <param name="Best">That form's numbers.</param>
public sealed record CountryView(
    string MarketId,
    string PlatformName,
    string Country,
    string CountryName,
    bool Web,
    Measured Own,
    string? Spelling,
    Measured? Best
);

/// <summary>A reading corrected by hand; null is unknown.</summary>
public sealed record Correction([Term] string Text, long? Volume, long? Competition, long? TitlesHolding, decimal? ClickCost);

internal static class TermApi
{
    public static void MapTerm(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/markets/{marketId}");
        api.MapGet("/term", GetTerm);
        api.MapGet("/countries", GetCountries);
        api.MapPost("/correct", CorrectReading).RetriesRaces();
        api.MapPost("/readings/{readingId:int}/use", UseReading).RetriesRaces();
    }

    private static async Task<TermView> GetTerm(
        string marketId,
        string text,
        IMarket market,
        TermDetails details,
        CancellationToken stop
    ) =>
        market.Places.FirstOrDefault(p => p.Id == marketId) is { } place && Tokens.Key(text) is { Length: > 0 } key
            ? await details.Load(place, text, key, stop)
            : throw new NotThereException();

    private static async Task<List<CountryView>> GetCountries(
        string marketId,
        string text,
        IMarket market,
        TermDetails details,
        CancellationToken stop
    ) =>
        market.Places.FirstOrDefault(p => p.Id == marketId) is { } here && Tokens.Key(text) is { Length: > 0 } key
            ? await details.Countries(here, text, key, stop)
            : throw new NotThereException();

    private static async Task<Measured> CorrectReading(string marketId, Correction right, TermDetails details, CancellationToken stop) =>
        await details.Correct(marketId, right, stop);

    private static async Task<Measured> UseReading(string marketId, int readingId, TinContext db, Shelves shelves, CancellationToken stop)
    {
        var reading = await db.Readings.FindAsync([readingId], stop).OrNotThere();
        var term = await db.Terms.FirstOrDefaultAsync(t => t.Id == reading.TermId && t.MarketId == marketId, stop).OrNotThere();
        var terms = await shelves.Save(db, marketId, [new(term.Text, reading)], stop);
        return await shelves.Query(db, marketId, s => Measured.Of(terms[term.Key], s), stop);
    }
}
