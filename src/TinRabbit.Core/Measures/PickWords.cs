using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Measures;

/// <summary>One word of the picks, and where the listing has it.</summary>
/// <param name="Word">The word, as the first pick with it writes it.</param>
/// <param name="Fields">Keys of the searched fields that have it, in a form that the platform takes as the same.</param>
/// <param name="Unsearched">Keys of the fields that have it and that the platform's search does not read.</param>
/// <param name="Needed">The picks with it, the one that counts for most first.</param>
/// <param name="Volume">Their searches a month together, as far as they are known; null where none is.</param>
public sealed record PickWord(
    string Word,
    IReadOnlyList<string> Fields,
    IReadOnlyList<string> Unsearched,
    IReadOnlyList<string> Needed,
    double? Volume
);

/// <summary>The words of a listing's picks one by one, and the picks that fields for readers lack.</summary>
/// <param name="Words">Each word once: those that no searched field has first, then by what the picks with it count for. Words that the search ignores are left out.</param>
/// <param name="Phrases">For each text that people read and the search does not, by key: the picks that are no phrase in it, the one that counts for most first.</param>
public sealed record PickWords(IReadOnlyList<PickWord> Words, IReadOnlyDictionary<string, IReadOnlyList<string>> Phrases)
{
    /// <summary>Finds them, as the platform's search compares words.</summary>
    /// <param name="platform">Its fields and folds.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="terms">The picks.</param>
    /// <param name="stop">Stops the search.</param>
    public static PickWords Of(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        IReadOnlyList<WantedTerm> terms,
        CancellationToken stop = default
    )
    {
        var picks = PickDemand.Assume(terms).Where(t => t.Counts).OrderByDescending(t => t.Demand()).ToList();
        var folds = platform.Search.Folds;
        var ignored = platform.Search.IgnoredWords.SelectMany(Tokens.Of).Select(t => Fold.Key(t.Word, folds)).ToHashSet();
        var words = picks
            .SelectMany((p, pick) => Tokens.Of(p.Text).Select(t => (Pick: pick, t.Word, Key: Fold.Key(t.Word, folds))))
            .Where(w => !ignored.Contains(w.Key))
            .GroupBy(w => w.Key, StringComparer.Ordinal)
            .Select(g => (g.First().Word, Picks: g.Select(w => w.Pick).Distinct().ToList()))
            .ToList();
        var searched = Grades(platform);
        var others = Grades(
            platform with
            {
                Fields = [.. platform.Fields.Select(f => f with { Indexed = !f.Indexed, IndexedFirst = null, Weight = 1 })],
            }
        );
        return new(
            [
                .. words
                    .Select(
                        (w, i) =>
                            (
                                Word: new PickWord(
                                    w.Word,
                                    Having(searched, i, w.Picks),
                                    Having(others, i, w.Picks),
                                    [.. w.Picks.Select(p => picks[p].Text)],
                                    w.Picks.Any(p => picks[p].Volume is not null) ? w.Picks.Sum(p => picks[p].Volume ?? 0) : null
                                ),
                                Demand: w.Picks.Sum(p => picks[p].Demand())
                            )
                    )
                    .OrderBy(w => w.Word.Fields.Count > 0)
                    .ThenByDescending(w => w.Demand)
                    .ThenBy(w => w.Word.Word, StringComparer.Ordinal)
                    .Select(w => w.Word),
            ],
            others
                .Fields.Select((f, at) => (Field: f, At: at))
                .Where(f => f.Field.Shape is FieldShape.Text or FieldShape.Rich or FieldShape.Lines)
                .ToDictionary(
                    f => f.Field.Key,
                    f =>
                        (IReadOnlyList<string>)
                            [.. picks.Where((_, pick) => others.OfTerm[words.Count + pick][f.At] < Grade.Inflected).Select(p => p.Text)]
                )
        );

        // By term, the words before the picks: how each searched field holds it.
        (IReadOnlyList<Field> Fields, IReadOnlyList<IReadOnlyList<Grade>> OfTerm) Grades(Platform rules) =>
            (
                rules.IndexedFields,
                [
                    .. Weigher
                        .Weigh(rules, copy, [.. words.Select(w => new WantedTerm(w.Word)), .. picks], stop)
                        .Terms.Select(t => t.Explain().Fields),
                ]
            );

        // A field has a word that stands there by itself, and all words of a pick that it holds: “birdhouse” is “bird” and “house” for some searches.
        string[] Having((IReadOnlyList<Field> Fields, IReadOnlyList<IReadOnlyList<Grade>> OfTerm) of, int word, List<int> with) =>
            [
                .. of
                    .Fields.Where(
                        (_, at) => of.OfTerm[word][at] != Grade.Missing || with.Exists(p => of.OfTerm[words.Count + p][at] != Grade.Missing)
                    )
                    .Select(f => f.Key),
            ];
    }
}
