using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Calibrating;

/// <summary>Compares what a market found with what the platform's profile predicts, and names the single change of the profile that explains most of the differences.</summary>
/// <param name="Predicted">For each term: whether the listing should be found by the profile.</param>
/// <param name="Disagreements">Terms where that is not what was observed.</param>
/// <param name="Change">The change that explains most of them; null where none explains enough.</param>
/// <param name="Grips">For each term: how firmly the listing holds it, 0–1.</param>
public sealed record ProfileExplanation(
    IReadOnlyList<bool> Predicted,
    int Disagreements,
    ProfileChange? Change,
    IReadOnlyList<double> Grips
)
{
    /// <summary>The fewest disagreements that an offered change removes.</summary>
    public const int LeastRemoved = 3;

    // Of the disagreements that it removes, the share that it may make anew.
    private const double MostNew = 0.1;

    // What a field that was not searched counts when it is: it does not matter here.
    private const double SomeWeight = 0.2;

    /// <summary>Explains observations of one listing.</summary>
    /// <exception cref="InvalidInputException">A term has no word.</exception>
    public static ProfileExplanation Of(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> copy,
        IReadOnlyList<ObservedTerm> observed,
        CancellationToken stop = default
    )
    {
        WantedTerm[] terms = [.. observed.Select(o => new WantedTerm(o.Text))];
        var weighed = Weigher.Weigh(platform, copy, terms, stop).Terms;
        bool[] predicted = [.. weighed.Select(t => t.Grade != Grade.Missing)];
        var disagreements = Enumerable.Range(0, observed.Count).Count(i => predicted[i] != observed[i].Found);
        ProfileChange? best = null;
        if (disagreements >= LeastRemoved)
            foreach (var (kind, name, on, changed) in Changes(platform))
            {
                var then = Weigher.Weigh(changed, copy, terms, stop).Terms;
                var (remaining, fresh) = (0, 0);
                for (var i = 0; i < predicted.Length; i++)
                    if (then[i].Grade != Grade.Missing != observed[i].Found)
                    {
                        remaining++;
                        fresh += predicted[i] == observed[i].Found ? 1 : 0;
                    }

                var removed = disagreements - (remaining - fresh);
                if (
                    disagreements - remaining >= LeastRemoved
                    && (disagreements - remaining) * 2 >= disagreements
                    && fresh <= MostNew * removed
                    && (best is null || remaining < best.Remaining)
                )
                    best = new(kind, name, on, remaining, fresh, changed);
            }

        return new(predicted, disagreements, best, [.. weighed.Select(t => t.Grip)]);
    }

    // Every single change, in the order in which equals are preferred.
    private static IEnumerable<(ProfileChangeKind, string, bool, Platform)> Changes(Platform platform)
    {
        var search = platform.Search;
        foreach (var fold in Enum.GetValues<Folds>().Where(f => f != Folds.None))
            yield return (
                ProfileChangeKind.Fold,
                fold.ToString().ToLowerInvariant(),
                !search.Folds.HasFlag(fold),
                platform with
                {
                    Search = search with { Folds = search.Folds ^ fold },
                }
            );
        foreach (var field in platform.Fields)
            yield return (
                ProfileChangeKind.Field,
                field.Key,
                !field.Indexed,
                With(platform, field with { Indexed = !field.Indexed, Weight = field.Weight > 0 ? field.Weight : SomeWeight })
            );
        foreach (var field in platform.Fields.Where(f => f is { Indexed: true, IndexedFirst: not null }))
            yield return (ProfileChangeKind.IndexedFirst, field.Key, false, With(platform, field with { IndexedFirst = null }));
        yield return (
            ProfileChangeKind.WordsCombine,
            "",
            !search.WordsCombine,
            platform with
            {
                Search = search with { WordsCombine = !search.WordsCombine },
            }
        );
    }

    private static Platform With(Platform platform, Field changed) =>
        platform with
        {
            Fields = [.. platform.Fields.Select(f => f.Key == changed.Key ? changed : f)],
        };
}
