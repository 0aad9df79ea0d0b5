using System.Text.Json;
using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

public class MeasuresTests
{
    [Fact]
    public void Each_word_of_the_picks_says_where_it_stands_and_who_needs_it()
    {
        var platform = Samples.Platform(Folds.Plural, combine: true);
        var copy = new Dictionary<string, FieldValue>
        {
            ["title"] = new FieldValue.Text("Cedar nest boxes"),
            ["tags"] = new FieldValue.Items(["wren house"]),
        };
        WantedTerm[] terms = [new("nest box", 900), new("owl box", 400), new("owl house", 50), new("cedar", 10) { Home = Home.Later }];
        var words = PickWords.Of(platform, copy, terms).Words;
        // What stands nowhere comes first; a plural is the word where the platform takes it so.
        Assert.Equal("owl", words[0].Word);
        Assert.Equal(["owl box", "owl house"], words[0].Needed);
        Assert.Empty(words[0].Fields);
        var box = words.Single(w => w.Word == "box");
        Assert.Equal(["title"], box.Fields);
        Assert.Equal(1300, box.Volume);
        Assert.Equal(["tags"], words.Single(w => w.Word == "house").Fields);
        // Each word once, and all of them.
        Assert.Equal(["box", "house", "nest", "owl"], words.Select(w => w.Word).Order());
    }

    [Theory]
    [InlineData(Folds.Compound, "title")]
    [InlineData(Folds.None, null)]
    public void A_word_stands_in_a_compound_where_the_search_takes_it_so(Folds folds, string? field)
    {
        var words = PickWords
            .Of(
                Samples.Platform(folds, combine: true),
                new Dictionary<string, FieldValue> { ["title"] = new FieldValue.Text("Cedar birdhouse") },
                [new("bird house", 900)]
            )
            .Words;
        Assert.Equal(["bird", "house"], words.Select(w => w.Word).Order());
        Assert.All(words, w => Assert.Equal(field is null ? [] : [field], w.Fields));
    }

    [Fact]
    public void A_text_that_only_people_read_names_the_picks_that_are_no_phrase_in_it()
    {
        var platform = Samples.Platform(Folds.Plural, combine: true);
        var copy = new Dictionary<string, FieldValue> { ["notes"] = new FieldValue.Text("A nest box, and a house for an owl.") };
        var found = PickWords.Of(platform, copy, [new("owl house", 50), new("nest boxes", 900), new("wren house", 400)]);
        Assert.Equal(["wren house", "owl house"], found.Phrases["notes"]);
        Assert.Equal(["notes"], found.Words.Single(w => w.Word == "owl").Unsearched);
    }

    // Tokens that the title of the sample platform has room for.
    private static readonly double Room = Math.Ceiling(Samples.Platform(Folds.None).Find("title")!.Limit!.Max!.Value / 6.0);

    [Fact]
    public void Reach_counts_demand_by_fit_and_grip_by_worth()
    {
        var weighed = Weigher.Weigh(
            Samples.Platform(Folds.Diacritics),
            Samples.Copy(("title", "Cedar bird house"), ("tags", new[] { "wren house" })),
            [
                new("bird house", 1000),
                new("wren house", 500, Headroom: 80, Fit: Fit.Good),
                new("bird house kit", 300, Fit: Fit.Stretch),
                new("owl box"),
            ]
        );
        // The pick without a number counts as the lowest of the three that are known: ⌈3/4⌉ = 1.
        Assert.Equal((1000 + 350) / (1000 + 350 + 120 + 300.0) * 100, weighed.Reach, 10);
        Assert.Equal(DemandBasis.Partly, weighed.Basis);
        Assert.Equal(2, weighed.Eligible);
        Assert.Equal(1500, weighed.Volume);
        Assert.Equal(1, weighed.UnknownVolume);
        var bird = 0.8 * (1 - 0.3 / Room);
        Assert.Equal(bird, weighed.Terms[0].Grip, 12);
        Assert.Equal(0.6, weighed.Terms[1].Grip, 12);
        var (first, second, rest) = (1000 * 0.75, 350 * 0.9, (120 + 300) * 0.75);
        Assert.Equal((first * bird + second * 0.6) / (first + second + rest) * 100, weighed.Grip, 10);
    }

