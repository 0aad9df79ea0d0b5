using TinRabbit.Core.Calibrating;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Markets;

namespace TinRabbit.Server.Features.Watch;

/// <summary>Compares what was found with what a listing's platform predicts, and offers changes of its profile.</summary>
internal sealed class ProfileAdvice(TinContext db, IMarket market)
{
    // Searches whose results are read, and how many results of each.
    private const int MostSearches = 40;
    private const int MostResults = 25;

    /// <summary>What the checks of a listing say about the profile.</summary>
    public async Task<RulesView> Rules(ListingRow listing, string marketId, CancellationToken stop)
    {
        var atMarket = await db.AtMarket(listing, marketId, stop);
        // What was found of another text says nothing about the one that the market has now.
        var terms = (await FoundTerms.Of(db, listing, marketId, stop)).Where(t => t.IsComparable).ToList();
        if (terms.Count == 0 || atMarket.CopyAt(terms[0].At!.Value) is not { } copy)
            return new(0, [], null, 0, null, null, null, RankCorrelation.Least, []);
        ObservedTerm[] observed = [.. terms.Select(t => new ObservedTerm(t.Text, t.Found!.Value, t.Rank))];
        var found = ProfileExplanation.Of(atMarket.Platform, copy, observed, stop);
        var ranked = observed.Zip(found.Grips).Where(o => o.First.Rank is not null).ToList();
        var correlation = RankCorrelation.Of([.. ranked.Select(r => (r.Second, r.First.Rank!.Value))]);
        var weighed = atMarket.Weigh(copy, [.. observed.Select(o => o.Text)], stop);
        return new(
            observed.Length,
            [.. terms.Zip(weighed).Where(t => t.First.IsUnexpected).Select(t => SurpriseOf(t.First, t.Second))],
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
        );
    }

    /// <summary>Weights of the fields that order the market's results better. Asks for the results of many searches.</summary>
    public async Task<WeightsView> Weights(ListingRow listing, string marketId, CancellationToken stop)
    {
        var platform = listing.Platform.Profile;
        var terms = (await FoundChecks.TermsOf(db, listing.Id, marketId, stop)).DistinctBy(Core.Words.Tokens.Key).Take(MostSearches);
        var searches = new List<RankedSearch>();
        foreach (var term in terms)
            if (await market.Search(marketId, term, MostResults, stop) is { } page)
                searches.Add(new(term, [.. page.Ranked().Select(r => ResultCopy.Of(r, platform))]));
        var found = await Task.Run(() => FieldWeights.Of(platform, searches, stop), stop);
        var weights = platform
            .IndexedFields.Where(f => found.Weights?.ContainsKey(f.Key) ?? false)
            .Select(f => new OfferedWeight(f.Key, f.Label, f.Weight, found.Weights![f.Key]))
            .ToList();
        return new(
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
                    PlatformJson.Write(Weighted(platform, found.Weights!)),
                    listing.Platform.Revision
                )
        );
    }

    private static Surprise SurpriseOf(FoundTerm term, Core.Measures.WeighedTerm weighed) =>
        new(term.Text, term.Found == true, weighed.Grade == Grade.Missing ? weighed.Explain().Missing : []);

    private static Platform Weighted(Platform platform, IReadOnlyDictionary<string, double> weights) =>
        platform with
        {
            Fields =
            [
                .. platform.Fields.Select(f => f.Indexed && weights.TryGetValue(f.Key, out var weight) ? f with { Weight = weight } : f),
            ],
        };
}
