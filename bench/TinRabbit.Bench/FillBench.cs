using System.Diagnostics;
using System.Globalization;
using Google.OrTools.Sat;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Filling.Tags;
using TinRabbit.Core.Filling.Titles;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Bench;

/// <summary>Fills held against an exact solver: what each finds, how good it is, and how long it takes.</summary>
internal static class FillBench
{
    private static readonly Dictionary<string, FieldValue> Nothing = [];

    internal static void Report(double seconds)
    {
        Console.WriteLine(
            $"fill: ours against the exact solver with {seconds.ToString(CultureInfo.InvariantCulture)} s for each instance; * marks a proven optimum"
        );
        if (seconds <= 0)
        {
            Growth();
            return;
        }

        Words(seconds);
        Phrases(seconds);
        Titles(seconds);
        Growth();
    }

    // How the time of a fill grows with the number of terms.
    private static void Growth()
    {
        Console.WriteLine("  growth                                          words      ms       tags      ms      title      ms");
        foreach (var (terms, words) in new[] { (100, 80), (400, 250), (1000, 500), (2000, 800), (4000, 1200), (4000, 300) })
        {
            var wanted = Terms(terms, words, terms);
            var (bag, bagTime) = Timed(() =>
                WordsFill.Of(new(Platform(FieldShape.Words, new(240, Unit.Bytes, null), false), Nothing, "field", wanted, []))
            );
            var (tags, tagsTime) = Timed(() =>
                TagsFill.Of(new(Platform(FieldShape.Phrases, new(24, Unit.Characters, 12), false), Nothing, "field", wanted, []))
            );
            var (titles, titlesTime) = Timed(() =>
                TitleFill.Of(new(Platform(FieldShape.Line, new(120, Unit.Characters, null), true), Nothing, "field", wanted, []))
            );
            Console.WriteLine(
                $"    {$"{terms} terms, {words} words", -32} {bag.Gain, 16:F0} {bagTime, 7:F0} {tags.Grip, 10:F4} {tagsTime, 7:F0} {titles.Takes[0].Grip, 10:F4} {titlesTime, 7:F0}"
            );
        }
    }

    private static void Words(double seconds)
    {
        Console.WriteLine(
            "  words (240 bytes unless said)            ours      solver   ours ÷ solver   ours ÷ our bound, ÷ the solver's      ms"
        );
        foreach (
            var (terms, words, room, seed) in new[]
            {
                (12, 12, 60, 1),
                (30, 30, 90, 2),
                (60, 60, 120, 3),
                (120, 100, 240, 4),
                (200, 150, 240, 5),
                (400, 250, 240, 6),
                (400, 250, 240, 7),
                (400, 250, 500, 8),
            }
        )
        {
            var platform = Platform(FieldShape.Words, new(room, Unit.Bytes, null), false);
            var wanted = Terms(terms, words, seed);
            var (ours, ms) = Timed(() => WordsFill.Of(new(platform, Nothing, "field", wanted, [])));
            var (best, bound, proven) = SolveWords(wanted, room, seconds);
            Row(
                $"{terms} terms, {words} words, {room}",
                ours.Gain,
                best,
                proven,
                ms,
                $"{ours.Gain / ours.Bound:F4} {ours.Gain / bound:F4}"
            );
        }
    }

    private static void Phrases(double seconds)
    {
        Console.WriteLine("  phrases (12 of 24)                       ours      solver   ours ÷ solver                             ms");
        foreach (
            var (terms, words, slots, seed) in new[]
            {
                (15, 15, 4, 11),
                (60, 60, 8, 12),
                (150, 120, 12, 13),
                (400, 250, 12, 14),
                (400, 250, 15, 15),
            }
        )
        {
            var platform = Platform(FieldShape.Phrases, new(24, Unit.Characters, slots), false);
            var wanted = Terms(terms, words, seed);
            var (ours, ms) = Timed(() => TagsFill.Of(new(platform, Nothing, "field", wanted, [])));
            var (best, proven) = SolvePhrases(platform, wanted, slots, seconds);
            Row($"{terms} terms, {words} words, {slots} slots", ours.Grip, best, proven, ms, "");
        }
    }

