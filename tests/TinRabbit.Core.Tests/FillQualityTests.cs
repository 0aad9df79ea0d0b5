using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>Fills held against what a patient seller would do: take the best, then exchange one at a time as long as that helps.</summary>
public class FillQualityTests
{
    // A search may fall short of another on a question in a thousand: these are the same questions every time.
    private static Config Always(int questions) => Config.QuickThrowOnFailure.WithMaxTest(questions).WithReplay(20_251, 7);

    private static readonly string[] Vocabulary =
    [
        "bird",
        "house",
        "box",
        "nest",
        "cedar",
        "wren",
        "garden",
        "gift",
        "kit",
        "wooden",
        "small",
        "feeder",
        "window",
        "camera",
        "owl",
        "bat",
        "roost",
        "hanging",
        "mom",
        "oak",
        "pine",
        "robin",
        "pole",
        "roof",
        "ladder",
    ];

    // Words as common as words are: the first of the vocabulary stand in many terms, the last in few.
    private static readonly Gen<string> Word = Gen.Choose(0, 99)
        .Select(p => Vocabulary[(int)(Vocabulary.Length * (p / 100.0) * (p / 100.0))]);

    private static readonly Gen<WantedTerm> Term =
        from words in Gen.Choose(1, 4).SelectMany(n => Word.ListOf(n))
        from volume in Gen.Choose(1, 60).Select(v => (double)v * v)
        from headroom in Gen.Choose(10, 90)
        from fit in Gen.Elements(Fit.Core, Fit.Good, Fit.Stretch)
        select new WantedTerm(string.Join(' ', words.Distinct()), volume, null, headroom, fit);

    private static readonly Gen<(WantedTerm[] Terms, int Room, int Slots, string Standing)> Cases =
        from terms in Gen.Choose(4, 30).SelectMany(n => Term.ListOf(n))
        from room in Gen.Choose(10, 70)
        from slots in Gen.Choose(1, 5)
        from standing in Gen.Elements("", "garden gift", "wren house")
        select (terms.DistinctBy(t => t.Text).ToArray(), room, slots, standing);

    private static Platform Platform(int titleRoom, int tagRoom, int slots, int bytes)
    {
        var sample = Samples.Platform(Folds.Diacritics | Folds.Plural);
        return sample with
        {
            Fields =
            [
                sample.Fields[0] with
                {
                    Limit = new(titleRoom, Unit.Characters, null),
                },
                sample.Fields[1] with
                {
                    Limit = new(tagRoom, Unit.Characters, slots),
                },
                new(
                    "backend",
                    "Backend",
                    "backend",
                    FieldShape.Words,
                    true,
                    null,
                    0.4,
                    false,
                    false,
                    new(bytes, Unit.Bytes, null),
                    null,
                    " "
                ),
                sample.Fields[2],
            ],
        };
    }

    /// <summary>The worth of the best list that greed and then exchanges find, each list weighed by the engine itself.</summary>
    private static double ByHand(
        IReadOnlyList<string> candidates,
        int most,
        Func<IReadOnlyList<string>, bool> fits,
        Func<IReadOnlyList<string>, double> worth
    )
    {
        var chosen = new List<string>();
        for (var better = true; better; )
        {
            better = false;
            var now = worth(chosen);
            List<string>? best = null;
            foreach (var other in Neighbours())
                if (fits(other) && worth(other) is var value && value > now + 1e-9)
                    (best, now, better) = (other, value, true);
            chosen = best ?? chosen;
        }

        return worth(chosen);

        IEnumerable<List<string>> Neighbours()
        {
            foreach (var one in candidates.Except(chosen))
            {
                if (chosen.Count < most)
                    yield return [.. chosen, one];
                for (var i = 0; i < chosen.Count; i++)
                    yield return [.. chosen[..i], one, .. chosen[(i + 1)..]];
            }
        }
    }

