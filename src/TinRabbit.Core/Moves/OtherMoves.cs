using TinRabbit.Core.Edits;
using TinRabbit.Core.Filling;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Moves;

/// <summary>Edits of single picks outside the title and the tags: words side by side, closing lines, backend words, attributes; and repeats cut from the backend.</summary>
internal static class OtherMoves
{
    /// <summary>The words of a pick side by side in each text that has them all in another order.</summary>
    public static IEnumerable<Candidate> Whole(MovesInput input, MoveRules rules, int pick, Field field)
    {
        var term = input.Terms[pick].Text;
        var texts = input.Copy.TryGetValue(field.Key, out var value) ? value.Units(field.Shape) : [];
        for (var i = 0; i < texts.Count; i++)
        {
            if (
                Tokens.HasPhrase(texts[i], term)
                || Reorder.MakeContiguous(texts[i], term, input.Platform.Search.Folds, SeparatorIn(field)) is not { } text
                || (field.Shape != FieldShape.Words && !Reorder.ReadsWell(texts[i], term, text, SeparatorIn(field)))
            )
                continue;
            FieldValue changed =
                value is FieldValue.Items items && field.Shape != FieldShape.Words
                    ? new FieldValue.Items([.. items.Values.Select((v, k) => k == i ? text : v)])
                    : new FieldValue.Text(text);
            if (rules.Allows(field, changed))
                yield return new(
                    MoveKind.Whole,
                    field,
                    texts.Count > 1 || field.Shape == FieldShape.Phrases ? i : null,
                    term,
                    changed,
                    pick,
                    field.Shape is FieldShape.Line or FieldShape.Text
                        ? Candidate.SlotOfChange(field, texts[i], text)
                        : Candidate.SlotOf(field, i)
                );
        }
    }

    /// <summary>A pick as the closing line of the bullet point with the most room.</summary>
    public static Candidate? ClosingLine(MovesInput input, MoveRules rules, int pick, Field field)
    {
        var lines = input.Copy.TryGetValue(field.Key, out var value) ? value.Units(field.Shape) : [];
        if (lines.Count == 0)
            return null;
        var term = input.Terms[pick].Text.Trim();
        var unit = field.Limit?.Unit ?? Unit.Characters;
        var item = Enumerable.Range(0, lines.Count).MinBy(i => TextLength.Of(lines[i], unit));
        var line = lines[item].TrimEnd();
        if (ClosingSentence.Of(input.Platform.Language, field, [term]) is not { } sentence)
            return null;
        var longer = ClosingSentence.After(line, sentence);
        var changed = new FieldValue.Items([.. lines.Select((l, i) => i == item ? longer : l)]);
        return rules.Allows(field, changed) ? new(MoveKind.Add, field, item, term, changed, pick, Candidate.SlotOf(field, item)) : null;
    }

    /// <summary>The words of a missing pick that a field of words still needs, so that it is found: those that no field has, or all where the platform does not combine fields.</summary>
    public static Candidate? Words(MovesInput input, MoveRules rules, int pick, Field field, IReadOnlyList<string> missing)
    {
        var text = input.Copy.TryGetValue(field.Key, out var value) ? string.Join(' ', value.Units(field.Shape)) : "";
        var there = Tokens.Of(text).Select(t => rules.KeyOf(t.Word)).ToHashSet(StringComparer.Ordinal);
        var words = input.Platform.Search.WordsCombine ? missing : Tokens.Of(input.Terms[pick].Text).Select(t => t.Word);
        var added = string.Join(' ', words.Where(w => there.Add(rules.KeyOf(w))));
        if (added.Length == 0)
            return null;
        var comma = field.Separator.Trim();
        var changed = new FieldValue.Text(
            text.Trim().Length == 0 ? added : $"{text.TrimEnd()}{(comma.Length > 0 && text.Contains(comma) ? comma : "")} {added}"
        );
        return rules.Allows(field, changed) ? new(MoveKind.Words, field, null, added, changed, pick, Candidate.End(field)) : null;
    }

    /// <summary>Values of attributes that are empty and have the words which a missing pick needs.</summary>
    public static IEnumerable<Candidate> Attributes(MovesInput input, MoveRules rules, int pick, Field field, IReadOnlyList<string> missing)
    {
        var filled = input.Copy.GetValueOrDefault(field.Key) is FieldValue.Choices choices
            ? choices.Values
            : new Dictionary<string, IReadOnlyList<string>>();
        var path = input.Platform.Fields.FirstOrDefault(f => f.Shape == FieldShape.Path) is { } category
            ? input.Copy.GetValueOrDefault(category.Key)?.Units(category.Shape) ?? []
            : [];
        var needed = (input.Platform.Search.WordsCombine ? missing : [.. Tokens.Of(input.Terms[pick].Text).Select(t => t.Word)])
            .Select(rules.KeyOf)
            .ToHashSet(StringComparer.Ordinal);
        foreach (var rule in field.Attributes.Where(a => a.OpenIn(path) && filled.GetValueOrDefault(a.Name) is null or { Count: 0 }))
        foreach (var option in rule.Options)
        {
            if (!needed.IsSubsetOf(Tokens.Of(option).Select(t => rules.KeyOf(t.Word))) || !rules.MaySay(option))
                continue;
            var changed = new FieldValue.Choices(new Dictionary<string, IReadOnlyList<string>>(filled) { [rule.Name] = [option] });
            if (rules.Allows(field, changed))
                yield return new(MoveKind.Attribute, field, null, $"{rule.Name}: {option}", changed, pick, $"{field.Key}#{rule.Name}");
        }
    }

    /// <summary>Each word of a field of words that stands twice in it, cut once.</summary>
    public static IEnumerable<Candidate> Repeats(MovesInput input, MoveRules rules, Field field)
    {
        var text = input.Copy.TryGetValue(field.Key, out var value) ? string.Join(' ', value.Units(field.Shape)) : "";
        foreach (var word in Tokens.Of(text).GroupBy(t => rules.KeyOf(t.Word)).Where(g => g.Count() is > 1 and <= 10))
        {
            var shorter = word.Skip(1).Reverse().Aggregate(text, (t, w) => Cut.Of(t, w.Start, w.Length));
            var changed = new FieldValue.Text(shorter);
            if (rules.Allows(field, changed))
                yield return new(MoveKind.Free, field, null, word.First().Word, changed, -1, $"{field.Key}#{word.Key}");
        }
    }

    private static string SeparatorIn(Field field) => field.Shape is FieldShape.Line or FieldShape.Text ? field.Separator : "";
}
