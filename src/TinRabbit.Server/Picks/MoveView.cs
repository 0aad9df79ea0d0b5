using TinRabbit.Core.Moves;

namespace TinRabbit.Server.Picks;

/// <summary>One edit, and what it gains.</summary>
/// <param name="Sentence">What it does, as a sentence without its full stop.</param>
/// <param name="Slot">What it excludes other moves from.</param>
/// <param name="Pick">The pick that it is for; null for a word that is cut.</param>
/// <param name="Text">What it puts in, brings together or cuts.</param>
/// <param name="Before">The text that it changes, as it is: of the field, or of the item; empty where there is none.</param>
/// <param name="After">That text after it.</param>
/// <param name="Value">The field's new value.</param>
/// <param name="Gain">Grip after it − grip before.</param>
/// <param name="Reach">Reach after it − reach before.</param>
/// <param name="Loses">Picks that the listing no longer holds after it.</param>
public sealed record MoveView(
    MoveKind Kind,
    string Sentence,
    string Field,
    string Slot,
    string? Pick,
    string Text,
    string Before,
    string After,
    JsonNode? Value,
    double Gain,
    double Reach,
    IReadOnlyList<string> Loses
)
{
    /// <summary>A move as it is shown beside the texts that it changes.</summary>
    public static MoveView Of(Move move, Platform platform, IReadOnlyDictionary<string, FieldValue> copy)
    {
        var field = platform.Find(move.Field)!;
        var before = copy.GetValueOrDefault(move.Field) is { } value ? TextOf(value, field, move) : "";
        return new(
            move.Kind,
            MoveTexts.Of(move, field, before),
            move.Field,
            move.Slot,
            move.Pick,
            move.Text,
            before,
            TextOf(move.Value, field, move),
            CopyJson.WriteValue(move.Value),
            move.Gain,
            move.Reach,
            move.Loses
        );
    }

    private static string TextOf(FieldValue value, Field field, Move move) =>
        move.Item is { } item ? value.Units(field.Shape).ElementAtOrDefault(item) ?? ""
        : move.Kind == MoveKind.Attribute ? ""
        : string.Join(' ', value.Units(field.Shape));
}