    [Fact]
    public void Tags_hold_no_less_than_greed_and_exchanges_do() =>
        Check.One(
            Always(80),
            Prop.ForAll(
                Cases.ToArbitrary(),
                c =>
                {
                    var platform = Platform(80, 24, c.Slots, 100);
                    var copy = Samples.Copy(("title", c.Standing));
                    var ours = TagsFill.Of(new(platform, copy, "tags", c.Terms, []));
                    var hand = ByHand(
                        [.. c.Terms.Select(t => t.Text).Where(t => t.Length <= 24)],
                        c.Slots,
                        _ => true,
                        tags =>
                            Weigher
                                .Weigh(
                                    platform,
                                    new Dictionary<string, FieldValue>(copy) { ["tags"] = new FieldValue.Items([.. tags]) },
                                    c.Terms
                                )
                                .Grip
                    );
                    Assert.True(ours.Grip >= hand - 1e-9, $"ours {ours.Grip} by {string.Join(", ", ours.Items)}; by hand {hand}");
                }
            )
        );

    [Fact]
    public void Titles_hold_no_less_than_greed_and_exchanges_do() =>
        Check.One(
            Always(40),
            Prop.ForAll(
                Cases.ToArbitrary(),
                c =>
                {
                    var platform = Platform(c.Room, 24, 3, 100);
                    var copy = Samples.Copy(("tags", new[] { c.Standing }));
                    var takes = TitleFill.Of(new(platform, copy, "title", c.Terms, [])).Takes;
                    var hand = ByHand(
                        [.. c.Terms.Select(t => t.Text)],
                        8,
                        Reads,
                        parts =>
                            Weigher
                                .Weigh(
                                    platform,
                                    new Dictionary<string, FieldValue>(copy) { ["title"] = new FieldValue.Text(string.Join(", ", parts)) },
                                    c.Terms
                                )
                                .Grip
                    );
                    var ours = takes.Count == 0 ? Weigher.Weigh(platform, copy, c.Terms).Grip : takes[0].Grip;
                    Assert.True(ours >= hand - 1e-9, $"ours {ours} by {takes.FirstOrDefault()?.Text}; by hand {hand}, {c.Room}");

                    bool Reads(IReadOnlyList<string> parts)
                    {
                        var words = Tokens.Of(string.Join(", ", parts)).Select(t => Fold.Key(t.Word, platform.Search.Folds)).ToList();
                        return string.Join(", ", parts).Length <= c.Room && words.CountBy(w => w).All(w => w.Value <= 2);
                    }
                }
            )
        );

    // Titles with room for several picks, and picks with all, some or no volumes.
    private static readonly Gen<(WantedTerm[] Terms, int Room, string Standing)> LongTitles =
        from c in Cases
        from room in Gen.Choose(50, 150)
        from known in Gen.Choose(0, 2)
        select (
            c.Terms.Select((t, i) => known == 2 || (known == 1 && i % 3 > 0) ? t : t with { Volume = null }).ToArray(),
            room,
            c.Standing
        );

