using TinRabbit.Core.Edits;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Platforms;
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
        if (draft.Lead is { } longLead && Tokens.Of(longLead).Count is var words && words > draft.Threshold("leadWordsMax"))
            yield return new(
                "lead-long",
                Level.Should,
                field.Key,
                0,
                0,
                0,
                FindingTexts.LeadLong(longLead, words, draft.Threshold("leadWordsMax"))
            );
        if (draft.HeldFacts is not null || draft.Page is null)
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
        if (FilteredFacts(draft) is { Count: > 0 } facts && !draft.Facts!.ByFacet.Values.SelectMany(f => f).Any(f => HasFact(tokens, f)))
            yield return new("title-no-fact", Level.Should, field.Key, 0, 0, 0, FindingTexts.TitleNoFact(facts));
        foreach (var repeat in Repeats(draft, field, title, tokens))
            yield return repeat;
    }

    /// <summary>The facts that the platform's shoppers filter by: values of a facet that an attribute of it is about, each once.</summary>
    internal static IReadOnlyList<string> FilteredFacts(ListingToCheck draft)
    {
        if (draft.HeldFacts is not { } facts)
            return [];
        var rules = draft.Platform.Fields.SelectMany(f => f.Attributes).ToList();
        return
        [
            .. facts
                .ByFacet.Where(f => rules.Exists(r => IsAbout(r, f.Key, f.Value)))
                .SelectMany(f => f.Value)
                .Where(v => !string.IsNullOrWhiteSpace(v))
                .DistinctBy(Tokens.Key),
        ];
    }

    private static readonly Dictionary<Facet, string[]> AttributeNames = new()
    {
        [Facet.Material] = ["material", "made", "fabric", "metal", "wood"],
        [Facet.Colour] = ["colour", "color", "finish"],
        [Facet.Size] = ["size", "width", "height", "length", "capacity"],
        [Facet.Audience] = ["audience", "recipient", "age", "gender", "who"],
        [Facet.Occasion] = ["occasion", "holiday"],
    };

    // By the attribute's name, or because a fact is one of its values.
    private static bool IsAbout(AttributeRule rule, Facet facet, IReadOnlyList<string> values) =>
        (AttributeNames.TryGetValue(facet, out var names) && Tokens.Of(rule.Name).Any(t => names.Contains(t.Word)))
        || rule.Options.Any(o => values.Any(v => Tokens.Key(v) == Tokens.Key(o)));

    private static bool HasFact(List<Token> title, string fact)
    {
        var keys = title.Select(t => Fold.Key(t.Word, Fold.AnyForm)).ToHashSet(StringComparer.Ordinal);
        return FactWords.KeysOf(fact).Any(keys.Contains);
    }

    // A word that comes twice, where the title without one of them holds no pick less.
    private static IEnumerable<Finding> Repeats(ListingToCheck draft, Field field, string title, List<Token> tokens)
    {
        var terms = TermSet.Prepare(
            draft.Platform with
            {
                Fields = [field with { Indexed = true, IndexedFirst = null }],
            },
            [.. draft.Terms.Where(t => t.Counts).Select(t => t.Text)]
        );
        var grades = Grades(terms, field, title);
        foreach (
            var word in tokens
                .Where(t => !StopWords.Has(t.Word))
                .GroupBy(t => Fold.Key(t.Word, draft.Platform.Search.Folds))
                .Where(g => g.Count() > 1)
        )
        {
            var occurrences = word.ToList();
            // A word repeated hundreds of times was not repeated by mistake: the first twenty tell.
            var idle = occurrences.Take(ListingCheck.MostOfOneKind).Where(o => HoldsNoLess(Cut.Of(title, o.Start, o.Length))).ToList();
            if (idle.Count == 0)
                continue;
            var at = idle[idle.Count > 1 && idle[0].Start == occurrences[0].Start ? 1 : 0];
            var shorter = Cut.Of(title, at.Start, at.Length);
            var unit = field.Limit?.Unit ?? Unit.Characters;
            var fixes = Fixes(occurrences).ToList();
            yield return new(
                "title-repeat",
                Level.Should,
                field.Key,
                0,
                at.Start,
                at.Length,
                FindingTexts.TitleRepeat(at.Word, occurrences.Count, TextLength.Of(title, unit) - TextLength.Of(shorter, unit), unit),
                fixes.FirstOrDefault()
            )
            {
                OtherFixes = [.. fixes.Skip(1)],
            };

            IEnumerable<Fix> Fixes(List<Token> all)
            {
                if (all.Count > ListingCheck.MostOfOneKind)
                    yield break;
                foreach (var kept in new[] { 0, all.Count - 1 })
                    if (
                        RepeatedWords.KeepOne(title, tokens, all, kept) is { } text
                        && HoldsNoLess(text)
                        && (draft.Lead is null || Tokens.HasPhrase(text, draft.Lead) || !Tokens.HasPhrase(title, draft.Lead))
                    )
                        yield return new(kept == 0 ? FindingTexts.KeepFirst : FindingTexts.KeepLast, field.Key, draft.With(field, 0, text));
            }
        }

        bool HoldsNoLess(string text) => Grades(terms, field, text).Zip(grades).All(g => g.First >= g.Second);
    }

    private static Grade[] Grades(TermSet terms, Field field, string title)
    {
        var matcher = new Matcher(
            terms,
            ListingIndex.Build(terms.Platform, new Dictionary<string, FieldValue> { [field.Key] = new FieldValue.Text(title) })
        );
        return [.. Enumerable.Range(0, terms.Terms.Length).Select(i => matcher.Grade(i).Grade)];
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
        // As the field's phrases have their capitals.
        var phrases = TitlePhrases.Of(title, field.Separator).Texts;
        var front = Capitals.Like(Tokens.Key(lead), phrases) + field.Separator;
        if (match.Grade != Grade.Whole)
        {
            var moved = match.Grade is Grade.Inflected or Grade.Together
                ? Reorder.MakeContiguous(title, lead, draft.Platform.Search.Folds, field.Separator)
                : Capitals.First(front + title);
            if (moved is not null && char.IsLower(title.FirstOrDefault(char.IsLetter)))
                moved = moved.Length > 0 && char.IsLower(Tokens.Key(lead)[0]) ? char.ToLowerInvariant(moved[0]) + moved[1..] : moved;
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
        var rest = Cut.Of(title, span.Start, span.Length);
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
