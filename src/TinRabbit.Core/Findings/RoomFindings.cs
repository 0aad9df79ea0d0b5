using TinRabbit.Core.Edits;
using TinRabbit.Core.Filling.Words;
using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Findings;

/// <summary>Room: what passes a limit, what is empty, what lies unused, what would still fit.</summary>
internal static class RoomFindings
{
    public static IEnumerable<Finding> Of(ListingToCheck draft, Weighing weighing)
    {
        foreach (var refusal in Refusals(draft))
            yield return refusal;
        foreach (var field in draft.Platform.Fields)
            if (!IsMissing(draft, field) && Unused(draft, field) is { } unused)
                yield return unused;
        if (WouldFit(draft, weighing) is { } fits)
            yield return fits;
    }

    /// <summary>Why the platform refuses the listing: fields over their limit, and required ones that are empty.</summary>
    public static IEnumerable<Finding> Refusals(ListingToCheck draft)
    {
        foreach (var field in draft.Platform.Fields)
        {
            foreach (var over in Over(draft, field, RoomUsed.Of(field, draft.Copy.GetValueOrDefault(field.Key))))
                yield return over;
            if (IsMissing(draft, field))
                yield return new("required-empty", Level.Must, field.Key, 0, 0, 0, FindingTexts.RequiredEmpty(field, draft.Platform.Name));
        }
    }

    private static bool IsMissing(ListingToCheck draft, Field field) =>
        (draft.Page?.Kind).Requires(field) && draft.Copy.GetValueOrDefault(field.Key)?.IsEmpty(field.Shape) != false;

    private static IEnumerable<Finding> Over(ListingToCheck draft, Field field, RoomUsed room)
    {
        if (field.Limit is not { } limit)
            yield break;
        var texts = draft.Texts(field);
        for (var i = 0; i < room.Used.Count; i++)
            if (limit.Max is { } max && room.Used[i] > max)
            {
                var text =
                    field.Shape == FieldShape.Words ? draft.TextOf(field)
                    : i < texts.Count ? texts[i]
                    : "";
                var cut = Fitting.CutAt(text, limit, max);
                yield return new(
                    "over-limit",
                    Level.Must,
                    field.Key,
                    i,
                    cut,
                    Math.Max(0, text.Length - cut),
                    FindingTexts.OverLimit(Name(field, i, room.Used.Count), room.Used[i], max, limit.Unit, draft.Platform.Name),
                    cut > 0 && field.Shape is not (FieldShape.Choices or FieldShape.Path or FieldShape.Rich)
                        ? new(FindingTexts.Shorten, field.Key, draft.With(field, i, Fitting.Shorten(text, field, max)))
                        : null
                );
            }

        if (room.ItemsOver > 0)
            yield return new(
                "over-items",
                Level.Must,
                field.Key,
                limit.MaxItems!.Value,
                0,
                0,
                FindingTexts.OverItems(field, room.Items, limit.MaxItems.Value, draft.Platform.Name)
            );
    }

    private static string Name(Field field, int item, int items) => items > 1 ? $"{field.Label} {item + 1}" : field.Label;

    private static Finding? Unused(ListingToCheck draft, Field field)
    {
        if (field.Role is not ("title" or "tags" or "backend") || field.Limit is not { } limit)
            return null;
        return
            RoomUsed.Of(field, draft.Copy.GetValueOrDefault(field.Key)).Filled(field) is var (used, all)
            && all - used > draft.Threshold("unusedShare") * all
            ? new(
                "unused",
                Level.Should,
                field.Key,
                0,
                0,
                0,
                FindingTexts.Unused(
                    field,
                    all - used,
                    all,
                    field.Shape == FieldShape.Phrases && limit.MaxItems is not null ? "slot" : FindingTexts.Name(limit.Unit)
                )
            )
            : null;
    }

    // Suggests the missing term with the most demand whose words still fit the field for separate words.
    private static Finding? WouldFit(ListingToCheck draft, Weighing weighing)
    {
        var field = draft.Platform.Fields.FirstOrDefault(f => f.Indexed && f.Shape == FieldShape.Words);
        if (field is null)
            return null;
        var place = InsertionPoint.Find(draft.Platform, field, draft.Copy.GetValueOrDefault(field.Key));
        var unit = field.Limit?.Unit ?? Unit.Characters;
        var room = place.RoomLeft(field, unit);
        var guard = new AvoidedTerms(draft.Platform, [.. draft.Avoid.Select(a => a.Text)]);
        foreach (
            var term in weighing
                .Terms.Where(t => t.Grade == Grade.Missing && t.Term.Demand() > 0 && IsTrue(t.Term))
                .OrderByDescending(t => t.Term.Demand())
                .Take(40)
        )
        {
            if (
                term.Explain() is not { Missing: { Count: > 0 } missing }
                || TextLength.Of(string.Join(' ', missing), unit) > room
                || guard.UsesIn(term.Term.Text) > 0
            )
                continue;
            return new(
                "would-fit",
                Level.Should,
                field.Key,
                0,
                0,
                0,
                FindingTexts.WouldFit(missing, field, term.Term.Text, term.Term.Volume),
                new(FindingTexts.Add, field.Key, place.ValueWith(missing))
            );
        }

        return null;

        bool IsTrue(WantedTerm term) => draft.HeldFacts is not { } facts || Words.Facets.Unbacked(term.Text, facts).Count == 0;
    }
}
