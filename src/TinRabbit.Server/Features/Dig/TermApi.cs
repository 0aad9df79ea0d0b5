using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Shapes;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Shelf;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Everything known about one term in one market.</summary>
/// <param name="Year">The shape of its year; null with less than twelve months of history.</param>
/// <param name="Family">Its spelling variants with searches, the most searched first.</param>
/// <param name="Seen">The search results for it; null where the market shows no listings.</param>
/// <param name="Readings">All readings, the one that counts first.</param>
/// <param name="Pages">The pages that a web search finds; null where the market has listings.</param>
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
/// <param name="Found">Listings found.</param>
/// <param name="Looked">How many of them the figures below are of.</param>
/// <param name="Prices">Lowest, quartiles and highest.</param>
/// <param name="ShippingIncluded">Share with shipping included, 0–1.</param>
/// <param name="Ratings">Median number of ratings.</param>
/// <param name="Stars">Mean stars.</param>
/// <param name="Photos">Mean number of photos.</param>
/// <param name="Sales">Median sales a month; null where the market lets stays.</param>
/// <param name="Occupancy">Mean share of nights taken; null where the market sells things.</param>
/// <param name="First">The first results.</param>
/// <param name="Words">Words and short phrases that several of the titles and tags use.</param>
public sealed record SeenResults(
    long Found,
    int Looked,
    IReadOnlyList<decimal> Prices,
    double ShippingIncluded,
    double Ratings,
    double Stars,
    double Photos,
    double? Sales,
    double? Occupancy,
    IReadOnlyList<Result> First,
    IReadOnlyList<UsedWord> Words
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
    private const int TopResults = 100;
    private const int ResultsShown = 8;
    private const int WordsLookedAt = 60;
    private const int WordsShown = 14;

    public static void MapTerm(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/markets/{marketId}").WithTags("Term");

        api.MapGet("/term", GetTerm).WithName("GetTerm");

        api.MapGet("/countries", GetCountries).WithName("GetCountries");

        api.MapPost("/correct", CorrectReading).WithName("CorrectReading").ProducesValidationProblem();

        api.MapPost("/readings/{readingId:int}/use", UseReading).WithName("UseReading");
    }

    private static async Task<Results<Ok<TermView>, NotFound>> GetTerm(
        string marketId,
        string text,
        TinContext db,
        IMarket market,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (market.Places.FirstOrDefault(p => p.Id == marketId) is not { } place || Tokens.Key(text) is not { Length: > 0 } key)
            return TypedResults.NotFound();
        var forms = Family.Forms(text);
        var terms = await shelves.MeasureTyped(db, marketId, forms, stop);
        var term = terms.GetValueOrDefault(key);
        var readings = term is null
            ? []
            : await db.Readings.AsNoTracking().Where(r => r.TermId == term.Id).OrderByDescending(r => r.Id).ToListAsync(stop);
        var (numbers, norm) = await shelves.Query(db, marketId, s => (Measured.Of(term, s), s.Norm), stop);
        return TypedResults.Ok(
            new TermView(
                term?.Text ?? text.Trim(),
                key,
                numbers,
                YearOf(numbers),
                FamilyOf(forms, key, terms),
                place.PlatformId == MarketPlace.Web ? null : Seen(await market.Search(marketId, key, TopResults, stop), key),
                [
                    .. readings
                        .OrderByDescending(r => r.Id == term!.ReadingId)
                        .Select(r => new OldReading(
                            r.Id,
                            r.Volume,
                            r.Competition,
                            r.TitlesHolding,
                            r.ClickCost,
                            r.Source,
                            r.TakenAt,
                            r.Id == term!.ReadingId
                        )),
                ],
                norm,
                TermMeasures.ExplainHeadroom(numbers.Volume, norm.SupplyOf(numbers.Competition, numbers.TitlesHolding), norm.Centre),
                place.PlatformId == MarketPlace.Web ? await WebSearch.Of(market, place, key, stop) : null
            )
        );
    }

    private static async Task<Results<Ok<List<CountryView>>, NotFound>> GetCountries(
        string marketId,
        string text,
        TinContext db,
        IMarket market,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (market.Places.FirstOrDefault(p => p.Id == marketId) is not { } here || Tokens.Key(text) is not { Length: > 0 } key)
            return TypedResults.NotFound();
        var names = (await db.Platforms.AsNoTracking().ToListAsync(stop)).ToDictionary(p => p.Id, p => p.Profile.Name);
        var forms = Family.Forms(text);
        var views = new List<CountryView>();
        foreach (var place in market.Places.Where(p => p.PlatformId == here.PlatformId || p.PlatformId == MarketPlace.Web))
        {
            var terms = await shelves.MeasureTyped(db, place.Id, forms, stop);
            var best = terms
                .Values.Where(t => t.Reading?.Volume is not null)
                .OrderByDescending(t => t.Reading!.Volume)
                .ThenByDescending(t => t.Key == key)
                .FirstOrDefault();
            views.Add(
                await shelves.Query(
                    db,
                    place.Id,
                    s => new CountryView(
                        place.Id,
                        names.GetValueOrDefault(place.PlatformId, "Web search"),
                        place.Country,
                        place.CountryName,
                        place.PlatformId == MarketPlace.Web,
                        Measured.Of(terms.GetValueOrDefault(key), s),
                        best?.Text,
                        best is null ? null : Measured.Of(best, s)
                    ),
                    stop
                )
            );
        }

        return TypedResults.Ok(views);
    }

    private static async Task<Results<Ok<Measured>, NotFound>> CorrectReading(
        string marketId,
        Correction right,
        TinContext db,
        IMarket market,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (market.Places.All(p => p.Id != marketId))
            return TypedResults.NotFound();
        Check(right);
        var key = Tokens.Key(right.Text);
        var old = (await Shelves.TermsOf(db, marketId, [key], stop)).GetValueOrDefault(key)?.Reading;
        var terms = await shelves.Save(
            db,
            marketId,
            [
                new(
                    right.Text,
                    new()
                    {
                        Volume = right.Volume,
                        Competition = right.Competition,
                        TitlesHolding = right.TitlesHolding,
                        ClickCost = right.ClickCost,
                        Months = old?.Months,
                        From = old?.From,
                        Source = Shelves.ByHand,
                        TakenAt = db.Now,
                    }
                ),
            ],
            stop
        );
        return TypedResults.Ok(await shelves.Query(db, marketId, s => Measured.Of(terms[key], s), stop));
    }

    private static async Task<Results<Ok<Measured>, NotFound>> UseReading(
        string marketId,
        int readingId,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        if (
            await db.Readings.FindAsync([readingId], stop) is not { } reading
            || await db.Terms.FirstOrDefaultAsync(t => t.Id == reading.TermId && t.MarketId == marketId, stop) is not { } term
        )
            return TypedResults.NotFound();
        var terms = await shelves.Save(db, marketId, [new(term.Text, reading)], stop);
        return TypedResults.Ok(await shelves.Query(db, marketId, s => Measured.Of(terms[term.Key], s), stop));
    }

    private static void Check(Correction right)
    {
        var problems = new List<Problem>();
        if (Tokens.Key(right.Text).Length == 0)
            problems.Add(new("text", "Enter a term with at least one word."));
        foreach (
            var (name, value) in new (string, decimal?)[]
            {
                ("volume", right.Volume),
                ("competition", right.Competition),
                ("titlesHolding", right.TitlesHolding),
                ("clickCost", right.ClickCost),
            }
        )
            if (value is < 0 or > 1_000_000_000_000)
                problems.Add(new(name, "Enter a number, 0 or more, or leave it empty if you don’t know it."));
        if (problems.Count > 0)
            throw new InvalidInputException(problems);
    }

    private static NamedYear? YearOf(Measured numbers) =>
        numbers is { Months: { } months, From: { } from } && YearShape.Of([.. months.Select(m => (double)m)], from) is { } y
            ? new(y.Shape, y.PeakMonths, y.Change12, y.SeasonalStrength, y.P, y.ReadyBy, y.HowSure)
            : null;

    private static List<FamilyMember> FamilyOf(IReadOnlyList<string> forms, string key, Dictionary<string, TermRow> terms)
    {
        var keys = forms.Select(Tokens.Key).Distinct().Where(k => k == key || terms.ContainsKey(k)).ToList();
        var top = keys.Max(k => terms.GetValueOrDefault(k)?.Reading?.Volume);
        return
        [
            .. keys.Select(k => (Key: k, Row: terms.GetValueOrDefault(k)))
                .Select(f => new FamilyMember(
                    f.Row?.Text ?? f.Key,
                    f.Key,
                    f.Row?.Reading?.Volume,
                    f.Row?.Reading?.Competition,
                    top > 0 && f.Row?.Reading?.Volume == top
                ))
                .OrderByDescending(f => f.Volume ?? -1),
        ];
    }

    private static SeenResults Seen(SearchPage page, string key)
    {
        var all = page.Results;
        if (all.Count == 0)
            return new(page.Found, 0, [], 0, 0, 0, 0, null, null, [], []);
        var prices = all.Select(r => r.Price + r.Shipping).Order().ToArray();
        decimal At(double share) => prices[(int)Math.Round(share * (prices.Length - 1))];
        // Leaves out the words of the term itself.
        var own = key.Split(' ').ToHashSet();
        var words = SellersUse.TermsOf(page, WordsLookedAt).Where(w => !w.Split(' ').All(own.Contains)).ToList();
        return new(
            page.Found,
            all.Count,
            [At(0), At(0.25), At(0.5), At(0.75), At(1)],
            all.Count(r => r.Shipping == 0) / (double)all.Count,
            Median(all.Select(r => (double)r.Ratings)),
            all.Average(r => r.Rating),
            all.Average(r => r.Photos),
            all[0].Sales is null ? null : Median(all.Select(r => (double)r.Sales!)),
            all.Average(r => r.Occupancy),
            [.. all.Take(ResultsShown)],
            [
                .. words
                    .Zip(SellersUse.Of(page, words), (w, u) => new UsedWord(w, u?.Count ?? 0))
                    .OrderByDescending(w => w.Count)
                    .Take(WordsShown),
            ]
        );

        static double Median(IEnumerable<double> values) => QuickSelect.Median([.. values])!.Value;
    }
}
