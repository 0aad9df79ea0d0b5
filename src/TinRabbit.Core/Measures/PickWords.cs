using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Measures;

/// <summary>One word of the picks, and where the listing has it.</summary>
/// <param name="Word">The word, as the first pick with it writes it.</param>
/// <param name="Fields">Keys of the searched fields that have it, in a form that the platform takes as the same.</param>
/// <param name="Unsearched">Keys of the fields that have it and that the platform's search does not read.</param>
/// <param name="Needed">The picks with it, the one that counts for most first.</param>
/// <param name="Demand">What these picks count for together.</param>
public sealed record PickWord(
    string Word,
    IReadOnlyList<string> Fields,
    IReadOnlyList<string> Unsearched,
    IReadOnlyList<string> Needed,
    double Demand
);

/// <summary>The words of a listing's picks one by one, and the picks that fields for readers lack as phrases.</summary>
public static class PickWords
{
    /// <summary>Each word once, those that no searched field has first, then by what the picks with it count for. Words that the platform's search ignores are left out.</summary>
    /// <param name="platform">Its fields and folds.</param>
    /// <param name="copy">The listing's fields.</param>
    /// <param name="terms">The picks that count.</param>
    public static IReadOnlyList<PickWord> Of(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        IReadOnlyList<WantedTerm> terms
    )
    {
        var folds = platform.Search.Folds;
        var ignored = platform.Search.IgnoredWords.SelectMany(KeysOf).ToHashSet(StringComparer.Ordinal);
        var fields = platform
            .Fields.Select(f =>
                (
                    Field: f,
                    Keys: (copy.GetValueOrDefault(f.Key)?.Units(f.Shape) ?? [])
                        .SelectMany(u => KeysOf(Read(f, u)))
                        .ToHashSet(StringComparer.Ordinal)
                )
            )
            .ToList();
        return
        [
            .. PickDemand
                .Assume(terms)
                .Where(t => t.Counts)
                .SelectMany(t => Tokens.Of(t.Text).Select(w => (Term: t, w.Word, Key: Fold.Key(w.Word, folds))))
                .Where(w => !ignored.Contains(w.Key))
                .GroupBy(w => w.Key, StringComparer.Ordinal)
                .Select(g =>
                {
                    var with = fields.Where(f => f.Keys.Contains(g.Key)).Select(f => f.Field).ToList();
                    var needed = g.Select(w => w.Term).Distinct().OrderByDescending(t => t.Demand()).ToList();
                    return new PickWord(
                        g.First().Word,
                        [.. with.Where(f => f.Indexed).Select(f => f.Key)],
                        [.. with.Where(f => !f.Indexed).Select(f => f.Key)],
                        [.. needed.Select(t => t.Text)],
                        needed.Sum(t => t.Demand())
                    );
                })
                .OrderBy(w => w.Fields.Count > 0)
                .ThenByDescending(w => w.Demand)
                .ThenBy(w => w.Word, StringComparer.Ordinal),
        ];

        IEnumerable<string> KeysOf(string text) => Tokens.Of(text).Select(t => Fold.Key(t.Word, folds));
    }

    /// <summary>For each text that people read and the platform's search does not: the picks that do not stand in it as a phrase, the one that counts for most first.</summary>
    public static IReadOnlyDictionary<string, IReadOnlyList<string>> MissingPhrases(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        IReadOnlyList<WantedTerm> terms
    ) =>
        platform
            .Fields.Where(f => !f.Indexed && f.Shape is FieldShape.Text or FieldShape.Rich or FieldShape.Lines)
            .ToDictionary(
                f => f.Key,
                f =>
                {
                    var units = copy.GetValueOrDefault(f.Key)?.Units(f.Shape) ?? [];
                    return (IReadOnlyList<string>)
                        [
                            .. PickDemand
                                .Assume(terms)
                                .Where(t => t.Counts)
                                .Where(t => !units.Any(u => Tokens.HasPhrase(u, t.Text)))
                                .OrderByDescending(t => t.Demand())
                                .Select(t => t.Text),
                        ];
                }
            );

    // Only the beginning of some fields is read.
    private static string Read(Field field, string unit) => field.IndexedFirst is { } first && unit.Length > first ? unit[..first] : unit;
}
