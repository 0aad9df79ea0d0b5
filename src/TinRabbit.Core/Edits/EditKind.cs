namespace TinRabbit.Core.Edits;

/// <summary>What an edit of many listings does.</summary>
public enum EditKind
{
    /// <summary>Replaces a text by another.</summary>
    Replace,

    /// <summary>Adds a tag.</summary>
    AddTag,

    /// <summary>Removes a tag.</summary>
    RemoveTag,
}
