using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using TinRabbit.Core.Calibrating;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;
using TinRabbit.Market;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Features.Watch;

/// <summary>What the checks of a listing say about the platform's profile.</summary>
/// <param name="Checked">Terms that the profile can be compared on: the index had noticed what was sent.</param>
/// <param name="Surprises">Terms found although a word is missing, or not found although every word is there.</param>
/// <param name="Change">The single change of the profile that would explain most of them; null where none would.</param>
/// <param name="Count">Found terms whose rank is known.</param>
/// <param name="Rho">Spearman's rank correlation of grip and rank, 1 where more grip always means a better rank; null with too few.</param>
/// <param name="Low">The lower end of its 95 % interval.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Least">The fewest terms that anything is said of.</param>
public sealed record RulesView(
    int Checked,
    IReadOnlyList<Surprise> Surprises,
    OfferedChange? Change,
    int Count,
    double? Rho,
    double? Low,
    double? High,
    int Least,
    IReadOnlyList<RankedTerm> Ranked
);

/// <summary>A term on which the market and the profile disagree.</summary>
/// <param name="Found">What was observed; the profile predicts the other.</param>
/// <param name="Missing">Words that are missing by the profile.</param>
public sealed record Surprise(string Text, bool Found, IReadOnlyList<string> Missing);

/// <summary>A term with its grip and its rank.</summary>
/// <param name="Grip">0–100.</param>
public sealed record RankedTerm(string Text, double Grip, int Rank);

/// <summary>A change of the profile that is offered.</summary>
/// <param name="Says">The change as a sentence.</param>
/// <param name="Remaining">Disagreements that would remain.</param>
/// <param name="New">Terms that agree now and would not any more.</param>
/// <param name="Profile">The changed profile; saving it makes the change.</param>
/// <param name="Revision">Of the profile that it was made from.</param>
public sealed record OfferedChange(string Says, int Remaining, int New, JsonObject Profile, int Revision);

/// <summary>Weights of the fields that order a market's results better.</summary>
/// <param name="Searches">Searches whose results could be compared.</param>
/// <param name="Least">The fewest that weights are fitted to.</param>
/// <param name="TauNow">How well grip orders the results now: Kendall's τ, −1 to 1; null with too few searches.</param>
/// <param name="Improvement">How much better, on searches that the weights were not fitted to; null with too few.</param>
/// <param name="Low">The lower end of its 95 % interval.</param>
/// <param name="High">Its upper end.</param>
/// <param name="Weights">By field; none where no other weights are better for sure.</param>
/// <param name="Change">The profile with these weights; null without any.</param>
public sealed record WeightsView(
    int Searches,
    int Least,
    double? TauNow,
    double? Improvement,
    double? Low,
    double? High,
    IReadOnlyList<OfferedWeight> Weights,
    OfferedChange? Change
);

/// <summary>The weight of a field, as it is and as it is offered.</summary>
public sealed record OfferedWeight(string Field, string Label, double Now, double Offered);

/// <summary>Compares what was found with what the platform's profile predicts, and offers changes of the profile.</summary>
internal static class RulesApi
{
    // Searches whose results are read, and how many results of each.
    private const int MostSearches = 40;
    private const int MostResults = 25;

    public static void MapRules(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/listings/{id:int}/rules").WithTags("Watch");
        api.MapGet("/", GetRules).WithName("GetRules");
        // Asks the market for the results of many searches, so it may take a while; leaving stops it.
        api.MapGet("/weights", GetWeights).WithName("GetWeights").DisableRequestTimeout();
    }

