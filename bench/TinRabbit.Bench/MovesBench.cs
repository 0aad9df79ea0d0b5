using System.Diagnostics;
using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Moves;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Bench;

/// <summary>How long the list of moves takes, and how that grows with the picks: for a full listing that a fill wrote for half of them.</summary>
internal static class MovesBench
{
    private const int Runs = 9;

    private static readonly Platform Rules = new(
        "bench",
        "Bench",
        "",
        "en",
        null,
        new(Folds.Diacritics | Folds.Plural, ["for", "a", "with"], true, 6),
        [
            new("title", "Title", "title", FieldShape.Line, true, null, 0.8, true, true, new(140, Unit.Characters, null), null, ", "),
            new("tags", "Tags", "tags", FieldShape.Phrases, true, null, 0.6, false, false, new(24, Unit.Characters, 13), null, ", "),
            new("bullets", "Bullets", "bullets", FieldShape.Lines, true, null, 0.4, false, false, new(250, Unit.Characters, 5), null, "\n"),
            new("backend", "Backend", "backend", FieldShape.Words, true, null, 0.3, false, false, new(240, Unit.Bytes, null), null, " "),
            new("body", "Description", "body", FieldShape.Text, true, null, 0.2, false, false, null, null, "\n"),
        ],
        [],
        new Dictionary<string, double>()
    );

    internal static void Report()
    {
        Console.WriteLine($"moves: the list for one listing, median of {Runs} runs; weighing is one weighing of the same listing");
        Console.WriteLine("  picks   weighing ms    moves ms   moves ÷ weighing   moves   best gain   to pass +10: moves   ms");
        foreach (var picks in new[] { 50, 100, 250, 500, 1000, 2500, 5000 })
        {
            var input = Listing(FillBench.Terms(picks, Math.Max(60, picks / 2), picks));
            var weighing = Median(() => Weigher.Weigh(input.Platform, input.Copy, input.Terms));
            var moves = Median(() => MoveSearch.Of(input));
            var found = MoveSearch.Of(input);
            var clock = Stopwatch.StartNew();
            var plan = MovesToPass.Of(input, found.Grip + 10);
            Console.WriteLine(
                $"  {picks, 5} {weighing, 13:F2} {moves, 11:F1} {moves / weighing, 18:F0} {found.Moves.Count, 7} {(found.Moves is [var best, ..] ? best.Gain : 0), 11:F2} {plan.Moves.Count, 20}{(plan.Passes ? "" : " not enough")} {clock.ElapsedMilliseconds, 6}"
            );
        }
    }

    // The fills know every second pick: the others are what moves are looked for.
    private static MovesInput Listing(WantedTerm[] terms)
    {
        var known = terms.Where((_, i) => i % 2 == 0).ToArray();
        var copy = new Dictionary<string, FieldValue>
        {
            ["bullets"] = new FieldValue.Items([.. known.Take(5).Select(t => $"Made by hand: {t.Text}")]),
            ["body"] = new FieldValue.Text(string.Join(". ", known.Take(60).Select(t => $"You can use the {t.Text} in any garden"))),
            ["backend"] = new FieldValue.Text(string.Join(' ', known.TakeLast(8).SelectMany(t => t.Text.Split(' ')).Distinct().Take(20))),
        };
        copy["title"] = new FieldValue.Text(TitleFill.Of(new(Rules, copy, "title", known, [])).Takes[0].Text);
        copy["tags"] = new FieldValue.Items(TagsFill.Of(new(Rules, copy, "tags", known, [])).Items);
        // Some of what a seller avoids is made of the same words.
        var avoid = terms.Take(20).SelectMany(t => t.Text.Split(' ').Take(1)).Distinct().Select(w => $"plastic {w}");
        return new(Rules, copy, terms, [.. avoid, "plastic"]);
    }

    private static double Median(Action run)
    {
        var times = new List<double>();
        run();
        for (var i = 0; i < Runs; i++)
        {
            var clock = Stopwatch.StartNew();
            run();
            times.Add(clock.Elapsed.TotalMilliseconds);
        }

        return times.Order().ElementAt(Runs / 2);
    }
}
