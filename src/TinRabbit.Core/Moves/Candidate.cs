using TinRabbit.Core.Edits;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Moves;

/// <summary>
/// An edit that keeps every rule, before it is weighed; <see cref="Pick"/> is the number of the pick that it is for, −1 for none, and
/// <see cref="Slot"/> what it excludes other edits from.
/// </summary>
internal sealed record Candidate(MoveKind Kind, Field Field, int? Item, string Text, FieldValue Value, int Pick, string Slot)
{
    /// <summary>The slot of an item of a field, or of a phrase of its text.</summary>
    public static string SlotOf(Field field, int item) => $"{field.Key}#{item}";

    /// <summary>The slot of an edit of a text: the phrase in which it first differs.</summary>
    public static string SlotOfChange(Field field, string before, string after)
    {
        var same = 0;
        while (same < before.Length && same < after.Length && char.ToUpperInvariant(before[same]) == char.ToUpperInvariant(after[same]))
            same++;
        return SlotOf(field, Math.Max(0, TitlePhrases.Of(before[..same], field.Separator).Texts.Count - 1));
    }

    /// <summary>The slot of the front of a field.</summary>
    public static string Front(Field field) => $"{field.Key}:front";

    /// <summary>The slot of the end of a field.</summary>
    public static string End(Field field) => $"{field.Key}:end";
}
