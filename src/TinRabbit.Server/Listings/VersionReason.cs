namespace TinRabbit.Server.Listings;

/// <summary>Why a version of a listing was saved.</summary>
public enum VersionReason
{
    /// <summary>A longer time without a save came before the next one.</summary>
    Pause,
    ByHand,
    Sent,
    Published,

    // Each of these saves the text that was there before.
    BulkEdit,
    LinksRemoved,
    Import,
    PageAdded,
    Undo,
    OtherWindow,
    BroughtOver,
    Moves,
    Attribute,
    Move,
    DerivedText,
    Word,
    Fill,
    Restore,
    Title,
    Fix,

    /// <summary>A reason that only an older program knows.</summary>
    Other,
}