    private static void Titles(double seconds)
    {
        Console.WriteLine("  title (120 characters unless said)       ours      solver   ours ÷ solver                             ms");
        foreach (
            var (terms, words, room, seed) in new[]
            {
                (10, 12, 50, 21),
                (30, 30, 80, 22),
                (80, 60, 120, 23),
                (200, 150, 120, 24),
                (400, 250, 120, 25),
                (400, 250, 180, 26),
            }
        )
        {
            var platform = Platform(FieldShape.Line, new(room, Unit.Characters, null), true);
            var wanted = Terms(terms, words, seed);
            var (takes, ms) = Timed(() => TitleFill.Of(new(platform, Nothing, "field", wanted, [])));
            var (best, proven) = SolveTitle(platform, wanted, room, [.. Tokens.Of(takes.Takes[0].Text).Select(w => w.Word)], seconds);
            Row($"{terms} terms, {words} words, {room}", takes.Takes[0].Grip, best, proven, ms, "");
        }
    }

    // The median of five runs, after three.
    private static (T Result, double Milliseconds) Timed<T>(Func<T> run)
    {
        var times = new List<double>();
        for (var i = 0; i < 8; i++)
        {
            var watch = Stopwatch.StartNew();
            run();
            if (i >= 3)
                times.Add(watch.Elapsed.TotalMilliseconds);
        }

        return (run(), times.Order().ElementAt(2));
    }

    private static void Row(string instance, double ours, double best, bool proven, double ms, string bound) =>
        Console.WriteLine(
            $"    {instance, -32} {ours, 10:F2} {(best > 0 ? $"{best:F2}" : "none"), 11}{(proven ? "*" : " ")} {(best > 0 ? $"{ours / best:F4}" : ""), 12}      {bound, 14}    {ms, 8:F1}"
        );

    private static Platform Platform(FieldShape shape, Limit limit, bool front) =>
        new(
            "bench",
            "Bench",
            "",
            "en",
            null,
            new(Folds.Diacritics, [], true, 0),
            [new("field", "Field", "", shape, true, null, 0.7, front, false, limit, null, ", ")],
            [],
            new Dictionary<string, double>()
        );

    // Words as common as words are (Zipf), in terms of one to four, searched for as terms are (log-normal), of every fit.
    internal static WantedTerm[] Terms(int count, int words, int seed)
    {
        var dice = new Random(seed);
        const string consonants = "bcdfghklmnprstw";
        const string vowels = "aeiou";
        var vocabulary = new HashSet<string>();
        while (vocabulary.Count < words)
            vocabulary.Add(
                string.Concat(
                    Enumerable
                        .Range(0, dice.Next(2, 5))
                        .Select(_ => $"{consonants[dice.Next(consonants.Length)]}{vowels[dice.Next(vowels.Length)]}")
                ) + (dice.Next(2) == 0 ? "n" : "")
            );
        var all = vocabulary.ToArray();
        var weights = all.Select((_, i) => 1.0 / (i + 4)).ToArray();
        var terms = new Dictionary<string, WantedTerm>();
        while (terms.Count < count)
        {
            var text = string.Join(' ', Enumerable.Range(0, 1 + dice.Next(1, 4)).Select(_ => Draw()).Distinct());
            var volume = Math.Round(
                Math.Exp(4 + 1.4 * Math.Sqrt(-2 * Math.Log(1 - dice.NextDouble())) * Math.Cos(2 * Math.PI * dice.NextDouble()))
            );
            terms.TryAdd(text, new(text, volume, null, dice.Next(10, 91), (Fit)dice.Next(3)));
        }

        return [.. terms.Values];

        string Draw()
        {
            var at = dice.NextDouble() * weights.Sum();
            for (var i = 0; i < all.Length; i++)
                if ((at -= weights[i]) <= 0)
                    return all[i];
            return all[^1];
        }
    }

