using TinRabbit.Core.Filling;
using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Findings;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Fills that a seller can check by hand.</summary>
public class FillExamplesTests
{
    private static readonly Dictionary<string, FieldValue> Nothing = [];

    private static Platform With(
        Limit? backend,
        Folds folds = Folds.Diacritics,
        bool combine = true,
        string[]? ignored = null,
        Limit? title = null,
        Limit? tags = null,
        Dictionary<string, double>? checks = null
    )
    {
        var sample = Samples.Platform(folds, combine, ignored);
        return sample with
        {
            Fields =
            [
                sample.Fields[0] with
                {
                    Limit = title ?? sample.Fields[0].Limit,
                },
                sample.Fields[1] with
                {
                    Limit = tags ?? sample.Fields[1].Limit,
                },
                new("backend", "Backend", "backend", FieldShape.Words, true, null, 0.4, false, false, backend, null, " "),
                sample.Fields[2],
                sample.Fields[3],
            ],
            Checks = checks ?? [],
        };
    }

    private static WantedTerm T(string text, double? volume = 100, Fit fit = Fit.Core) => new(text, volume, null, null, fit);

    private static WordsFill Words(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        string[] avoid,
        params WantedTerm[] terms
    ) => WordsFill.Of(new(platform, copy, "backend", terms, avoid));

    private static string[] Tags(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        string? lead,
        params WantedTerm[] terms
    ) => [.. TagsFill.Of(new(platform, copy, "tags", terms, []) { Lead = lead }).Items];

    [Fact]
    public void Picks_without_a_shared_word_are_joined_in_one_tag_only_where_slots_are_scarce()
    {
        WantedTerm[] picks = [T("boho ring"), T("promise ring"), T("cedar bird house"), T("bird house kit")];
        var roomy = Tags(With(null, tags: new(24, Unit.Characters, 12)), Nothing, "boho ring", picks);
        Assert.Equal("boho ring", roomy[0]);
        Assert.Contains("promise ring", roomy);
        Assert.DoesNotContain("boho ring promise ring", roomy);
        Assert.DoesNotContain("promise ring boho ring", roomy);
        // What two picks share is said once, as a person would.
        Assert.Contains("cedar bird house kit", roomy);
        var scarce = Tags(With(null, tags: new(24, Unit.Characters, 1)), Nothing, null, T("boho ring"), T("promise ring"));
        Assert.Contains(scarce[0], new[] { "boho ring promise ring", "promise ring boho ring" });
    }

    [Theory]
    [InlineData(12, Unit.Bytes, "pájaro nido")] // á is two bytes: 7 + 1 + 4
    [InlineData(11, Unit.Bytes, "pájaro")]
    [InlineData(11, Unit.Characters, "pájaro nido")]
    [InlineData(10, Unit.Characters, "pájaro")]
    [InlineData(2, Unit.Words, "pájaro nido")]
    [InlineData(1, Unit.Words, "pájaro")]
    [InlineData(6, Unit.Bytes, "nido")]
    [InlineData(3, Unit.Bytes, "")]
    public void Room_is_counted_as_the_platform_counts_it(int max, Unit unit, string text) =>
        Assert.Equal(text, Words(With(new(max, unit, null)), Nothing, [], T("pájaro", 200), T("nido", 100)).Text);

    [Theory]
    [InlineData("鳥の家 巣箱", 9 + 1 + 6)]
    [InlineData("🐦 wren", 4)]
    public void A_script_of_many_bytes_is_never_cut_within_a_word(string standing, int room)
    {
        var fill = Words(
            With(new(room, Unit.Bytes, null)),
            Nothing,
            [],
            [.. standing.Split(' ').Where(w => Tokens.Of(w).Count > 0).Select(w => T(w))]
        );
        Assert.True(fill.Used <= room);
        Assert.All(fill.Words, w => Assert.Contains(w, standing));
        Assert.Equal(Tokens.Of(standing).Count(t => System.Text.Encoding.UTF8.GetByteCount(t.Word) <= room), fill.Words.Count);
    }

