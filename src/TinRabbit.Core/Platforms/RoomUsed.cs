namespace TinRabbit.Core.Platforms;

/// <summary>How much of a field's room is used.</summary>
/// <param name="Used">Used by the text, or by each item, in the limit's unit.</param>
/// <param name="Items">Items that are not empty; 1 or 0 for a text.</param>
/// <param name="Over">By how much the text, or the items together, pass the limit; 0 when they fit.</param>
/// <param name="ItemsOver">By how many items the list passes its limit.</param>
public sealed record RoomUsed(IReadOnlyList<int> Used, int Items, int Over, int ItemsOver)
{
    /// <summary>Whether everything fits.</summary>
    public bool Fits => Over == 0 && ItemsOver == 0;

    /// <summary>How much of a field is filled: items of a list of phrases, otherwise units of its text; null where the field has no limit.</summary>
    public (int Used, int Max)? Filled(Field field) =>
        field.Shape == FieldShape.Phrases && field.Limit?.MaxItems is { } most ? (Items, most)
        : field.Limit?.Max is { } max ? (Used.Sum(), max)
        : null;

    /// <summary>Measures a field.</summary>
    public static RoomUsed Of(Field field, FieldValue? value)
    {
        var unit = field.Limit?.Unit ?? Unit.Characters;
        var texts = value switch
        {
            null => [],
            FieldValue.Text t => [t.Value],
            FieldValue.Items i when field.Shape == FieldShape.Words => [string.Join(' ', i.Values)],
            FieldValue.Items i => i.Values,
            _ => value.Units(field.Shape),
        };
        var used = texts.Select(t => TextLength.Of(field.Shape == FieldShape.Words ? SingleSpaced(t) : t, unit)).ToArray();
        var items = texts.Count(t => !string.IsNullOrWhiteSpace(t));
        return new(
            used,
            items,
            field.Limit?.Max is { } max ? used.Sum(u => Math.Max(0, u - max)) : 0,
            field.Limit?.MaxItems is { } most ? Math.Max(0, items - most) : 0
        );
    }

    private static string SingleSpaced(string text) => string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}