    private static (double Best, double Bound, bool Proven) SolveWords(WantedTerm[] terms, int room, double seconds)
    {
        var model = new CpModel();
        var words = terms.SelectMany(t => t.Text.Split(' ')).Distinct().ToDictionary(w => w, w => model.NewBoolVar(w));
        model.Add(LinearExpr.WeightedSum(words.Values, words.Keys.Select(w => (long)w.Length + 1)) <= room + 1);
        var held = terms.Select(t => model.NewBoolVar(t.Text)).ToArray();
        for (var t = 0; t < terms.Length; t++)
            foreach (var word in terms[t].Text.Split(' '))
                model.AddImplication(held[t], words[word]);
        var values = terms.Select(t => (long)Math.Round(t.Volume!.Value * t.Fit.Weight() * 10)).ToArray();
        model.Maximize(LinearExpr.WeightedSum(held, values));
        var solver = Solver(seconds);
        var status = solver.Solve(model);
        return (solver.ObjectiveValue / 10, solver.BestObjectiveBound / 10, status == CpSolverStatus.Optimal);
    }

    private static (double Best, bool Proven) SolvePhrases(Platform platform, WantedTerm[] terms, int slots, double seconds)
    {
        // Every pick that fits, every weave of two that does, and every run of words of a pick that does not.
        var candidates = new HashSet<string>();
        foreach (var one in terms)
        {
            if (one.Text.Length <= 24)
                candidates.Add(one.Text);
            else if (one.Text.Split(' ') is var words)
                for (var from = 0; from < words.Length; from++)
                for (var to = from + 1; to <= words.Length; to++)
                    if (string.Join(' ', words[from..to]) is { Length: <= 24 } part)
                        candidates.Add(part);
            foreach (var other in terms)
                if (
                    one.Text.Length <= 24
                    && other.Text.Length <= 24
                    && other != one
                    && Weave.Of([one, other]).Text is { Length: <= 24 } woven
                )
                    candidates.Add(woven);
        }

        var ready = TermSet.Prepare(platform, [.. terms.Select(t => t.Text)]);
        var model = new CpModel();
        var chosen = candidates.ToDictionary(c => c, c => model.NewBoolVar(c));
        model.Add(LinearExpr.Sum(chosen.Values) <= slots);
        var stands = terms.SelectMany(t => t.Text.Split(' ')).Distinct().ToDictionary(w => w, w => model.NewBoolVar(w));
        foreach (var (word, variable) in stands)
            model.Add(LinearExpr.Sum(chosen.Where(c => c.Key.Split(' ').Contains(word)).Select(c => c.Value)) >= variable);
        var byGrip = terms.Select(_ => new Dictionary<double, List<BoolVar>>()).ToArray();
        foreach (var (text, variable) in chosen)
        {
            var weighed = Weigher.Weigh(ready, new Dictionary<string, FieldValue> { ["field"] = new FieldValue.Items([text]) }, terms);
            for (var t = 0; t < terms.Length; t++)
                if (weighed.Terms[t].Grade is Grade.Whole or Grade.Inflected or Grade.Together)
                    (byGrip[t].TryGetValue(weighed.Terms[t].Grip, out var list) ? list : byGrip[t][weighed.Terms[t].Grip] = []).Add(
                        variable
                    );
        }

        var (objective, values) = (new List<BoolVar>(), new List<long>());
        const double scale = 100;
        for (var t = 0; t < terms.Length; t++)
        {
            var ways = new List<BoolVar>();
            foreach (var (grip, by) in byGrip[t])
            {
                var way = model.NewBoolVar("");
                model.Add(LinearExpr.Sum(by) >= way);
                ways.Add(way);
                Add(way, terms[t].Worth() * grip);
            }

            var spread = model.NewBoolVar("");
            foreach (var word in terms[t].Text.Split(' '))
                model.AddImplication(spread, stands[word]);
            ways.Add(spread);
            Add(spread, terms[t].Worth() * Matcher.SpreadFactor * 0.7);
            model.AddAtMostOne(ways);
        }

        model.Maximize(LinearExpr.WeightedSum(objective, values));
        var solver = Solver(seconds);
        var status = solver.Solve(model);
        return (solver.ObjectiveValue / scale / terms.Sum(t => t.Worth()) * 100, status == CpSolverStatus.Optimal);

        void Add(BoolVar variable, double value)
        {
            objective.Add(variable);
            values.Add((long)Math.Round(value * scale));
        }
    }