    [Theory]
    [InlineData(Folds.Diacritics, "boxes")]
    [InlineData(Folds.Diacritics | Folds.Plural, "")]
    public void What_the_search_takes_as_the_same_is_not_said_again(Folds folds, string text) =>
        Assert.Equal(text, Words(With(new(40, Unit.Bytes, null), folds), Samples.Copy(("title", "Nest box")), [], T("nest boxes")).Text);

    [Theory]
    [InlineData(true, "house")]
    [InlineData(false, "bird house")]
    public void Where_words_of_several_fields_do_not_combine_the_whole_term_goes_in(bool combine, string text) =>
        Assert.Equal(
            text,
            Words(With(new(40, Unit.Bytes, null), combine: combine), Samples.Copy(("title", "Bird")), [], T("bird house")).Text
        );

    [Fact]
    public void A_word_that_a_search_drops_takes_no_room()
    {
        var fill = Words(With(new(11, Unit.Bytes, null), ignored: ["for"]), Nothing, [], T("house for birds"));
        Assert.Equal("house birds", fill.Text);
        Assert.Equal(["house for birds"], fill.Opens);
    }

    [Fact]
    public void What_stands_in_the_field_stays_and_counts()
    {
        var fill = Words(
            With(new(14, Unit.Bytes, null)),
            Samples.Copy(("backend", "  owl   nest ")),
            [],
            T("owl box", 50),
            T("owl roost", 900)
        );
        Assert.Equal("owl nest roost", fill.Text);
        Assert.Equal(["roost"], fill.Words);
        Assert.Equal((14, 900.0, 900.0), (fill.Used, fill.Gain, fill.Bound));
        Assert.Equal(["owl box"], fill.Left);
    }

    [Theory]
    [InlineData("0123456789", 10)]
    [InlineData("0123456789 012345", 10)]
    public void A_field_that_is_full_or_over_its_limit_takes_nothing(string standing, int max)
    {
        var fill = Words(With(new(max, Unit.Bytes, null)), Samples.Copy(("backend", standing)), [], T("owl"));
        Assert.Equal((standing, 0.0, 0.0), (fill.Text, fill.Gain, fill.Bound));
        Assert.Empty(fill.Words);
        Assert.Equal(["owl"], fill.Left);
    }

    [Fact]
    public void Without_a_limit_everything_goes_in()
    {
        var fill = Words(With(null), Nothing, [], T("owl box"), T("bat roost", null), T("wren", 0));
        Assert.Equal(["bat roost", "owl box"], fill.Opens.Order());
        Assert.Equal(["wren"], fill.Left); // nobody searches for it
        Assert.Null(fill.Limit);
    }

    [Fact]
    public void The_unknown_counts_as_the_lowest_quarter_of_the_known()
    {
        Assert.Equal(
            "roosts",
            Words(With(new(6, Unit.Bytes, null)), Nothing, [], T("roosts", null), T("owl", 0), T("a very long one", 10)).Text
        );
        Assert.Equal(
            "owl",
            Words(With(new(6, Unit.Bytes, null)), Nothing, [], T("roosts", null), T("owl", 90), T("a very long one", 10)).Text
        );
        Assert.Equal(11, Words(With(new(9, Unit.Bytes, null)), Nothing, [], T("bat", null), T("owl", 1), T("robin", 10)).Gain);
    }

    [Fact]
    public void What_is_avoided_is_not_said_by_words_that_come_to_stand_side_by_side()
    {
        var fill = Words(
            With(new(60, Unit.Bytes, null)),
            Nothing,
            ["cedar box", "kits house"],
            T("house cedar", 900),
            T("box kit", 800),
            T("cedar box", 5000)
        );
        Assert.Equal(["box", "cedar", "house", "kit"], fill.Words.Order());
        var avoided = new AvoidedTerms(With(null), ["cedar box", "kits house"]);
        Assert.Equal(0, avoided.UsesIn(fill.Text));
        Assert.Contains(new LeftOut("cedar box", LeftOutReason.Avoided), fill.LeftOut);
    }

    [Fact]
    public void Fit_weighs_as_much_as_demand_does()
    {
        // 100 × 1 is more than 200 × 0.4.
        var fill = Words(With(new(3, Unit.Bytes, null)), Nothing, [], T("bat", 200, Fit.Stretch), T("owl", 100));
        Assert.Equal(("owl", 100.0), (fill.Text, fill.Gain));
    }

