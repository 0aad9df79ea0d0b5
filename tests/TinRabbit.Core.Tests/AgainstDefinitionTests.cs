using FsCheck;
using FsCheck.Fluent;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Tests;

/// <summary>The index is held against the definitions of the grades written out plainly, one term and one unit at a time.</summary>
public class AgainstDefinitionTests
{
    private static readonly string[] Vocabulary =
    [
        "bird",
        "Birds",
        "house",
        "houses",
        "box",
        "boxes",
        "grey",
        "gray",
        "casa",
        "pájaro",
        "pajaro",
        "for",
        "the",
        "womens",
        "women's",
        "kit",
        "🐦",
        "5.5",
    ];

    // Compounds change how many words a phrase has; they have examples of their own.
    private static readonly Folds[] FoldChoices =
    [
        Folds.None,
        Folds.Diacritics,
        Folds.Plural,
        Folds.Diacritics | Folds.Plural | Folds.Possessive | Folds.Spelling,
    ];

    private static Gen<string> Phrase(int least, int most) =>
        Gen.Choose(least, most).SelectMany(n => Gen.Elements(Vocabulary).ListOf(n)).Select(w => string.Join(' ', w));

    private static readonly Gen<(Platform Platform, string Title, string[] Tags, string Term)> Cases =
        from folds in Gen.Elements(FoldChoices)
        from combine in Gen.Elements(true, false)
        from ignored in Gen.Elements(new string[0], ["for", "the"])
        from title in Phrase(0, 9)
        from tags in Phrase(0, 3).ListOf(3)
        from term in Phrase(1, 4).Where(t => Tokens.Of(t).Count > 0)
        select (Samples.Platform(folds, combine, ignored), title, tags.ToArray(), term);

    [Fact]
    public void Grades_strengths_and_missing_words_follow_the_definitions() =>
        Check.One(
            Config.QuickThrowOnFailure.WithMaxTest(4000),
            Prop.ForAll(
                Cases.ToArbitrary(),
                c =>
                {
                    var copy = Samples.Copy(("title", c.Title), ("tags", c.Tags), ("notes", "bird house boxes"));
                    var weighed = Weigher.Weigh(c.Platform, copy, [new(c.Term, 100)]).Terms[0];
                    var plain = Plainly(c.Platform, [(0.8, true, [c.Title]), (0.6, false, c.Tags), (0.2, false, [])], c.Term);
                    var match = weighed.Explain();
                    return weighed.Grade == plain.Grade
                        && match.Grade == plain.Grade
                        && Math.Abs(weighed.Grip - plain.Grip) < 1e-12
                        && match.Missing.SequenceEqual(plain.Missing)
                        && match.Apart == plain.Apart;
                }
            )
        );

    [Fact]
    public void Adding_a_word_at_the_end_never_lowers_reach() =>
        Check.QuickThrowOnFailure(
            Prop.ForAll(
                Cases.ToArbitrary(),
                Gen.Elements(Vocabulary).ToArbitrary(),
                (c, word) =>
                {
                    double Reach(string title) =>
                        Weigher
                            .Weigh(c.Platform, Samples.Copy(("title", title), ("tags", c.Tags)), [new(c.Term, 100), new("bird box", 7)])
                            .Reach;
                    return Reach($"{c.Title} {word}") >= Reach(c.Title);
                }
            )
        );

    private static (Grade Grade, double Grip, List<string> Missing, bool Apart) Plainly(
        Platform platform,
        (double Weight, bool Front, string[] Units)[] fields,
        string text
    )
    {
        var folds = platform.Search.Folds;
        var term = Words(text);
        var words = term.Where(w => !platform.Search.IgnoredWords.Contains(w)).ToList();
        var best = Grade.Missing;
        var loose = 1.0;
        foreach (var (weight, front, units) in fields)
        {
            var strength = 0.0;
            foreach (var unit in units.Select(Words))
            {
                for (var i = 0; i + term.Count <= unit.Count; i++)
                {
                    var at = unit.Skip(i).Take(term.Count).ToList();
                    var ahead = front ? 1 - 0.3 * Math.Min(1, i / Math.Ceiling(platform.Find("title")!.Limit!.Max!.Value / 6.0)) : 1;
                    if (at.Select(Fold.Letters).SequenceEqual(term.Select(Fold.Letters)))
                        Take(Grade.Whole, weight * ahead);
                    if (at.Select(Folded).SequenceEqual(term.Select(Folded)))
                        Take(Grade.Inflected, weight * 0.85 * ahead);
                }

                if (words.Count > 0 && words.All(w => unit.Any(u => Folded(u) == Folded(w))))
                    Take(Grade.Together, weight * 0.6);
            }

            loose *= 1 - strength;

            void Take(Grade grade, double value)
            {
                best = grade > best ? grade : best;
                strength = Math.Max(strength, value);
            }
        }

        var missing = words.Where(w => !fields.Any(f => Holds(f, w))).Distinct().ToList();
        if (best > Grade.Missing)
            return (best, 1 - loose, [], false);
        if (words.Count == 0 || missing.Count > 0)
            return (Grade.Missing, 0, missing, false);
        return platform.Search.WordsCombine
            ? (Grade.Spread, 0.35 * words.Average(w => fields.Where(f => Holds(f, w)).Max(f => f.Weight)), [], false)
            : (Grade.Missing, 0, [], true);

        string Folded(string word) => Fold.Key(word, folds);
        bool Holds((double Weight, bool Front, string[] Units) field, string word) =>
            field.Units.Any(u => Words(u).Any(t => Folded(t) == Folded(word)));
        static List<string> Words(string s) => [.. Tokens.Of(s).Select(t => t.Word)];
    }
}
