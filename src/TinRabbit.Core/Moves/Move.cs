using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Moves;

/// <summary>One edit, and exactly what it gains.</summary>
/// <param name="Kind">What it does.</param>
/// <param name="Field">The key of the field that it changes.</param>
/// <param name="Item">The item of a list field, from 0; null for a text.</param>
/// <param name="Slot">What it excludes other moves from: the field's key with <c>#item</c>, <c>:front</c> or <c>:end</c>. Of several in one slot, one can be made.</param>
/// <param name="Text">What it puts in, brings together or cuts.</param>
/// <param name="Value">The field's new value.</param>
/// <param name="Gain">Grip after it − grip before, both weighed; more than 0, or 0 for a repeated word whose cut lowers no grade.</param>
/// <param name="Reach">Reach after it − reach before.</param>
/// <param name="Loses">Picks that the listing holds before it and no longer after.</param>
public sealed record Move(
    MoveKind Kind,
    string Field,
    int? Item,
    string Slot,
    string Text,
    FieldValue Value,
    double Gain,
    double Reach,
    IReadOnlyList<string> Loses
)
{
    /// <summary>The pick that it is for; null for a word that is cut.</summary>
    public string? Pick { get; init; }

    /// <summary>UTF-16 units that differ between the field's old and new texts, without what both begin and end with.</summary>
    public int Changed { get; init; }
}
