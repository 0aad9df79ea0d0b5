namespace TinRabbit.Core.Matching;

/// <summary>Where a match stands in the original text.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Item">The unit within the field: 0 for a text, the position in a list, attribute values counted in order.</param>
/// <param name="Start">First UTF-16 unit.</param>
/// <param name="Length">Length in UTF-16 units.</param>
public sealed record Span(string Field, int Item, int Start, int Length);