    [Fact]
    public void One_word_that_opens_many_beats_one_that_opens_the_best()
    {
        var fill = Words(
            With(new(5, Unit.Bytes, null)),
            Samples.Copy(("title", "bird nest owl")),
            [],
            T("bird house", 60),
            T("owl house", 60),
            T("nest chalet", 100),
            T("nest house", 1)
        );
        Assert.Equal(("house", 121.0), (fill.Text, fill.Gain));
    }

    [Fact]
    public void Two_terms_in_one_slot_are_woven_where_they_overlap() =>
        Assert.Equal(
            ["cedar bird house kit"],
            Tags(With(null, tags: new(24, Unit.Characters, 1)), Nothing, null, T("cedar bird house"), T("bird house kit"))
        );

    [Fact]
    public void Free_slots_hold_two_phrases_apart_rather_than_in_one() =>
        Assert.Equal(
            ["bird house", "owl kit"],
            Tags(With(null, tags: new(24, Unit.Characters, 3)), Nothing, null, T("bird house", 200), T("owl kit")).Take(2)
        );

    [Fact]
    public void The_lead_is_the_first_tag_however_little_it_is_searched_for() =>
        Assert.Equal(
            "wren box",
            Tags(With(null), Samples.Copy(("tags", new[] { "old tag" })), "wren box", T("bird house", 9000), T("wren box", 1))[0]
        );

    [Fact]
    public void A_tag_in_another_order_is_no_new_tag() =>
        Assert.Equal(["house bird"], Tags(With(null), Samples.Copy(("tags", new[] { "house bird" })), null, T("bird house")));

    [Fact]
    public void No_slot_is_free_no_tag_is_added()
    {
        var platform = With(null, tags: new(40, Unit.Characters, 2));
        var fill = TagsFill.Of(new(platform, Samples.Copy(("tags", new[] { "a", "b" })), "tags", [T("bird house")], []));
        Assert.Equal(["a", "b"], fill.Items);
        Assert.Empty(fill.Added);
        Assert.Equal(["bird house"], fill.Left);
    }

    [Fact]
    public void A_pick_too_long_for_a_tag_is_had_in_parts()
    {
        var platform = With(null, tags: new(12, Unit.Characters, 3));
        var tags = Tags(platform, Nothing, null, T("window bird feeder", 500));
        Assert.All(tags, t => Assert.True(t.Length <= 12, t));
        Assert.Equal(["bird", "feeder", "window"], tags.SelectMany(t => t.Split(' ')).Distinct().Order());
    }

    [Fact]
    public void A_part_that_stands_already_is_not_said_again_in_any_order()
    {
        var platform = With(null, tags: new(12, Unit.Characters, 4));
        var tags = Tags(
            platform,
            Samples.Copy(("tags", new[] { "feeder bird" })),
            null,
            T("window bird feeder", 500),
            T("oak bird feeder", 400)
        );
        Assert.Equal("feeder bird", tags[0]);
        Assert.Equal(tags.Length, tags.Select(t => string.Join(' ', t.Split(' ').Order(StringComparer.Ordinal))).Distinct().Count());
        Assert.Contains(tags, t => t.Contains("window", StringComparison.Ordinal));
        Assert.Contains(tags, t => t.Contains("oak", StringComparison.Ordinal));
    }

    [Fact]
    public void A_pick_stands_only_where_its_home_is_and_counts_everywhere()
    {
        WantedTerm[] terms =
        [
            T("owl box", 900) with
            {
                Home = Home.Title,
            },
            T("bat box", 100),
            T("wren house", 50) with
            {
                Home = Home.Later,
            },
        ];
        var tags = TagsFill.Of(new(With(null), Nothing, "tags", terms, []));
        Assert.Equal(["bat box"], tags.Items);
        Assert.Equal(["owl box"], tags.Left); // it stays missing, and counts; what is parked does not
        Assert.Equal([new LeftOut("owl box", LeftOutReason.Home), new LeftOut("wren house", LeftOutReason.Home)], tags.LeftOut);
        Assert.Equal(
            Weigher.Weigh(With(null), new Dictionary<string, FieldValue> { ["tags"] = new FieldValue.Items(["bat box"]) }, terms).Grip,
            tags.Grip
        );
        // Nobody reads the backend: the words of a pick for the title may be there. The lead ignores its home.
        Assert.Contains("owl", Words(With(new(40, Unit.Bytes, null)), Nothing, [], terms).Text);
        Assert.Contains("owl box", Tags(With(null), Nothing, "owl box", terms));
        // A platform without the field takes the pick anywhere.
        Assert.Contains("owl box", Tags(With(null), Nothing, null, [T("owl box", 900) with { Home = Home.Bullets }]));
    }

