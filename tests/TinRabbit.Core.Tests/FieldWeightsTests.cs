using TinRabbit.Core.Calibrating;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Weights of fields fitted to a market's results.</summary>
public class FieldWeightsTests
{
    private static readonly string[] Vocabulary = ["bird", "house", "nest", "box", "cedar", "owl", "feeder", "wren"];
    private static readonly Platform Platform = Samples.Platform(Folds.Diacritics | Folds.Plural, ignored: ["for"]);

    private static Platform Weighing(double title, double tags, double description) =>
        Platform with
        {
            Fields =
            [
                .. Platform.Fields.Select(f =>
                    f with
                    {
                        Weight = f.Key switch
                        {
                            "title" => title,
                            "tags" => tags,
                            "description" => description,
                            _ => f.Weight,
                        },
                    }
                ),
            ],
        };

    private static IReadOnlyDictionary<string, FieldValue> Listing(Random random)
    {
        string Words(int count) => string.Join(' ', Enumerable.Range(0, count).Select(_ => Vocabulary[random.Next(Vocabulary.Length)]));
        return Samples.Copy(
            ("title", Words(random.Next(0, 4))),
            ("tags", Enumerable.Range(0, random.Next(0, 4)).Select(_ => Words(2)).ToArray()),
            ("description", Words(random.Next(0, 8)))
        );
    }

    // What a market finds that orders by grip with other weights; some listings at random places.
    private static List<RankedSearch> Searches(Platform real, int count, double noise, int seed)
    {
        var random = new Random(seed);
        return
        [
            .. Enumerable
                .Range(0, count)
                .Select(_ =>
                {
                    var term = $"{Vocabulary[random.Next(4)]} {Vocabulary[4 + random.Next(4)]}";
                    return new RankedSearch(
                        term,
                        [
                            .. Enumerable
                                .Range(0, 12)
                                .Select(_ => Listing(random))
                                .OrderByDescending(l =>
                                    Weigher.Weigh(real, l, [new WantedTerm(term)]).Terms[0].Grip + noise * random.NextDouble()
                                ),
                        ]
                    );
                }),
        ];
    }

    [Fact]
    public void A_grip_with_other_weights_is_what_the_engine_weighs_with_them()
    {
        var other = Weighing(0.3, 0.9, 0.55);
        double[] weights = [.. other.IndexedFields.Select(f => f.Weight)];
        var random = new Random(3);
        foreach (var term in new[] { "bird house", "owl", "nest box for wren", "cedar feeders" })
        {
            var listings = Enumerable.Range(0, 40).Select(_ => Listing(random)).ToList();
            var search = WeighedSearch.Of(Platform, new(term, listings), default);
            for (var i = 0; i < listings.Count; i++)
                Assert.Equal(Weigher.Weigh(other, listings[i], [new WantedTerm(term)]).Terms[0].Grip, search.Grip(i, weights), 1e-12);
        }
    }

    [Fact]
    public void Weights_that_order_the_results_better_are_found_and_order_searches_they_have_not_seen_better_too()
    {
        var real = Weighing(0.2, 0.9, 0.5);
        var found = FieldWeights.Of(Platform, Searches(real, 40, 0.05, seed: 5));
        Assert.NotNull(found.Weights);
        Assert.True(found.Low > 0 && found.Improvement > 0.05, $"{found}");
        Assert.True(found.Weights["tags"] > found.Weights["title"], string.Join(' ', found.Weights));
        Assert.All(found.Weights, w => Assert.InRange(w.Value, 0.05, 1));
        double[] weights = [.. Platform.IndexedFields.Select(f => found.Weights[f.Key])];
        double[] profile = [.. Platform.IndexedFields.Select(f => f.Weight)];
        var unseen = Searches(real, 40, 0.05, seed: 6).Select(s => WeighedSearch.Of(Platform, s, default)).ToList();
        Assert.True(unseen.Average(s => s.Tau(weights)) > unseen.Average(s => s.Tau(profile)));
    }

    [Fact]
    public void A_market_that_orders_by_the_profile_or_by_chance_gets_no_offer()
    {
        Assert.Null(FieldWeights.Of(Platform, Searches(Platform, 30, 0.02, seed: 7)).Weights);
        var chance = Enumerable
            .Range(0, 20)
            .Count(i => FieldWeights.Of(Platform, Searches(Platform, 16, 1000, seed: 20 + i)).Weights is not null);
        Assert.InRange(chance, 0, 2);
    }

    [Fact]
    public void Few_searches_or_few_results_say_nothing()
    {
        var found = FieldWeights.Of(Platform, Searches(Platform, 7, 0, seed: 8));
        Assert.Equal((7, null, null), (found.Searches, found.Weights, found.Improvement));
        var few = Searches(Platform, 20, 0, seed: 9).Select(s => s with { Listings = [.. s.Listings.Take(4)] }).ToList();
        Assert.Equal(0, FieldWeights.Of(Platform, few).Searches);
    }
}
