namespace TinRabbit.Core.Matching;

/// <summary>How firmly a listing holds a term, the weakest first.</summary>
public enum Grade : byte
{
    /// <summary>Some word is lacking, or its words stand apart where the platform does not combine them.</summary>
    Missing,

    /// <summary>Every word stands in some indexed unit, and the platform combines them.</summary>
    Spread,

    /// <summary>One unit has every word, in any order.</summary>
    Together,

    /// <summary>One unit has the phrase under the platform's folds.</summary>
    Inflected,

    /// <summary>One unit has the phrase letter for letter, case and diacritics aside.</summary>
    Whole,
}

/// <summary>Where a match stands in the original text.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Item">The unit within the field: 0 for a text, the position in a list, attribute values counted in order.</param>
/// <param name="Start">First UTF-16 unit.</param>
/// <param name="Length">Length in UTF-16 units.</param>
public sealed record Span(string Field, int Item, int Start, int Length);

/// <summary>A missing word that the listing has in a form which this platform does not fold.</summary>
/// <param name="Needs">The word, or the two words, in the term.</param>
/// <param name="Has">The form that the listing has.</param>
/// <param name="Fold">The fold that would make them the same; several joined by + where one alone would not.</param>
public sealed record NearMiss(string Needs, string Has, string Fold);
