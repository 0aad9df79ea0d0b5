namespace TinRabbit.Server.Storage;

/// <summary>What takes a change back.</summary>
public enum ReversalKind
{
    /// <summary>What was deleted comes back.</summary>
    Restore,

    /// <summary>What was added is deleted.</summary>
    Delete,

    /// <summary>What was renamed gets its name back, and an edited change note its text.</summary>
    Rename,

    /// <summary>Pages, texts and pictures that were changed become what they were.</summary>
    Revert,
}