    // A title of exactly n words, for some n around ours: which word stands where, each place within a term that stands whole. It is
    // told ours to begin with: without that it finds none in the time where there are many terms.
    private static (double Best, bool Proven) SolveTitle(Platform platform, WantedTerm[] terms, int room, string[] ours, double seconds)
    {
        var lengths = Enumerable.Range(Math.Max(1, ours.Length - 2), 5).OrderBy(n => Math.Abs(n - ours.Length)).ToArray();
        var (best, proven) = (0.0, true);
        foreach (var n in lengths)
        {
            var (value, optimal) = SolveTitleOf(platform, terms, room, n, ours, seconds / lengths.Length);
            (best, proven) = (Math.Max(best, value), proven && optimal);
        }

        return (best, proven);
    }

    private static (double Best, bool Proven) SolveTitleOf(
        Platform platform,
        WantedTerm[] terms,
        int room,
        int n,
        string[] ours,
        double seconds
    )
    {
        var field = platform.Fields[0];
        var model = new CpModel();
        string[] words = [.. terms.SelectMany(t => t.Text.Split(' ')).Distinct()];
        var at = words.ToDictionary(w => w, w => Enumerable.Range(0, n).Select(p => model.NewBoolVar("")).ToArray());
        if (n == ours.Length)
            foreach (var word in words)
                for (var p = 0; p < n; p++)
                    model.AddHint(at[word][p], ours[p] == word ? 1 : 0);
        for (var p = 0; p < n; p++)
            model.AddExactlyOne(words.Select(w => at[w][p]));
        foreach (var word in words)
            model.AddAtMostOne(at[word]);
        var covers = Enumerable.Range(0, n).Select(_ => new List<BoolVar>()).ToArray();
        var joins = Enumerable.Range(0, n).Select(_ => new List<BoolVar>()).ToArray();
        var (objective, values) = (new List<BoolVar>(), new List<long>());
        const double scale = 100;
        foreach (var term in terms)
        {
            var own = term.Text.Split(' ');
            var ways = new List<BoolVar>();
            for (var p = 0; p + own.Length <= n; p++)
            {
                var whole = model.NewBoolVar("");
                for (var k = 0; k < own.Length; k++)
                {
                    model.AddImplication(whole, at[own[k]][p + k]);
                    covers[p + k].Add(whole);
                    if (k > 0)
                        joins[p + k].Add(whole);
                }

                Add(whole, term.Worth() * field.Weight * (1 - Matcher.FrontShare * p / n), ways);
            }

            var together = model.NewBoolVar("");
            foreach (var word in own)
                model.Add(LinearExpr.Sum(at[word]) >= together);
            Add(together, term.Worth() * field.Weight * Matcher.TogetherFactor, ways);
            model.AddAtMostOne(ways);
        }

        var breaks = new List<BoolVar>();
        for (var p = 0; p < n; p++)
        {
            model.AddBoolOr(covers[p]);
            if (p == 0)
                continue;
            var apart = model.NewBoolVar("");
            model.AddBoolOr([.. joins[p], apart]);
            breaks.Add(apart);
        }

        var length = LinearExpr.WeightedSum(words.SelectMany(w => at[w]), words.SelectMany(w => Enumerable.Repeat((long)w.Length, n)));
        model.Add(length + LinearExpr.Sum(breaks) <= room - (n - 1));
        model.Maximize(LinearExpr.WeightedSum(objective, values));
        var solver = Solver(seconds);
        var status = solver.Solve(model);
        return status is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? (solver.ObjectiveValue / scale / terms.Sum(t => t.Worth()) * 100, status == CpSolverStatus.Optimal)
            : (0, status == CpSolverStatus.Infeasible);

        void Add(BoolVar variable, double value, List<BoolVar> ways)
        {
            objective.Add(variable);
            values.Add((long)Math.Round(value * scale));
            ways.Add(variable);
        }
    }

    private static CpSolver Solver(double seconds) =>
        new() { StringParameters = string.Create(CultureInfo.InvariantCulture, $"max_time_in_seconds:{seconds},num_workers:2") };
}