    [Fact]
    public void No_fill_says_what_the_facts_lack()
    {
        var facts = new FactWords("towel", new Dictionary<Facet, IReadOnlyList<string>> { [Facet.Material] = ["cotton"] });
        WantedTerm[] terms = [T("wooden towel rail", 900), T("cotton towel", 100), T("linen towel", 800)];
        var tags = TagsFill.Of(new(With(null), Nothing, "tags", terms, []) { Facts = facts });
        Assert.Equal(["cotton towel"], tags.Items);
        Assert.Equal(["wooden towel rail", "linen towel"], tags.LeftOut.Select(l => l.Text));
        Assert.All(tags.LeftOut, l => Assert.Equal(LeftOutReason.Untrue, l.Reason));
        Assert.Equal("wooden", tags.LeftOut[0].Claims[0].Word);
        Assert.Equal(
            ["Cotton towel"],
            TitleFill.Of(new(With(null), Nothing, "title", terms, []) { Facts = facts }).Takes.Select(t => t.Text)
        );
        var words = WordsFill.Of(new(With(new(40, Unit.Bytes, null)), Nothing, "backend", terms, []) { Facts = facts });
        Assert.Equal("cotton towel", words.Text);
        Assert.Equal(words.Gain, words.Bound);
        // Where no list has a value nothing is known.
        var unknown = facts with
        {
            ByFacet = new Dictionary<Facet, IReadOnlyList<string>>(),
        };
        Assert.Contains("linen towel", TagsFill.Of(new(With(null), Nothing, "tags", terms, []) { Facts = unknown }).Items);
    }

    [Theory]
    [InlineData("notebook cover for a leather journal", 20, "notebook cover")] // never "cover" alone, never "cover for"
    [InlineData("dishwasher safe ceramic travel mug", 16, "ceramic travel", "travel mug")]
    public void A_part_of_a_long_pick_is_a_phrase_that_a_person_would_type(string pick, int room, params string[] expected)
    {
        var tags = Tags(With(null, ignored: ["for", "a"], tags: new(room, Unit.Characters, 6)), Nothing, null, T(pick, 900));
        Assert.All(tags, t => Assert.False(StopWords.Has(t.Split(' ')[0]) || StopWords.Has(t.Split(' ')[^1]), t));
        Assert.All(tags, t => Assert.True(t.Split(' ').Length > 1 || t == "mug" || t == "cover", t));
        Assert.Contains(tags, expected.Contains);
    }

    [Fact]
    public void A_pick_without_a_number_is_filled_like_any_other()
    {
        var fill = TagsFill.Of(new(With(null), Nothing, "tags", [T("owl box", null), T("bat box", null)], []));
        Assert.Equal(["bat box", "owl box"], fill.Items.Order());
        Assert.True(fill.Grip > 0);
        Assert.Equal(2, Words(With(new(40, Unit.Bytes, null)), Nothing, [], T("owl box", null), T("bat roost", null)).Gain);
    }

