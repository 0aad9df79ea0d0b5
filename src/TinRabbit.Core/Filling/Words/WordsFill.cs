using TinRabbit.Core.Filling.Knapsack;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Filling.Words;

/// <summary>Words to add to a field so that the listing is found for the most demand.</summary>
/// <param name="Words">What to add, in order; where commas stand between, the words that make a phrase are one entry.</param>
/// <param name="Value">The field with it.</param>
/// <param name="Text">The text that holds the words: the field's, or that of the item they went into.</param>
/// <param name="Used">Room used by <paramref name="Text"/>, in the field's unit.</param>
/// <param name="Limit">The room there is; null when there is no limit.</param>
/// <param name="Gain">Σ volume·fit of the terms that it opens, unknown volumes counted as 0.</param>
/// <param name="Bound">No words that fit could open more than this; at least <paramref name="Gain"/>.</param>
/// <param name="Opens">Terms that were missing and are held with it, the worthiest first.</param>
/// <param name="Left">Terms that stay missing, the worthiest first.</param>
public sealed record WordsFill(
    IReadOnlyList<string> Words, FieldValue Value, string Text, int Used, int? Limit, double Gain, double Bound, IReadOnlyList<string> Opens, IReadOnlyList<string> Left)
{
    /// <summary>
    /// Chooses words by the set-union knapsack (docs/model.md, "Fills"). What stands in the field stays. In a list the words become an item
    /// of their own while there is room for one.
    /// </summary>
    /// <param name="platform">Its limits and folds.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="key">The field to fill.</param>
    /// <param name="terms">The terms wanted.</param>
    /// <param name="avoid">Terms that must not be said; what contains one is not aimed at.</param>
    /// <param name="stop">Stops the search.</param>
    /// <exception cref="FormatProblems">There is no such field, its search does not read it, or it is no place for words.</exception>
    public static WordsFill Of(Platform platform, IReadOnlyDictionary<string, FieldValue> copy, string key, IReadOnlyList<WantedTerm> terms, IReadOnlyList<string> avoid, CancellationToken stop = default)
    {
        var field = CheckField(platform, key);
        var avoided = new AvoidedTerms(platform, avoid);
        var wanted = terms.Where(t => Continue(stop) && avoided.UsesIn(t.Text) == 0).ToList();
        var place = InsertionPoint.Find(field, copy.GetValueOrDefault(key));
        var before = Weigher.Weigh(platform, copy, wanted, stop);
        var ways = new CoverModel(platform, place.Scope(platform, copy), wanted, [.. before.Terms.Select(t => t.Grade != Grade.Missing)], avoided);
        var unit = field.Limit?.Unit ?? Unit.Characters;
        var step = RoomUsed.Measure(place.Separator, unit);
        var room = place.RoomLeft(field, unit) + step;
        var costs = ways.Forms.Select(s => RoomUsed.Measure(s, unit) + step).ToArray();
        var (best, bound) = ((WordsFill?)null, 0.0);
        var failed = new HashSet<TermCover>();
        for (var round = 0; round < 4; round++)
        {
            stop.ThrowIfCancellationRequested();
            var packed = new SetUnionKnapsack(costs, ways.BundlesWithout(failed), room, stop).Solve();
            bound = round == 0 ? packed.Bound : bound;
            var made = Made(packed.Items, bound);
            if (best is null || made.Gain > best.Gain)
                best = made;
            // Words that open a term only side by side may not all be put so: those that were not are not counted on again.
            var lost = ways.Covers.Where(w => w.Adjoin && w.Items.All(i => packed.Items[i]) && !best.Opens.Contains(wanted[w.Term].Text)).ToList();
            if (made.Gain >= packed.Value * (1 - 1e-9) || lost.Count(failed.Add) == 0)
                break;
        }

        return best! with { Bound = Math.Max(best.Gain, bound) };

        WordsFill Made(bool[] chosen, double atMost)
        {
            var spent = 0L;
            for (var i = 0; i < costs.Length; i++)
                spent += chosen[i] ? costs[i] : 0;
            var order = new ChainOrder(ways, chosen, room - spent, s => RoomUsed.Measure(s, unit) + step);
            var words = ArrangeWithoutAvoided(order.BuildChains(), place, avoided);
            // A rare form can measure otherwise in company than alone.
            while (words.Count > 0 && !Fits(field, place.ValueWith(words)))
                words.RemoveAt(words.Count - 1);
            var value = words.Count == 0 ? copy.GetValueOrDefault(key) ?? place.ValueWith([]) : place.ValueWith(words);
            var after = Weigher.Weigh(platform, new Dictionary<string, FieldValue>(copy) { [key] = value }, wanted, stop);
            var opened = Enumerable.Range(0, wanted.Count).Where(i => before.Terms[i].Grade == Grade.Missing && after.Terms[i].Grade != Grade.Missing).ToList();
            var text = place.TextWith(words);
            return new(
                words, value, text, RoomUsed.Measure(text, unit), field.Limit?.Max, opened.Sum(i => Demand(wanted[i])), atMost, Worthiest(opened.Select(i => wanted[i])),
                Worthiest(terms.Except(wanted.Where((_, i) => after.Terms[i].Grade != Grade.Missing))));
        }
    }

    /// <summary>True, unless the search was stopped: for a condition that is asked for each term.</summary>
    internal static bool Continue(CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        return true;
    }

    internal static double Demand(WantedTerm term) => (term.Volume ?? 0) * term.Fit.Weight();

    internal static string[] Worthiest(IEnumerable<WantedTerm> terms) => [.. terms.OrderByDescending(Demand).Select(t => t.Text)];

    private static Field CheckField(Platform platform, string key)
    {
        var field = platform.Find(key) ?? throw new FormatProblems([new("field", $"{platform.Name} has no field \"{key}\".")]);
        if (!field.Indexed)
            throw new FormatProblems([new("field", $"{platform.Name} does not search {field.Label}, so words there bring no searches.")]);
        if (field.Shape is FieldShape.Choices or FieldShape.Path or FieldShape.Rich or FieldShape.Phrases)
            throw new FormatProblems([new("field", $"{field.Label} is not a field for separate words.")]);
        return field;
    }

    private static bool Fits(Field field, FieldValue value) => RoomUsed.Of(field, value).Fits;

    // Chain after chain, each time the worthiest that does not make an avoided phrase with what stands before it. What is left then goes
    // in between where it can, whole or else word by word.
    private static List<string> ArrangeWithoutAvoided(List<string[]> chains, InsertionPoint place, AvoidedTerms avoided)
    {
        var words = new List<string>();
        var uses = avoided.UsesIn(place.Text);
        while (chains.FindIndex(c => May(words.Count, c)) is >= 0 and var next)
        {
            Insert(words.Count, chains[next]);
            chains.RemoveAt(next);
        }

        foreach (var chain in chains)
            if (!Between(chain))
                foreach (var word in chain)
                    Between([word]);
        return words;

        // In a bag each word is an entry; else the words of a chain are one.
        string[] Entries(string[] chain) => place.Separator == " " ? chain : [string.Join(' ', chain)];

        bool May(int at, string[] chain) => avoided.UsesIn(place.TextWith([.. words[..at], .. Entries(chain), .. words[at..]])) <= uses;

        void Insert(int at, string[] chain) => words.InsertRange(at, Entries(chain));

        bool Between(string[] chain)
        {
            for (var at = words.Count; at >= 0; at--)
                if (May(at, chain))
                {
                    Insert(at, chain);
                    return true;
                }

            return false;
        }
    }
}
