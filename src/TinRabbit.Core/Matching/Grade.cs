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