    [Fact]
    public void Fields_add_up_and_the_front_counts()
    {
        var platform = Samples.Platform(Folds.Plural);
        double Grip(string title, params string[] tags) =>
            Weigher.Weigh(platform, Samples.Copy(("title", title), ("tags", tags)), [new("bird house", 10)]).Terms[0].Grip;
        Assert.Equal(1 - (1 - 0.8) * (1 - 0.6), Grip("bird house", "bird house"), 12);
        Assert.Equal(0.8 * 0.85 * (1 - 0.3 * 1 / Room), Grip("cedar bird houses"), 12);
        // What is added at the end changes nothing for what stands before it.
        Assert.Equal(Grip("cedar bird houses"), Grip("cedar bird houses, gift, garden, wren"), 12);
        // Beyond the room, nothing more is lost.
        Assert.Equal(0.8 * 0.7, Grip(string.Join(' ', Enumerable.Repeat("cedar", 40)) + " bird house"), 12);
        // An inflected phrase at the very front beats a whole one far back: the best occurrence counts.
        Assert.Equal(0.8 * 0.85, Grip("bird houses of cedar wood for a garden or a yard with many a small and hungry bird house"), 12);
    }

    [Fact]
    public void Without_any_volume_each_pick_counts_the_same()
    {
        var weighed = Weigher.Weigh(
            Samples.Platform(Folds.None),
            Samples.Copy(("title", "bird house")),
            [new("bird house"), new("owl box", Fit: Fit.Good)]
        );
        Assert.Equal(1 / 1.7 * 100, weighed.Reach, 10);
        Assert.Equal(0.8 / 1.7 * 100, weighed.Grip, 10);
        Assert.Equal((DemandBasis.Counted, 1, 2, null), (weighed.Basis, weighed.LostTerms, weighed.UnknownVolume, weighed.LostVolume));
    }

    [Theory]
    [InlineData(new double[] { 40, 30, 20, 10 }, 10)]
    [InlineData(new double[] { 50, 40, 30, 20, 10 }, 20)] // ⌈5/4⌉ = 2
    [InlineData(new double[] { 0, 0, 7 }, 7)] // a known 0 is no positive volume
    [InlineData(new double[] { 0, 0 }, 1)]
    [InlineData(new double[0], 1)]
    public void The_unknown_counts_as_the_lowest_quarter_of_the_known_positive(double[] known, double assumed)
    {
        WantedTerm[] terms =
        [
            .. known.Select((v, i) => new WantedTerm($"t{i}", v)),
            new("unknown"),
            new("bounded") { VolumeBelow = 5 },
            new("parked", 1) { Home = Home.Later },
        ];
        var complete = PickDemand.Assume(terms);
        Assert.Equal(assumed, complete[known.Length].Demand());
        Assert.Equal(Math.Min(5, assumed), complete[known.Length + 1].Demand());
        // Parked and avoided picks leave every sum.
        Assert.Equal(0, complete[^1].Demand());
        Assert.Equal(known.Length + 2, Weigher.Weigh(Samples.Platform(Folds.None), Samples.Copy(("title", "x")), terms).Counted);
        // What has a number keeps it, so that some of the picks count as they did among all.
        Assert.Equal(complete[known.Length], PickDemand.Assume([complete[known.Length]])[0]);
    }

    [Fact]
    public void Supply_is_competition_or_titles_as_the_market_says()
    {
        ReadingNumbers[] readings = [new(100, 1000, 10), new(100, null, 100), new(100, null, 1000)];
        Assert.Equal(Supply.ExactTitles, MarketStatistics.UsualSupply(readings));
        Assert.Equal(Supply.Competition, MarketStatistics.UsualSupply([new(1, 5, 5)]));
        Assert.Equal(0, MarketStatistics.Compute(readings, Supply.ExactTitles).Centre);
        Assert.Equal(-1, MarketStatistics.Compute(readings).Centre);
        Assert.Equal(Band.Medium, MarketStatistics.Compute(readings, Supply.ExactTitles).BandOf(100));
    }

