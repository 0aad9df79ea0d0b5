namespace TinRabbit.Server.Storage;

/// <summary>What became of something that a person wrote.</summary>
public enum SaveResult
{
    Saved,

    /// <summary>It is stored already, whoever saved it.</summary>
    Unchanged,

    /// <summary>Somebody else saved something else meanwhile; nothing was changed.</summary>
    Conflict,
}