    [Fact]
    public void Titles_hold_at_least_99_percent_of_plain_greed_that_repeats_and_adds_words_and_leave_no_room_that_gains() =>
        Check.One(
            Always(300),
            Prop.ForAll(
                LongTitles.ToArbitrary(),
                c =>
                {
                    var platform = Platform(c.Room, 24, 3, 100);
                    var copy = Samples.Copy(("tags", new[] { c.Standing }));
                    var takes = TitleFill.Of(new(platform, copy, "title", c.Terms, [])).Takes;
                    string[] pieces =
                    [
                        .. c
                            .Terms.Select(t => t.Text)
                            .Concat(c.Terms.SelectMany(t => t.Text.Split(' ')))
                            .Concat(c.Terms.SelectMany(t => t.Text.Split(' ').Zip(t.Text.Split(' ').Skip(1), (a, b) => $"{a} {b}")))
                            .Distinct(),
                    ];
                    var greedy = Append("", pieces, untilNothing: true);
                    var best = takes.Count == 0 ? Grip("") : takes[0].Grip;
                    Assert.True(
                        best >= 0.99 * Grip(greedy),
                        $"ours {best} by {takes.FirstOrDefault()?.Text}; greed {Grip(greedy)} by {greedy}"
                    );
                    foreach (var take in takes.Take(1))
                        Assert.Equal(take.Text, Append(take.Text, pieces, untilNothing: false));

                    // The title with the pieces that gain most at its end, one after another, or only the first.
                    string Append(string title, string[] pieces, bool untilNothing)
                    {
                        while (true)
                        {
                            var (best, most) = (title, Grip(title) + 1e-9);
                            foreach (var piece in pieces)
                            {
                                var longer = title.Length == 0 ? piece : $"{title}, {piece}";
                                if (Reads(longer) && Grip(longer) is var grip && grip > most)
                                    (best, most) = (longer, grip);
                            }

                            if (best == title || !untilNothing)
                                return best;
                            title = best;
                        }
                    }

                    double Grip(string title) =>
                        Weigher
                            .Weigh(platform, new Dictionary<string, FieldValue>(copy) { ["title"] = new FieldValue.Text(title) }, c.Terms)
                            .Grip;

                    bool Reads(string title) =>
                        title.Length <= c.Room
                        && title.Split(", ").Distinct(StringComparer.OrdinalIgnoreCase).Count() == title.Split(", ").Length
                        && Tokens.Of(title).CountBy(t => Fold.Key(t.Word, platform.Search.Folds)).All(w => w.Value <= 2);
                }
            )
        );

    [Fact]
    public void Words_open_no_less_than_greed_and_exchanges_do() =>
        Check.One(
            Always(80),
            Prop.ForAll(
                Cases.ToArbitrary(),
                c =>
                {
                    var platform = Platform(80, 24, 3, c.Room);
                    var copy = Samples.Copy(("title", c.Standing));
                    var ours = WordsFill.Of(new(platform, copy, "backend", c.Terms, []));
                    var before = Weigher.Weigh(platform, copy, c.Terms);
                    var hand = ByHand(
                        [.. c.Terms.Select(t => t.Text)],
                        12,
                        parts => Bag(parts).Length <= c.Room,
                        parts =>
                        {
                            var after = Weigher.Weigh(
                                platform,
                                new Dictionary<string, FieldValue>(copy) { ["backend"] = new FieldValue.Text(Bag(parts)) },
                                c.Terms
                            );
                            return c
                                .Terms.Where(
                                    (_, i) =>
                                        before.Terms[i].Grade == Core.Matching.Grade.Missing
                                        && after.Terms[i].Grade != Core.Matching.Grade.Missing
                                )
                                .Sum(t => t.Volume!.Value * t.Fit.Weight());
                        }
                    );
                    Assert.True(
                        ours.Gain >= hand - 1e-9 && hand <= ours.Bound * (1 + 1e-9),
                        $"ours {ours.Gain} by {ours.Text}; by hand {hand}; bound {ours.Bound}"
                    );

                    static string Bag(IReadOnlyList<string> parts) => string.Join(' ', parts.SelectMany(p => p.Split(' ')).Distinct());
                }
            )
        );

    private static IEnumerable<List<T>> Subsets<T>(IReadOnlyList<T> all, int most, int from = 0)
    {
        yield return [];
        for (var i = from; most > 0 && i < all.Count; i++)
            foreach (var rest in Subsets(all, most - 1, i + 1))
                yield return [all[i], .. rest];
    }

    private static IEnumerable<List<T>> Orders<T>(IReadOnlyList<T> all, int most)
    {
        yield return [];
        for (var i = 0; most > 0 && i < all.Count; i++)
            foreach (var rest in Orders([.. all.Where((_, k) => k != i)], most - 1))
                yield return [all[i], .. rest];
    }

    // A few terms, so that every choice of tags and every order of a title can be tried.
    private static readonly Gen<(WantedTerm[] Terms, int Room, int Slots, string Standing)> FewCases =
        from c in Cases
        from n in Gen.Choose(2, 6)
        select (c.Terms.Take(n).ToArray(), c.Room, Math.Min(c.Slots, 3), c.Standing);