    [Theory]
    [InlineData(1000.0, 100.0, 1.0, 50 * 0.993262053)]
    [InlineData(1000.0, 0.0, 1.0, 100 * 0.993262053)]
    [InlineData(10.0, 1e9, 1.0, 0)]
    [InlineData(0.0, 5.0, 1.0, 0)]
    public void Headroom_is_demand_against_supply(double volume, double competition, double centre, double headroom) =>
        Assert.Equal(headroom, TermMeasures.Headroom(volume, competition, centre)!.Value, 6);

    [Fact]
    public void Headroom_of_the_unknown_is_unknown()
    {
        Assert.Null(TermMeasures.ExplainHeadroom(null, 5, 1));
        Assert.Null(TermMeasures.ExplainHeadroom(0, 5, 1));
        Assert.Equal(TermMeasures.Headroom(300, 5, 1), TermMeasures.ExplainHeadroom(300, 5, 1)!.Headroom);
        Assert.Null(TermMeasures.Headroom(null, 5, 1));
        Assert.Null(TermMeasures.Headroom(5, null, 1));
        Assert.Null(TermMeasures.Headroom(5, 5, MarketStatistics.Compute([]).Centre));
    }

    [Fact]
    public void The_norm_of_a_shelf_is_its_median_and_terciles()
    {
        var norm = MarketStatistics.Compute([
            new(100, 10),
            new(1000, 10),
            new(10, 0),
            new(0, 40),
            new(null, 50),
            new(5, null),
            new(100, 1000),
        ]);
        Assert.Equal(1.0, norm.Centre!.Value, 12); // ratios −1, 1, 1, 2
        Assert.Equal([Band.Low, Band.Low, Band.Medium, Band.High], new double[] { 0, 10, 40, 1000 }.Select(c => norm.BandOf(c)!.Value));
        Assert.Null(norm.BandOf(null));
        Assert.Null(MarketStatistics.Unknown.BandOf(4));
        Assert.Equal(new Bands(null, null, null, null, null), MarketStatistics.Unknown.BandsOf(1, 2, 3, 4));
    }

    [Theory]
    [InlineData("héron 🐦", Unit.Characters, 7)]
    [InlineData("héron 🐦", Unit.Bytes, 11)]
    [InlineData("nest-box & kit", Unit.Words, 3)]
    public void Room_is_measured_in_the_platforms_unit(string text, Unit unit, int used) => Assert.Equal(used, TextLength.Of(text, unit));

    [Fact]
    public void A_field_of_words_is_measured_single_spaced_and_a_list_item_by_item()
    {
        var words = new Field(
            "backend",
            "Backend",
            "backend",
            FieldShape.Words,
            true,
            null,
            0.4,
            false,
            false,
            new(12, Unit.Bytes, null),
            null,
            " "
        );
        Assert.Equal([9], RoomUsed.Of(words, new FieldValue.Text("  owl \n bird  ")).Used.Select(u => u + 1));
        Assert.Equal(1, RoomUsed.Of(words, new FieldValue.Items(["owl", "nest", "kits"])).Over);
        var tags = Samples.Platform(Folds.None).Find("tags")!;
        var room = RoomUsed.Of(tags, new FieldValue.Items([.. Enumerable.Repeat("bird", 13), new string('x', 26), "  "]));
        Assert.Equal((14, 2, 2), (room.Items, room.Over, room.ItemsOver));
    }

    [Fact]
    public void A_profile_survives_a_round_trip_and_its_errors_name_the_key()
    {
        var platform = Samples.Platform(Folds.Diacritics | Folds.Plural, false, ["for"]);
        var json = PlatformJson.Write(platform).ToJsonString();
        Assert.Equal(json, PlatformJson.Write(PlatformJson.Read(json)).ToJsonString());

        var wrong = Assert.Throws<InvalidInputException>(() =>
            PlatformJson.Read(
                """{"id":"A b","search":{"folds":["plurals"]},"fields":[{"key":"title","shape":"lane","indexed":true,"limit":{"max":0}},{"key":"title","shape":"line","indexFirst":3}]}"""
            )
        );
        Assert.Equal(
            [
                "platform.fields[0].limit.max",
                "platform.fields[0].shape",
                "platform.fields[0].weight",
                "platform.fields[1].indexFirst",
                "platform.fields[1].key",
                "platform.id",
                "platform.search.folds[0]",
            ],
            wrong.Problems.Select(p => p.Path).Order(StringComparer.Ordinal)
        );
    }