    private static async Task<Results<Ok<RulesView>, NotFound>> GetRules(int id, string marketId, TinContext db, CancellationToken stop)
    {
        if (await db.FindListing(id, stop) is not { } listing)
            return TypedResults.NotFound();
        var atMarket = await ListingAtMarket.Load(db, listing, marketId, stop);
        var terms = (await FoundTerms.Of(db, listing, marketId, stop))
            .Where(t => t is { Found: not null, At: not null, Why: not (NotFoundBecause.IndexDelay or NotFoundBecause.NotSent) })
            .ToList();
        // What the market has now; what was found of another text says nothing about this one.
        var copy = terms.Count == 0 ? null : atMarket.CopyAt(terms.Max(t => t.At!.Value));
        terms.RemoveAll(t => !ReferenceEquals(atMarket.CopyAt(t.At!.Value), copy));
        if (copy is null || terms.Count == 0)
            return TypedResults.Ok(new RulesView(0, [], null, 0, null, null, null, RankCorrelation.Least, []));
        ObservedTerm[] observed = [.. terms.Select(t => new ObservedTerm(t.Text, t.Found!.Value, t.Rank))];
        var found = ProfileExplanation.Of(atMarket.Platform, copy, observed, stop);
        var ranked = observed.Zip(found.Grips).Where(o => o.First.Rank is not null).ToList();
        var correlation = RankCorrelation.Of([.. ranked.Select(r => (r.Second, r.First.Rank!.Value))]);
        var weighed = atMarket.Weigh(copy, [.. observed.Select(o => o.Text)], stop);
        return TypedResults.Ok(
            new RulesView(
                observed.Length,
                [
                    .. observed
                        .Index()
                        .Where(o => o.Item.Found != found.Predicted[o.Index])
                        .Select(o => new Surprise(
                            o.Item.Text,
                            o.Item.Found,
                            weighed[o.Index].Grade == Grade.Missing ? weighed[o.Index].Explain().Missing : []
                        )),
                ],
                found.Change is { } change
                    ? new(
                        WatchMessages.OfferedChange(change, atMarket.Platform),
                        change.Remaining,
                        change.New,
                        PlatformJson.Write(change.Platform),
                        listing.Platform.Revision
                    )
                    : null,
                correlation.Count,
                correlation.Rho,
                correlation.Low,
                correlation.High,
                RankCorrelation.Least,
                [.. ranked.Select(r => new RankedTerm(r.First.Text, r.Second * 100, r.First.Rank!.Value))]
            )
        );
    }

    private static async Task<Results<Ok<WeightsView>, NotFound>> GetWeights(
        int id,
        string marketId,
        TinContext db,
        IMarket market,
        CancellationToken stop
    )
    {
        if (await db.FindListing(id, stop) is not { } listing)
            return TypedResults.NotFound();
        var platform = listing.Platform.Profile;
        var terms = (await FoundChecks.TermsOf(db, id, marketId, stop)).DistinctBy(Core.Words.Tokens.Key).Take(MostSearches);
        var searches = new List<RankedSearch>();
        foreach (var term in terms)
            searches.Add(
                new(term, [.. (await market.Search(marketId, term, MostResults, stop)).Results.Select(r => ResultCopy.Of(r, platform))])
            );
        var found = await Task.Run(() => FieldWeights.Of(platform, searches, stop), stop);
        var weights = platform
            .IndexedFields.Where(f => found.Weights?.ContainsKey(f.Key) ?? false)
            .Select(f => new OfferedWeight(f.Key, f.Label, f.Weight, found.Weights![f.Key]))
            .ToList();
        return TypedResults.Ok(
            new WeightsView(
                found.Searches,
                FieldWeights.LeastSearches,
                found.TauNow,
                found.Improvement,
                found.Low,
                found.High,
                weights,
                weights.Count == 0
                    ? null
                    : new(
                        WatchMessages.OfferedWeights(platform.Name),
                        0,
                        0,
                        PlatformJson.Write(
                            platform with
                            {
                                Fields =
                                [
                                    .. platform.Fields.Select(f =>
                                        f.Indexed && found.Weights!.TryGetValue(f.Key, out var weight) ? f with { Weight = weight } : f
                                    ),
                                ],
                            }
                        ),
                        listing.Platform.Revision
                    )
            )
        );
    }
}
