using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Laws of the fills on listings made at random, in several scripts, and examples a seller would check by hand.</summary>
public class FillTests
{
    private static readonly string[] Vocabulary =
    [
        "bird",
        "birds",
        "house",
        "box",
        "boxes",
        "cedar",
        "pájaro",
        "pajaro",
        "casa",
        "Ωμέγα",
        "鳥の家",
        "for",
        "kit",
        "5.5",
        "women's",
    ];

    private static readonly Gen<WantedTerm> Term =
        from words in Gen.Choose(1, 3).SelectMany(n => Gen.Elements(Vocabulary).ListOf(n))
        from volume in Gen.Elements<double?>(null, 0, 10, 70, 300, 1000)
        from fit in Gen.Elements(Fit.Core, Fit.Good, Fit.Stretch)
        select new WantedTerm(string.Join(' ', words), volume, null, null, fit);

    private static readonly Gen<(Platform Platform, string Title, WantedTerm[] Terms, string[] Avoid)> Cases =
        from folds in Gen.Elements(
            Folds.None,
            Folds.Diacritics,
            Folds.Diacritics | Folds.Plural,
            Folds.Diacritics | Folds.Plural | Folds.Possessive | Folds.Spelling | Folds.Compound
        )
        from combine in Gen.Elements(true, false)
        from ignored in Gen.Elements(new string[0], ["for"])
        from unit in Gen.Elements(Unit.Characters, Unit.Bytes, Unit.Words)
        from room in Gen.Choose(1, 40)
        from title in Gen.Choose(0, 3).SelectMany(n => Gen.Elements(Vocabulary).ListOf(n))
        from terms in Gen.Choose(0, 9).SelectMany(n => Term.ListOf(n))
        from avoid in Gen.Choose(0, 2)
            .SelectMany(n =>
                Gen.Choose(1, 2).SelectMany(k => Gen.Elements(Vocabulary).ListOf(k)).Select(w => string.Join(' ', w)).ListOf(n)
            )
        select (
            Platform(folds, combine, ignored, unit, unit == Unit.Words ? 1 + room / 6 : room),
            string.Join(' ', title),
            terms.ToArray(),
            avoid.ToArray()
        );

    private static Platform Platform(Folds folds, bool combine, string[] ignored, Unit unit, int room)
    {
        var sample = Samples.Platform(folds, combine, ignored);
        return sample with
        {
            Fields =
            [
                sample.Fields[0] with
                {
                    Limit = new(room, unit, null),
                },
                sample.Fields[1] with
                {
                    Limit = new(room, unit, 3),
                },
                new("backend", "Backend", "backend", FieldShape.Words, true, null, 0.4, false, false, new(room, unit, null), null, " "),
                sample.Fields[2],
            ],
        };
    }

    // By the definition, and not by the code that is tested.
    private static Func<WantedTerm, double> DemandIn(IEnumerable<WantedTerm> terms)
    {
        var known = terms.Select(t => t.Volume ?? 0).Where(v => v > 0).Order().ToArray();
        var assumed = known.Length == 0 ? 1 : known[(int)Math.Ceiling(known.Length / 4.0) - 1];
        return t => (t.Volume ?? assumed) * t.Fit.Weight();
    }

    private static List<string> Words(string text) => [.. Tokens.Of(text).Select(t => t.Word)];

