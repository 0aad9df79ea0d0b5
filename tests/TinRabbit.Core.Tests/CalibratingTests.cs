using TinRabbit.Core.Calibrating;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>What a market found against what the profile predicts.</summary>
public class CalibratingTests
{
    private static readonly IReadOnlyDictionary<string, FieldValue> Copy = Samples.Copy(
        ("title", "Cedar bird houses, nest boxes, feeders"),
        ("tags", new[] { "owl boxes", "bat houses" }),
        ("notes", "for wrens and robins")
    );

    private static readonly string[] Terms =
    [
        "bird house",
        "nest box",
        "feeder",
        "owl box",
        "bat house",
        "bird houses",
        "nest boxes",
        "cedar",
        "wrens",
        "robins",
        "zebra",
        "cedar feeders",
    ];

    // What a market with another profile finds.
    private static ObservedTerm[] ObservedBy(Platform real, string[] terms) =>
        [.. terms.Select(t => new ObservedTerm(t, Weigher.Weigh(real, Copy, [new WantedTerm(t)]).Terms[0].Grade != Grade.Missing))];

    [Fact]
    public void A_wrong_fold_is_named()
    {
        var found = ProfileExplanation.Of(
            Samples.Platform(Folds.Diacritics),
            Copy,
            ObservedBy(Samples.Platform(Folds.Diacritics | Folds.Plural), Terms)
        );
        Assert.Equal(5, found.Disagreements);
        Assert.Equal(
            (ProfileChangeKind.Fold, "plural", true, 0),
            (found.Change!.Kind, found.Change.Name, found.Change.On, found.Change.Remaining)
        );
        Assert.True(found.Change.Platform.Search.Folds.HasFlag(Folds.Plural));
        // The other way round: it is off after all.
        var back = ProfileExplanation.Of(
            Samples.Platform(Folds.Diacritics | Folds.Plural),
            Copy,
            ObservedBy(Samples.Platform(Folds.Diacritics), Terms)
        );
        Assert.Equal(("plural", false), (back.Change!.Name, back.Change.On));
    }

    [Fact]
    public void A_field_that_is_searched_after_all_is_named()
    {
        var platform = Samples.Platform(Folds.None);
        var real = platform with
        {
            Fields = [.. platform.Fields.Select(f => f.Key == "notes" ? f with { Indexed = true, Weight = 0.1 } : f)],
        };
        var found = ProfileExplanation.Of(platform, Copy, ObservedBy(real, ["wrens", "robins", "wrens and robins", "cedar", "zebra"]));
        Assert.Equal(
            (ProfileChangeKind.Field, "notes", true, 0),
            (found.Change!.Kind, found.Change.Name, found.Change.On, found.Change.Remaining)
        );
    }

    [Fact]
    public void Words_that_do_not_combine_are_named()
    {
        var terms = new[] { "cedar owl", "bird bat", "nest owl", "feeders bat", "cedar", "owl boxes" };
        var found = ProfileExplanation.Of(
            Samples.Platform(Folds.None),
            Copy,
            ObservedBy(Samples.Platform(Folds.None, combine: false), terms)
        );
        Assert.Equal((ProfileChangeKind.WordsCombine, false), (found.Change!.Kind, found.Change.On));
    }

    [Fact]
    public void Text_beyond_the_first_characters_is_named()
    {
        var platform = Samples.Platform(Folds.None);
        Platform With(int? first) =>
            platform with
            {
                Fields = [.. platform.Fields.Select(f => f.Key == "title" ? f with { IndexedFirst = first } : f)],
            };
        var found = ProfileExplanation.Of(With(5), Copy, ObservedBy(With(null), ["bird", "houses", "nest", "feeders", "cedar"]));
        Assert.Equal((ProfileChangeKind.IndexedFirst, "title", false), (found.Change!.Kind, found.Change.Name, found.Change.On));
    }

    [Fact]
    public void Fewer_than_three_disagreements_or_less_than_half_explained_offer_nothing()
    {
        var platform = Samples.Platform(Folds.Diacritics);
        Assert.Null(
            ProfileExplanation
                .Of(platform, Copy, ObservedBy(Samples.Platform(Folds.Diacritics | Folds.Plural), ["bird house", "nest box", "cedar"]))
                .Change
        );
        // Ten that no profile explains beside three that one would.
        ObservedTerm[] strange =
        [
            .. ObservedBy(Samples.Platform(Folds.Diacritics | Folds.Plural), ["bird house", "nest box", "feeder"]),
            .. Enumerable.Range(0, 10).Select(i => new ObservedTerm($"zebra {i}", true)),
        ];
        var found = ProfileExplanation.Of(platform, Copy, strange);
        Assert.Equal((13, null), (found.Disagreements, found.Change));
    }

    [Fact]
    public void Agreement_is_told_and_nothing_is_offered()
    {
        var platform = Samples.Platform(Folds.Diacritics);
        var found = ProfileExplanation.Of(platform, Copy, ObservedBy(platform, Terms));
        Assert.Equal((0, null), (found.Disagreements, found.Change));
        Assert.Equal(Terms.Length, found.Predicted.Count);
    }

    [Fact]
    public void Rank_correlation_shares_the_ranks_of_ties_and_says_nothing_of_few()
    {
        Assert.Null(RankCorrelation.Of([.. Enumerable.Range(1, 19).Select(i => (1.0 / i, i))]).Rho);
        var all = RankCorrelation.Of([.. Enumerable.Range(1, 20).Select(i => (1.0 / i, i))]);
        Assert.Equal((20, 1.0), (all.Count, all.Rho!.Value));
        Assert.Equal(-1, RankCorrelation.Of([.. Enumerable.Range(1, 20).Select(i => ((double)i, i))]).Rho!.Value, 1e-12);
        Assert.Null(RankCorrelation.Of([.. Enumerable.Range(1, 20).Select(i => (0.5, i))]).Rho);

        // Ties: grips 1 and 0 in halves, ranks in order: ranks 15.5 and 5.5 against 20…1.
        var ties = RankCorrelation.Of([.. Enumerable.Range(1, 20).Select(i => (i <= 10 ? 1.0 : 0.0, i))]);
        Assert.Equal(10 * 100 / Math.Sqrt(500 * 665.0) / 2, ties.Rho!.Value, 1e-9);
        Assert.Equal(Math.Tanh(Math.Atanh(ties.Rho.Value) - 1.959964 / Math.Sqrt(17)), ties.Low!.Value, 1e-12);
    }
}