    [Fact]
    public void Copy_of_another_shape_is_refused_by_field()
    {
        using var copy = JsonDocument.Parse("""{"title":["a"],"tags":"one","tagz":[],"description":5,"notes":null}""");
        var wrong = Assert.Throws<InvalidInputException>(() => CopyJson.Read(copy.RootElement, Samples.Platform(Folds.None)));
        Assert.Equal(["fields.title", "fields.tagz", "fields.description"], wrong.Problems.Select(p => p.Path));
    }

    [Fact]
    public void Attributes_and_html_are_read_unit_by_unit()
    {
        var choices = new FieldValue.Choices(
            new Dictionary<string, IReadOnlyList<string>> { ["Colour"] = ["grey", "green"], ["Size"] = ["28 mm"] }
        );
        Assert.Equal(["grey", "green", "28 mm"], choices.Units(FieldShape.Choices));
        var html = "<p class='bird'>A <b>nest</b>&nbsp;box<!-- owl --> &amp; kit</p><script>wren()</script>";
        var unit = new FieldValue.Text(html).Units(FieldShape.Rich)[0];
        Assert.Equal(html.Length, unit.Length);
        Assert.Equal(["a", "nest", "box", "kit"], Tokens.Of(unit).Select(t => t.Word));
    }

    [Theory]
    [InlineData(new[] { 0.72, 0.6 }, new[] { 0.51634, 0.37166 })]
    [InlineData(new[] { 0.0, 0.5 }, new[] { 0.0, 0.5 })]
    [InlineData(new[] { 0.0, 0.0 }, new[] { 0.0, 0.0 })]
    [InlineData(new[] { 1.0, 0.0 }, new[] { 1.0, 0.0 })]
    public void Grip_is_split_among_fields_by_the_logarithm_of_what_each_leaves(double[] strengths, double[] parts)
    {
        var split = GripSplit.Of(strengths);
        for (var i = 0; i < parts.Length; i++)
            Assert.Equal(parts[i], split[i], 1e-4);
        Assert.Equal(1 - strengths.Aggregate(1.0, (loose, s) => loose * (1 - s)), split.Sum(), 1e-12);
    }

    [Fact]
    public void Every_number_has_a_band_against_the_shelf_and_the_thirds_hold_as_many()
    {
        // Of nine terms the numbers rise together, except that competition falls.
        var norm = MarketStatistics.Compute(Enumerable.Range(1, 9).Select(i => new ReadingNumbers(i * 10, 100 - i * 10, i, i * 0.1)));
        Assert.Equal(new Bands(Band.Low, Band.High, Band.Low, Band.Low, Band.Low), norm.BandsOf(10, 90, 1, 0.1));
        Assert.Equal(new Bands(Band.Medium, Band.Medium, Band.Medium, Band.Medium, Band.Medium), norm.BandsOf(50, 50, 5, 0.5));
        Assert.Equal(new Bands(Band.High, Band.Low, Band.High, Band.High, Band.High), norm.BandsOf(90, 10, 9, 0.9));
        Assert.Equal(new Bands(null, Band.Low, null, null, null), norm.BandsOf(null, 10, null, null));
        // No searches are a number, but no headroom.
        Assert.Equal((Band.Low, null), (norm.BandsOf(0, 10, null, null).Volume, norm.BandsOf(0, 10, null, null).Headroom));
        Prop.ForAll(
                Gen.Choose(0, 1000).ArrayOf().ToArbitrary(),
                values =>
                {
                    if (Terciles.Of([.. values.Select(v => (double)v)]) is not { } thirds)
                        Assert.Empty(values);
                    else
                    {
                        // At least a third of the values lies in or below the low band, and two thirds in or below the medium one.
                        Assert.True(values.Count(v => thirds.BandOf(v) == Band.Low) * 3 >= values.Length);
                        Assert.True(values.Count(v => thirds.BandOf(v) != Band.High) * 3 >= values.Length * 2);
                        Assert.True(thirds.LowTo <= thirds.MediumTo);
                    }
                }
            )
            .QuickCheckThrowOnFailure();
    }
}