    [Fact]
    public void Tags_hold_as_much_as_the_best_choice_of_them_all() =>
        Check.One(
            Always(80),
            Prop.ForAll(
                FewCases.ToArbitrary(),
                c =>
                {
                    var platform = Platform(80, 24, c.Slots, 100);
                    var copy = Samples.Copy(("title", c.Standing));
                    var ours = TagsFill.Of(new(platform, copy, "tags", c.Terms, []));
                    // Every pick that fits, every two of them in one slot, and every part of one that does not.
                    var fitting = c.Terms.Select(t => t.Text).Where(t => t.Length <= 24).ToList();
                    string[] candidates =
                    [
                        .. fitting
                            .Concat(
                                fitting.SelectMany(one =>
                                    fitting
                                        .Where(o => o != one)
                                        .Select(other => string.Join(' ', Superstring.Join(one.Split(' '), other.Split(' '))))
                                )
                            )
                            .Concat(
                                c.Terms.Select(t => t.Text.Split(' '))
                                    .SelectMany(w =>
                                        Enumerable
                                            .Range(1, w.Length - 1)
                                            .SelectMany(at => new[] { string.Join(' ', w[..at]), string.Join(' ', w[at..]) })
                                    )
                            )
                            .Where(t => t.Length <= 24)
                            .Distinct()
                            .Take(24),
                    ];
                    var best = Subsets(candidates, c.Slots)
                        .Max(tags =>
                            Weigher
                                .Weigh(
                                    platform,
                                    new Dictionary<string, FieldValue>(copy) { ["tags"] = new FieldValue.Items([.. tags]) },
                                    c.Terms
                                )
                                .Grip
                        );
                    Assert.True(
                        ours.Grip >= best - 1e-9,
                        $"ours {ours.Grip} by {string.Join(", ", ours.Items)}; best {best}; {string.Join(", ", c.Terms.Select(t => t.Text))}"
                    );
                }
            )
        );

    [Fact]
    public void Titles_hold_nearly_as_much_as_the_best_order_of_them_all() =>
        Check.One(
            Always(80),
            Prop.ForAll(
                FewCases.ToArbitrary(),
                c =>
                {
                    var platform = Platform(c.Room, 24, 3, 100);
                    var copy = Samples.Copy(("tags", new[] { c.Standing }));
                    var takes = TitleFill.Of(new(platform, copy, "title", c.Terms, [])).Takes;
                    var (best, by) = (0.0, "");
                    foreach (var parts in Orders(c.Terms.Select(t => t.Text.Split(' ')).ToList(), 5))
                    {
                        // What the end of one and the beginning of the next share is said once; else they are set apart.
                        var text = "";
                        var words = new List<string>();
                        foreach (var part in parts)
                        {
                            var shared = Enumerable
                                .Range(0, Math.Min(part.Length, words.Count) + 1)
                                .Last(n => words.TakeLast(n).SequenceEqual(part.Take(n)));
                            text +=
                                shared > 0
                                    ? string.Concat(part.Skip(shared).Select(w => " " + w))
                                    : (text.Length > 0 ? ", " : "") + string.Join(' ', part);
                            words.AddRange(part.Skip(shared));
                        }

                        var keys = words.Select(w => Fold.Key(w, platform.Search.Folds)).ToList();
                        if (text.Length > c.Room || keys.CountBy(k => k).Any(k => k.Value > 2))
                            continue;
                        var grip = Weigher
                            .Weigh(platform, new Dictionary<string, FieldValue>(copy) { ["title"] = new FieldValue.Text(text) }, c.Terms)
                            .Grip;
                        if (grip > best)
                            (best, by) = (grip, text);
                    }

                    var ours = takes.Count == 0 ? Weigher.Weigh(platform, copy, c.Terms).Grip : takes[0].Grip;
                    Assert.True(
                        ours >= best * 0.98 - 1e-9,
                        $"ours {ours} by {takes.FirstOrDefault()?.Text}; best {best} by {by}; {string.Join(" | ", c.Terms.Select(t => t.Text))}; {c.Room}"
                    );
                }
            )
        );
}
