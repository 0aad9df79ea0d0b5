using TinRabbit.Core.Filling;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Texts;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>The title: the lead, what the thing is, and repeated words.</summary>
internal static class TitleFindings
{
    public static IEnumerable<Finding> Of(ListingToCheck draft)
    {
        if (draft.Role("title") is not { } field || draft.TextOf(field) is not { } title || Tokens.Of(title) is not { Count: > 0 } tokens)
            yield break;
        if (draft.Lead is { } lead && Lead(draft, field, title, lead) is { } finding)
            yield return finding;
        if (draft.Facts is { What: { Length: > 0 } what } && !Early(draft, tokens, what))
            yield return new(
                "what-late",
                Level.Should,
                field.Key,
                0,
                0,
                0,
                FindingTexts.WhatLate(what, draft.Threshold("whatWithinWords"))
            );
        if (draft.Threshold("titleRepeatsPay") > 0)
            yield break;
        foreach (
            var word in tokens
                .Where(t => !StopWords.Has(t.Word))
                .GroupBy(t => Fold.Key(t.Word, draft.Platform.Search.Folds))
                .Where(g => g.Count() > 1)
        )
        {
            var occurrences = word.ToList();
            // A word repeated hundreds of times was not repeated by mistake, so no fix is offered.
            var fixes =
                occurrences.Count > ListingCheck.MostOfOneKind
                    ? []
                    : new[] { 0, occurrences.Count - 1 }
                        .Select(kept => (Kept: kept, Text: RepeatedWords.KeepOne(title, tokens, occurrences, kept)))
                        .Where(f =>
                            f.Text is not null
                            && (draft.Lead is null || Tokens.HasPhrase(f.Text, draft.Lead) || !Tokens.HasPhrase(title, draft.Lead))
                        )
                        .Select(f => new Fix(
                            f.Kept == 0 ? FindingTexts.KeepFirst : FindingTexts.KeepLast,
                            field.Key,
                            draft.With(field, 0, f.Text!)
                        ))
                        .ToArray();
            yield return new(
                "title-repeat",
                Level.Should,
                field.Key,
                0,
                occurrences[1].Start,
                occurrences[1].Length,
                FindingTexts.TitleRepeat(occurrences[1].Word, occurrences.Count),
                fixes.FirstOrDefault()
            )
            {
                OtherFixes = [.. fixes.Skip(1)],
            };
        }
    }

    private static Finding? Lead(ListingToCheck draft, Field field, string title, string lead)
    {
        var matcher = new Matcher(
            TermSet.Prepare(draft.Platform, [lead]),
            ListingIndex.Build(
                draft.Platform with
                {
                    Fields = [field with { Indexed = true, IndexedFirst = null }],
                },
                new Dictionary<string, FieldValue> { [field.Key] = new FieldValue.Text(title) }
            )
        );
        var match = matcher.Explain(0);
        var front = Tokens.Key(lead) + field.Separator;
        if (match.Grade != Grade.Whole)
        {
            var moved = match.Grade is Grade.Inflected or Grade.Together
                ? Reorder.MakeContiguous(title, lead, draft.Platform.Search.Folds, field.Separator)
                : Capitals.First(front + title);
            return new(
                "lead-not-whole",
                Level.Should,
                field.Key,
                0,
                0,
                0,
                FindingTexts.LeadNotWhole(lead),
                moved is not null && Fits(field, moved) ? new(FindingTexts.AddLead, field.Key, new FieldValue.Text(moved)) : null
            );
        }

        var span = match.Spans[0];
        if (field.Shows is not { } shows || span.Start + span.Length <= TextLength.OffsetOf(title, shows))
            return null;
        var rest = GuardFindings.Tidy(title, span.Start, span.Length);
        var first = Capitals.First(rest.Length == 0 ? lead : front + rest);
        return new(
            "lead-not-shown",
            Level.Should,
            field.Key,
            0,
            span.Start,
            span.Length,
            FindingTexts.LeadNotShown(lead, shows),
            Fits(field, first) ? new(FindingTexts.MoveToFront, field.Key, new FieldValue.Text(first)) : null
        );
    }

    private static bool Fits(Field field, string text) => RoomUsed.Of(field, new FieldValue.Text(text)).Fits;

    // Compares singular forms, because a person reads a plural as the same word.
    private static bool Early(ListingToCheck draft, List<Token> title, string what)
    {
        var first = title.Take((int)draft.Threshold("whatWithinWords")).Select(t => Fold.Key(t.Word, Fold.AnyForm)).ToHashSet();
        for (var i = 1; i < title.Count && i < draft.Threshold("whatWithinWords"); i++)
            if (Fold.Join(title[i - 1], title[i]) is { } joined)
                first.Add(Fold.Key(joined, Fold.AnyForm));
        return Tokens.Of(what).All(t => first.Contains(Fold.Key(t.Word, Fold.AnyForm)) || StopWords.Has(t.Word));
    }
}
