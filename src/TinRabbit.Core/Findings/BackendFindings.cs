using TinRabbit.Core.Edits;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>Words that the backend repeats from itself or, where words of several fields combine, from another searched field.</summary>
internal static class BackendFindings
{
    public static IEnumerable<Finding> Of(ListingToCheck draft, TermSet terms)
    {
        if (draft.Role("backend") is not { Indexed: true } field || draft.TextOf(field) is not { Length: > 0 } text)
            yield break;
        var elsewhere = draft.Platform.Search.WordsCombine
            ? draft
                .Platform.IndexedFields.Where(f => f.Key != field.Key)
                .SelectMany(f => draft.Texts(f).SelectMany(t => Tokens.Of(Read(f, t))))
                .Select(t => KeyOf(t.Word))
                .ToHashSet(StringComparer.Ordinal)
            : [];
        var (there, repeats) = (new HashSet<string>(StringComparer.Ordinal), new List<Token>());
        foreach (var token in Tokens.Of(text).Where(t => !StopWords.Has(t.Word)))
            if (!there.Add(KeyOf(token.Word)) || elsewhere.Contains(KeyOf(token.Word)))
                repeats.Add(token);
        if (repeats.Count == 0)
            yield break;
        var shorter = WithoutIdle(draft, terms, field, text, repeats);
        var unit = field.Limit?.Unit ?? Unit.Characters;
        yield return new(
            "backend-repeat",
            Level.Should,
            field.Key,
            0,
            repeats[0].Start,
            repeats[0].Length,
            FindingTexts.BackendRepeat(
                [.. repeats.Select(t => t.Word).Distinct()],
                field,
                TextLength.Of(text, unit) - TextLength.Of(shorter, unit),
                unit
            ),
            shorter == text ? null : new(FindingTexts.RemoveRepeats, field.Key, draft.With(field, 0, shorter))
        );

        string KeyOf(string word) => Fold.Key(word, draft.Platform.Search.Folds);
    }

    // Without each repeat that holds no pick more firmly.
    private static string WithoutIdle(ListingToCheck draft, TermSet terms, Field field, string text, List<Token> repeats)
    {
        var grades = Grades(text);
        foreach (var token in Enumerable.Reverse(repeats).Take(ListingCheck.MostOfOneKind))
        {
            var shorter = Cut.Of(text, token.Start, token.Length);
            var without = Grades(shorter);
            if (grades.Zip(without).All(g => g.Second >= g.First))
                text = shorter;
        }

        return text;

        Grade[] Grades(string backend)
        {
            var copy = new Dictionary<string, FieldValue>(draft.Copy) { [field.Key] = new FieldValue.Text(backend) };
            var matcher = new Matcher(terms, ListingIndex.Build(draft.Platform, copy));
            return [.. Enumerable.Range(0, draft.Terms.Count).Select(i => matcher.Grade(i).Grade)];
        }
    }

    private static string Read(Field field, string text) =>
        field.IndexedFirst is { } first ? text[..TextLength.OffsetOf(text, first)] : text;
}
