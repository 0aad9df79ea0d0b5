namespace TinRabbit.Core.Calibrating;

/// <summary>What of a platform's profile a change is about.</summary>
public enum ProfileChangeKind
{
    /// <summary>Whether a fold is on.</summary>
    Fold,

    /// <summary>Whether a field is searched.</summary>
    Field,

    /// <summary>Whether only the first characters of a field are searched.</summary>
    IndexedFirst,

    /// <summary>Whether a search's words may be in different fields.</summary>
    WordsCombine,
}
