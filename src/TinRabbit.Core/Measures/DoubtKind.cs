namespace TinRabbit.Core.Measures;

/// <summary>Why a number looks wrong.</summary>
public enum DoubtKind
{
    /// <summary>More titles hold the phrase than listings compete.</summary>
    Titles,

    /// <summary>Very much searched, and hardly any title holds it.</summary>
    Untitled,

    /// <summary>Hardly any title holds it for how much it is searched, by itself or against the shelf.</summary>
    FewTitles,

    /// <summary>Competition far from what such a volume usually has here.</summary>
    Competition,

    /// <summary>The forms of the term share one volume: a source that groups them.</summary>
    Grouped,

    /// <summary>The history says another volume.</summary>
    History,

    /// <summary>Measured too long ago.</summary>
    Old,
}