    [Fact]
    public void Words_stay_within_the_room_open_what_they_say_and_come_under_their_bound() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(1000),
            Prop.ForAll(
                Cases.ToArbitrary(),
                c =>
                {
                    var copy = Samples.Copy(("title", c.Title));
                    var fill = WordsFill.Of(new(c.Platform, copy, "backend", c.Terms, c.Avoid));
                    var with = new Dictionary<string, FieldValue>(copy) { ["backend"] = fill.Value };
                    var before = Weigher.Weigh(c.Platform, copy, c.Terms);
                    var after = Weigher.Weigh(c.Platform, with, c.Terms);
                    var opened = Enumerable
                        .Range(0, c.Terms.Length)
                        .Where(i => before.Terms[i].Grade == Grade.Missing && after.Terms[i].Grade != Grade.Missing)
                        .Select(i => c.Terms[i].Text)
                        .ToList();
                    var avoided = new AvoidedTerms(c.Platform, c.Avoid);
                    return RoomUsed.Of(c.Platform.Find("backend")!, fill.Value).Fits
                        && fill.Used == TextLength.Of(fill.Text, c.Platform.Find("backend")!.Limit!.Unit)
                        && fill.Opens.All(opened.Contains)
                        && Math.Abs(fill.Gain - fill.Opens.Distinct().Sum(o => c.Terms.Where(t => t.Text == o).Sum(DemandIn(c.Terms))) / 1)
                            < 1e-6
                        && fill.Gain <= fill.Bound * (1 + 1e-9)
                        && avoided.UsesIn(fill.Text) == 0
                        && fill.Words.Select(w => Fold.Key(w, c.Platform.Search.Folds)).Distinct().Count() == fill.Words.Count
                        && (
                            !c.Platform.Search.WordsCombine
                            || !Words(c.Title)
                                .Any(t => fill.Words.Any(w => Fold.Key(w, c.Platform.Search.Folds) == Fold.Key(t, c.Platform.Search.Folds)))
                        );
                }
            )
        );

    [Fact]
    public void No_words_at_all_open_more_than_the_bound_and_few_open_more_than_ours() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(300),
            Prop.ForAll(
                Cases.Where(c => c.Avoid.Length == 0).ToArbitrary(),
                c =>
                {
                    var copy = Samples.Copy(("title", c.Title));
                    var fill = WordsFill.Of(new(c.Platform, copy, "backend", c.Terms, []));
                    var before = Weigher.Weigh(c.Platform, copy, c.Terms);
                    // No fill repeats a word that the title has, where words combine.
                    string KeyOf(string word) => Fold.Key(word, c.Platform.Search.Folds);
                    var said = c.Platform.Search.WordsCombine ? Words(c.Title).Select(KeyOf).ToHashSet() : [];
                    var words = c.Terms.SelectMany(t => Words(t.Text)).Distinct().Where(w => !said.Contains(KeyOf(w))).Take(9).ToArray();
                    var best = 0.0;
                    for (var set = 0; set < 1 << words.Length; set++)
                    {
                        var text = string.Join(' ', words.Where((_, i) => (set >> i & 1) == 1));
                        if (TextLength.Of(text, c.Platform.Find("backend")!.Limit!.Unit) > c.Platform.Find("backend")!.Limit!.Max)
                            continue;
                        var after = Weigher.Weigh(
                            c.Platform,
                            new Dictionary<string, FieldValue>(copy) { ["backend"] = new FieldValue.Text(text) },
                            c.Terms
                        );
                        best = Math.Max(
                            best,
                            Enumerable
                                .Range(0, c.Terms.Length)
                                .Where(i => before.Terms[i].Grade == Grade.Missing && after.Terms[i].Grade != Grade.Missing)
                                .Sum(i => DemandIn(c.Terms)(c.Terms[i]))
                        );
                    }

                    Assert.True(
                        best <= fill.Bound * (1 + 1e-9) && fill.Gain >= best * 0.995 - 1e-9,
                        $"best {best}, bound {fill.Bound}, ours {fill.Gain} by \"{fill.Text}\", {c.Platform.Search.Folds}, combine {c.Platform.Search.WordsCombine}, {c.Platform.Find("backend")!.Limit}"
                    );
                }
            )
        );

    [Fact]
    public void Phrases_stay_within_slots_and_room_and_no_phrase_is_there_twice() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(400),
            Prop.ForAll(
                Cases.ToArbitrary(),
                c =>
                {
                    // A tag may stand there already, if it fits.
                    var standing =
                        c.Terms.Length > 2
                        && TextLength.Of(c.Terms[2].Text, c.Platform.Find("tags")!.Limit!.Unit) <= c.Platform.Find("tags")!.Limit!.Max
                        && new AvoidedTerms(c.Platform, c.Avoid).UsesIn(c.Terms[2].Text) == 0
                            ? c.Terms[2].Text
                            : "";
                    var copy = Samples.Copy(("title", c.Title), ("tags", new[] { standing }));
                    var lead = c.Terms.FirstOrDefault()?.Text;
                    var fill = TagsFill.Of(new(c.Platform, copy, "tags", c.Terms, c.Avoid) { Lead = lead });
                    var after = Weigher.Weigh(
                        c.Platform,
                        new Dictionary<string, FieldValue>(copy) { ["tags"] = new FieldValue.Items(fill.Items) },
                        c.Terms
                    );
                    var parts = fill.Items.Select(i => string.Join(' ', Words(i).Order(StringComparer.Ordinal))).ToList();
                    var said = $"{string.Join(" | ", fill.Items)}; standing {standing}; lead {lead}; {c.Platform.Find("tags")!.Limit}";
                    Assert.True(RoomUsed.Of(c.Platform.Find("tags")!, new FieldValue.Items(fill.Items)).Fits, $"over the room: {said}");
                    Assert.True(parts.Distinct().Count() == parts.Count, $"twice: {said}");
                    Assert.True(Math.Abs(after.Grip - fill.Grip) < 1e-9, $"grip {after.Grip}, told {fill.Grip}: {said}");
                    Assert.True(fill.Items.All(i => new AvoidedTerms(c.Platform, c.Avoid).UsesIn(i) == 0), $"avoided: {said}");
                    Assert.True(
                        lead is null
                            || !fill.Added.Any(i => Tokens.Key(i) == Tokens.Key(lead))
                            || Tokens.Key(fill.Items[0]) == Tokens.Key(lead),
                        $"the lead is not first: {said}"
                    );
                }
            )
        );

    [Fact]
    public void The_lead_in_another_order_takes_no_second_slot()
    {
        var platform = Platform(
            Folds.Diacritics | Folds.Plural | Folds.Possessive | Folds.Spelling | Folds.Compound,
            true,
            [],
            Unit.Characters,
            9
        );
        WantedTerm[] terms =
        [
            new("5.5 for", null),
            new("birds pajaro pájaro", 10, null, null, Fit.Stretch),
            new("boxes", 10),
            new("box", 70, null, null, Fit.Stretch),
            new("women's birds 鳥の家", 0, null, null, Fit.Stretch),
            new("5.5 house box", 300, null, null, Fit.Stretch),
            new("for 5.5", 1000, null, null, Fit.Good),
            new("鳥の家 for", 300, null, null, Fit.Good),
            new("鳥の家", null),
        ];
        var fill = TagsFill.Of(
            new(platform, Samples.Copy(("title", "pajaro"), ("tags", new[] { "boxes" })), "tags", terms, []) { Lead = "5.5 for" }
        );
        Assert.Single(fill.Items, i => i is "5.5 for" or "for 5.5");
    }

    [Fact]
    public void Titles_fit_say_no_word_twice_begin_with_the_lead_and_differ() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(120),
            Prop.ForAll(
                Cases.ToArbitrary(),
                c =>
                {
                    var lead = c.Terms.FirstOrDefault()?.Text;
                    var takes = TitleFill
                        .Of(new(c.Platform, Samples.Copy(("tags", new[] { "bird box" })), "title", c.Terms, c.Avoid) { Lead = lead })
                        .Takes;
                    var title = c.Platform.Find("title")!;
                    var saysLead =
                        lead is not null
                        && new AvoidedTerms(c.Platform, c.Avoid).UsesIn(lead) == 0
                        && TextLength.Of(Tokens.Key(lead), title.Limit!.Unit) <= title.Limit.Max
                        && MostUses(lead) == 1;
                    return takes.Count <= 5
                        && takes.Select(t => t.Text).Distinct().Count() == takes.Count
                        && takes.All(t => t.Used <= title.Limit!.Max && t.Used == TextLength.Of(t.Text, title.Limit.Unit))
                        && takes.All(t => MostUses(t.Text) <= 2)
                        && (takes.Count == 0 || takes.Any(t => MostUses(t.Text) == 1) || (lead is not null && !saysLead))
                        && takes.All(t => new AvoidedTerms(c.Platform, c.Avoid).UsesIn(t.Text) == 0)
                        && (!saysLead || takes.All(t => Words(t.Text).Take(Words(lead!).Count).SequenceEqual(Words(lead!))));

                    int MostUses(string text) =>
                        Words(text)
                            .Where(w => !StopWords.Has(w))
                            .GroupBy(w => Fold.Key(w, c.Platform.Search.Folds))
                            .Select(g => g.Count())
                            .DefaultIfEmpty(1)
                            .Max();
                }
            )
        );

    [Fact]
    public void A_title_uses_what_two_terms_share()
    {
        var platform = Samples.Platform(Folds.Diacritics);
        var takes = TitleFill
            .Of(
                new(platform, new Dictionary<string, FieldValue>(), "title", [new("cedar bird house", 900), new("bird house kit", 400)], [])
                {
                    Lead = "cedar bird house",
                }
            )
            .Takes;
        Assert.Equal("Cedar bird house kit", takes[0].Text);
        Assert.Equal(["cedar bird house", "bird house kit"], takes[0].Whole);
    }

    [Fact]
    public void Words_are_those_that_nothing_else_holds_and_stand_as_they_are_searched_for()
    {
        var platform = Platform(Folds.Diacritics, true, [], Unit.Bytes, 28);
        var fill = WordsFill.Of(
            new(
                platform,
                Samples.Copy(("title", "Cedar bird house")),
                "backend",
                [new("bird house for wrens", 500), new("wren nest box", 900), new("cedar chalet", 20), new("swallow bird house", 800)],
                ["swallow"]
            )
        );
        Assert.Equal("wren nest box for wrens", fill.Text);
        Assert.Equal(["wren nest box", "bird house for wrens"], fill.Opens);
        Assert.Equal(["swallow bird house", "cedar chalet"], fill.Left);
        Assert.Equal([new LeftOut("swallow bird house", LeftOutReason.Avoided)], fill.LeftOut);
        Assert.Equal(1400, fill.Gain);
        Assert.Equal(1400, fill.Bound, 6);
    }

    [Fact]
    public void A_closing_line_goes_into_a_bullet_of_its_own()
    {
        var sample = Samples.Platform(Folds.Diacritics);
        var platform = sample with
        {
            Fields =
            [
                sample.Fields[0],
                new(
                    "bullets",
                    "Bullets",
                    "bullets",
                    FieldShape.Lines,
                    true,
                    null,
                    0.4,
                    false,
                    false,
                    new(40, Unit.Characters, 3),
                    null,
                    "\n"
                ),
            ],
        };
        var fill = WordsFill.Of(
            new(
                platform,
                Samples.Copy(("bullets", new[] { "Warm and dry." })),
                "bullets",
                [new("warm nest box", 10), new("dry roost", 5)],
                []
            )
        );
        Assert.Equal(["Warm and dry.", "Also a warm nest box or a dry roost."], ((FieldValue.Items)fill.Value).Values);
    }

    [Fact]
    public void A_lead_too_long_for_a_tag_stands_there_in_two_parts_first()
    {
        var fill = TagsFill.Of(
            new(
                Samples.Platform(Folds.Diacritics),
                new Dictionary<string, FieldValue>(),
                "tags",
                [new("cedar bird house with camera", 900), new("bird house", 2000)],
                []
            )
            {
                Lead = "cedar bird house with camera",
            }
        );
        Assert.Equal(["cedar bird house", "house with camera"], fill.Items.Take(2));
    }

    [Fact]
    public void What_stands_in_the_tags_stays()
    {
        var fill = TagsFill.Of(
            new(
                Samples.Platform(Folds.Diacritics),
                Samples.Copy(("tags", new[] { "garden gift", "" })),
                "tags",
                [new("bird house", 2000), new("gift garden", 0)],
                []
            )
        );
        Assert.Equal(["garden gift", "bird house"], fill.Items);
        Assert.Equal(["bird house"], fill.Added);
    }

    [Fact]
    public void A_field_that_is_not_searched_or_no_place_for_words_is_said_by_name()
    {
        var platform = Samples.Platform(Folds.Diacritics);
        Assert.Contains(
            "does not search Notes",
            Assert
                .Throws<InvalidInputException>(() => WordsFill.Of(new(platform, new Dictionary<string, FieldValue>(), "notes", [], [])))
                .Message
        );
        Assert.Contains(
            "no field \"slug\"",
            Assert
                .Throws<InvalidInputException>(() => TagsFill.Of(new(platform, new Dictionary<string, FieldValue>(), "slug", [], [])))
                .Message
        );
        Assert.Contains(
            "Tags is not a line",
            Assert
                .Throws<InvalidInputException>(() => TitleFill.Of(new(platform, new Dictionary<string, FieldValue>(), "tags", [], [])))
                .Message
        );
    }

    [Theory]
    [InlineData("Cedar house for birds, bird kit", "bird house", "Cedar bird house for birds, kit")]
    [InlineData("Garden gift, nest box, wren", "wren nest box", "Garden gift, wren nest box")]
    [InlineData("House for birds, Cedar, bird", "cedar bird house", "Cedar bird house for birds")]
    [InlineData("House for a small bird", "owl house", null)]
    public void Words_move_to_where_the_first_of_them_stands(string text, string term, string? moved) =>
        Assert.Equal(moved, Reorder.MakeContiguous(text, term, Folds.Diacritics, ", "));

    [Theory]
    [InlineData("Small bird house for garden, cedar", "cedar bird house", "Small cedar bird house for garden", true)]
    [InlineData("Cedar nest box, small bird house for garden", "cedar bird house", "Cedar bird house nest box, small for garden", false)]
    [InlineData("Small bird house, gift", "gift for birds", "Small house, gift for birds", true)]
    [InlineData("House for birds, bird kit", "bird birds", "House for bird birds, kit", false)]
    [InlineData("Bird houses, cedar house", "cedar house", "Bird houses cedar house", true)]
    [InlineData("Bird houses, cedar house", "houses house", "Bird houses house, cedar", false)]
    public void An_order_reads_well_when_small_words_keep_their_neighbours_and_forms_stay_apart(
        string text,
        string term,
        string reordered,
        bool well
    ) => Assert.Equal(well, Reorder.ReadsWell(text, term, reordered, ", "));

    private static readonly string[] Known =
    [
        "bird house",
        "house bird",
        "cedar bird house",
        "bird box",
        "boxes for birds",
        "box",
        "pájaro casa",
        "owl box",
        "birdhouse",
    ];

    [Fact]
    public void Known_terms_are_those_that_the_definition_of_the_grades_finds() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(500),
            Prop.ForAll(
                Cases.ToArbitrary(),
                c =>
                {
                    var known = new KnownTerms(c.Platform);
                    known.Add(Known.Take(4).Select(Tokens.Key));
                    known.Add(Known.Skip(4).Select(Tokens.Key));
                    var text = c.Title + " " + string.Join(' ', c.Terms.Select(t => t.Text));
                    var found = known.FindIn(text, i => Tokens.Key(Known[i])).ToDictionary(k => k.Number, k => k.Grade);
                    var plain = Weigher.Weigh(c.Platform, Samples.Copy(("title", text)), [.. Known.Select(k => new WantedTerm(k))]);
                    return Known
                        .Select((_, i) => i)
                        .All(i =>
                            plain.Terms[i].Grade is Grade.Missing or Grade.Spread
                                ? !found.ContainsKey(i)
                                : found.GetValueOrDefault(i) == plain.Terms[i].Grade
                        );
                }
            )
        );
}