    [Fact]
    public void A_title_begins_with_the_lead_says_no_word_twice_and_reads_as_a_list()
    {
        var takes = TitleFill
            .Of(
                new(
                    With(null, title: new(40, Unit.Characters, null), checks: new() { [ListingToCheck.TitleWordUses] = 1 }),
                    Nothing,
                    "title",
                    [T("bird house kit", 900), T("cedar nest box", 10), T("wren house", 800)],
                    []
                )
                {
                    Lead = "cedar nest box",
                }
            )
            .Takes;
        Assert.All(takes, t => Assert.StartsWith("Cedar nest box", t.Text));
        Assert.Equal("Cedar nest box, bird house kit, wren", takes[0].Text); // "wren" completes "wren house"
        Assert.DoesNotContain(
            takes,
            t => t.Text.Contains("wren house", StringComparison.Ordinal) && t.Text.Contains("bird house", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_word_comes_twice_where_that_makes_another_pick_exact()
    {
        WantedTerm[] terms = [T("bird house", 900), T("wren house", 800)];
        IReadOnlyList<Take> Takes(double uses) =>
            TitleFill
                .Of(
                    new(
                        With(null, title: new(40, Unit.Characters, null), checks: new() { [ListingToCheck.TitleWordUses] = uses }),
                        Nothing,
                        "title",
                        terms,
                        []
                    )
                )
                .Takes;

        Assert.Equal("Bird house, wren house", Takes(2)[0].Text);
        Assert.All(Takes(1), t => Assert.Single(Tokens.Of(t.Text), w => w.Word == "house"));
        Assert.True(Takes(2)[0].Grip > Takes(1)[0].Grip);
        // One take at least uses no word twice.
        Assert.Contains(Takes(2), t => Tokens.Of(t.Text).Count(w => w.Word == "house") == 1);
    }

    [Fact]
    public void The_end_of_a_title_is_filled_with_words_that_complete_picks()
    {
        var takes = TitleFill
            .Of(
                new(
                    With(null, title: new(30, Unit.Characters, null)),
                    Samples.Copy(("tags", new[] { "gift for birders", "garden" })),
                    "title",
                    [T("cedar nest box", 900), T("large garden ornament", 100), T("gift for wren lovers in winter time", 50)],
                    []
                )
            )
            .Takes;
        // "large ornament" opens "large garden ornament"; the third pick is longer than what is left.
        Assert.Equal("Cedar nest box, large ornament", takes[0].Text);
    }

    [Theory]
    [InlineData(CapitalStyle.Sentence, "Cedar nest box, house for wrens")]
    [InlineData(CapitalStyle.Words, "Cedar Nest Box, House for Wrens")]
    [InlineData(CapitalStyle.AsIs, "cedar Nest box, House for Wrens")]
    public void Capitals_are_those_of_the_profile(CapitalStyle style, string title) =>
        Assert.Equal(
            title,
            TitleFill
                .Of(new(With(null) with { Capitals = style }, Nothing, "title", [T("cedar Nest box", 900), T("House for Wrens", 100)], []))
                .Takes[0]
                .Text
        );

    [Theory]
    [InlineData(10, Unit.Characters)]
    [InlineData(11, Unit.Bytes)]
    public void A_title_that_no_term_fits_has_no_take(int max, Unit unit) =>
        Assert.Empty(TitleFill.Of(new(With(null, title: new(max - 1, unit, null)), Nothing, "title", [T("pájaro box")], [])).Takes);

    [Fact]
    public void A_title_that_just_fits_is_taken() =>
        Assert.Equal(
            "Pájaro box",
            TitleFill.Of(new(With(null, title: new(11, Unit.Bytes, null)), Nothing, "title", [T("pájaro box")], [])).Takes[0].Text
        );

    [Fact]
    public void A_closing_line_names_what_nothing_else_holds()
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
                    new(40, Unit.Characters, 2),
                    null,
                    "\n"
                ),
            ],
        };
        var copy = Samples.Copy(("title", "Cedar box"), ("bullets", new[] { "Keeps wrens warm." }));
        var fill = WordsFill.Of(
            new(platform, copy, "bullets", [T("cedar box", 900), T("owl roost", 50), T("bat nest", 40), T("winter shelter", 30)], [])
        );
        var items = Assert.IsType<FieldValue.Items>(fill.Value).Values;
        Assert.Equal(("Keeps wrens warm.", "Also an owl roost or a bat nest."), (items[0], items[1]));
        Assert.Equal(["owl roost", "bat nest"], fill.Opens);
        Assert.True(items[1].Length <= 40);
        // All lines taken: the words go behind the one with most room.
        var full = WordsFill.Of(
            new(platform, Samples.Copy(("bullets", new[] { "A longer one.", "Two." })), "bullets", [T("owl roost")], [])
        );
        Assert.Equal(["A longer one.", "Two. Also an owl roost."], ((FieldValue.Items)full.Value).Values);
    }
}
