using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Filling.Tags;

/// <summary>Phrases that could stand in a slot: picks, weaves of picks, and the parts of a pick that is too long for one.</summary>
internal static class TagCandidates
{
    private const int MostPairs = 1500;
    private const int MostLonger = 500;

    /// <summary>All that fit one slot and say nothing avoided, each once.</summary>
    public static IReadOnlyList<string> Build(Field field, IReadOnlyList<WantedTerm> terms, AvoidedTerms avoided)
    {
        var unit = field.Limit?.Unit ?? Unit.Characters;
        var max = field.Limit?.Max ?? int.MaxValue;
        var texts = new List<string>();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        var whole = new List<(string[] Words, double Worth)>();
        foreach (var term in terms)
        {
            string[] words = [.. Tokens.Of(term.Text).Select(t => t.Word)];
            var text = AsTyped(term.Text);
            if (Fits(text) || Fits(text = string.Join(' ', words)))
            {
                Add(words, text);
                whole.Add((words, term.Worth()));
            }
            else
                for (var from = 0; from < words.Length; from++)
                    for (var to = from + 1; to <= words.Length; to++)
                        if (to - from < words.Length && words[from..to].Any(w => !StopWords.Has(w)))
                            Add(words[from..to], null);
        }

        var pairs = Woven(whole, whole, MostPairs);
        var longer = Woven([.. pairs.Take(300)], [.. whole.OrderByDescending(w => w.Worth).Take(120)], MostLonger);
        foreach (var (words, _) in pairs.Concat(longer))
            Add(words, null);
        // One look for all of them.
        var field0 = new Dictionary<string, FieldValue> { [field.Key] = new FieldValue.Items(texts) };
        var banned = avoided.FindIn(field0).SelectMany(u => u.Spans).Select(s => s.Item).ToHashSet();
        return banned.Count == 0 ? texts : [.. texts.Where((_, i) => !banned.Contains(i))];

        bool Fits(string text) => RoomUsed.Measure(text, unit) <= max;

        void Add(string[] words, string? text)
        {
            text ??= string.Join(' ', words);
            if (Fits(text) && seen.Add(string.Join(' ', words)))
                texts.Add(text);
        }

        List<(string[] Words, double Worth)> Woven(IReadOnlyList<(string[] Words, double Worth)> firsts, IReadOnlyList<(string[] Words, double Worth)> seconds, int most)
        {
            var woven = new List<(string[], double)>();
            var sizes = seconds.Select(s => RoomUsed.Measure(string.Join(' ', s.Words), unit)).ToArray();
            foreach (var first in firsts)
            {
                var size = RoomUsed.Measure(string.Join(' ', first.Words), unit);
                for (var s = 0; s < sizes.Length; s++)
                {
                    // Without an overlap both have to fit; with one, it is the last word of the first.
                    var second = seconds[s];
                    if (size + sizes[s] + 1 > max && Array.IndexOf(second.Words, first.Words[^1]) < 0)
                        continue;
                    var joined = Weave.Join(first.Words, second.Words);
                    if (joined.Length > first.Words.Length && joined.Length > second.Words.Length && Fits(string.Join(' ', joined)))
                        woven.Add((joined, first.Worth + second.Worth));
                }
            }

            return [.. woven.OrderByDescending(w => w.Item2).Take(most)];
        }
    }

    // As the seller typed it, unless that holds what would cut a tag in two.
    private static string AsTyped(string text)
    {
        text = text.Trim();
        return text.AsSpan().IndexOfAny(",;\n\t") < 0 ? text : string.Join(' ', Tokens.Of(text).Select(t => t.Word));
    }
}
