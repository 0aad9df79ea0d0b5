namespace TinRabbit.Server.Storage;

/// <summary>Why a backup was made.</summary>
public enum BackupKind
{
    /// <summary>By itself, once a day.</summary>
    Daily,

    /// <summary>By the owner.</summary>
    Manual,

    /// <summary>Before another backup was restored.</summary>
    Restore,

    /// <summary>Before a newer program changed the database.</summary>
    Update,
}
