using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Moves;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Laws of the moves on listings made at random, and examples a seller would check by hand.</summary>
public class MovesTests
{
    private static readonly string[] Vocabulary =
    [
        "bird",
        "birds",
        "birdhouse",
        "house",
        "box",
        "boxes",
        "cedar",
        "pájaro",
        "pajaro",
        "鳥の家",
        "for",
        "kit",
        "women's",
        "blue",
    ];

    private static Gen<string> Words(int least, int most) =>
        from count in Gen.Choose(least, most)
        from words in Gen.Elements(Vocabulary).ListOf(count)
        select string.Join(' ', words);

    private static readonly Gen<WantedTerm> Term =
        from text in Words(1, 3)
        from volume in Gen.Elements<double?>(null, 0, 10, 70, 300, 1000)
        from headroom in Gen.Elements<double?>(null, 0, 80)
        from fit in Gen.Elements(Fit.Core, Fit.Good, Fit.Stretch)
        select new WantedTerm(text, volume, null, headroom, fit);

    private static readonly Gen<MovesInput> Cases =
        from folds in Gen.Elements(
            Folds.None,
            Folds.Diacritics,
            Folds.Diacritics | Folds.Plural,
            Folds.Diacritics | Folds.Plural | Folds.Possessive | Folds.Spelling | Folds.Compound
        )
        from combine in Gen.Elements(true, false)
        from ignored in Gen.Elements(new string[0], ["for"])
        from unit in Gen.Elements(Unit.Characters, Unit.Bytes, Unit.Words)
        from room in Gen.Choose(4, 40)
        from title in Gen.Choose(0, 3).SelectMany(n => Words(1, 3).ListOf(n))
        from tags in Gen.Choose(0, 3).SelectMany(n => Words(1, 2).ListOf(n))
        from backend in Words(0, 3)
        from bullet in Words(1, 4)
        from terms in Gen.Choose(0, 9).SelectMany(n => Term.ListOf(n))
        from avoid in Gen.Choose(0, 2).SelectMany(n => Words(1, 2).ListOf(n))
        from facts in Gen.Elements(null, new FactWords("bird house", new Dictionary<Facet, IReadOnlyList<string>>()))
        from leads in Gen.Elements(true, false)
        select new MovesInput(
            Platform(folds, combine, ignored, unit, unit == Unit.Words ? 1 + room / 6 : room),
            new Dictionary<string, FieldValue>
            {
                ["title"] = new FieldValue.Text(string.Join(", ", title)),
                ["tags"] = new FieldValue.Items([.. tags]),
                ["backend"] = new FieldValue.Text(backend),
                ["bullets"] = new FieldValue.Items([bullet]),
            },
            [.. terms],
            [.. avoid]
        )
        {
            Facts = facts,
            Lead = leads && terms.Count > 0 ? terms[0].Text : null,
        };

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
                new("bullets", "Bullets", "bullets", FieldShape.Lines, true, null, 0.3, false, false, new(room * 2, unit, 5), null, "\n"),
                new("attributes", "Attributes", "", FieldShape.Choices, true, null, 0.5, false, false, null, null, ", ")
                {
                    Attributes = [new("For", ["women's", "cedar boxes", "kit"], null), new("Colour", ["blue"], null)],
                },
            ],
        };
    }

    private static Weighing Weigh(MovesInput input) => Weigher.Weigh(input.Platform, input.Copy, input.Terms);

    private static string TextOf(Field field, FieldValue value) => string.Join('\n', value.Units(field.Shape));

    [Fact]
    public void A_move_gains_what_two_weighings_say_keeps_every_rule_and_the_best_come_first() =>
        Prop.ForAll(
                Cases.ToArbitrary(),
                input =>
                {
                    var found = MoveSearch.Of(input with { Most = 1000 });
                    var before = Weigh(input);
                    Assert.Equal((before.Grip, before.Reach), (found.Grip, found.Reach));
                    foreach (var move in found.Moves)
                    {
                        var field = input.Platform.Find(move.Field)!;
                        var after = Weigh(input.After(move));
                        Assert.Equal(after.Grip - before.Grip, move.Gain);
                        Assert.Equal(after.Reach - before.Reach, move.Reach);
                        Assert.True(move.Gain > 0 || (move.Kind == MoveKind.Free && move.Gain >= -1e-9 && LowersNoGrade(before, after)));
                        Assert.StartsWith(move.Field, move.Slot);
                        Assert.True(RoomUsed.Of(field, move.Value).Fits, $"{move}");
                        Assert.Equal(
                            Enumerable
                                .Range(0, input.Terms.Count)
                                .Where(i => Held(before, i) && !Held(after, i))
                                .Select(i => input.Terms[i].Text),
                            move.Loses
                        );
                        var avoided = new AvoidedTerms(input.Platform, input.Avoid);
                        Assert.True(Uses(avoided, field, move.Value) <= Uses(avoided, field, input.Copy.GetValueOrDefault(move.Field)));
                        if (move.Pick is { } pick && input.Facts is { } facts)
                            Assert.Empty(Facets.Unbacked(pick, facts));
                        if (input.Lead is { } lead && move.Field == "title" && Tokens.HasPhrase(Title(input), lead))
                            Assert.True(Tokens.HasPhrase(Title(input.After(move)), lead), $"{move}");
                    }

                    Assert.Equal(found.Moves.OrderByDescending(m => m.Gain).ThenBy(m => m.Changed), found.Moves);
                    Assert.Distinct(found.Moves.Select(m => (m.Field, TextOf(input.Platform.Find(m.Field)!, m.Value))));
                    Assert.Distinct(found.Moves.Where(m => m.Pick is not null).Select(m => (m.Kind, Number(input, m))));
                }
            )
            .QuickCheckThrowOnFailure();

    [Fact]
    public void Picks_that_are_placed_gain_what_a_weighing_says_fit_and_take_no_other_out() =>
        Prop.ForAll(
                Cases.ToArbitrary(),
                Gen.Elements(null, "title", "tags", "backend").ToArbitrary(),
                (input, only) =>
                {
                    var terms = input.Terms.Select(t => t.Text).Distinct().Take(3).ToList();
                    var placed = MovesToPlace.Of(input, terms, only);
                    var copy = new Dictionary<string, FieldValue>(input.Copy);
                    foreach (var (key, value) in placed.Values)
                        copy[key] = value;
                    var (before, after) = (Weigh(input), Weigh(input with { Copy = copy }));
                    Assert.Equal(after.Grip - before.Grip, placed.Gain, 1e-6);
                    Assert.Equal(after.Reach - before.Reach, placed.Reach, 1e-6);
                    Assert.True(placed.Placed.Count == 0 || placed.Gain > 0);
                    Assert.Distinct(placed.Placed);
                    Assert.Subset(terms.ToHashSet(), placed.Placed.ToHashSet());
                    Assert.All(placed.Values, v => Assert.True(RoomUsed.Of(input.Platform.Find(v.Key)!, v.Value).Fits));
                    Assert.All(placed.Values.Keys, k => Assert.True(only is null || k == only));
                    for (var i = 0; i < input.Terms.Count; i++)
                        Assert.True(!Held(before, i) || Held(after, i), input.Terms[i].Text);
                }
            )
            .QuickCheckThrowOnFailure();

    private static bool LowersNoGrade(Weighing before, Weighing after) =>
        Enumerable.Range(0, before.Terms.Count).All(i => after.Terms[i].Grade >= before.Terms[i].Grade);

    // Two picks can be the same text: then they are told apart by their number alone, which a move does not say.
    private static object Number(MovesInput input, Move move) =>
        input.Terms.Count(t => t.Text == move.Pick) == 1 ? move.Pick! : Guid.NewGuid();

    private static bool Held(Weighing weighing, int term) => weighing.Terms[term].Grade != Grade.Missing;

    private static string Title(MovesInput input) => TextOf(input.Platform.Find("title")!, input.Copy["title"]);

    private static int Uses(AvoidedTerms avoided, Field field, FieldValue? value) =>
        value is null ? 0 : avoided.FindIn(new Dictionary<string, FieldValue> { [field.Key] = value }).Sum(u => u.Spans.Count);

    [Fact]
    public void A_listing_weighed_by_one_of_its_fields_weighs_the_same() =>
        Prop.ForAll(
                Cases.ToArbitrary(),
                Words(0, 6).ToArbitrary(),
                (input, text) =>
                {
                    foreach (var field in input.Platform.IndexedFields.Where(f => f.Shape != FieldShape.Choices))
                    {
                        FieldValue value = field.Shape is FieldShape.Phrases or FieldShape.Lines
                            ? new FieldValue.Items([text, "box"])
                            : new FieldValue.Text(text);
                        var copy = new Dictionary<string, FieldValue>(input.Copy) { [field.Key] = value };
                        var ready = TermSet.Prepare(input.Platform, [.. input.Terms.Select(t => t.Text)]);
                        Assert.Equal(
                            Weigher.Weigh(input.Platform, copy, input.Terms).Worth.Gripped,
                            new OneFieldWeigher(ready, input.Copy, input.Terms, field).Gripped(value),
                            1e-9
                        );
                    }
                }
            )
            .QuickCheckThrowOnFailure();

    [Fact]
    public void No_tag_added_or_replaced_by_a_pick_gains_more_than_the_best_move() =>
        Prop.ForAll(
                Cases.ToArbitrary(),
                input =>
                {
                    var field = input.Platform.Find("tags")!;
                    var best = MoveSearch.Of(input).Moves is [var first, ..] ? first.Gain : 0;
                    var tags = ((FieldValue.Items)input.Copy["tags"]).Values;
                    var (avoided, before) = (new AvoidedTerms(input.Platform, input.Avoid), Weigh(input).Grip);
                    var keys = tags.Select(Tokens.Key).ToHashSet();
                    foreach (
                        var term in input.Terms.Where(t =>
                            t.Worth() > 0
                            && !keys.Contains(Tokens.Key(t.Text))
                            && (input.Facts is null || Facets.Unbacked(t.Text, input.Facts).Count == 0)
                        )
                    )
                        for (var i = 0; i <= tags.Count; i++)
                        {
                            FieldValue value = new FieldValue.Items([.. tags.Take(i), term.Text, .. tags.Skip(tags.Count < 3 ? i : i + 1)]);
                            if (tags.Count < 3 && i < tags.Count)
                                continue;
                            var after = new Dictionary<string, FieldValue>(input.Copy) { ["tags"] = value };
                            if (RoomUsed.Of(field, value).Fits && avoided.UsesIn(term.Text) == 0)
                                Assert.True(Weigher.Weigh(input.Platform, after, input.Terms).Grip - before <= best + 1e-9, term.Text);
                        }
                }
            )
            .QuickCheckThrowOnFailure();

    private static MovesInput Input(string title, string[] tags, params (string Text, double Volume)[] terms) =>
        new(
            Samples.Platform(Folds.Diacritics),
            Samples.Copy(("title", title), ("tags", tags)),
            [.. terms.Select(t => new WantedTerm(t.Text, t.Volume))],
            []
        );

    private static string? Changed(MovesInput input, MoveKind kind) =>
        MoveSearch.Of(input).Moves.FirstOrDefault(m => m.Kind == kind) is { } move
            ? TextOf(input.Platform.Find(move.Field)!, move.Value)
            : null;

    [Fact]
    public void A_field_that_is_left_alone_has_no_moves()
    {
        var input = Input("Garden gift", ["owl box"], ("nest box", 900), ("wren house", 90));
        Assert.Contains(MoveSearch.Of(input, default).Moves, m => m.Field == "title");
        var moves = MoveSearch.Of(input with { LeftAlone = new HashSet<string> { "title" } }, default).Moves;
        Assert.NotEmpty(moves);
        Assert.DoesNotContain(moves, m => m.Field == "title");
    }

    [Fact]
    public void A_pick_goes_to_the_front_of_the_title_with_its_phrase() =>
        Assert.Equal(
            "Wren nest box, Garden gift",
            Changed(Input("Garden gift, Wren nest box", [], ("nest box", 900), ("garden gift", 10)), MoveKind.Front)
        );

    [Theory]
    [InlineData("Garden gift, for birds", "Wren box, garden gift, for birds")]
    [InlineData("BBQ gift, for birds", "Wren box, BBQ gift, for birds")]
    [InlineData("Garden gift | For birds", "Wren box, Garden gift | For birds")]
    public void Capitals_stay_as_the_seller_writes_them(string title, string moved) =>
        Assert.Equal(moved, Changed(Input(title, [], ("wren box", 900)), MoveKind.Front));

    [Fact]
    public void What_no_longer_fits_goes_from_the_end_and_what_the_pick_says_too_goes_with_it()
    {
        var input = Input("Gift, " + new string('x', 60) + ", " + new string('y', 40), [], ("wren gift", 900));
        Assert.Equal($"Wren gift, {new string('x', 60)}, {new string('y', 40)}", Changed(input, MoveKind.Front));
        var longer = Input("Lovely, " + new string('x', 60) + ", " + new string('y', 40), [], ("wren gift", 900));
        Assert.Equal($"Wren gift, lovely, {new string('x', 60)}", Changed(longer, MoveKind.Front));
    }

    [Fact]
    public void A_phrase_whose_end_begins_a_pick_is_made_longer() =>
        Assert.Equal("Cedar bird house kit", Changed(Input("Cedar bird house", [], ("bird house kit", 900)), MoveKind.Add));

    [Fact]
    public void The_lead_stays_in_the_title()
    {
        var input = Input("Cedar bird house", [], ("cedar bird house", 1), ("wren box", 9_000));
        Assert.Equal("Wren box", Changed(input, MoveKind.Exchange));
        Assert.Null(Changed(input with { Lead = "cedar bird house" }, MoveKind.Exchange));
    }

    [Fact]
    public void Words_of_a_tag_are_brought_side_by_side_and_the_cheapest_tag_is_replaced()
    {
        Assert.Equal("cedar bird house", Changed(Input("", ["house cedar bird"], ("cedar bird house", 90)), MoveKind.Whole));
        var full = Enumerable.Range(0, 12).Select(i => $"tag{i} word").ToArray();
        var picks = full.Where((_, i) => i != 7).Select(t => (t, 50.0)).Append(("wren box", 900)).ToArray();
        var move = MoveSearch.Of(Input("", full, picks)).Moves.First(m => m.Kind == MoveKind.Exchange);
        Assert.Equal(7, move.Item);
        Assert.Empty(move.Loses);
    }

    [Fact]
    public void What_a_replaced_tag_alone_held_is_told_as_lost()
    {
        var full = Enumerable.Range(0, 12).Select(i => $"tag{i} word").ToArray();
        var picks = full.Select((t, i) => (t, 50.0 + i)).Append(("wren box", 900)).ToArray();
        var move = MoveSearch.Of(Input("", full, picks)).Moves.First(m => m.Kind == MoveKind.Exchange);
        Assert.Equal((0, "tag0 word"), (move.Item!.Value, Assert.Single(move.Loses)));
    }

    [Fact]
    public void Moves_are_repeated_until_a_rival_is_passed_or_none_is_left()
    {
        var input = Input("Bird house", [], ("bird house", 100), ("wren box", 80), ("owl nest", 60), ("bat roost", 40));
        var rival = Weigh(input).Grip + 30;
        var plan = MovesToPass.Of(input, rival);
        Assert.True(plan is { Passes: true, Moves.Count: > 1 });
        Assert.Equal(Weigh(plan.Moves.Aggregate(input, (i, m) => i.After(m))).Grip, plan.Grip, 1e-9);
        Assert.True(plan.Grip - plan.Moves[^1].Gain <= rival);
        var never = MovesToPass.Of(input, 100);
        Assert.False(never.Passes);
        Assert.InRange(never.Moves.Count, 1, MovesToPass.MostMoves);
        Assert.Empty(MovesToPass.Of(input, 0).Moves);
    }
}
